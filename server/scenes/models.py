"""Scenes and their revisions. A revision is a whole document; nothing in it is ever changed."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Scene(models.Model):
    """One piece as planned. Its documents are its revisions; its name is that of the newest.

    `gone_at` is when it was deleted: nobody finds it from then on but in the list of what is gone, and after a day of
    grace it is deleted with all that hangs on it. While an archive brings it, it is `coming`, and gone as well: where
    that breaks off, half a piece is found by nobody, and deleted in its time.
    """

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="scenes"
    )
    name = models.CharField(max_length=80)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    gone_at = models.DateTimeField(null=True, db_index=True)
    coming = models.BooleanField(default=False)

    class Meta:
        ordering = ["-changed_at"]

    def __str__(self) -> str:
        return self.name


class Revision(models.Model):
    """A whole saved state, packed; `parent` is what it was written from."""

    scene = models.ForeignKey(Scene, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    parent = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="+")
    packed = models.BinaryField()
    note = models.CharField(max_length=120, blank=True)
    kept_aside = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["scene", "number"], name="one_revision_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.scene} at revision {self.number}"


class Variant(models.Model):
    """A named line of revisions: `head` is what is shown, `tip` the furthest that redo reaches."""

    scene = models.ForeignKey(Scene, on_delete=models.CASCADE, related_name="variants")
    name = models.CharField(max_length=80)
    head = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")
    tip = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="+")

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["scene", "name"], name="one_variant_a_name")
        ]

    def __str__(self) -> str:
        return f"{self.scene}: {self.name}"
