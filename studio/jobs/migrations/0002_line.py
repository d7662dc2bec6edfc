"""Whose turn it is: when a job was begun, how large it is, and the row that is held while one is taken."""

from django.conf import settings
from django.db import migrations, models
from django.db.models.functions import Length


def weigh(apps, schema_editor):
    """Answers that are kept already get their size."""
    apps.get_model("jobs", "Job").objects.filter(result__isnull=False).update(size=Length("result"))


class Migration(migrations.Migration):
    dependencies = [("jobs", "0001_initial"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.CreateModel(
            name="Line",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
            ],
        ),
        migrations.AddField("job", "begun", models.DateTimeField(null=True)),
        migrations.AddField("job", "size", models.PositiveIntegerField(default=0)),
        migrations.AddIndex("job", models.Index(fields=["owner", "begun"], name="jobs_job_owner_i_0be61d_idx")),
        migrations.RunPython(weigh, migrations.RunPython.noop),
    ]
