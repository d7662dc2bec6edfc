"""The app's registration."""

from django.apps import AppConfig

from studio.jobs.kinds import register


class ReleasesConfig(AppConfig):
    """Releases of designs."""

    name = "studio.releases"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Register its rules, and make printing known to the workers."""
        from studio.releases import policy, prints  # noqa: F401, PLC0415

        register(prints.KIND, prints.work, version=1, long=True)
