"""What the dam does under the liquid: bulge, stress, joints, level, headroom."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, cos, radians, sin, sqrt, tan

import numpy as np

from ..polygon import polygon_area, polygon_perimeter
from ..scene import BoxShape, Round, Rounded, Tank
from ..shape import tank_plan
from ..units import G_PER_ML, GPA, GRAVITY, MM, MPA
from .panels import CutList, cut_list
from .plates import bulge, least_thickness, top_load_share, warm_stiffness_gpa

MOST_BULGE_MM = 0.5
"""Bulge that sanding takes off. Source: own_plates"""
LAW_HOLDS_TO = 0.5
"""Bulge over the sheet's thickness to which the linear law holds. Source: own_plates"""
SURFACE_TENSION = 0.04
"""N/m, of liquid epoxy. Source: own_geometry"""
CONTACT_DEG = 20.0
"""Contact angle of resin on a clean wall. Source: own_geometry"""
DRAWBACK_DEG = 45.0
"""Contact angle on a greasy or waxed spot, from which a thin layer draws back. Source:
own_geometry"""
STEEPEST_LOAD_H = 24.0
"""Time that liquid stands on a warm sheet, for its creep. Source: own_plates"""


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelLoad:
    """One panel under the pour that loads it worst, between ends that hold it well and barely.

    pour_number              which pour that is
    bulge_low_mm, bulge_high_mm, braced_mm   None beyond the law, which holds to half the sheet: there it
                             lets go or has to be braced
    least_thickness_mm, least_loose_mm   sheet that keeps to the bulge with firm joints, and with soft ones
    braced_mm                the same, hinged, with a stiff bar along its whole top edge
    """

    name: str
    length_mm: float
    pour_number: int
    bulge_low_mm: float | None
    bulge_high_mm: float | None
    braced_mm: float | None
    stress_mpa: float
    least_thickness_mm: float
    least_loose_mm: float
    least_braced_mm: float
    ribs_count: int
    joint_n_mm: float
    push_n: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PourOnDam:
    """One pour as it loads the dam: liquid between two heights above the floor, and the sheet it warms.

    wall_c  hottest the sheet gets by it; None: as in a room
    """

    number: int
    floor_mm: float
    line_mm: float
    density_g_ml: float
    wall_c: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class DamFacts:
    """Cut list and loads. Loads are empty where the sheet's stiffness is not known or it is bent.

    wall_peak_c  hottest the sheet gets; stiffness_gpa what it is then, after a day under load
    bonded    True where set resin holds on to the wall, so that each pour bends it only above that
    hoop_mpa  stress around a round wall, which does not bend; None for flat panels
    climb_ml  resin that climbs the walls; lip_mm how high
    """

    cuts: CutList
    wall_peak_c: float | None
    stiffness_gpa: float | None
    bonded: bool
    loads: list[PanelLoad]
    hoop_mpa: float | None
    perimeter_mm: float
    floor_cm2: float
    level_error_mm: float
    self_covering_mm: float
    lip_mm: float
    climb_ml: float


def level_error_mm(size_mm: float, off_deg: float) -> float:
    """Difference in depth from edge to edge on a floor off level: L tan(angle). Source: definition

    >>> round(level_error_mm(200, 0.5), 2)
    1.75
    """
    return size_mm * tan(radians(off_deg))


def self_covering_mm(density_g_ml: float, contact_deg: float = DRAWBACK_DEG) -> float:
    """Thinnest layer that still covers its floor by itself, in mm.

        h = 2 sqrt(gamma / (rho g)) sin(theta / 2)

    Source: degennes2004

    >>> round(self_covering_mm(1.1, 45.0), 2)
    1.47
    """
    length = sqrt(SURFACE_TENSION / (density_g_ml * G_PER_ML * GRAVITY))
    return 2 * length * sin(radians(contact_deg) / 2) / MM


def climb_height_mm(density_g_ml: float, contact_deg: float = CONTACT_DEG) -> float:
    """How high the resin climbs a wall: sqrt(2 gamma (1 - sin theta) / (rho g)), in mm.

    Source: degennes2004

    >>> round(climb_height_mm(1.1), 2)
    2.21
    """
    weight = density_g_ml * G_PER_ML * GRAVITY
    return sqrt(2 * SURFACE_TENSION * (1 - sin(radians(contact_deg))) / weight) / MM


def climb_mm2(density_g_ml: float, contact_deg: float = CONTACT_DEG) -> float:
    """Cross-section of the climb along a wall: gamma cos theta / (rho g), in mm2.

    Source: degennes2004

    >>> round(climb_mm2(1.1), 2)
    3.48
    """
    weight = density_g_ml * G_PER_ML * GRAVITY
    return SURFACE_TENSION * cos(radians(contact_deg)) / weight / MM**2


RELEASES_BY_ITSELF = ("polypropylene", "silicone-mould", "tape-on-frame")
"""Walls that resin does not hold on to. Source: own_plates"""
ROOM_C = 23.0
"""Of a sheet that nothing warms."""


def dam_facts(tank: Tank, pours: Sequence[PourOnDam]) -> DamFacts:
    """Cut list, bulge under each pour at the temperature of its wall, and what surface and level cost.

    pours  from the bottom, at least one. A set layer carries itself: each pour presses by its own depth
           only, above what it bonds to, or on the whole panel where a release lets the wall move.
    """
    plan = tank_plan(tank)
    sheet = tank.wall.material
    bonded = tank.release == "none" and sheet.id not in RELEASES_BY_ITSELF
    density = max(pour.density_g_ml for pour in pours)
    known = [pour.wall_c for pour in pours if pour.wall_c is not None]
    wall_peak_c = max(known, default=None)
    stiffness = warm_stiffness_gpa(sheet, ROOM_C if wall_peak_c is None else wall_peak_c, STEEPEST_LOAD_H)
    round_wall = isinstance(tank.shape, Round)
    loads = []
    if stiffness is not None and not round_wall:
        loads = [_load(name, length, tank, pours, bonded) for name, length in _flat_sides(tank)]
    perimeter = polygon_perimeter(tank_plan(tank, tank.fill_height_mm))
    longest = float(max(np.ptp(plan, axis=0)))
    return DamFacts(
        cuts=cut_list(tank),
        wall_peak_c=None if wall_peak_c is None else round(wall_peak_c, 1),
        stiffness_gpa=None if stiffness is None else round(stiffness, 3),
        bonded=bonded,
        loads=loads,
        hoop_mpa=_hoop_mpa(tank, pours) if round_wall else None,
        perimeter_mm=round(perimeter, 1),
        floor_cm2=round(polygon_area(plan) / 100, 2),
        level_error_mm=round(level_error_mm(longest, tank.level_error_deg), 2),
        self_covering_mm=round(self_covering_mm(density), 2),
        lip_mm=round(climb_height_mm(density), 2),
        climb_ml=round(perimeter * climb_mm2(density) / 1000, 2),
    )


def _hoop_mpa(tank: Tank, pours: Sequence[PourOnDam]) -> float:
    """Stress around a round wall under its heaviest pour: p r / t. Source: definition"""
    pressure = max(
        pour.density_g_ml * G_PER_ML * GRAVITY * (pour.line_mm - pour.floor_mm) * MM for pour in pours
    )
    radius = max(tank.inner_width_mm, tank.inner_behind_mm) / 2
    return round(pressure * radius / tank.wall.thickness_mm / MPA, 3)


def _flat_sides(tank: Tank) -> list[tuple[str, float]]:
    """Flat stretches of wall, the longest of each kind."""
    if isinstance(tank.shape, BoxShape):
        return [("front and back", tank.inner_width_mm), ("sides", tank.inner_behind_mm)]
    if isinstance(tank.shape, Rounded):
        cut = 2 * tank.shape.corner_mm
        return [
            (name, size - cut)
            for name, size in (("front and back", tank.inner_width_mm),
                               ("sides", tank.inner_behind_mm))
            if size - cut > 1
        ]
    plan = tank_plan(tank)
    lengths = np.linalg.norm(np.roll(plan, -1, axis=0) - plan, axis=1)
    return [(f"the longest side, {int(lengths.argmax()) + 1}", float(lengths.max()))]


@dataclass(frozen=True, slots=True)
class _Bending:
    """A panel as one pour bends it, in SI; `share` as in `plates.bulge`."""

    length: float
    height: float
    thickness: float
    stiffness: float
    density: float
    share: float

    def bulge(self, edges: str) -> tuple[float, float]:
        return bulge(
            self.length, self.height, self.thickness, self.stiffness, self.density, edges, self.share
        )

    def least_thickness(self, edges: str) -> float:
        return least_thickness(
            self.length, self.height, self.stiffness, self.density, edges, MOST_BULGE_MM * MM, self.share
        )


def _bending(length_mm: float, tank: Tank, pour: PourOnDam, bonded: bool) -> _Bending:
    stiffness = warm_stiffness_gpa(
        tank.wall.material, ROOM_C if pour.wall_c is None else pour.wall_c, STEEPEST_LOAD_H
    )
    depth = (pour.line_mm - pour.floor_mm) * MM
    height = depth if bonded or pour.floor_mm <= 0 else pour.line_mm * MM
    return _Bending(
        length=length_mm * MM, height=height, thickness=tank.wall.thickness_mm * MM,
        stiffness=(stiffness or 0.0) * GPA, density=pour.density_g_ml * G_PER_ML,
        share=top_load_share(depth / height),
    )


def _load(
    name: str, length_mm: float, tank: Tank, pours: Sequence[PourOnDam], bonded: bool
) -> PanelLoad:
    each = [(_bending(length_mm, tank, pour, bonded), pour) for pour in pours]
    worst, pour = max(each, key=lambda one: one[0].bulge("SSSF")[0])
    (held, stress), (loose, loose_stress) = worst.bulge("CCCF"), worst.bulge("SSSF")
    push = max(one.density_g_ml * (one.line_mm - one.floor_mm) ** 2 for one in pours) * G_PER_ML * MM**2
    most = LAW_HOLDS_TO * tank.wall.thickness_mm

    def told(bulge_mm: float) -> float | None:
        return round(bulge_mm, 3) if bulge_mm <= most else None

    return PanelLoad(
        name=name,
        length_mm=round(length_mm, 1),
        pour_number=pour.number,
        bulge_low_mm=told(held / MM),
        bulge_high_mm=told(loose / MM),
        braced_mm=told(worst.bulge("SSSS")[0] / MM),
        stress_mpa=round(max(stress, loose_stress) / MPA, 2),
        least_thickness_mm=round(worst.least_thickness("SSCF") / MM, 2),
        least_loose_mm=round(worst.least_thickness("SSSF") / MM, 2),
        least_braced_mm=round(worst.least_thickness("CCCS") / MM, 2),
        ribs_count=_ribs(worst),
        joint_n_mm=round(0.5 * push * GRAVITY / 1000, 4),
        push_n=round(0.5 * push * GRAVITY * length_mm * MM, 2),
    )


def _ribs(panel: _Bending) -> int:
    """Fewest stiff ribs between which every bay, clamped at them, stays under the bulge."""
    for count in range(0, 25):
        bay = replace(panel, length=panel.length / (count + 1))
        if bay.bulge("SSCF" if count == 0 else "CCCF")[0] <= MOST_BULGE_MM * MM:
            return count
    return ceil(panel.length / (0.5 * panel.height))
