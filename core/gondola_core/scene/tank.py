"""The tank: inner space, walls, seal and base."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..errors import Flaw
from ..materials import SolidMaterial
from ..part import Part, bounded
from ..words import words


class Wall(Part):
    """The sheet around the liquid."""

    material: SolidMaterial
    thickness_mm: float = bounded("wall thickness", "mm", 0.2, 40)


class Base(Part):
    """What the piece stands on."""

    material: SolidMaterial
    thickness_mm: float = bounded("base thickness", "mm", 1, 100)


class Seal(Part):
    """What closes the joints of the dam."""

    material: SolidMaterial


class BoxShape(Part):
    """Four straight walls."""

    kind: Literal["box"]


class Chamfered(Part):
    """A box whose corners are cut off straight."""

    kind: Literal["chamfered"]
    corner_mm: float = bounded("cut at the corners", "mm", 1, 500)


class Rounded(Part):
    """A box with round corners."""

    kind: Literal["rounded"]
    corner_mm: float = bounded("radius of the corners", "mm", 1, 500)


class Round(Part):
    """Round where both sizes agree, else oval."""

    kind: Literal["round"]


class Regular(Part):
    """A regular polygon with a flat side to the front, stretched to the inner size."""

    kind: Literal["regular"]
    sides_count: Annotated[int, Field(title="number of sides", ge=3, le=12)]


PlanPoint = Annotated[
    list[Annotated[float, Field(title="corner of the tank", ge=0, le=1200)]],
    Field(min_length=2, max_length=2),
]


class FreeShape(Part):
    """Corners in order, each (from the left, behind the glass) within the inner size."""

    kind: Literal["free"]
    points_mm: Annotated[
        list[PlanPoint], Field(title="corners of the tank", min_length=3, max_length=60)
    ]


Shape = Annotated[
    BoxShape | Chamfered | Rounded | Round | Regular | FreeShape, Field(discriminator="kind")
]


class Cutting(Part):
    """How the panels of the dam are cut from stock sheets."""

    kerf_mm: float = bounded("width of the saw cut", "mm", 0, 6, default=2.0)
    film_mm: float = bounded("film on the inside of the sheet", "mm", 0, 1, default=0.0)
    corner: Annotated[
        Literal["front_over_sides", "pinwheel"], Field(title="how panels overlap")
    ] = "front_over_sides"
    base_between: Annotated[bool, Field(title="base between the walls")] = False
    sheet_mm: Annotated[
        list[Annotated[float, Field(
            title="size of the stock sheet", ge=50, le=4000, json_schema_extra={"unit": "mm"}
        )]],
        Field(title="stock sheet", min_length=2, max_length=2),
    ] = [600.0, 400.0]


class Tank(Part):
    """The inner space, by its size on the floor: across as seen from the front, and to the back."""

    shape: Annotated[Shape, Field(title="shape of the tank")] = BoxShape(kind="box")
    taper_deg: float = bounded("lean of the walls outward", "°", 0, 20, default=0.0)
    walls_stay: Annotated[bool, Field(title="walls stay as part of the piece")] = False
    release: Annotated[
        Literal["none", "wax", "petroleum_jelly", "silicone_spray", "tape"],
        Field(title="release on the walls"),
    ] = "wax"
    cutting: Cutting = Cutting()
    level_error_deg: float = bounded("how far the floor may be off level", "°", 0, 10, default=0.2)
    inner_width_mm: float = bounded("inner width of the tank", "mm", 15, 1200)
    inner_behind_mm: float = bounded("inner size from the glass to the back", "mm", 15, 1200)
    wall_height_mm: float = bounded("height of the walls", "mm", 5, 700)
    fill_height_mm: float = bounded("height of the fill line", "mm", 3, 600)
    wall: Wall
    seal: Annotated[Seal | None, Field(title="seal of the dam")] = None
    base: Base

    @model_validator(mode="after")
    def _fill_below_rim(self) -> Tank:
        if self.fill_height_mm > self.wall_height_mm:
            raise Flaw(words("refusals.fill_over_wall", fill=self.fill_height_mm, wall=self.wall_height_mm))
        return self

    @model_validator(mode="after")
    def _shape_fits(self) -> Tank:
        width, behind = self.inner_width_mm, self.inner_behind_mm
        if isinstance(self.shape, Chamfered | Rounded):
            most = 0.5 * min(width, behind)
            if self.shape.corner_mm > most:
                raise Flaw(words("refusals.corner_large", corner=self.shape.corner_mm, most=most))
        if isinstance(self.shape, FreeShape):
            _refuse_bad_corners(self.shape.points_mm, width, behind)
            if self.taper_deg > 0:
                raise Flaw(words("refusals.free_lean"))
        return self


LEAST_FLOOR_MM2 = 100.0
"""Floor of a tank of free corners. Source: assumed"""


def _refuse_bad_corners(points: list[list[float]], width: float, behind: float) -> None:
    for number, (x, y) in enumerate(points, start=1):
        if x > width or y > behind:
            raise Flaw(words("refusals.corner_outside", number=number, x=x, y=y, width=width, behind=behind))
    count = len(points)
    for i in range(count):
        for j in range(i + 1, count):
            if (j - i) % count in (1, count - 1):
                continue
            if _cross(points[i], points[(i + 1) % count], points[j], points[(j + 1) % count]):
                raise ValueError(
                    f"the side of the tank from corner {i + 1} crosses the one from corner "
                    f"{j + 1}: give the corners in order around the tank"
                )
    twice = sum(
        a[0] * b[1] - a[1] * b[0] for a, b in zip(points, points[1:] + points[:1], strict=True)
    )
    if abs(twice) < 2 * LEAST_FLOOR_MM2:
        raise Flaw(words("refusals.corners_small", least=LEAST_FLOOR_MM2))


def _cross(a: list[float], b: list[float], c: list[float], d: list[float]) -> bool:
    def side(p: list[float], q: list[float], r: list[float]) -> float:
        return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])

    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0
