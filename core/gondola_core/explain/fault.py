"""What is wrong in a finished piece, where, and how large."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..part import Part, bounded

FaultKind = Literal[
    "bubbles", "void", "leak", "line", "crack", "yellow", "soft", "sunk_figure", "moved_figure", "too_dark", "milky",
    "flecks", "dust", "wall_print", "floated_bed",
]
FAULT_NAMES: dict[str, str] = {
    "bubbles": "bubbles", "void": "a void", "leak": "a leak", "line": "a line between layers", "crack": "a crack",
    "yellow": "yellow resin", "soft": "soft resin", "sunk_figure": "a sunk figure", "moved_figure": "a moved figure",
    "too_dark": "water too dark", "milky": "milky resin", "flecks": "flecks", "dust": "dust",
    "wall_print": "the print of the wall", "floated_bed": "a floated bed",
}


class Spot(Part):
    """A place in the piece, from its left wall, below its fill line, behind its glass."""

    x_mm: float = bounded("place from the left", "mm", -50, 1500)
    depth_mm: float = bounded("place below the fill line", "mm", -50, 1000)
    behind_mm: Annotated[
        float | None, Field(title="place behind the glass", ge=-50, le=1500, json_schema_extra={"unit": "mm"})
    ] = None


class Fault(Part):
    """One fault. Without a spot it is all over the piece, or its place was not said."""

    kind: FaultKind
    size_mm: Annotated[
        float | None, Field(title="size of the fault", ge=0.05, le=1500, json_schema_extra={"unit": "mm"})
    ] = None
    spot: Spot | None = None
    figure_id: str | None = None
