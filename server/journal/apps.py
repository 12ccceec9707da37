"""The journal app."""

from django.apps import AppConfig


class JournalConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.journal"
    label = "journal"
