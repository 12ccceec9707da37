"""The reports app."""

from django.apps import AppConfig


class ReportsConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.reports"
    label = "reports"

    def ready(self) -> None:
        """A record is issued when it is closed."""
        from server.jobs.signals import record_closed

        from .issue import on_closed

        record_closed.connect(on_closed, dispatch_uid="issue the record")
