"""What floats, what sinks, and whether each way of holding carries it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..materials import load_library
from ..scene import Figure
from ..shape import Bulk
from ..units import GRAVITY, G
from .load import Load, figure_mass_g
from .ways import Nearby, Pull, Way, ways_in_order

NEUTRAL_G_ML = 0.05
"""Difference in density below which a figure may drift either way. Source: own_holding"""


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureFacts:
    """What a figure is and does in its resin.

    lift_gf          upward if above 0, in grams-force, at the worst moment of all pours: what stands in
                     liquid and the air shut in under it lift, its mass and what set resin holds do not
    lift_spread_gf   how far that may be off because its volume is a guess
    lift_pour        number of that pour; None where no resin comes to it
    ballast_g        lead that would make it neutral, None where it sinks
    behaves          "floats", "sinks", or "drifts" where it is near neutral
    gap_below_mm     from its lowest point down to the bed; None beside it
    rests_mm         height of its place at which it would touch the bed; None off the bed
    peak_c           hottest resin around it; None where it touches none
    """

    figure_id: str
    volume_ml: float
    volume_spread_ml: float
    area_cm2: float
    mass_g: float
    density_g_ml: float
    lift_gf: float
    lift_spread_gf: float
    lift_pour: int | None
    behaves: Literal["floats", "sinks", "drifts"]
    ballast_g: float | None
    above_ml: float
    inside_ml: float
    gap_below_mm: float | None
    rests_mm: float | None
    peak_c: float | None
    flat_underside_cm2: float
    trapped_ml: float
    ways: list[Way]


def figure_facts(
    figure: Figure, bulk: Bulk, load: Load, near: Nearby, *, above_ml: float, trapped_ml: float
) -> FigureFacts:
    """Buoyancy of one figure and every way of holding it."""
    mass, displaced, inside = figure_mass_g(figure, bulk)
    lift_gf = load.force / (G * GRAVITY)
    gap = near.gap_below_mm
    spread = bulk.spread_ml * abs(
        load.resin.density_g_ml - (figure.material.density_g_ml if figure.mass_g is None else 0.0)
    )
    pull = Pull(figure=figure, resin=load.resin, force=load.force, near=near)
    return FigureFacts(
        figure_id=figure.id,
        volume_ml=round(bulk.volume_ml, 3),
        volume_spread_ml=round(bulk.spread_ml, 3),
        area_cm2=round(bulk.area_cm2, 2),
        mass_g=round(mass, 3),
        density_g_ml=round(mass / displaced if displaced > 0 else figure.material.density_g_ml, 3),
        lift_gf=round(lift_gf, 3),
        lift_spread_gf=round(spread, 3),
        lift_pour=load.pour,
        behaves=_behaves(figure, load, mass, displaced),
        ballast_g=_ballast_g(load),
        above_ml=round(above_ml, 3),
        inside_ml=round(inside, 3),
        gap_below_mm=None if gap is None else round(gap, 2),
        rests_mm=None if gap is None else round(figure.place.height_mm - gap, 2),
        peak_c=near.peak_c,
        flat_underside_cm2=round(bulk.flat_underside_cm2, 2),
        trapped_ml=round(trapped_ml, 3),
        ways=[way(pull) for way in ways_in_order().values()],
    )


def _behaves(figure: Figure, load: Load, mass_g: float, displaced_ml: float) -> Literal["floats", "sinks", "drifts"]:
    """By what it lifts over what it displaces, or by its own density where no resin comes to it."""
    density = mass_g / displaced_ml if displaced_ml > 0 else figure.material.density_g_ml
    excess = load.force / (G * GRAVITY) / load.displaced_ml if load.displaced_ml > 0 else -density
    if abs(excess) < NEUTRAL_G_ML + 1e-9:
        return "drifts"
    return "floats" if excess > 0 else "sinks"


def _ballast_g(load: Load) -> float | None:
    """Lead, itself in the resin, that would make it neutral."""
    if load.force <= 0:
        return None
    lead = load_library().solids["lead"].density_g_ml
    return round(load.force / (G * GRAVITY) / (1 - load.resin.density_g_ml / lead), 2)
