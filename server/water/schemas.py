"""What the API takes of water and paint."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from gondola_core.checks import Remedy
from gondola_core.scene import Scene
from gondola_core.tint.solver import Solved


class PaintAsked(Schema):
    """How a figure is wished to read."""

    scene: Scene
    figure_id: str
    wished_srgb: Annotated[str, Field(title="wished colour", pattern=r"^#[0-9a-f]{6}$")]


class SolvedWater(Schema):
    """The doses found, and the edit that takes them."""

    solved: Solved
    remedy: Remedy


class SpectrumBrought(Schema):
    """A measured spectrum, and what was measured."""

    text: Annotated[str, Field(title="spectrum", max_length=1_000_000)]
    name: Annotated[str, Field(title="name of the colourant", min_length=1, max_length=80)]
    drops_per_100g: Annotated[float, Field(title="dose that was measured", gt=0, le=100)] = 1.0
    path_mm: Annotated[float, Field(title="length of the cell", gt=0, le=500)] = 10.0
    drop_g: Annotated[float, Field(title="mass of one drop", ge=0.001, le=0.5)] = 0.03
