"""Coupling sizes as the site's papers give them."""

import uuid

from django.db import models

from server.accounts.models import Site


class CouplingSize(models.Model):
    """One size of one series, with its value card."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="coupling_sizes")
    family = models.CharField(max_length=40)
    series = models.CharField(max_length=60)
    size = models.CharField(max_length=40)
    values = models.JSONField(default=dict)

    class Meta:
        ordering = ["series", "size"]
        constraints = [models.UniqueConstraint(fields=["site", "series", "size"], name="coupling_size_once_per_site")]

    def __str__(self) -> str:
        return f"{self.series} {self.size}"
