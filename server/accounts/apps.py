"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """People who sign in."""

    name = "accounts"

    def ready(self) -> None:
        """Sessions are noted as devices when somebody signs in or out."""
        from accounts import devices  # noqa: F401
