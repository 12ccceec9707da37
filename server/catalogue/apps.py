"""The catalogue app."""

from django.apps import AppConfig


class CatalogueConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.catalogue"
    label = "catalogue"
