"""The hearing app."""

from django.apps import AppConfig


class HearingConfig(AppConfig):
    """Settings of the app."""

    name = "hearing"
