"""Bottles, and what their cups, pours, swatches and drops told of them."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Bottle(models.Model):
    """A row of the library that learns: as it was before, whole, so that it can always go back.

    before_own, before_source  whether that was a row of one's own already, and where it was from
    """

    class Kind(models.TextChoices):
        RESIN = "resin"
        COLOURANT = "colourant"

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="bottles")
    kind = models.CharField(max_length=10, choices=Kind)
    key = models.CharField(max_length=40)
    before = models.JSONField()
    before_own = models.BooleanField()
    before_source = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering = ["kind", "key"]
        constraints = [models.UniqueConstraint(fields=["owner", "kind", "key"], name="one_bottle_a_row")]

    def __str__(self) -> str:
        return f"bottle of {self.key}"


class BottleLog(models.Model):
    """One log, with what it was asked from and what it told; withdrawn, it stays and counts no more.

    asked   what was brought, whole; told, the core's own answer
    prior   mean and covariance that it was fitted from, scatter in it
    """

    class Kind(models.TextChoices):
        CUP = "cup"
        POUR = "pour"
        SWATCH = "swatch"
        DROPS = "drops"

    bottle = models.ForeignKey(Bottle, on_delete=models.CASCADE, related_name="logs")
    kind = models.CharField(max_length=8, choices=Kind)
    title = models.CharField(max_length=120)
    asked = models.JSONField()
    told = models.JSONField()
    prior = models.JSONField(default=dict)
    place = models.CharField(max_length=120, blank=True)
    made_at = models.DateTimeField()
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["made_at", "pk"]

    def __str__(self) -> str:
        return self.title
