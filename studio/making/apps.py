"""The app's registration."""

from importlib import import_module

from django.apps import AppConfig

from studio.jobs.kinds import register


class MakingConfig(AppConfig):
    """Makings and their logs."""

    name = "studio.making"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make known whose rows these are, and make settling parts on their way known to the workers."""
        import_module("studio.making.policy")
        stages = import_module("studio.making.stages")
        register(stages.KIND, stages.work, version=1)
