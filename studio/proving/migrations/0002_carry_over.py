"""Testers and the making log that stood in manifests become rows."""

from django.db import migrations

from studio.proving.carry import carry_over


def _carry(apps, schema_editor):
    designs = apps.get_model("designs", "Design").objects.select_related("head").exclude(head=None)
    heads = ((d.pk, d.head.data) for d in designs.iterator())
    carry_over(heads, apps.get_model("proving", "LogEntry"), apps.get_model("proving", "Tester"))


class Migration(migrations.Migration):
    dependencies = [("proving", "0001_initial")]
    operations = [migrations.RunPython(_carry, migrations.RunPython.noop)]
