"""The one way to a scene. Whatever hangs on a scene is reached through it, so that no second rule is needed."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any, Literal

from django.db.models import Q, QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404

from .models import Link, Share
from .tokens import hash_of

May = Literal["look", "work", "own"]
"""What somebody may do with a scene; each holds those before it."""
SHARED: dict[May, list[str]] = {"look": [Share.May.LOOK, Share.May.WORK], "work": [Share.May.WORK], "own": []}
_SCENES: Any = Share._meta.get_field("scene").related_model


class MayNot(Exception):
    """A scene that is seen, and something that its owner has not allowed; `message` says so."""

    def __init__(self, may: May, owner: str) -> None:
        self.message = (
            f"Only {owner}, whose piece this is, can do that."
            if may == "own"
            else f"You may look at this piece, not change it: ask {owner}, or bring a copy of its file in as your own."
        )
        super().__init__(self.message)


def scenes_for(user: Any, may: May = "look") -> QuerySet[Any]:
    """The scenes that somebody may look at, work on, or own; what was deleted is none of them."""
    if not user.is_authenticated:
        return _SCENES.objects.none()
    shared = Share.objects.filter(member=user, may__in=SHARED[may]).values("scene_id")
    return _SCENES.objects.filter(Q(owner=user) | Q(pk__in=shared), gone_at=None, owner__is_active=True)


def scene_for(user: Any, scene_id: int, may: May) -> Any:
    """One of them. Http404 where it is not seen at all, MayNot where it is seen and no more."""
    scene = get_object_or_404(scenes_for(user).select_related("owner"), pk=scene_id)
    if not scenes_for(user, may).filter(pk=scene_id).exists():
        raise MayNot(may, scene.owner.get_username())
    return scene


def scene_asked(request: HttpRequest, scene_id: int) -> Any:
    """The scene that a request is about: to look at where it only reads, to work on where it changes something."""
    return scene_for(request.user, scene_id, "look" if request.method in ("GET", "HEAD") else "work")


def may_of(user: Any, scene: Any) -> May:
    """The most that somebody may do with a scene that they see."""
    if scene.owner_id == user.pk:
        return "own"
    return "work" if scenes_for(user, "work").filter(pk=scene.pk).exists() else "look"


def owners_seen_by(user: Any) -> list[int]:
    """Oneself, and whoever shares a scene with one: whose shapes one may need to see it."""
    if not user.is_authenticated:
        return []
    return [user.pk, *Share.objects.filter(member=user, scene__gone_at=None).values_list("scene__owner_id", flat=True)]


def linked_scene(token: str) -> Any:
    """The scene that a link shows; Http404 once it has lapsed, was withdrawn, or never was."""
    link = get_object_or_404(
        Link.objects.select_related("scene__owner"), token_hash=hash_of(token), withdrawn_at=None,
        lapses_at__gt=datetime.now(UTC), scene__gone_at=None, scene__owner__is_active=True,
    )
    return link.scene
