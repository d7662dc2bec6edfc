"""The app's registration."""

from django.apps import AppConfig


class YarnsConfig(AppConfig):
    """The yarn basket: yarns and swatches."""

    name = "studio.yarns"
    default_auto_field = "django.db.models.BigAutoField"
