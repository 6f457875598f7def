"""The tank: inner space, walls, seal and base."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..materials import SolidMaterial
from ..part import Part, bounded


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


class Tank(Part):
    """A box, by its inner size: across as seen from the front, and from the glass to the back."""

    kind: Literal["box"] = "box"
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
            raise ValueError(
                f"the fill line at {self.fill_height_mm:g} mm is above the walls, which are "
                f"{self.wall_height_mm:g} mm high: raise the walls or lower the fill line"
            )
        return self
