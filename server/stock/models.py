"""What a person has on the shelf, and what they pay with."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class StockBook(models.Model):
    """All of it, as it was counted last; what the bench has used since is taken off when it is read."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="stock_book")
    currency = models.CharField(max_length=3, default="EUR")
    held = models.JSONField(default=list)
    kits = models.JSONField(default=list)
    counted_at = models.DateTimeField()

    def __str__(self) -> str:
        return f"the shelf of {self.owner}"
