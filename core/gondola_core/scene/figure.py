"""Figures, built from simple solids in a frame of their own and placed in the tank."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..materials import SolidMaterial
from ..part import Key, Name, Part, bounded

Offset = Annotated[
    float, Field(title="offset", ge=-1200, le=1200, json_schema_extra={"unit": "mm"})
]
Size = Annotated[float, Field(title="size", ge=0.2, le=1200, json_schema_extra={"unit": "mm"})]
Point = Annotated[list[Offset], Field(min_length=3, max_length=3)]
"""Right, behind, up from the figure's own origin, in mm."""


class Ellipsoid(Part):
    """Three half-axes; nose up by `pitch_deg` about the axis that runs from front to back."""

    kind: Literal["ellipsoid"]
    centre_mm: Point
    radii_mm: Annotated[list[Size], Field(title="half-axes", min_length=3, max_length=3)]
    pitch_deg: float = bounded("pitch", "°", -90, 90, default=0.0)


class Box(Part):
    """An upright block."""

    kind: Literal["box"]
    centre_mm: Point
    size_mm: Annotated[list[Size], Field(title="size of the box", min_length=3, max_length=3)]


class Capsule(Part):
    """A round bar with round ends."""

    kind: Literal["capsule"]
    from_mm: Point
    to_mm: Point
    radius_mm: float = bounded("radius of the bar", "mm", 0.1, 300)


Solid = Annotated[Ellipsoid | Box | Capsule, Field(discriminator="kind")]


class Place(Part):
    """Where the figure's own origin stands."""

    x_mm: float = bounded("place from the left wall", "mm", -200, 1400)
    behind_mm: float = bounded("place behind the glass", "mm", -200, 1400)
    height_mm: float = bounded("height above the floor", "mm", -100, 800)


class Figure(Part):
    """Anything modelled in the water; its solids overlap freely and count once."""

    id: Key
    name: Name
    solids: Annotated[list[Solid], Field(title="solids", min_length=1, max_length=60)]
    place: Place
    turn_deg: float = bounded("turn", "°", -360, 360, default=0.0)
    material: SolidMaterial
    paint_srgb: Annotated[str, Field(title="colour of the figure", pattern=r"^#[0-9a-f]{6}$")]
    holding: Annotated[
        Literal["on_bed", "staged", "stem", "wire", "line", "glue_spot", "pin"],
        Field(title="holding"),
    ] = "on_bed"
