"""Signing in and out, guarded against guessing."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse, JsonResponse

from gondola_core.errors import GondolaError

from . import accounts

BACKEND = "django.contrib.auth.backends.ModelBackend"


class NotSignedIn(Exception):
    """A name and a password that do not belong together; which of them is wrong is not told."""

    message = "That name and password do not belong together here."


def sign_in(request: HttpRequest, name: str, password: str) -> User:
    """Sign a session in; NotSignedIn otherwise, for an account that is leaving too."""
    account = authenticate(request, username=_name_of(name), password=password)
    if account is None:
        raise NotSignedIn
    login(request, account)
    return account  # type: ignore[return-value]


def _name_of(name: str) -> str:
    """A name as it is kept, whatever the case of what was typed."""
    found = User.objects.filter(username__iexact=name.strip()).values_list("username", flat=True).first()
    return found or name.strip()[:150]


def sign_new_in(request: HttpRequest, account: User) -> None:
    """Sign somebody in who has just chosen a password."""
    login(request, account, backend=BACKEND)


def sign_out(request: HttpRequest, everywhere: bool) -> None:
    """End this session, or all of the account's."""
    if everywhere and request.user.is_authenticated:
        accounts.end_sessions(request.user)
    logout(request)


def change_password(request: HttpRequest, old: str, new: str) -> None:
    """Another password; every other session ends. GondolaError where the old one is wrong or the new one is weak."""
    account: Any = request.user
    if not account.check_password(old):
        raise GondolaError("That is not your password as it is now.", "password")
    accounts.set_password(account, new)
    accounts.end_sessions(account)
    login(request, account, backend=BACKEND)


def locked_out(_request: HttpRequest, *_more: Any, **_named: Any) -> HttpResponse:
    """What stands in the way of guessing says so."""
    message = "Too many wrong passwords for this name: wait a quarter of an hour, or ask the owner for a new one."
    refusal = {"message": message, "problems": [{"field": "password", "message": message}]}
    return JsonResponse(refusal, status=429)
