"""The tank's inner outline from above: its corners, area, and what lies inside it."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..scene import BoxShape, Chamfered, FreeShape, Regular, Round, Rounded, Tank

Array = NDArray[np.float64]

ROUND_SIDES = 144
ARC_POINTS = 12
"""Points on a quarter of a round corner."""


def tank_plan(tank: Tank, height_mm: float = 0.0) -> Array:
    """Corners of the inner outline at a height above the floor, anticlockwise, (n, 2) [mm].

    Round outlines are polygons of the same area. Walls that lean push every side outward by
    height times the tangent of their lean.
    """
    floor = _floor_plan(tank)
    out = height_mm * np.tan(np.radians(tank.taper_deg))
    return floor if out == 0.0 else pushed_out(floor, float(out))


def _floor_plan(tank: Tank) -> Array:
    width, behind, shape = tank.inner_width_mm, tank.inner_behind_mm, tank.shape
    if isinstance(shape, BoxShape):
        return np.array([[0, 0], [width, 0], [width, behind], [0, behind]], dtype=float)
    if isinstance(shape, Chamfered):
        c = shape.corner_mm
        return np.array(
            [
                [c, 0], [width - c, 0], [width, c], [width, behind - c],
                [width - c, behind], [c, behind], [0, behind - c], [0, c],
            ]
        )
    if isinstance(shape, Rounded):
        r = shape.corner_mm
        quarter = np.linspace(0, np.pi / 2, ARC_POINTS + 1)
        arc = np.stack([np.cos(quarter), np.sin(quarter)], axis=1)
        # inner points a little outside the arc, so that the polygon has the arc's own area
        chords = np.sin(np.pi / 2 / ARC_POINTS)
        inner = ARC_POINTS - 2
        wide = (-2 * chords + np.sqrt(4 * chords**2 + 4 * inner * chords * np.pi / 2)) / (
            2 * inner * chords
        )
        arc[1:-1] *= wide
        corners = [
            (width - r, r, -1), (width - r, behind - r, 0), (r, behind - r, 1), (r, r, 2),
        ]
        quarter_turn = np.array([[0, -1], [1, 0]])
        turned = [np.linalg.matrix_power(quarter_turn, turn % 4) for *_, turn in corners]
        return np.concatenate(
            [
                [x, y] + r * arc @ turn.T
                for (x, y, _), turn in zip(corners, turned, strict=True)
            ]
        )
    if isinstance(shape, Round | Regular):
        sides = ROUND_SIDES if isinstance(shape, Round) else shape.sides_count
        turn = -np.pi / 2 - np.pi / sides + 2 * np.pi * np.arange(sides) / sides
        points = np.stack([np.cos(turn), np.sin(turn)], axis=1)
        if isinstance(shape, Round):
            points *= np.sqrt(np.pi / (sides / 2 * np.sin(2 * np.pi / sides)))
            return np.asarray(np.array([width / 2, behind / 2]) * (1 + points), dtype=float)
        low, high = points.min(axis=0), points.max(axis=0)
        size: Array = np.array([width, behind])
        return np.asarray((points - low) / (high - low) * size)
    assert isinstance(shape, FreeShape)
    given: Array = np.array(shape.points_mm, dtype=float)
    return given if polygon_area(given) > 0 else given[::-1].copy()


def polygon_area(points: Array) -> float:
    """Area of a polygon, positive if anticlockwise. Source: definition"""
    x, y = points[:, 0], points[:, 1]
    return float(0.5 * (x * np.roll(y, -1) - np.roll(x, -1) * y).sum())


def polygon_perimeter(points: Array) -> float:
    """Length around a polygon."""
    return float(np.linalg.norm(np.roll(points, -1, axis=0) - points, axis=1).sum())


def pushed_out(points: Array, distance: float) -> Array:
    """The polygon with every side moved outward, corners mitred; anticlockwise in and out."""
    ahead = np.roll(points, -1, axis=0) - points
    ahead /= np.linalg.norm(ahead, axis=1)[:, None]
    outward = np.stack([ahead[:, 1], -ahead[:, 0]], axis=1)
    before = np.roll(outward, 1, axis=0)
    middle = before + outward
    return np.asarray(points + 2 * distance * middle / (middle**2).sum(axis=1)[:, None])


def wall_heights(tank: Tank, x_mm: Array, y_mm: Array) -> Array:
    """Height above the floor at which the tank begins over x (nx,) by y (ny,): (ny, nx) [mm].

    0 inside the floor's outline, infinite where there is no tank; between, where walls lean.
    """
    if isinstance(tank.shape, BoxShape) and tank.taper_deg == 0:
        inside_x = (x_mm >= 0) & (x_mm <= tank.inner_width_mm)
        inside_y = (y_mm >= 0) & (y_mm <= tank.inner_behind_mm)
        return np.where(inside_y[:, None] & inside_x[None, :], 0.0, np.inf)
    floor = _floor_plan(tank)
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
