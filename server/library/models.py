"""The person's own rows of the library; each stands in for, or beside, a generic one."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class OwnRow(models.Model):
    """A resin, colourant or solid as its owner has it, with a note of where its numbers are from."""

    class Kind(models.TextChoices):
        RESIN = "resin"
        COLOURANT = "colourant"
        SOLID = "solid"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="library_rows"
    )
    kind = models.CharField(max_length=10, choices=Kind)
    key = models.CharField(max_length=40)
    body = models.JSONField()
    source = models.CharField(max_length=300, blank=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["kind", "key"]
        constraints = [
            models.UniqueConstraint(fields=["owner", "kind", "key"], name="one_row_a_key")
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.key}"


class UsualAnswers(models.Model):
    """What a person has and does in every piece, as the core's `Usual`."""

    owner = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="usual_answers"
    )
    body = models.JSONField()
    changed_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"what {self.owner} has"
