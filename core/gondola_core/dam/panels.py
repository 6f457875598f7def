"""The cut list: every panel of the dam with its own size, so that it closes exactly."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi, tan

import numpy as np
from numpy.typing import NDArray

from ..polygon import polygon_perimeter, pushed_out
from ..scene import BoxShape, Round, Rounded, Tank
from ..shape import tank_plan
from ..words import Words, words

Array = NDArray[np.float64]

OVERLAP_MM = 15.0
"""Of a bent sheet on itself. Source: own_plates"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Panel:
    """One piece of sheet, before bending. Bevels are of its two upright edges, from square."""

    name: str
    count: int
    width_mm: float
    height_mm: float
    bevel_left_deg: float
    bevel_right_deg: float
    from_sheet: str
    outline_mm: list[list[float]] | None


@dataclass(frozen=True, slots=True, kw_only=True)
class CutList:
    """Panels and base; `strip_mm` cuts all walls from one strip of their height."""

    panels: list[Panel]
    outer_width_mm: float
    outer_behind_mm: float
    strip_mm: float
    words: Words


def cut_list(tank: Tank) -> CutList:
    """Panels for the tank's shape, its sheet and its way of joining corners.

    The inner size is the resin's: a film on the inside of the sheet is taken off twice, so sheets
    are cut for the inner size with film. Thicknesses are never rounded.
    """
    if tank.taper_deg > 0:
        return CutList(
            panels=[], outer_width_mm=_outer(tank)[0], outer_behind_mm=_outer(tank)[1],
            strip_mm=0.0, words=words("panels.container"),
        )
    sheet = tank.wall.thickness_mm + tank.cutting.film_mm
    high = tank.wall_height_mm + (tank.base.thickness_mm if tank.cutting.base_between else 0.0)
    if isinstance(tank.shape, BoxShape):
        panels, joins = _box(tank, sheet, high)
    elif isinstance(tank.shape, Round | Rounded):
        panels, joins = _bent(tank, sheet, high)
    else:
        panels, joins = _mitred(tank, sheet, high)
    widths = [panel.width_mm for panel in panels for _ in range(panel.count)]
    strip = sum(widths) + (len(widths) - 1) * tank.cutting.kerf_mm
    panels.append(_base(tank, sheet))
    outer = _outer(tank)
    return CutList(
        panels=panels, outer_width_mm=outer[0], outer_behind_mm=outer[1],
        strip_mm=round(strip, 2), words=joins,
    )


def _outer(tank: Tank) -> tuple[float, float]:
    sheet = tank.wall.thickness_mm + tank.cutting.film_mm
    points = pushed_out(tank_plan(tank, tank.fill_height_mm if tank.taper_deg else 0.0), sheet)
    if isinstance(tank.shape, BoxShape) or tank.taper_deg == 0:
        size = np.array([tank.inner_width_mm, tank.inner_behind_mm])
        if isinstance(tank.shape, BoxShape | Round | Rounded):
            width, behind = (size + 2 * sheet).tolist()
            return round(width, 3), round(behind, 3)
    width, behind = (points.max(axis=0) - points.min(axis=0)).tolist()
    return round(width, 3), round(behind, 3)


def _square(name: str, count: int, width: float, height: float) -> Panel:
    return Panel(
        name=name, count=count, width_mm=round(width, 3), height_mm=round(height, 3),
        bevel_left_deg=0.0, bevel_right_deg=0.0, from_sheet="wall", outline_mm=None,
    )


def _box(tank: Tank, sheet: float, high: float) -> tuple[list[Panel], Words]:
    width, behind = tank.inner_width_mm, tank.inner_behind_mm
    if tank.cutting.corner == "pinwheel":
        return [
            _square("front and back", 2, width + sheet, high),
            _square("sides", 2, behind + sheet, high),
        ], words("panels.pinwheel")
    return [
        _square("front and back", 2, width + 2 * sheet, high),
        _square("sides", 2, behind, high),
    ], words("panels.front_over_sides")


def _bent(tank: Tank, sheet: float, high: float) -> tuple[list[Panel], Words]:
    length = polygon_perimeter(pushed_out(tank_plan(tank), sheet / 2))
    if isinstance(tank.shape, Round) and tank.inner_width_mm == tank.inner_behind_mm:
        length = pi * (tank.inner_width_mm + sheet)
    return [_square("bent wall", 1, length + OVERLAP_MM, high)], words("panels.bent", overlap=OVERLAP_MM)


def _mitred(tank: Tank, sheet: float, high: float) -> tuple[list[Panel], Words]:
    points = tank_plan(tank)
    ends = np.roll(points, -1, axis=0)
    ahead = ends - points
    angle = np.arctan2(ahead[:, 1], ahead[:, 0])
    turn = (np.roll(angle, -1) - angle + pi) % (2 * pi) - pi
    sides: dict[tuple[float, float, float], list[int]] = {}
    for i in range(len(points)):
        at_end, at_start = float(turn[i]), float(turn[i - 1])
        inner = float(np.hypot(*ahead[i]))
        outer = inner + sheet * (tan(at_start / 2) + tan(at_end / 2))
        key = (
            round(max(inner, outer), 3), round(float(np.degrees(at_start / 2)), 2),
            round(float(np.degrees(at_end / 2)), 2),
        )
        sides.setdefault(key, []).append(i + 1)
    panels = [
        Panel(
            name="side " + ", ".join(str(number) for number in numbers), count=len(numbers),
            width_mm=width, height_mm=round(high, 3), bevel_left_deg=left, bevel_right_deg=right,
            from_sheet="wall", outline_mm=None,
        )
        for (width, left, right), numbers in sides.items()
    ]
    return panels, words("panels.mitred")


def _base(tank: Tank, sheet: float) -> Panel:
    out = 0.0 if tank.cutting.base_between else sheet
    if isinstance(tank.shape, BoxShape):
        width, behind = tank.inner_width_mm + 2 * out, tank.inner_behind_mm + 2 * out
        outline = None
    else:
        points = pushed_out(tank_plan(tank), out) if out else tank_plan(tank)
        points = points - points.min(axis=0)
        width, behind = points.max(axis=0).tolist()
        outline = np.round(points, 3).tolist()
    return Panel(
        name="base", count=1, width_mm=round(width, 3), height_mm=round(behind, 3),
        bevel_left_deg=0.0, bevel_right_deg=0.0, from_sheet="base", outline_mm=outline,
    )
