"""The app's registration."""

from importlib import import_module

from django.apps import AppConfig


class TranslatingConfig(AppConfig):
    """Translators and what they wrote."""

    name = "studio.translating"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make known whose translators these are."""
        import_module("studio.translating.policy")
