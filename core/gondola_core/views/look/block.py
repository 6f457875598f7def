"""The block of resin as its faces: where each stands, whether it is clear, sanded or painted, and the rippled top."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import ConvexHull

from ...scene import FreeShape, RippledTop, Scene
from ...shape import tank_plan
from ...tint.lines import BATCH_STEP
from .optics import facet_slope
from .world import CLEAR, EDGE, KIND, PAINTED, SLOPE, Array, Block

WHITE_PAINT = "#ece9e2"
"""White paint on the sides. Source: assumed"""
DULL_GRIT = 400
"""Sides that are left sanded. Source: assumed"""
ROUND_DEG = 15.0
"""Sides that turn by less belong to one round wall. Source: assumed"""
WAYS_DEG = (12.0, -31.0, 64.0, -78.0, 38.0)
STRETCH = (1.0, 0.74, 1.31, 0.83, 1.17)
PHASES = (0.3, 2.1, 4.0, 5.2, 1.4)
"""Of the five sines that make a ripple: their ways, their lengths over the one asked, and where they begin.
Source: assumed"""
WHITE_WIDE = 0.8
"""Width of white water's blots, over the length of the ripples. Source: assumed"""


def block_of(scene: Scene) -> Block:
    """The block of a scene when its dam is off; a plan with inward corners is taken as its hull."""
    tank = scene.tank
    floor, brim = (_convex(tank_plan(tank, height)) for height in (0.0, tank.fill_height_mm))
    sides = _sides(floor, brim, tank.fill_height_mm)
    planes = np.concatenate([sides, [[0, 0, -1, 0.0], [0, 0, 1, tank.fill_height_mm]]])
    count = len(sides)
    finish = np.zeros((count + 2, 10))
    finish[:, KIND] = CLEAR
    for at, name in enumerate(_facing(sides)):
        seen = name in scene.brief.viewing_sides
        if tank.walls_stay:
            continue
        if seen or scene.brief.sides == "polished":
            finish[at, SLOPE] = facet_slope(scene.finish.sand_to_grit, scene.finish.edge_coat)
        elif scene.brief.sides == "painted_white":
            finish[at, KIND] = PAINTED
        else:
            finish[at, SLOPE] = facet_slope(DULL_GRIT)
    finish[count, KIND] = PAINTED
    centre = floor.mean(axis=0)
    finish[:count, EDGE:] = _round(floor)
    top = scene.finish.top
    return Block(
        planes=planes, finish=finish, waves=waves_of(top), seams=_seams(scene),
        white=(top.white_fraction, WHITE_WIDE * top.ripple_length_mm),
        index_of_refraction=scene.resin_of(scene.pours[-1]).refractive_index,
        inside=(float(centre[0]), float(centre[1]), 0.5 * tank.fill_height_mm),
    )


def painted_srgb(scene: Scene) -> str:
    """Colour of painted faces: white sides, else a floor like the bed."""
    return WHITE_PAINT if scene.brief.sides == "painted_white" else scene.bed.paint_srgb


def waves_of(top: RippledTop) -> Array:
    """Five sines that together are as steep as the one ripple that is asked for, (5, 4); none where it is calm.

    Their mean square slope is that of A sin(2 pi x/L).
    """
    if top.ripple_mm == 0:
        return np.zeros((0, 4))
    number = 2 * np.pi / (top.ripple_length_mm * np.array(STRETCH))
    high = top.ripple_mm / np.sqrt(len(STRETCH)) * np.array(STRETCH)
    way = np.radians(WAYS_DEG)
    return np.stack([high, number * np.cos(way), number * np.sin(way), PHASES], axis=1)


def _seams(scene: Scene) -> Array:
    """Height above the floor and step in index of each layer line, (k, 2)."""
    lines = [
        (scene.tank.fill_height_mm - below.top_depth_mm, max(BATCH_STEP, abs(
            scene.resin_of(above).refractive_index - scene.resin_of(below).refractive_index
        )))
        for below, above in pairwise(scene.pours)
    ]
    return np.array(lines).reshape(-1, 2)


def _convex(plan: Array) -> Array:
    """Corners of the hull of an outline, anticlockwise."""
    return np.asarray(plan[ConvexHull(plan).vertices])


def is_hull(scene: Scene) -> bool:
    """True if the plan has inward corners, which the look leaves out."""
    plan = tank_plan(scene.tank, 0.0)
    return isinstance(scene.tank.shape, FreeShape) and len(_convex(plan)) < len(plan)


def _sides(floor: Array, brim: Array, high: float) -> Array:
    """Outward normal and distance of each side, (n, 4), through its edges on the floor and at the fill line."""
    along = np.roll(floor, -1, axis=0) - floor
    out = np.stack([along[:, 1], -along[:, 0]], axis=1)
    out /= np.linalg.norm(out, axis=1)[:, None]
    lean = np.einsum("ij,ij->i", brim - floor, out) / high
    normal = np.column_stack([out, -lean]) / np.hypot(1.0, lean)[:, None]
    return np.column_stack([normal, np.einsum("ij,ij->i", normal[:, :2], floor)])


def _facing(sides: Array) -> list[str]:
    """The side of the piece that each face belongs to, by where it faces most."""
    names = np.array(["right", "left", "back", "front"])
    toward = np.column_stack([sides[:, 0], -sides[:, 0], sides[:, 1], -sides[:, 1]])
    return [str(one) for one in names[toward.argmax(axis=1)]]


def _round(floor: Array) -> Array:
    """Of each side where its edge begins and ends in plan, and the normals there where the wall is round, (n, 8)."""
    after = np.roll(floor, -1, axis=0)
    along = after - floor
    out = np.stack([along[:, 1], -along[:, 0]], axis=1)
    out /= np.linalg.norm(out, axis=1)[:, None]
    turns: NDArray[np.bool_] = (out * np.roll(out, 1, axis=0)).sum(axis=1) > np.cos(np.radians(ROUND_DEG))
    at_start = np.where(turns[:, None], out + np.roll(out, 1, axis=0), 2 * out) / 2
    at_start /= np.linalg.norm(at_start, axis=1)[:, None]
    ends_soft = np.roll(turns, -1)
    at_end = np.where(ends_soft[:, None], np.roll(at_start, -1, axis=0), out)
    soft = (turns | ends_soft) & (len(floor) > 4)
    bends = np.where(soft[:, None], np.concatenate([at_start, at_end], axis=1), 0.0)
    return np.concatenate([floor, after, bends], axis=1)
