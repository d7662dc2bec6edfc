"""What was a 'sample' is a swatch, as the trade says."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("yarns", "0001_initial"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.RenameModel("Sample", "Swatch"),
        migrations.AlterField(
            "swatch",
            "owner",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="swatches", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AlterField(
            "swatch",
            "yarn",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="swatches", to="yarns.yarn"
            ),
        ),
    ]
