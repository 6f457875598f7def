"""What the API takes and gives of people."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from .sharing import LONGEST_LINK_DAYS

Name = Annotated[str, Field(max_length=200)]
Password = Annotated[str, Field(max_length=500)]


class Session(Schema):
    """Who is signed in, and whether the studio is theirs."""

    name: str
    demo: bool
    owner: bool


class SignIn(Schema):
    """A name and its password."""

    name: Name
    password: Password


class NewPassword(Schema):
    """The password as it was, and as it is to be."""

    password: Password
    new_password: Password


class PasswordSaid(Schema):
    """Said again where something cannot be undone."""

    password: Password


class Invited(Schema):
    """An invitation as the person who holds it sees it."""

    name: str
    there_already: bool


class Joining(Schema):
    """The name and password that somebody chooses."""

    name: Name
    password: Password


class MemberRow(Schema):
    """Somebody of the studio; `leaves_at` when the account and all it holds will be deleted."""

    name: str
    owner: bool
    leaves_at: datetime | None


class Inviting(Schema):
    """Whom to invite; somebody who is there already gets a new password that way."""

    name: Name = ""
    as_owner: bool = False


class Address(Schema):
    """Where an invitation or a link leads; told once."""

    path: str
    lapses_at: datetime


class Sharing(Schema):
    """Whom a scene is shared with, and for what."""

    name: Name
    may: Literal["look", "work"]


class ShareRow(Schema):
    """Somebody who sees a scene."""

    name: str
    may: Literal["look", "work"]


class LinkWanted(Schema):
    """For how long a link is to show something."""

    days: Annotated[int, Field(ge=1, le=LONGEST_LINK_DAYS)] = 30


class LinkRow(Schema):
    """A link that shows a scene."""

    id: int
    created_at: datetime
    lapses_at: datetime


class SeenBy(Schema):
    """Who sees a scene."""

    shares: list[ShareRow]
    links: list[LinkRow]
    members: list[str]
