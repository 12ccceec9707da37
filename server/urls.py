"""The API under /api/, and the client for every other address."""

from django.urls import path, re_path

from .api import api
from .web.client import client
from .web.errors import nothing_here

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", nothing_here),
    re_path(r"^(?!static/|api/).*$", client, name="client"),
]
