"""Runs and their events. An event is never changed and never taken away: what is undone is undone by another."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models
from scenes.models import Scene


class Run(models.Model):
    """The pour days of a scene, followed live or rehearsed.

    packed   the plan that is followed, as a revision is stored
    zone     in which the person reads the clock
    speed    seconds of its clock in one of ours; ahead_s what was skipped of waits: both only in a rehearsal
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="runs")
    scene = models.ForeignKey(Scene, on_delete=models.CASCADE, related_name="runs")
    packed = models.BinaryField()
    zone = models.CharField(max_length=64, default="UTC")
    rehearsal = models.BooleanField(default=False)
    seed = models.PositiveIntegerField(default=0)
    speed = models.FloatField(default=1.0)
    ahead_s = models.FloatField(default=0.0)
    started_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-started_at"]

    def __str__(self) -> str:
        return f"{'rehearsal' if self.rehearsal else 'run'} of {self.scene}"


class RunEvent(models.Model):
    """One event, by the id that its device gave it: taken in twice it is the same."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="events")
    number = models.PositiveIntegerField()
    event_id = models.CharField(max_length=40)
    body = models.JSONField()
    taken_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["run", "number"], name="one_event_a_number"),
            models.UniqueConstraint(fields=["run", "event_id"], name="one_event_an_id"),
        ]

    def __str__(self) -> str:
        return f"{self.body.get('kind')} {self.event_id}"
