"""The demo app."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.demo"
    label = "demo"
