"""The even vertical lines on which the tank is measured, and what of them is ground."""

from __future__ import annotations

from ..shape import Meshes
from ..shape.columns import Columns, Parts, ground_spans, tank_columns
from .answer import Answer
from .reading import Reading, SceneExtract

OUTLINE = (
    "tank.shape", "tank.taper_deg", "tank.inner_width_mm", "tank.inner_behind_mm", "tank.fill_height_mm",
)
"""What the inner space of a tank depends on."""


def _columns(scene: SceneExtract) -> Columns:
    return tank_columns(scene.tank)


def _ground(scene: SceneExtract, columns: Columns, meshes: Meshes) -> tuple[Parts, Parts]:
    return ground_spans(scene.tank, scene.bed, columns, meshes)


COLUMNS = Answer(name="columns", reads=Reading(*OUTLINE), by=_columns)
GROUND = Answer(
    name="ground", reads=Reading(*OUTLINE, "bed.heights_mm", "bed.mesh"), needs=(COLUMNS,), by=_ground, meshes=True,
)
