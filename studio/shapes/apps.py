"""The app's registration."""

from django.apps import AppConfig

from studio.jobs.kinds import register


class ShapesConfig(AppConfig):
    """From shapes to rounds. Keeps nothing: what is drafted is kept by the part it is for."""

    name = "studio.shapes"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make the work on shapes known to the workers."""
        # The models that the workers need are loaded only now.
        from studio.shapes import fits, panels  # noqa: PLC0415

        register(fits.FIT, fits.work_fit, version=5)
        register(fits.COMPENSATE, fits.work_compensation, version=6, long=True)
        register(fits.COMPARE, fits.work_comparison, version=4, long=True)
        register(fits.FLAT, fits.work_flat, version=4, long=True)
        register(panels.SEWN, panels.work_sewn, version=4)
