"""The net force on a figure at its worst moment of all pours."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..materials import Resin
from ..scene import Figure
from ..shape import Bulk, above_ml
from ..units import CM2, G_PER_ML, GRAVITY, ML, MM, G
from .laws import lift_force, shell_inside

TACK_KPA = 2.0
"""Hold of a layer that has just gelled, of 1 to 10 kPa. Source: own_holding"""
EMBEDDED_MM = 1.0
"""A figure that reaches this far into set resin is held by it. Source: assumed"""


def figure_mass_g(figure: Figure, bulk: Bulk) -> tuple[float, float, float]:
    """Mass [g], volume that displaces resin [ml], and hollow inside [ml] of a figure."""
    inside = 0.0
    if figure.hollow is not None:
        inside = shell_inside(
            bulk.volume_ml * ML, bulk.area_cm2 * CM2, figure.hollow.wall_mm * MM
        ) / ML
    mass = figure.mass_g
    if mass is None:
        mass = figure.material.density_g_ml * (bulk.volume_ml - inside)
    displaced = bulk.volume_ml
    if figure.hollow is not None and figure.hollow.vented:
        displaced -= inside
    return mass, displaced, inside


@dataclass(frozen=True, slots=True, kw_only=True)
class Wetting:
    """One pour as it meets a figure: its resin, floor and line above the tank's floor, and the air that it
    shuts in under the figure up to each of them."""

    number: int
    resin: Resin
    floor_mm: float
    line_mm: float
    air_below_floor_ml: float
    air_below_line_ml: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """Net force on a figure at its worst moment, upward if above 0 [N]; in which pour, and what that displaces."""

    force: float
    pour: int | None
    resin: Resin
    displaced_ml: float


def worst_load(figure: Figure, bulk: Bulk, pours: Sequence[Wetting]) -> Load:
    """The largest upward force on a figure while any pour is liquid.

        F = rho g (V(line) - V(floor) + V_air) - m g - hold

    Each pour is worst when it is full and still liquid. Resin of earlier pours in which the figure
    stands is set: it presses no more, and holds by its tack over the skin that it covers.

    pours  those of the scene from the bottom, at least one
    Source: archimedes; the hold is own_holding
    """
    mass, displaced, _ = figure_mass_g(figure, bulk)
    share = displaced / bulk.volume_ml if bulk.volume_ml > 0 else 0.0
    foot = figure.place.height_mm + float(bulk.least[2])
    top = figure.place.height_mm + float(bulk.most[2])

    def below_ml(height_mm: float) -> float:
        return share * (bulk.volume_ml - above_ml(bulk, height_mm - figure.place.height_mm))

    found: list[Load] = []
    for pour in pours:
        if pour.line_mm <= foot or pour.floor_mm >= top:
            continue
        set_ml = below_ml(pour.floor_mm) if foot < pour.floor_mm - EMBEDDED_MM else 0.0
        begun = 0.0 if set_ml == 0.0 else pour.air_below_floor_ml
        wet_ml = below_ml(pour.line_mm) - set_ml + pour.air_below_line_ml - begun
        skin_cm2 = bulk.area_cm2 * set_ml / max(displaced, 1e-9)
        force = lift_force(wet_ml * ML, mass * G, pour.resin.density_g_ml * G_PER_ML)
        hold = TACK_KPA * 1e3 * skin_cm2 * CM2
        held = max(min(force, 0.0), force - hold) if force > 0 else force
        found.append(Load(force=held, pour=pour.number, resin=pour.resin, displaced_ml=wet_ml))
    if not found:
        return Load(force=-mass * G * GRAVITY, pour=None, resin=pours[-1].resin, displaced_ml=0.0)
    return max(found, key=lambda load: load.force)
