"""The jobs app."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.jobs"
    label = "jobs"

    def ready(self) -> None:
        """The register of instruments asks where one was used."""
        from . import used_with  # noqa: F401
