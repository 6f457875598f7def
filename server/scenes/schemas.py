"""What the API takes and gives of scenes; documents are the core's own models."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from ninja import Schema
from people.ways import May
from pydantic import Field

from gondola_core.scene import Scene as SceneDocument


class SceneRow(Schema):
    """A scene in a list."""

    id: int
    name: str
    revision: int
    changed_at: datetime
    owner: str
    may: May


class GoneRow(Schema):
    """A scene that was deleted, and until when it can be brought back."""

    id: int
    name: str
    until: datetime


class SceneState(Schema):
    """A scene as it stands, with the revision to write from."""

    id: int
    name: str
    revision: int
    can_undo: bool
    can_redo: bool
    document: SceneDocument
    owner: str
    may: May = "own"


class SceneWrite(Schema):
    """A changed document and the revision that it was made from."""

    base_revision: int
    note: str = ""
    document: SceneDocument


class Step(Schema):
    """Undo, redo or restore, from the revision that is shown."""

    base_revision: int


class Restore(Step):
    """Bring an earlier revision back."""

    number: int


class VariantName(Schema):
    """What a variant is called."""

    name: Annotated[str, Field(min_length=1, max_length=80)]


class VariantKept(VariantName):
    """A document that is kept beside the plan, under a name."""

    document: SceneDocument


class VariantRow(Schema):
    """A variant in a list; without a count of its pours where its document is no longer taken."""

    name: str
    revision: int
    pours_count: int | None
    kept_at: datetime


class RevisionRow(Schema):
    """A revision in the log."""

    number: int
    parent: int | None
    note: str
    kept_aside: bool
    shown: bool
    created_at: datetime


class Stale(Schema):
    """Somebody saved first. Theirs is shown; yours is kept as `kept_revision`."""

    message: str
    kept_revision: int | None
    scene: SceneState
