"""What was seen, said, photographed and learnt of a piece, each at its moment and its place."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from scenes.models import Scene


class Entry(models.Model):
    """One entry. Taken back it stays, and is not shown.

    body  by its kind: a fault's kind and size, a lesson's pins, a photograph's corners
    """

    class Kind(models.TextChoices):
        NOTE = "note"
        PHOTOGRAPH = "photograph"
        FAULT = "fault"
        LESSON = "lesson"

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="entries")
    scene = models.ForeignKey(Scene, on_delete=models.CASCADE, related_name="entries")
    kind = models.CharField(max_length=10, choices=Kind)
    at = models.DateTimeField()
    text = models.CharField(max_length=2000, blank=True)
    x_mm = models.FloatField(null=True)
    depth_mm = models.FloatField(null=True)
    behind_mm = models.FloatField(null=True)
    body = models.JSONField(default=dict)
    taken_back_at = models.DateTimeField(null=True)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["at", "pk"]
        indexes = [
            models.Index(fields=["scene", "taken_back_at", "at"], name="entries_of_scene"),
            models.Index(fields=["owner", "kind"], name="entries_by_kind"),
        ]

    def __str__(self) -> str:
        return f"{self.kind} of {self.scene}"


class Photograph(models.Model):
    """A picture: its original, without where it was taken, in a file of the data folder; a smaller one to look at."""

    entry = models.OneToOneField(Entry, on_delete=models.CASCADE, related_name="photograph")
    name = models.CharField(max_length=120)
    form = models.CharField(max_length=5)
    digest = models.CharField(max_length=64)
    bytes_count = models.PositiveIntegerField()
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    small = models.BinaryField()

    def __str__(self) -> str:
        return self.name
