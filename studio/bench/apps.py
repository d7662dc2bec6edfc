"""The app's registration."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """Computation on request: previews, drafts of shapes, vocabulary. Keeps nothing."""

    name = "studio.bench"
    default_auto_field = "django.db.models.BigAutoField"
