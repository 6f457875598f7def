"""Meshes that were brought in; kept once an owner, by the hash of their content."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Mesh(models.Model):
    """A closed mesh, mended and packed; scenes point at `key`. `spread_ml`: how far its volume is a guess."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="meshes"
    )
    key = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    packed = models.BinaryField()
    triangles_count = models.PositiveIntegerField()
    spread_ml = models.FloatField(default=0.0)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created_at"]
        constraints = [
            models.UniqueConstraint(fields=["owner", "key"], name="one_mesh_an_owner")
        ]

    def __str__(self) -> str:
        return self.name
