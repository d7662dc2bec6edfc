"""What is left of a yarn, in grams."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("yarns", "0002_swatches")]

    operations = [migrations.AddField("yarn", "left_g", models.FloatField(blank=True, null=True))]
