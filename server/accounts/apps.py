"""Who may come in."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Sign-in with Django's own accounts."""

    name = "accounts"
