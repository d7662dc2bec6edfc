"""The app's registration."""

from django.apps import AppConfig


class PiecesConfig(AppConfig):
    """Pieces to build figures from."""

    name = "studio.pieces"
    default_auto_field = "django.db.models.BigAutoField"
