"""How the planned water will look: colour by depth, sight of figures, steps at layer lines."""

from __future__ import annotations

from typing import Any

from ..tint import FigureSight, Seam, WaterProfile, figure_sights, seams, water_profile
from .answer import Answer
from .bodies import BODIES, FigureBody
from .reading import Reading

WATER_PATHS = (
    "brief.light", "brief.sides", "brief.display_years", "bed.paint_srgb", "colourants",
    "resins.id", "resins.yellow_per_cm", "resins.yellowing_per_cm_year",
    "pours.top_depth_mm", "pours.resin_id", "pours.doses",
    "tank.inner_width_mm", "tank.inner_behind_mm", "tank.fill_height_mm", "brief.backdrop_srgb",
)
"""What the colour of the water depends on."""


def _sights(scene: Any, bodies: list[FigureBody]) -> list[FigureSight]:
    return figure_sights(scene, [(body.least, body.most) for body in bodies])


WATER: Answer[WaterProfile] = Answer(name="water", reads=Reading(*WATER_PATHS, "brief.scale"), by=water_profile)
SIGHTS = Answer(
    name="sights", reads=Reading(*WATER_PATHS, "figures.id", "figures.worn_srgb"), needs=(BODIES,), by=_sights,
)
SEAMS: Answer[list[Seam]] = Answer(
    name="seams", reads=Reading(*WATER_PATHS, "brief.feather_mm", "brief.viewing_mm"), by=seams,
)
