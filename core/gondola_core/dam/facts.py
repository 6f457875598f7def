"""What the dam does under the liquid: bulge, stress, joints, level, headroom."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, cos, radians, sin, sqrt, tan

import numpy as np

from ..geometry import polygon_area, polygon_perimeter, tank_plan
from ..scene import BoxShape, Round, Rounded, Tank
from ..units import G_PER_ML, GPA, GRAVITY, MM, MPA
from .panels import CutList, cut_list
from .plates import bulge, least_thickness, warm_stiffness_gpa

MOST_BULGE_MM = 0.5
"""Bulge that sanding takes off. Source: own_plates"""
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
    """One panel under liquid to the fill line, between ends that hold it well and barely.

    braced_mm  the same, hinged, with a stiff bar along its whole top edge
    """

    name: str
    length_mm: float
    bulge_low_mm: float
    bulge_high_mm: float
    braced_mm: float
    stress_mpa: float
    least_thickness_mm: float
    least_braced_mm: float
    ribs_count: int
    joint_n_mm: float
    push_n: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DamFacts:
    """Cut list and loads. Loads are empty where the sheet's stiffness is not known or it is bent.

    hoop_mpa  stress around a round wall, which does not bend; None for flat panels
    climb_ml  resin that climbs the walls; lip_mm how high
    """

    cuts: CutList
    wall_peak_c: float | None
    stiffness_gpa: float | None
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


def dam_facts(tank: Tank, density_g_ml: float, wall_peak_c: float | None) -> DamFacts:
    """Cut list, bulge at the temperature of the wall, and what surface and level cost.

    density_g_ml  of the heaviest resin poured
    wall_peak_c   hottest the sheet gets; None: as in a room
    """
    cuts = cut_list(tank)
    plan = tank_plan(tank)
    sheet = tank.wall.material
    warm = wall_peak_c if wall_peak_c is not None else 23.0
    stiffness = warm_stiffness_gpa(sheet, warm, STEEPEST_LOAD_H)
    round_wall = isinstance(tank.shape, Round)
    loads = []
    if stiffness is not None and not round_wall:
        loads = [
            _load(name, length, tank, density_g_ml, stiffness)
            for name, length in _flat_sides(tank)
        ]
    hoop = None
    if round_wall:
        pressure = density_g_ml * G_PER_ML * GRAVITY * tank.fill_height_mm * MM
        hoop = round(
            pressure * max(tank.inner_width_mm, tank.inner_behind_mm) / 2
            / tank.wall.thickness_mm / MPA, 3,
        )
    perimeter = polygon_perimeter(tank_plan(tank, tank.fill_height_mm))
    longest = float(max(np.ptp(plan, axis=0)))
    return DamFacts(
        cuts=cuts,
        wall_peak_c=None if wall_peak_c is None else round(wall_peak_c, 1),
        stiffness_gpa=None if stiffness is None else round(stiffness, 3),
        loads=loads,
        hoop_mpa=hoop,
        perimeter_mm=round(perimeter, 1),
        floor_cm2=round(polygon_area(plan) / 100, 2),
        level_error_mm=round(level_error_mm(longest, tank.level_error_deg), 2),
        self_covering_mm=round(self_covering_mm(density_g_ml), 2),
        lip_mm=round(climb_height_mm(density_g_ml), 2),
        climb_ml=round(perimeter * climb_mm2(density_g_ml) / 1000, 2),
    )


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


def _load(
    name: str, length_mm: float, tank: Tank, density_g_ml: float, stiffness_gpa: float
) -> PanelLoad:
    length, depth = length_mm * MM, tank.fill_height_mm * MM
    thickness, stiffness = tank.wall.thickness_mm * MM, stiffness_gpa * GPA
    density = density_g_ml * G_PER_ML
    given = (length, depth, thickness, stiffness, density)
    held, stress = bulge(*given, "CCCF")
    loose, loose_stress = bulge(*given, "SSSF")
    braced, _ = bulge(*given, "SSSS")
    thin = least_thickness(length, depth, stiffness, density, "SSCF", MOST_BULGE_MM * MM)
    thin_braced = least_thickness(length, depth, stiffness, density, "CCCS", MOST_BULGE_MM * MM)
    return PanelLoad(
        name=name,
        length_mm=round(length_mm, 1),
        bulge_low_mm=round(held / MM, 2),
        bulge_high_mm=round(loose / MM, 2),
        braced_mm=round(braced / MM, 2),
        stress_mpa=round(max(stress, loose_stress) / MPA, 2),
        least_thickness_mm=round(thin / MM, 2),
        least_braced_mm=round(thin_braced / MM, 2),
        ribs_count=_ribs(length, depth, thickness, stiffness, density),
        joint_n_mm=round(0.5 * density * GRAVITY * depth**2 / 1000, 4),
        push_n=round(0.5 * density * GRAVITY * depth**2 * length, 2),
    )


def _ribs(
    length: float, depth: float, thickness: float, stiffness: float, density: float
) -> int:
    """Fewest stiff ribs between which every bay, clamped at them, stays under the bulge."""
    for count in range(0, 25):
        bay = length / (count + 1)
        edges = "SSCF" if count == 0 else "CCCF"
        if bulge(bay, depth, thickness, stiffness, density, edges)[0] <= MOST_BULGE_MM * MM:
            return count
    return ceil(length / (0.5 * depth))
