"""The app's registration."""

from importlib import import_module

from django.apps import AppConfig


class CommissionsConfig(AppConfig):
    """Commissions."""

    name = "studio.commissions"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make known whose commissions these are."""
        import_module("studio.commissions.policy")
