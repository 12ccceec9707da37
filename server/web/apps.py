"""The web app."""

from django.apps import AppConfig


class WebConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.web"
    label = "web"
