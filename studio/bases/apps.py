"""The app's registration."""

from django.apps import AppConfig


class BasesConfig(AppConfig):
    """A design's base, designs compared, parts gone on as others."""

    name = "studio.bases"
    default_auto_field = "django.db.models.BigAutoField"
