"""The api app."""

from django.apps import AppConfig


class ApiConfig(AppConfig):
    """Settings of the app."""

    name = "api"
