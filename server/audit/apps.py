"""The audit app."""

from django.apps import AppConfig


class AuditConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.audit"
    label = "audit"
