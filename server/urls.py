"""The API under /api/, and the client for every other address."""

from django.urls import path, re_path

from .api import api
from .web.client import client, service_worker
from .web.errors import nothing_here

urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/", nothing_here),
    path("sw.js", service_worker),
    re_path(r"^(?!static/|api/).*$", client, name="client"),
]
