"""The bed: terrain as heights on a grid of points over the tank's floor."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..materials import SolidMaterial
from ..part import Part, bounded
from .figure import MeshSolid

Height = Annotated[
    float, Field(title="height of the bed", ge=0, le=600, json_schema_extra={"unit": "mm"})
]


class MeasuredDepth(Part):
    """A depth read off with ruler and skewer."""

    x_mm: float = bounded("place of a measured depth from the left", "mm", 0, 1200)
    behind_mm: float = bounded("place of a measured depth behind the glass", "mm", 0, 1200)
    depth_mm: float = bounded("measured depth", "mm below the fill line", -100, 600)


class Bed(Part):
    """Heights above the tank's floor, bilinear between points, and a mesh on top where there is one.

    mesh        a closed body in the tank's own frame, overhangs kept; heights are below it
    measured    depths typed by the person, from which the heights were interpolated

    heights_mm  rows from the front glass to the back, each row from left to right; the outer
                points lie on the inner walls, so the spacing follows from the tank
    """

    heights_mm: Annotated[
        list[Annotated[list[Height], Field(min_length=2, max_length=241)]],
        Field(title="heights of the bed", min_length=2, max_length=241),
    ]
    material: SolidMaterial
    mesh: MeshSolid | None = None
    measured: Annotated[
        list[MeasuredDepth], Field(title="measured depths", max_length=400)
    ] = []
    sealed: Annotated[bool, Field(title="bed sealed")] = False
    sealed_with: Annotated[
        Literal["resin", "gloss_medium", "white_glue"], Field(title="seal coat")
    ] = "resin"
    seal_wait_h: float = bounded("wait after the seal coat", "h", 0, 336, default=24.0)
    paint_srgb: Annotated[str, Field(title="colour of the bed", pattern=r"^#[0-9a-f]{6}$")] = (
        "#8a7a5a"
    )

    @model_validator(mode="after")
    def _rows_alike(self) -> Bed:
        first = len(self.heights_mm[0])
        for number, row in enumerate(self.heights_mm, start=1):
            if len(row) != first:
                raise ValueError(
                    f"row {number} of the bed has {len(row)} heights and row 1 has {first}: "
                    "give every row the same number"
                )
        return self
