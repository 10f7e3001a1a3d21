"""The sheets app."""

from django.apps import AppConfig


class SheetsConfig(AppConfig):
    """Settings of the app."""

    name = "sheets"
