"""Accounts over HTTP: each view parses, calls one thing, and returns."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest
from ninja import Router
from ninja.errors import HttpError
from ninja.utils import check_csrf

from gondola_core.errors import GondolaError

from . import accounts, sharing, signing
from .schemas import (
    Address,
    Invited,
    Inviting,
    Joining,
    LinkRow,
    LinkWanted,
    MemberRow,
    NewPassword,
    PasswordSaid,
    SeenBy,
    Session,
    ShareRow,
    Sharing,
    SignIn,
)
from .ways import scene_for

router = Router(tags=["people"])
ONE = "/scenes/{int:scene_id}"


@router.get("/session", response=Session, operation_id="read_session")
def read_session(request: HttpRequest) -> Session:
    return _session(request.user)


@router.post("/session", response=Session, operation_id="sign_in", auth=None)
def sign_in(request: HttpRequest, payload: SignIn) -> Session:
    _not_forged(request)
    return _session(signing.sign_in(request, payload.name, payload.password))


@router.delete("/session", response={204: None}, operation_id="sign_out")
def sign_out(request: HttpRequest, everywhere: bool = False) -> tuple[int, None]:
    """Here, or wherever one is signed in."""
    signing.sign_out(request, everywhere)
    return 204, None


@router.put("/session/password", response=Session, operation_id="change_password")
def change_password(request: HttpRequest, payload: NewPassword) -> Session:
    """Every other session of the account ends with it."""
    _not_in_demo()
    signing.change_password(request, payload.password, payload.new_password)
    return _session(request.user)


@router.get("/invitations/{token}", response=Invited, operation_id="read_invitation", auth=None)
def read_invitation(request: HttpRequest, token: str) -> Invited:
    found = accounts.invitation_of(token)
    return Invited(name=found.name, there_already=found.account_id is not None)


@router.post("/invitations/{token}", response=Session, operation_id="join", auth=None)
def join(request: HttpRequest, token: str, payload: Joining) -> Session:
    """Choose a name and a password, or a new password; the invitation is used up."""
    _not_forged(request)
    account = accounts.join(token=token, name=payload.name, password=payload.password)
    signing.sign_new_in(request, account)
    return _session(account)


@router.get("/people", response=list[MemberRow], operation_id="list_people")
def list_people(request: HttpRequest) -> list[dict[str, Any]]:
    return accounts.members()


@router.post("/people/invitations", response={201: Address}, operation_id="invite")
def invite(request: HttpRequest, payload: Inviting) -> tuple[int, Address]:
    """For the owner: an address that lets one person in, once. Somebody who is here chooses a new password with it."""
    _owner(request)
    account = User.objects.filter(username__iexact=payload.name.strip(), is_active=True).first()
    invitation, token = accounts.invite(name=payload.name, as_owner=payload.as_owner, account=account)
    return 201, Address(path=f"/welcome/{token}", lapses_at=invitation.lapses_at)


@router.delete("/people/{name}", response=list[MemberRow], operation_id="let_member_go")
def let_member_go(request: HttpRequest, name: str) -> list[dict[str, Any]]:
    """For the owner: nobody of that name gets in any more; all they hold is deleted after a day."""
    _owner(request)
    accounts.leave(_member(name))
    return accounts.members()


@router.post("/people/{name}/stay", response=list[MemberRow], operation_id="let_member_stay")
def let_member_stay(request: HttpRequest, name: str) -> list[dict[str, Any]]:
    """For the owner: take that back within the day."""
    _owner(request)
    accounts.stay(_member(name))
    return accounts.members()


@router.post("/session/leave", response={204: None}, operation_id="leave")
def leave(request: HttpRequest, payload: PasswordSaid) -> tuple[int, None]:
    """Delete one's own account with all it holds, after a day in which the owner can take it back."""
    _not_in_demo()
    account: Any = request.user
    if not account.check_password(payload.password):
        raise GondolaError("That is not your password.", "password")
    accounts.leave(account)
    signing.sign_out(request, everywhere=True)
    return 204, None


@router.get(f"{ONE}/seen-by", response=SeenBy, operation_id="seen_by")
def seen_by(request: HttpRequest, scene_id: int) -> SeenBy:
    return _seen(scene_for(request.user, scene_id, "own"))


@router.put(f"{ONE}/seen-by", response=SeenBy, operation_id="share_scene")
def share_scene(request: HttpRequest, scene_id: int, payload: Sharing) -> SeenBy:
    scene = scene_for(request.user, scene_id, "own")
    sharing.share(scene=scene, name=payload.name, may=payload.may)
    return _seen(scene)


@router.delete(f"{ONE}/seen-by/{{name}}", response=SeenBy, operation_id="unshare_scene")
def unshare_scene(request: HttpRequest, scene_id: int, name: str) -> SeenBy:
    scene = scene_for(request.user, scene_id, "own")
    sharing.unshare(scene=scene, name=name)
    return _seen(scene)


@router.post(f"{ONE}/links", response={201: Address}, operation_id="make_link")
def make_link(request: HttpRequest, scene_id: int, payload: LinkWanted) -> tuple[int, Address]:
    """An address that shows the piece to whoever has it, until it lapses; told this once."""
    link, token = sharing.make_link(scene=scene_for(request.user, scene_id, "own"), days=payload.days)
    return 201, Address(path=f"/shown/{token}", lapses_at=link.lapses_at)


@router.delete(f"{ONE}/links/{{int:link_id}}", response=SeenBy, operation_id="withdraw_link")
def withdraw_link(request: HttpRequest, scene_id: int, link_id: int) -> SeenBy:
    scene = scene_for(request.user, scene_id, "own")
    sharing.withdraw(scene=scene, link_id=link_id)
    return _seen(scene)


def _session(account: Any) -> Session:
    return Session(name=account.get_username(), demo=settings.DEMO, owner=account.is_staff)


def _not_forged(request: HttpRequest) -> None:
    """What needs no session needs the token of our page all the same."""
    if check_csrf(request) is not None:
        raise HttpError(403, "forged")


def _owner(request: HttpRequest) -> None:
    """Http404 for whoever does not own the studio: such an address is nothing to them."""
    if not request.user.is_staff:
        raise Http404


def _not_in_demo() -> None:
    if settings.DEMO:
        raise GondolaError("The demo has no passwords: it signs in by itself, on this machine only.", "")


def _member(name: str) -> User:
    found = User.objects.filter(username__iexact=name).first()
    if found is None:
        raise Http404
    return found


def _seen(scene: Any) -> SeenBy:
    shares = scene.shares.select_related("member").order_by("member__username")
    links = [LinkRow(id=one.pk, created_at=one.created_at, lapses_at=one.lapses_at) for one in sharing.links_of(scene)]
    others = User.objects.filter(is_active=True).exclude(pk=scene.owner_id).order_by("username")
    return SeenBy(
        shares=[ShareRow(name=one.member.get_username(), may=one.may) for one in shares], links=links,
        members=[one.get_username() for one in others],
    )
