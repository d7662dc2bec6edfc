"""The app's registration."""

from importlib import import_module

from django.apps import AppConfig


class MakingConfig(AppConfig):
    """Makings and their logs."""

    name = "studio.making"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make known whose rows these are."""
        import_module("studio.making.policy")
