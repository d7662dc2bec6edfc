"""The app's registration."""

from django.apps import AppConfig


class BookletsConfig(AppConfig):
    """The written pattern as page, print and text."""

    name = "studio.booklets"
    default_auto_field = "django.db.models.BigAutoField"
