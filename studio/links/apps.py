"""The app's registration."""

from django.apps import AppConfig


class LinksConfig(AppConfig):
    """Links to designs."""

    name = "studio.links"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from studio.links import policy  # noqa: F401, PLC0415 - registers its rules
