"""Sessions know whose they are. Those that are open stay open: they are carried over with their owner."""

import django.db.models.deletion
from django.conf import settings
from django.contrib.sessions.backends.db import SessionStore
from django.db import migrations, models


def carry_over(apps, schema_editor):
    """Every session that was open, from Django's own table, where there is one."""
    if "django_session" not in schema_editor.connection.introspection.table_names():
        return
    owned = apps.get_model("accounts", "OwnSession")
    known = set(apps.get_model("auth", "User").objects.values_list("pk", flat=True))
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("SELECT session_key, session_data, expire_date FROM django_session")
        rows = cursor.fetchall()
    for key, data, expires in rows:
        owner = SessionStore().decode(data).get("_auth_user_id")
        owner = int(owner) if owner and int(owner) in known else None
        owned.objects.create(session_key=key, session_data=data, expire_date=expires, user_id=owner)


class Migration(migrations.Migration):
    dependencies = [("accounts", "0002_tries"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.CreateModel(
            name="OwnSession",
            fields=[
                (
                    "session_key",
                    models.CharField(max_length=40, primary_key=True, serialize=False, verbose_name="session key"),
                ),
                ("session_data", models.TextField(verbose_name="session data")),
                ("expire_date", models.DateTimeField(db_index=True, verbose_name="expire date")),
                ("device", models.CharField(blank=True, max_length=60)),
                (
                    "user",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={"verbose_name": "session", "verbose_name_plural": "sessions", "abstract": False},
        ),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
        migrations.RunSQL("DROP TABLE IF EXISTS django_session", migrations.RunSQL.noop),
    ]
