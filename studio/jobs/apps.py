"""The app's registration."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Jobs: questions whose answers are worked out in another process."""

    name = "studio.jobs"
    default_auto_field = "django.db.models.BigAutoField"
