"""The plant app."""

from django.apps import AppConfig


class PlantConfig(AppConfig):
    """Named by its path, since the folder stands inside `server`."""

    name = "server.plant"
    label = "plant"
