"""How the water grows with height, and what air, hollows and the bed do to it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ..shape import bed_area_cm2, bed_heights
from ..shape.columns import BED, ColumnSpans, free_volume_ml
from ..shape.floods import FreeSpans, wet_and_trapped_ml
from ..shape.pockets import AirTrap, DryBasin
from .answer import Answer
from .columns import OUTLINE
from .flood import BASINS, FLOOD, SPANS, TRAPS
from .reading import Reading
from .setting import GAS

CURVE_POINTS = 41
SLOPE_STEP_MM = 2.0
SEAL_COAT_MM = 0.25
"""Resin that a brushed seal coat takes over a porous bed. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Filling:
    """How the water grows with height, and what air and hollows do to it.

    gas_ml  what the bed's pores give off while pours are liquid, all pours together
    """

    height_mm: list[float]
    free_ml: list[float]
    resin_ml: list[float]
    traps: list[AirTrap]
    basins: list[DryBasin]
    bed_ml: float
    steepest_deg: float
    gas_ml: float
    seal_coat_g: float
    bed_area_cm2: float


@dataclass(frozen=True, slots=True, kw_only=True)
class BedSlopes:
    """The bed's surface, whatever stands on it."""

    area_cm2: float
    steepest_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class FillCurves:
    """How the water grows with height, and the bed's own volume."""

    height_mm: list[float]
    free_ml: list[float]
    resin_ml: list[float]
    bed_ml: float


def _slopes(scene: Any) -> BedSlopes:
    tank, bed = scene.tank, scene.bed
    x = np.linspace(0, tank.inner_width_mm, max(3, round(tank.inner_width_mm / SLOPE_STEP_MM)))
    y = np.linspace(0, tank.inner_behind_mm, max(3, round(tank.inner_behind_mm / SLOPE_STEP_MM)))
    slope = np.hypot(*np.gradient(bed_heights(bed, tank, x, y), y, x))
    return BedSlopes(
        area_cm2=bed_area_cm2(bed, tank), steepest_deg=round(float(np.degrees(np.arctan(slope.max()))), 1)
    )


def _curves(scene: Any, spans: ColumnSpans, free: FreeSpans) -> FillCurves:
    heights = np.linspace(0.0, scene.tank.fill_height_mm, CURVE_POINTS)
    wet, trapped = wet_and_trapped_ml(free, spans.area_mm2, heights)
    tall = (spans.high - np.maximum(spans.low, 0.0))[spans.what == BED].sum()
    return FillCurves(
        height_mm=np.round(heights, 2).tolist(),
        free_ml=np.round(free_volume_ml(spans, heights), 2).tolist(),
        resin_ml=np.round(wet - trapped, 2).tolist(),
        bed_ml=round(float(tall * spans.area_mm2 / 1000), 1),
    )


def _filling(
    scene: Any, slopes: BedSlopes, curves: FillCurves, traps: list[AirTrap], basins: list[DryBasin],
    gas_ml: list[float],
) -> Filling:
    density = scene.resin_of(scene.pours[0]).density_g_ml
    return Filling(
        height_mm=curves.height_mm, free_ml=curves.free_ml, resin_ml=curves.resin_ml, traps=traps,
        basins=basins, bed_ml=curves.bed_ml, steepest_deg=slopes.steepest_deg, gas_ml=round(sum(gas_ml), 2),
        seal_coat_g=round(slopes.area_cm2 * SEAL_COAT_MM / 10 * density, 1),
        bed_area_cm2=round(slopes.area_cm2, 1),
    )


BED_SLOPES = Answer(name="bed_slopes", reads=Reading(*OUTLINE, "bed.heights_mm", "bed.mesh"), by=_slopes)
FILL_CURVES = Answer(name="fill_curves", reads=Reading("tank.fill_height_mm"), needs=(SPANS, FLOOD), by=_curves)
FILLING = Answer(
    name="filling", needs=(BED_SLOPES, FILL_CURVES, TRAPS, BASINS, GAS), by=_filling,
    reads=Reading("pours.resin_id", "resins"),
)
