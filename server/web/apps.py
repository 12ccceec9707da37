"""The web app."""

from django.apps import AppConfig


class WebConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.web"
    label = "web"

    def ready(self) -> None:
        """Whatever time is stored can be read."""
        from django.db.backends.signals import connection_created

        from .times import on_connection

        connection_created.connect(on_connection, dispatch_uid="times are bounded")
