"""What can be done about a fault, sized to it."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

from ..bench.recipes import load_recipes
from ..cure.cup import stand_cup
from ..errors import GondolaError
from ..finish.faces import FaceSchools, face_schools
from ..words import Words, words
from .case import Case
from .fault import Fault

WARM_BOX_C = 40.0
"""Of the box in which what stalled goes on. Source: assumed"""
OVER = 1.3
"""What is drilled out and refilled over the fault itself. Source: assumed"""
LEAST_CUP_G, DRILL_MM = 5.0, 2.0
"""Of the least cup that is mixed, and of the thinnest drill. Source: assumed"""
USUAL_MM: dict[str, float] = {"bubbles": 2.0, "void": 10.0, "flecks": 2.0, "dust": 2.0}
"""Size of a fault that was not measured. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Repair:
    """One thing that can be done: resin it takes, how warm that gets in its cup, and how long it takes one's hands."""

    fault: str
    words: Words
    volume_ml: float | None
    mass_g: float | None
    peak_c: float | None
    minutes: float | None


def repairs_for(case: Case, fault: Fault) -> list[Repair]:
    """Ways to mend or hide a fault; empty where none is known.

    Source: assumed; the warmth of a cup is own_march
    """
    kind = fault.kind
    if kind in ("bubbles", "void", "flecks", "dust"):
        return [_refill(case, fault), _hide(fault)]
    if kind in ("wall_print",):
        return [_coat(case, fault), _polish(case, fault)]
    plain = {
        "crack": "wick", "leak": "top_up", "line": "strip", "soft": "warm_box", "yellow": "light", "too_dark": "lamp",
        "milky": "warm_box", "sunk_figure": "leave", "moved_figure": "leave", "floated_bed": "leave",
    }
    said = words(f"explain.repair_{plain[kind]}", warm=WARM_BOX_C)
    return [Repair(fault=kind, words=said, volume_ml=None, mass_g=None, peak_c=None, minutes=None)]


def _refill(case: Case, fault: Fault) -> Repair:
    """Drill to it and fill it again: a ball of its size and what is cut beside it."""
    size = max(DRILL_MM, fault.size_mm or USUAL_MM[fault.kind])
    volume = max(0.05, OVER * pi / 6 * size**3 / 1000)
    resin = case.happened.resin_of(case.happened.pours[-1])
    mass = volume * resin.density_g_ml
    peak = None
    if resin.light is None:
        try:
            peak = stand_cup(resin, max(LEAST_CUP_G, mass), 22.0, case.happened.brief.room.mean_c, hours=12.0).peak_c
        except GondolaError:
            peak = None
    return Repair(fault=fault.kind, words=words("explain.repair_refill", size=size, volume=volume, mass=mass),
                  volume_ml=round(volume, 3), mass_g=round(mass, 2), peak_c=peak, minutes=20.0)


def _hide(fault: Fault) -> Repair:
    top = fault.spot is not None and fault.spot.depth_mm < 12
    return Repair(fault=fault.kind, words=words("explain.repair_hide_top" if top else "explain.repair_hide"),
                  volume_ml=None, mass_g=None, peak_c=None, minutes=None)


def _face(case: Case) -> FaceSchools:
    """The face that one looks at, by both schools."""
    tank = case.happened.tank
    area = tank.inner_width_mm * tank.fill_height_mm / 100
    coat_mm = load_recipes()["edge_coat"].thickness_mm
    return face_schools(area, tank.wall.material.id, case.happened.finish.sand_to_grit, coat_mm)


def _coat(case: Case, fault: Fault) -> Repair:
    face = _face(case)
    return Repair(fault=fault.kind, words=words("explain.repair_coat", volume=face.coat_ml), volume_ml=face.coat_ml,
                  mass_g=None, peak_c=None, minutes=face.coat_min)


def _polish(case: Case, fault: Fault) -> Repair:
    minutes = _face(case).sanding_min
    return Repair(fault=fault.kind, words=words("explain.repair_polish", minutes=minutes), volume_ml=None, mass_g=None,
                  peak_c=None, minutes=minutes)
