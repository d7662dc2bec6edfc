"""The app's registration."""

from django.apps import AppConfig


class SizesConfig(AppConfig):
    """A design in other yarns and at other heights."""

    name = "studio.sizes"
    default_auto_field = "django.db.models.BigAutoField"
