"""What can be done with who sees a scene: share it, take that back, make a link, withdraw it."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from gondola_core.errors import GondolaError

from .models import Link, Share
from .tokens import new_token

MOST_LINKS = 20
"""Links of a scene that stand at one time."""
LONGEST_LINK_DAYS = 365


@transaction.atomic
def share(*, scene: Any, name: str, may: str) -> None:
    """Let a member look or work; GondolaError if there is nobody of that name, or it is the owner."""
    member = User.objects.filter(username__iexact=name.strip(), is_active=True).first()
    if member is None:
        raise GondolaError("Nobody in this studio has that name: see who is here under your account.", "name")
    if member.pk == scene.owner_id:
        raise GondolaError("That is whose piece this is already.", "name")
    Share.objects.update_or_create(scene=scene, member=member, defaults={"may": may})


def unshare(*, scene: Any, name: str) -> None:
    """Take a share back; nothing happens where there is none."""
    Share.objects.filter(scene=scene, member__username__iexact=name).delete()


@transaction.atomic
def make_link(*, scene: Any, days: int) -> tuple[Link, str]:
    """A link that lapses after some days, and its token, which is told this once."""
    now = datetime.now(UTC)
    if Link.objects.filter(scene=scene, withdrawn_at=None, lapses_at__gt=now).count() >= MOST_LINKS:
        raise GondolaError(f"This piece has {MOST_LINKS} links already: withdraw one first.", "")
    token, hashed = new_token()
    return Link.objects.create(scene=scene, token_hash=hashed, lapses_at=now + timedelta(days=days)), token


def withdraw(*, scene: Any, link_id: int) -> None:
    """The link shows nothing from now on."""
    Link.objects.filter(scene=scene, pk=link_id, withdrawn_at=None).update(withdrawn_at=datetime.now(UTC))


def links_of(scene: Any) -> list[Link]:
    """Those that still show something."""
    return list(Link.objects.filter(scene=scene, withdrawn_at=None, lapses_at__gt=datetime.now(UTC)))
