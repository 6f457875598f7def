"""The owner of the demo."""

from __future__ import annotations

from django.contrib.auth.models import User

DEMO_OWNER = "demo"


def demo_owner() -> User:
    """The demo's owner, made at the first call; no password signs them in."""
    owner, made = User.objects.get_or_create(username=DEMO_OWNER)
    if made or not owner.is_staff:
        owner.is_staff = True
        owner.set_unusable_password()
        owner.save(update_fields=["password", "is_staff"])
    return owner
