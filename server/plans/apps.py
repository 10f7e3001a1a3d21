"""The plans app."""

from django.apps import AppConfig


class PlansConfig(AppConfig):
    """Settings of the app."""

    name = "plans"
