"""The owner of the demo."""

from __future__ import annotations

from django.contrib.auth.models import User

DEMO_OWNER = "demo"


def demo_owner() -> User:
    """The demo's owner, made at the first call; no password signs them in."""
    owner, made = User.objects.get_or_create(username=DEMO_OWNER, defaults={"is_staff": True})
    if made:
        owner.set_unusable_password()
        owner.save(update_fields=["password"])
    return owner
