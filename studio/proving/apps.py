"""The app's registration."""

from django.apps import AppConfig


class ProvingConfig(AppConfig):
    """Making log and testers."""

    name = "studio.proving"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from studio.proving import policy  # noqa: F401, PLC0415 - registers its rules
