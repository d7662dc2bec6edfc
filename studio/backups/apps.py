"""The app's registration."""

from django.apps import AppConfig


class BackupsConfig(AppConfig):
    """Backups and what restores them."""

    name = "studio.backups"
