"""The app's registration."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Who designs here: sign up, sign in, preferences."""

    name = "studio.accounts"
    default_auto_field = "django.db.models.BigAutoField"
