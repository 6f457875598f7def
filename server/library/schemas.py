"""What the API takes and gives of the library."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Schema

from gondola_core.materials import Colourant, Resin, SolidMaterial

Kind = Literal["resin", "colourant", "solid"]


class ShelfNote(Schema):
    """Where a row's numbers come from, and whether it is one's own; `refused` is why one's own is no longer taken."""

    kind: str
    id: str
    own: bool
    source: str
    refused: str = ""


class Shelf(Schema):
    """All that is on the shelf; `uses` holds the ids of the solids for a wall, a seal, a base, a bed, a figure."""

    resins: list[Resin]
    colourants: list[Colourant]
    solids: list[SolidMaterial]
    notes: list[ShelfNote]
    uses: dict[str, list[str]]


class RowWrite(Schema):
    """A row of one's own, whole."""

    body: dict[str, Any]
    source: str = ""
