"""What the API takes of water and paint."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from gondola_core.checks import Remedy
from gondola_core.scene import Scene
from gondola_core.tint.measured_spectrum import MeasuredSpectrum
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
    """A measured spectrum."""

    measured: MeasuredSpectrum
