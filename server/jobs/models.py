"""A long computation, and what came of it."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Job(models.Model):
    """One question that takes long. Its digest is that of all it was asked with: the same is asked once.

    attempt  how many workers were lost on it before; the lease of an attempt is held in the queue's store
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        DONE = "done"
        FAILED = "failed"
        CANCELLED = "cancelled"

    OVER = (State.DONE, State.FAILED, State.CANCELLED)

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="jobs")
    kind = models.CharField(max_length=24)
    digest = models.CharField(max_length=40)
    document = models.BinaryField()
    parameters = models.JSONField(default=dict)
    state = models.CharField(max_length=9, choices=State, default=State.WAITING)
    attempt = models.PositiveSmallIntegerField(default=0)
    progress_fraction = models.FloatField(default=0.0)
    message = models.CharField(max_length=300, blank=True)
    result = models.BinaryField(null=True)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["-created_at"]
        indexes = [models.Index(fields=["owner", "kind", "digest"])]

    def __str__(self) -> str:
        return f"{self.kind} {self.id}"

    @property
    def is_over(self) -> bool:
        """True if nothing will change any more."""
        return self.state in self.OVER
