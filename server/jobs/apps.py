"""The jobs app."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.jobs"
    label = "jobs"
