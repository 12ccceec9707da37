"""The describe app."""

from django.apps import AppConfig


class DescribeConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.describe"
    label = "describe"
