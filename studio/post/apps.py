"""The app's registration."""

from importlib import import_module

from django.apps import AppConfig


class PostConfig(AppConfig):
    """Letters."""

    name = "studio.post"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make known whose letters these are."""
        import_module("studio.post.policy")
