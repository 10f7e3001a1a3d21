"""The studios app."""

from django.apps import AppConfig


class StudiosConfig(AppConfig):
    """Settings of the app."""

    name = "studios"
