"""The accounts app."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.accounts"
    label = "accounts"
