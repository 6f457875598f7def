"""What each pour takes up, how deep it is, and where it has to be poured."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..shape.columns import ColumnSpans, free_surface_cm2, free_volume_ml
from ..shape.floods import FreeSpans, wet_and_trapped_ml
from .answer import Answer
from .bodies import FigureBody
from .flood import FLOOD, SPANS
from .reading import Reading, SceneExtract

Array = NDArray[np.float64]

DEEPEST_SHARE = 0.01
"""Share of a pour's open surface over which it has to be deep for that to be its depth. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Volumes:
    """By pour: not solid, taken up, air kept, the open surface at its line, and how deep the liquid is.

    depth_mm  from the line down to the bed or the layer below, where it is deepest but for some crevices
    """

    free_ml: Array
    resin_ml: Array
    trapped_ml: Array
    surface_cm2: Array
    depth_mm: Array


def lines_mm(scene: Any) -> list[float]:
    """Height of each pour's line above the floor, from the floor's own 0 up."""
    return [0.0, *(scene.tank.fill_height_mm - pour.top_depth_mm for pour in scene.pours)]


def covered_by(scene: Any, bodies: list[FigureBody]) -> list[int | None]:
    """Number of the pour whose resin first meets each figure; None for one that stands above them all."""
    lines = lines_mm(scene)[1:]
    return [
        next((number for number, line in enumerate(lines, start=1) if float(body.least[2]) < line), None)
        for body in bodies
    ]


def liquid_depth_mm(free: FreeSpans, floor_mm: float, line_mm: float) -> float:
    """Depth of a pour between two heights above the tank's floor: from its line down to what is solid.

    The deepest that a hundredth of its open surface reaches; 0 where it has none.
    """
    open_here = (free.high >= line_mm) & (free.low < line_mm) & np.isfinite(free.rim_mm)
    tall = line_mm - np.maximum(free.low[open_here], floor_mm)
    if not len(tall):
        return 0.0
    return float(np.quantile(tall, 1.0 - DEEPEST_SHARE, method="higher"))


def _volumes(scene: SceneExtract, spans: ColumnSpans, free: FreeSpans) -> Volumes:
    lines = lines_mm(scene)
    tops = np.array(lines)
    wet, trapped = wet_and_trapped_ml(free, spans.area_mm2, tops)
    return Volumes(
        free_ml=np.diff(free_volume_ml(spans, tops)),
        resin_ml=np.maximum(np.diff(wet - trapped), 0.0),
        trapped_ml=np.diff(trapped),
        surface_cm2=free_surface_cm2(spans, tops - 1e-6)[1:],
        depth_mm=np.array([
            liquid_depth_mm(free, floor, line) for floor, line in itertools.pairwise(lines)
        ]),
    )


VOLUMES = Answer(
    name="volumes", reads=Reading("tank.fill_height_mm", "pours.top_depth_mm"), needs=(SPANS, FLOOD), by=_volumes,
)
