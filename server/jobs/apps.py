"""The jobs app."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Settings of the app."""

    name = "jobs"
