"""The tank's inner outline from above: its corners at any height, and what lies inside it."""

from __future__ import annotations

import numpy as np

from ...polygon import pushed_out
from ...scene import BoxShape, Tank
from .register import FLOORS, Array


def tank_plan(tank: Tank, height_mm: float = 0.0) -> Array:
    """Corners of the inner outline at a height above the floor, anticlockwise, (n, 2) [mm].

    Round outlines are polygons of the same area. Walls that lean push every side outward by
    height times the tangent of their lean.
    """
    floor = floor_plan(tank)
    out = height_mm * np.tan(np.radians(tank.taper_deg))
    return floor if out == 0.0 else pushed_out(floor, float(out))


def floor_plan(tank: Tank) -> Array:
    """Corners of the floor."""
    return FLOORS[tank.shape.kind](tank.shape, tank.inner_width_mm, tank.inner_behind_mm)


def wall_heights(tank: Tank, x_mm: Array, y_mm: Array) -> Array:
    """Height above the floor at which the tank begins over x (nx,) by y (ny,): (ny, nx) [mm].

    0 inside the floor's outline, infinite where there is no tank; between, where walls lean.
    """
    if isinstance(tank.shape, BoxShape) and tank.taper_deg == 0:
        inside_x = (x_mm >= 0) & (x_mm <= tank.inner_width_mm)
        inside_y = (y_mm >= 0) & (y_mm <= tank.inner_behind_mm)
        return np.where(inside_y[:, None] & inside_x[None, :], 0.0, np.inf)
    floor = floor_plan(tank)
    px, py = x_mm[None, :], y_mm[:, None]
    ends = np.roll(floor, -1, axis=0)
    if tank.taper_deg > 0:
        ahead = ends - floor
        ahead /= np.linalg.norm(ahead, axis=1)[:, None]
        away = np.full((len(y_mm), len(x_mm)), -np.inf)
        for (ax, ay), (ux, uy) in zip(floor, ahead, strict=True):
            away = np.maximum(away, (px - ax) * uy - (py - ay) * ux)
        return np.asarray(np.maximum(0.0, away) / np.tan(np.radians(tank.taper_deg)))
    inside = np.zeros((len(y_mm), len(x_mm)), dtype=bool)
    for (ax, ay), (bx, by) in zip(floor, ends, strict=True):
        if ay == by:
            continue
        between = (ay > py) != (by > py)
        inside ^= between & (px < ax + (py - ay) * (bx - ax) / (by - ay))
    return np.where(inside, 0.0, np.inf)


def plan_box(tank: Tank) -> tuple[float, float, float, float]:
    """Smallest upright box around the outline at the fill line: x from, to, behind from, to [mm].

    For a tank without lean that is its inner size, the chord of round walls left aside.
    """
    out = tank.fill_height_mm * float(np.tan(np.radians(tank.taper_deg)))
    return -out, tank.inner_width_mm + out, -out, tank.inner_behind_mm + out
