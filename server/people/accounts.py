"""What can be done with accounts: invite, join, sign out everywhere, leave. Each is one transaction."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import transaction
from django.shortcuts import get_object_or_404

from gondola_core.errors import GondolaError

from .models import Invitation, Leaving
from .tokens import hash_of, new_token

INVITED_FOR = timedelta(days=7)
GRACE = timedelta(days=1)
"""How long a deletion can be taken back."""
LONGEST_NAME = 60


@transaction.atomic
def invite(*, name: str = "", as_owner: bool = False, account: User | None = None) -> tuple[Invitation, str]:
    """An invitation to join, or to a new password for one who is there; and its token, which is told this once."""
    token, hashed = new_token()
    if account is not None:
        Invitation.objects.filter(account=account).delete()
    made = Invitation.objects.create(
        token_hash=hashed, name=account.get_username() if account else name.strip()[:LONGEST_NAME],
        as_owner=as_owner, account=account, lapses_at=datetime.now(UTC) + INVITED_FOR,
    )
    return made, token


def invitation_of(token: str) -> Invitation:
    """The invitation of a token; Http404 once it was used or has lapsed."""
    return get_object_or_404(Invitation, token_hash=hash_of(token), lapses_at__gt=datetime.now(UTC))


@transaction.atomic
def join(*, token: str, name: str, password: str) -> User:
    """Make the account, or set its password; an invitation works once.

    GondolaError for a name that is taken or odd, or a password that is too weak.
    """
    invitation = invitation_of(token)
    account = invitation.account
    if account is None:
        account = User(username=free_name(name), is_staff=invitation.as_owner)
    set_password(account, password)
    end_sessions(account)
    invitation.delete()
    return account


def free_name(name: str) -> str:
    """A name as it is kept; GondolaError if it cannot be one or is taken, in any case of its letters."""
    name = User.normalize_username(name.strip())
    if not 0 < len(name) <= LONGEST_NAME:
        raise GondolaError(f"Give a name of 1 to {LONGEST_NAME} letters.", "name")
    try:
        UnicodeUsernameValidator()(name)
    except ValidationError as error:
        raise GondolaError("A name has letters, digits and @ . + - _ and no spaces.", "name") from error
    if User.objects.filter(username__iexact=name).exists():
        raise GondolaError("Somebody here has that name already: take another.", "name")
    return name


def set_password(account: User, password: str) -> None:
    """Set and save; GondolaError with what a better one needs."""
    try:
        validate_password(password, account)
    except ValidationError as error:
        raise GondolaError(" ".join(error.messages), "password") from error
    account.set_password(password)
    account.save()


def end_sessions(account: User) -> None:
    """Sign an account out wherever it is signed in."""
    for session in Session.objects.filter(expire_date__gt=datetime.now(UTC)).iterator():
        if session.get_decoded().get("_auth_user_id") == str(account.pk):
            session.delete()


@transaction.atomic
def leave(account: User) -> None:
    """Sign out everywhere and let nobody in any more; all is deleted when the grace is over."""
    if account.is_staff and not User.objects.filter(is_staff=True, is_active=True).exclude(pk=account.pk).exists():
        raise GondolaError("You are the only owner of this studio: make somebody else one first.", "")
    Leaving.objects.get_or_create(account=account)
    account.is_active = False
    account.save(update_fields=["is_active"])
    end_sessions(account)


@transaction.atomic
def stay(account: User) -> None:
    """Take a leave back within its grace."""
    Leaving.objects.filter(account=account).delete()
    account.is_active = True
    account.save(update_fields=["is_active"])


def members() -> list[dict[str, Any]]:
    """All accounts, owners first."""
    leaving = dict(Leaving.objects.values_list("account_id", "asked_at"))
    return [
        {"name": one.get_username(), "owner": one.is_staff, "leaves_at": _end(leaving.get(one.pk))}
        for one in User.objects.order_by("-is_staff", "username")
        if one.is_active or one.pk in leaving
    ]


def _end(asked_at: datetime | None) -> datetime | None:
    return asked_at + GRACE if asked_at else None


def no_owner() -> bool:
    """Whether this studio has still to be begun."""
    return not User.objects.filter(is_staff=True, is_active=True).exists()
