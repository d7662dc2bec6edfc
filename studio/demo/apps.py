"""The app's registration."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """The demo studio."""

    name = "studio.demo"
