"""How often somebody tried; takes the place of the tables of the throttle that was used before."""

from django.db import migrations, models

BEFORE = ("axes_accessattempt", "axes_accessattemptexpiration", "axes_accesslog", "axes_accessfailurelog")
"""Tables of the throttle that was used before, where there are any: nothing in them is needed any more."""


class Migration(migrations.Migration):
    dependencies = [("accounts", "0001_initial")]

    operations = [
        migrations.CreateModel(
            name="Tries",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("key", models.CharField(max_length=64, unique=True)),
                ("tries", models.PositiveIntegerField()),
                ("last", models.DateTimeField(db_index=True)),
            ],
        ),
        *(migrations.RunSQL(f"DROP TABLE IF EXISTS {table}", migrations.RunSQL.noop) for table in BEFORE),
    ]
