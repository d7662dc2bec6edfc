"""The app's registration."""

from django.apps import AppConfig

from studio.jobs.kinds import register


class BenchConfig(AppConfig):
    """Computation on request: previews, drafts of shapes, vocabulary. Keeps nothing."""

    name = "studio.bench"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make settling, painting and reading documents known to the workers."""
        # The models that the workers need are loaded only now.
        from studio.bench import boards, figures, portraits  # noqa: PLC0415

        register(figures.KIND, figures.work, version=8)
        register(portraits.KIND, portraits.work, version=8)
        register(boards.KIND, boards.work, version=1, forgets=True)
