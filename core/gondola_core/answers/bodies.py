"""Every figure as a body: its bulk, the lines it is met by, and how it stands over the bed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..shape import Bulk, Meshes, above_ml, figure_bulk
from ..shape.columns import Columns, Parts, lowest_gap_mm, spans_of
from .answer import EachAnswer
from .columns import COLUMNS, GROUND, OUTLINE
from .reading import Extract, Reading, SceneExtract

Array = NDArray[np.float64]

OWN = ("solids", "turn_deg", "tilt_deg", "roll_deg")
"""What a figure is by itself, wherever it stands."""
PLACED = (*OWN, "place", "vents")
"""What its body in the tank depends on: not its paint, not how it is held."""
CONTACT_MM = 1.0
"""Underside within this of its lowest point is where it touches. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureBody:
    """One figure as a body: corners of its extent, bulk, underside, and how far the bed is below.

    gap_below_mm      down to the bed; None beside it
    contact_cm2       of its underside near its lowest point
    covered_fraction  of its plan that resin would cover at the fill line
    """

    least: Array
    most: Array
    bulk: Bulk
    above_ml: float
    gap_below_mm: float | None
    contact_cm2: float
    covered_fraction: float


def _bulk(figure: Any, _: SceneExtract, meshes: Meshes) -> Bulk:
    return figure_bulk(figure, meshes)


def _met(figure: Any, _: SceneExtract, columns: Columns, meshes: Meshes) -> Parts:
    return spans_of(figure, columns, meshes)


def _body(
    figure: Extract, scene: SceneExtract, bulk: Bulk, part: Parts, columns: Columns, ground: tuple[Parts, Parts]
) -> FigureBody:
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    contact_cm2, covered = _underside(part, columns, scene.tank.fill_height_mm)
    return FigureBody(
        least=bulk.least + place,
        most=bulk.most + place,
        bulk=bulk,
        above_ml=above_ml(bulk, scene.tank.fill_height_mm - figure.place.height_mm),
        gap_below_mm=lowest_gap_mm(part, ground[1], columns.begins_mm.size),
        contact_cm2=contact_cm2,
        covered_fraction=covered,
    )


def _underside(part: Parts, columns: Columns, fill_mm: float) -> tuple[float, float]:
    """Area near the lowest point [cm2], and the share of the plan that lies under the fill line."""
    column, low, high = part
    if not len(column):
        return 0.0, 0.0
    under = np.full(columns.begins_mm.size, np.inf)
    over = np.full(columns.begins_mm.size, -np.inf)
    np.minimum.at(under, column, low)
    np.maximum.at(over, column, high)
    met = np.isfinite(under)
    touching = under[met] < under[met].min() + CONTACT_MM
    return float(touching.sum() * columns.area_mm2 / 100), float((over[met] < fill_mm - 0.01).mean())


BULKS = EachAnswer(name="bulks", of="figures", reads=Reading(*OWN), by=_bulk, meshes=True)
MET = EachAnswer(
    name="met", of="figures", reads=Reading(*PLACED), shared=Reading(*OUTLINE), needs=(COLUMNS,), by=_met,
    meshes=True,
)
BODIES = EachAnswer(
    name="bodies", of="figures", reads=Reading("place"), shared=Reading(*OUTLINE), own=(BULKS, MET),
    needs=(COLUMNS, GROUND), by=_body,
)
