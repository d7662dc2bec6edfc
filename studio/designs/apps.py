"""The app's registration."""

from django.apps import AppConfig


class DesignsConfig(AppConfig):
    """Designs with their revisions, part versions, typed texts, pages of notes and pictures."""

    name = "studio.designs"
    default_auto_field = "django.db.models.BigAutoField"
