"""Shares, links and invitations. Accounts themselves are those of Django."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Share(models.Model):
    """A scene that its owner lets somebody else of the studio look at, or work on."""

    class May(models.TextChoices):
        LOOK = "look"
        WORK = "work"

    scene = models.ForeignKey("scenes.Scene", on_delete=models.CASCADE, related_name="shares")
    member = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shares")
    may = models.CharField(max_length=4, choices=May.choices, default=May.LOOK)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["scene", "member"], name="one_share_a_member")]

    def __str__(self) -> str:
        return f"{self.member} may {self.may}: {self.scene}"


class Link(models.Model):
    """Shows one scene to whoever holds its token, until it lapses or is withdrawn. Only a hash of the token is kept."""

    scene = models.ForeignKey("scenes.Scene", on_delete=models.CASCADE, related_name="links")
    token_hash = models.CharField(max_length=64, unique=True)
    created_at = models.DateTimeField(auto_now_add=True)
    lapses_at = models.DateTimeField()
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return f"a link to {self.scene}"


class Invitation(models.Model):
    """Lets one person choose a name and a password, once. `account` where it is for one that is there already."""

    token_hash = models.CharField(max_length=64, unique=True)
    account = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="+")
    name = models.CharField(max_length=60, blank=True)
    as_owner = models.BooleanField(default=False)
    created_at = models.DateTimeField(auto_now_add=True)
    lapses_at = models.DateTimeField()

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return f"an invitation for {self.name or 'an owner'}"


class Leaving(models.Model):
    """An account that is to be deleted with all it holds, once its day of grace is over."""

    account = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="leaving")
    asked_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.account} leaves"
