"""The app's registration."""

from django.apps import AppConfig


class LeavingConfig(AppConfig):
    """Taking everything along, and closing a studio for good."""

    name = "studio.leaving"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Register its rules."""
        from studio.leaving import policy  # noqa: F401, PLC0415
