"""Points on the skin of each pour, where it cures last: at walls, edges and corners, top and bottom.

A cell tells the state of its middle. What lies against cold glass or air is cooler and slower, and
the last place to gel is a corner. So every cell at a face carries one more point, on that face or
where its faces meet; its temperature follows from the flow through them, its cure is its own.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .box import CellBox, WallPieces
from .kinetics import Array

Whole = NDArray[np.int64]

CORNER_DEG = 50.0
"""Walls of one cell that turn by less are one curved wall. Source: assumed"""
LEAST_TOLD = 0.5
"""A cell of which less is inside tells its walls poorly; those beside it tell the same wall better, unless
it holds a corner. Source: own_march, against rings (tested)"""


class SkinPoints(NamedTuple):
    """Points in the order of their levels, for the march.

        T = room + own (T_cell - room) + other (T_beside - room)

    cell, beside   (n,) flat index within their levels of the cell and of the one across the face
    level, beside_level   (n,)
    own, other     (n,) shares of the excess over the room
    degree         (n,) degree of cure, changed in place
    rate           (n,) its rate at the end of the last step [1/s]; -1: not known
    reached        (n,) how many marks it has passed
    crossed_at     (marks, n) when [s]; NaN if it did not
    """

    cell: Whole
    beside: Whole
    level: Whole
    beside_level: Whole
    own: Array
    other: Array
    degree: Array
    rate: Array
    reached: Whole
    crossed_at: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Skin:
    """The skin of all pours, and how its upper faces change when the next pour covers them.

    points         with every upper face open to the air
    is_top         (n,) True at the upper face of a pour
    covered_own, covered_other   (n,) shares once the next pour lies on it
    first_of_level (levels + 1,) first point of each level
    """

    points: SkinPoints
    is_top: NDArray[np.bool_]
    covered_own: Array
    covered_other: Array
    first_of_level: Whole


def skin_of(box: CellBox, marks: int) -> Skin:
    """The skin of a tank.

    marks  how many degrees of cure are noted

    A wall leaves `kept` of a cell's excess over the room at its inner face, the open top likewise;
    where faces meet their shares multiply (exact for a square corner of an even field, own_march);
    an interface lies between its two cells as their conductances weigh it. All to second order.
    """
    at_wall, has_wall, has_corner = _wall_share(box)
    wet = (box.heat > 0) & ((box.inside >= LEAST_TOLD) | has_corner | ~has_wall)
    levels = len(box.pour_of_level)
    rows = [
        row for level in range(1, levels - 1) if box.pour_of_level[level] >= 0
        for row in _level_rows(box, at_wall, has_wall, level, np.flatnonzero(wet[level].ravel()))
    ]
    columns = [np.concatenate(column) for column in zip(*rows, strict=True)]
    cell, level_of, beside_level, own, other, covered_own, covered_other, top = columns
    count = len(cell)
    return Skin(
        points=SkinPoints(
            cell=cell.astype(np.int64), beside=cell.astype(np.int64), level=level_of.astype(np.int64),
            beside_level=beside_level.astype(np.int64), own=own, other=other, degree=np.zeros(count),
            rate=np.full(count, -1.0), reached=np.zeros(count, dtype=np.int64),
            crossed_at=np.full((marks, count), np.nan),
        ),
        is_top=top.astype(bool), covered_own=covered_own, covered_other=covered_other,
        first_of_level=np.searchsorted(level_of, np.arange(levels + 1)),
    )


def _level_rows(
    box: CellBox, at_wall: Array, has_wall: NDArray[np.bool_], level: int, cells: NDArray[np.int64]
) -> list[tuple[NDArray[Any], ...]]:
    """Points of one level: at the open top, at the interface below, or along the walls between."""
    pour = box.pour_of_level[level]
    kept = at_wall[level].ravel()[cells]
    is_top = box.pour_of_level[level + 1] != pour
    is_bottom = box.pour_of_level[level - 1] != pour
    rows: list[tuple[NDArray[Any], ...]] = []
    if is_top:
        rows.append(_top_points(box, at_wall, level, cells))
    if is_bottom:
        weight = _weight(box.down[level].ravel()[cells], box.up[level - 1].ravel()[cells])
        below = np.where(box.pour_of_level[level - 1] < 0, 1.0, at_wall[level - 1].ravel()[cells])
        own, other = (1 - weight) * kept, weight * below
        rows.append(_points(cells, level, level - 1, own, other, own, other, False))
    if not is_top and not is_bottom:
        beside = has_wall[level].ravel()[cells]
        zero = np.zeros(int(beside.sum()))
        rows.append(_points(cells[beside], level, level, kept[beside], zero, kept[beside], zero, False))
    return rows


def cover(skin: Skin, level: int) -> None:
    """From now on the upper faces of this level lie under the next pour."""
    skin.points.rate[:] = -1.0
    mine = skin.is_top & (skin.points.level == level)
    skin.points.own[mine] = skin.covered_own[mine]
    skin.points.other[mine] = skin.covered_other[mine]


def _top_points(box: CellBox, at_wall: Array, level: int, cells: Whole) -> tuple[NDArray[Any], ...]:
    kept = at_wall[level].ravel()[cells]
    up, opening = box.up[level].ravel()[cells], box.top[level].ravel()[cells]
    # of the whole way to the room, up to the face and through the film, the film's share is left
    at_top = np.where(up > 0, 1.0 - opening / np.where(up > 0, up, 1.0), 1.0)
    weight = _weight(up, box.down[level + 1].ravel()[cells])
    beyond = at_wall[level + 1].ravel()[cells]
    zero = np.zeros(len(cells))
    return _points(cells, level, level + 1, kept * at_top, zero, (1 - weight) * kept, weight * beyond, True)


def _points(
    cells: Whole, level: int, beside_level: int, own: Array, other: Array, covered_own: Array,
    covered_other: Array, top: bool,
) -> tuple[NDArray[Any], ...]:
    count = len(cells)
    return (
        cells, np.full(count, level), np.full(count, beside_level), own, other, covered_own,
        covered_other, np.full(count, top),
    )


def _weight(here: Array, there: Array) -> Array:
    """Share of the far cell's temperature in that of the face between the two."""
    return np.asarray(np.where(here + there > 0, there / np.where(here + there > 0, here + there, 1.0), 0.0))


def _wall_share(box: CellBox) -> tuple[Array, NDArray[np.bool_], NDArray[np.bool_]]:
    """Excess over the room at the walls of each cell, where they meet, over that at its middle.

    Also which cells have a wall, and in which of them walls meet in a corner.
    """
    share = np.ones(box.heat.size)
    wall, corner = np.zeros(box.heat.size, dtype=np.bool_), np.zeros(box.heat.size, dtype=np.bool_)
    walls: WallPieces = box.walls
    _corner_shares(
        walls.cell, np.log(walls.kept), walls.area, walls.normal, walls.middle,
        np.cos(np.radians(CORNER_DEG)), share, corner,
    )
    wall[walls.cell] = True
    shape = box.heat.shape
    return share.reshape(shape), wall.reshape(shape), corner.reshape(shape)


@njit(nogil=True, cache=True)
def _corner_shares(cell, log_kept, area, normal, middle, one_wall, share, corner):  # type: ignore[no-untyped-def]
    """Share at the sharpest convex corner of each cell's walls, or at its one wall.

    Pieces that turn little are one wall, whose drop is their mean. Two walls whose outward normals
    are an angle f apart drain alike, so that each gives 1/(1 + cos f) of its own drop towards where
    they meet; that is all of it in a square corner.
    """
    count = cell.shape[0]
    of_wall = np.empty(count)
    start = 0
    while start < count:
        stop = start
        while stop < count and cell[stop] == cell[start]:
            stop += 1
        for i in range(start, stop):
            whole, weight = 0.0, 0.0
            for j in range(start, stop):
                if normal[i, 0] * normal[j, 0] + normal[i, 1] * normal[j, 1] > one_wall:
                    whole += area[j] * log_kept[j]
                    weight += area[j]
            of_wall[i] = whole / weight
        least = 0.0
        for i in range(start, stop):
            least = min(least, of_wall[i])
            for j in range(i + 1, stop):
                facing = normal[i, 0] * normal[j, 0] + normal[i, 1] * normal[j, 1]
                if facing > one_wall or facing < -0.95:
                    continue
                beyond = (
                    normal[j, 0] * (middle[i, 0] - middle[j, 0])
                    + normal[j, 1] * (middle[i, 1] - middle[j, 1])
                )
                if beyond > 1e-9:
                    continue
                least = min(least, (of_wall[i] + of_wall[j]) / (1.0 + facing))
                corner[cell[start]] = True
        share[cell[start]] = np.exp(least)
        start = stop
