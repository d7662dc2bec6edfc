"""The app's registration."""

from django.apps import AppConfig

from studio.jobs.kinds import register


class SizesConfig(AppConfig):
    """A design in other yarns and at other heights."""

    name = "studio.sizes"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make the drafting of many sizes known to the workers."""
        from studio.sizes import drafting  # noqa: PLC0415

        register(drafting.KIND, drafting.work, version=1)
