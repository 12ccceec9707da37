"""The instruments app."""

from django.apps import AppConfig


class InstrumentsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.instruments"
    label = "instruments"
