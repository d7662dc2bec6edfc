"""The app's registration."""

from django.apps import AppConfig


class ProvingConfig(AppConfig):
    """Making log and testers."""

    name = "studio.proving"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from studio.proving import policy  # noqa: F401, PLC0415 - registers its rules
        from studio.proving.call_shown import left_by_testing  # noqa: PLC0415 - once all apps are there
        from studio.releases.blockers import register  # noqa: PLC0415

        register(left_by_testing)
