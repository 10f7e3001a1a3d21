"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """People who sign in."""

    name = "accounts"
