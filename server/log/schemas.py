"""What the API takes and gives of the log."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from gondola_core.explain.fault import FaultKind

Text = Annotated[str, Field(max_length=2000)]
Mm = Annotated[float, Field(ge=-50, le=1500, allow_inf_nan=False)]
PinKind = Literal["resin", "dam", "habit", "colourant", "figure"]
EntryKind = Literal["note", "photograph", "fault", "lesson"]


class EntryPlace(Schema):
    """Where in the piece: from its left wall, below its fill line, behind its glass."""

    x_mm: Mm
    depth_mm: Mm
    behind_mm: Mm | None = None


class Pin(Schema):
    """What a lesson is pinned to: a resin, a colourant, the material of a dam, a way of holding, a habit."""

    kind: PinKind
    key: Annotated[str, Field(min_length=1, max_length=60)]


class FaultFound(Schema):
    """A fault by kind and size."""

    kind: FaultKind
    size_mm: Annotated[float, Field(ge=0.05, le=1500, allow_inf_nan=False)] | None = None
    figure_id: Annotated[str, Field(max_length=40)] | None = None


class EntryWrite(Schema):
    """A note, a fault or a lesson; without a moment it is of now."""

    kind: Literal["note", "fault", "lesson"]
    text: Text = ""
    at: datetime | None = None
    place: EntryPlace | None = None
    fault: FaultFound | None = None
    pins: Annotated[list[Pin], Field(max_length=12)] = []


class EntryMoved(Schema):
    """Another place, moment or text of an entry."""

    text: Text | None = None
    at: datetime | None = None
    place: EntryPlace | None = None
    corners: Annotated[list[Annotated[list[float], Field(min_length=2, max_length=2)]],
                       Field(min_length=4, max_length=4)] | None = None


class PhotographState(Schema):
    """A photograph as kept; corners: where the front of the piece is in it, as shares of its sides."""

    name: str
    form: str
    width_px: int
    height_px: int
    bytes_count: int
    corners: list[list[float]] | None


class EntryState(Schema):
    """One entry as it stands."""

    id: int
    kind: EntryKind
    at: datetime
    text: str
    place: EntryPlace | None
    fault: FaultFound | None
    pins: list[Pin]
    photograph: PhotographState | None


class FoundEntry(EntryState):
    """An entry with the scene that it is of."""

    scene_id: int
    scene_name: str
    snippet: str


class PhotographKept(Schema):
    """A photograph that was kept, and what was done with it."""

    entry: EntryState
    words: list[str]


class CausesStruck(Schema):
    """Causes that the person struck out."""

    struck: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = []
