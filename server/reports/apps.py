"""The reports app."""

from django.apps import AppConfig


class ReportsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.reports"
    label = "reports"
