"""The mixed cup as a body of its own: how warm it gets while it stands, and until when it pours."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..errors import GondolaError
from ..materials import Resin, SolidMaterial
from ..units import G_PER_ML, HOUR, MINUTE, MM, G
from ..words import Words, words
from .cells import CellGeometry, cut_cells
from .kinetics import viscosity
from .losses import Surroundings
from .march import Marched, Scrubbing, TimedPour, Tolerance, march_pours, steady_room

Array = NDArray[np.float64]

PLASTIC = SolidMaterial(
    id="cup", name="plastic cup", density_g_ml=0.95, heat_capacity_j_kgk=1800.0,
    conductivity_w_mk=0.2, limit_c=90.0, porosity_fraction=0.0,
)
VESSELS = ("cup", "bucket", "tray")
LEAST_TOLD_C = 25.0
WARN_C, POUR_NOW_C = 40.0, 50.0
"""A cup this warm is to be watched; one this warm poured at once. Source: own_march"""
THICKENS = 2.0
"""Viscosity over its first value at which working time ends. Source: own_march"""
POUR_BY = 2 / 3
"""Share of the time to 50 degrees by which to have poured. Source: assumed"""
ROUND_SIDES = 96
ACROSS = 14
"""Cells across a vessel."""
SMOKES_C = 100.0
"""A cup this warm smokes and melts. Source: own_march"""


@dataclass(frozen=True, slots=True, kw_only=True)
class CupAnswer:
    """A cup standing from the moment of mixing; None where it never comes to it.

    working_min   until it has thickened to twice or come to 50 degrees, whichever is first
    """

    mass_g: float
    vessel: str
    radius_mm: float
    fill_mm: float
    working_min: float | None
    warm_40_min: float | None
    warm_50_min: float | None
    warm_100_min: float | None
    gel_min: float | None
    peak_c: float
    peak_at_min: float
    at_min: list[float]
    hottest_c: list[float]
    advice: Words


def cup_shape(mass_g: float, resin: Resin, vessel: str) -> tuple[float, float]:
    """Inner radius and depth of fill of a usual vessel for a mass, both in mm.

    100 g stand in a 200 ml cup of 32 mm radius; larger cups and buckets are alike in shape but
    squat; a tray is 15 mm deep.
    Source: own_march
    """
    volume = mass_g * G / (resin.density_g_ml * G_PER_ML)
    if vessel == "tray":
        depth = 0.015
        return float(np.sqrt(volume / (np.pi * depth))) / MM, depth / MM
    radius = 0.032 * (mass_g / 100.0) ** 0.26
    if vessel == "bucket":
        radius *= 1.15
    return radius / MM, volume / (np.pi * radius**2) / MM


def cup_wall_mm(mass_g: float) -> float:
    """Of the plastic of a vessel for a mass [mm]. Source: assumed"""
    return 0.6 if mass_g <= 300.0 else 1.5


def cup_cells(radius: float, depth: float, across: int = ACROSS) -> CellGeometry:
    """A round body on square cells cut by its wall [m]; `across` of them from wall to wall."""
    edges = np.linspace(-radius, radius, across + 1)
    step = float(edges[1] - edges[0])
    levels = max(6, int(np.ceil(depth / (1.2 * step))))
    turn = 2 * np.pi * (np.arange(ROUND_SIDES) + 0.5) / ROUND_SIDES
    wall = radius / np.sinc(2 / ROUND_SIDES) ** 0.5 * np.stack([np.cos(turn), np.sin(turn)], axis=1)
    z = np.linspace(0.0, depth, levels + 1)
    return CellGeometry(
        x_faces=edges, y_faces=edges, z_faces=z, pour_of_level=np.zeros(levels, dtype=np.int64),
        solid_fractions=np.zeros((0, levels, across, across)), solids=(),
        cut=cut_cells(lambda _: np.asarray(wall), edges, edges, z),
    )


def stand_cup(
    resin: Resin, mass_g: float, mix_c: float, room_c: float, vessel: str = "cup",
    hours: float | None = None,
) -> CupAnswer:
    """A cup of mixed resin left standing in a room.

    GondolaError names a mass, a temperature or a vessel that is out of range. The wall is of
    plastic, 0.6 mm up to 300 g and 1.5 mm above (assumed); it stands on a table that takes little
    heat.
    """
    if not 5.0 <= mass_g <= 20_000.0:
        raise GondolaError(words("refusals.cup_mass", range=(5.0, 20_000.0), given=mass_g), "mass_g")
    if vessel not in VESSELS:
        raise GondolaError(f"A vessel is {', '.join(VESSELS)}; this says '{vessel}'.", "vessel")
    for name, value in (("mix", mix_c), ("room", room_c)):
        if not 5.0 <= value <= 60.0:
            raise GondolaError(words("refusals.warmth", name=name, range=(5.0, 60.0), given=value), name)
    if resin.light is not None:
        raise GondolaError(
            f"The {resin.name} keeps in the dark and sets under its lamp: it has no time in the cup.",
            "resin",
        )
    radius_mm, fill_mm = cup_shape(mass_g, resin, vessel)
    sheet = cup_wall_mm(mass_g) * MM
    span = (hours if hours is not None else 24.0) * HOUR
    marched = march_pours(
        cup_cells(radius_mm * MM, fill_mm * MM),
        Surroundings(
            wall=PLASTIC, wall_thickness=sheet, base=PLASTIC, base_thickness=2 * sheet,
        ),
        [resin], [TimedPour(start=0.0, mix_c=mix_c, resin=0)], steady_room(room_c, span), span,
        Tolerance(
            temperature_k=0.1, degree=1e-3,
            scrubbing=Scrubbing(change_k=0.25, change_degree=0.005, longest=0.25 * HOUR, most_rows=720),
        ),
    )
    return _answer(marched, resin, mass_g, vessel, radius_mm, fill_mm, mix_c)


def _answer(
    marched: Marched, resin: Resin, mass_g: float, vessel: str, radius_mm: float, fill_mm: float,
    mix_c: float,
) -> CupAnswer:
    base = marched.base_levels
    at = marched.history_at
    hottest = np.nanmax(marched.history_hottest_c[:, base:], axis=1)
    middle = base + (len(marched.heights) - base) // 2
    axis = marched.history_plane_degree[:, middle, ACROSS // 2]
    centre_c = marched.history_plane_c[:, middle, ACROSS // 2]
    thick = viscosity(np.minimum(axis, resin.gel_degree - 1e-6), centre_c, resin)
    first = float(viscosity(0.0, mix_c, resin))
    warm = [_first_above(at, hottest, mark) for mark in (WARN_C, POUR_NOW_C, SMOKES_C)]
    thickened = _first_above(at, thick, THICKENS * first)
    ends = [moment for moment in (warm[1], thickened) if moment is not None]
    working = min(ends) if ends else None
    top = int(np.argmax(hottest))
    resin_cells = marched.resin
    gel = marched.crossed_at[0][resin_cells]
    peak = float(np.nanmax(marched.peak_c))
    keep = slice(None, None, max(1, len(at) // 120))
    return CupAnswer(
        mass_g=mass_g, vessel=vessel, radius_mm=round(radius_mm, 1), fill_mm=round(fill_mm, 1),
        working_min=_minutes(working), warm_40_min=_minutes(warm[0]),
        warm_50_min=_minutes(warm[1]), warm_100_min=_minutes(warm[2]),
        gel_min=None if np.isnan(gel).all() else _minutes(float(np.nanmin(gel))),
        peak_c=round(peak, 1), peak_at_min=round(float(at[top]) / MINUTE, 1),
        at_min=np.round(at[keep] / MINUTE, 2).tolist(),
        hottest_c=np.round(hottest[keep], 2).tolist(),
        advice=_advice(working, warm, peak),
    )


def _first_above(at: Array, values: Array, mark: float) -> float | None:
    over = np.flatnonzero(values >= mark)
    if not len(over):
        return None
    i = int(over[0])
    if i == 0:
        return 0.0
    low, high = float(values[i - 1]), float(values[i])
    return float(at[i - 1] + (at[i] - at[i - 1]) * (mark - low) / max(high - low, 1e-12))


def _minutes(moment: float | None) -> float | None:
    return None if moment is None else round(moment / MINUTE, 1)


def _advice(working: float | None, warm: list[float | None], peak: float) -> Words:
    if warm[1] is not None:
        within = POUR_BY * warm[1] / MINUTE
        if warm[2] is not None:
            gap = (warm[2] - warm[1]) / MINUTE
            return words("cup.melts", within=within, gap=gap, warm=POUR_NOW_C, hot=SMOKES_C)
        return words("cup.warms", within=within, peak=peak)
    if working is not None:
        return words("cup.cool", working=working / MINUTE, peak=max(peak, LEAST_TOLD_C))
    return words("cup.thin")
