"""Stills: pictures of the finished block that a person keeps with a scene."""

from __future__ import annotations

from django.db import models
from scenes.models import Scene


class Still(models.Model):
    """A still: the eye that saw it, of which revision, and the picture as a PNG file."""

    scene = models.ForeignKey(Scene, on_delete=models.CASCADE, related_name="stills")
    job_id = models.UUIDField(unique=True)
    revision = models.PositiveIntegerField()
    stand = models.JSONField()
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    png = models.BinaryField()
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at", "-pk"]

    def __str__(self) -> str:
        return f"still of {self.scene}"
