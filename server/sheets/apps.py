"""The sheets app."""

from django.apps import AppConfig


class SheetsConfig(AppConfig):
    """Settings of the app."""

    name = "sheets"

    def ready(self) -> None:
        """Make its kind of long work known."""
        from jobs.kinds import add

        from sheets.printing import SHEET

        add(SHEET)
