"""An outline cut by the cells of a grid: what share of each cell is inside, and its walls."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

Array = NDArray[np.float64]
Whole = NDArray[np.int64]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanCells:
    """One outline over a grid of (ny, nx) cells; lengths in the unit of the outline.

    area              (ny, nx) inside the outline
    centre_x, centre_y  (ny, nx) of that area; of the cell where nothing is inside
    open_x, open_y    (ny, nx-1), (ny-1, nx) length of the faces between cells that is inside
    wall_cell         (n,) flat index of the cell that each piece of wall lies in
    wall_length, wall_normal, wall_middle   (n,), (n, 2) outward, (n, 2)
    """

    area: Array
    centre_x: Array
    centre_y: Array
    open_x: Array
    open_y: Array
    wall_cell: Whole
    wall_length: Array
    wall_normal: Array
    wall_middle: Array


def plan_cells(outline: Array, x_faces: Array, y_faces: Array) -> PlanCells:
    """Cut an outline by a grid that covers it; exact for any simple polygon, anticlockwise.

    A face of which more is inside on one of its sides than on the other is wall for the rest.
    Source: sutherland_hodgman1974
    """
    outline = np.ascontiguousarray(outline, dtype=float)
    area, mx, my, along, walls = _clip(outline, x_faces, y_faces)
    mid_x, mid_y = 0.5 * (x_faces[:-1] + x_faces[1:]), 0.5 * (y_faces[:-1] + y_faces[1:])
    safe = np.where(area > 0, area, 1.0)
    left, right, front, back = along
    open_x = np.minimum(right[:, :-1], left[:, 1:])
    open_y = np.minimum(back[:-1], front[1:])
    closed = [
        (right - np.pad(open_x, ((0, 0), (0, 1))), (1.0, 0.0), x_faces[1:], mid_y),
        (left - np.pad(open_x, ((0, 0), (1, 0))), (-1.0, 0.0), x_faces[:-1], mid_y),
        (back - np.pad(open_y, ((0, 1), (0, 0))), (0.0, 1.0), mid_x, y_faces[1:]),
        (front - np.pad(open_y, ((1, 0), (0, 0))), (0.0, -1.0), mid_x, y_faces[:-1]),
    ]
    cells, lengths = [walls[:, 0].astype(np.int64)], [walls[:, 1]]
    normals, middles = [walls[:, 2:4]], [walls[:, 4:6]]
    for length, normal, at_x, at_y in closed:
        row, cell = np.nonzero(length > 1e-9 * (x_faces[-1] - x_faces[0]))
        cells.append(row * area.shape[1] + cell)
        lengths.append(length[row, cell])
        normals.append(np.tile(normal, (len(row), 1)))
        middles.append(np.stack([at_x[cell], at_y[row]], axis=1))
    return PlanCells(
        area=area,
        centre_x=np.where(area > 0, mx / safe, mid_x[None, :]),
        centre_y=np.where(area > 0, my / safe, mid_y[:, None]),
        open_x=open_x, open_y=open_y,
        wall_cell=np.concatenate(cells), wall_length=np.concatenate(lengths),
        wall_normal=np.concatenate(normals), wall_middle=np.concatenate(middles),
    )


@njit(nogil=True, cache=True)
def _half(points, count, out, axis, limit, sign):  # type: ignore[no-untyped-def]
    """Points of a polygon cut to one side of a line; returns how many."""
    made = 0
    for i in range(count):
        j = i + 1 if i + 1 < count else 0
        a = sign * (points[i, axis] - limit)
        b = sign * (points[j, axis] - limit)
        if a >= 0.0:
            out[made] = points[i]
            made += 1
        if (a > 0.0 and b < 0.0) or (a < 0.0 and b > 0.0):
            part = a / (a - b)
            out[made] = points[i] + part * (points[j] - points[i])
            out[made, axis] = limit
            made += 1
    return made


@njit(nogil=True, cache=True)
def _marked(outline, x_faces, y_faces):  # type: ignore[no-untyped-def]
    """Cells that a side of the outline may pass through."""
    nx, ny = x_faces.shape[0] - 1, y_faces.shape[0] - 1
    marked = np.zeros((ny, nx), dtype=np.bool_)
    for i in range(outline.shape[0]):
        j = i + 1 if i + 1 < outline.shape[0] else 0
        low_x, high_x = min(outline[i, 0], outline[j, 0]), max(outline[i, 0], outline[j, 0])
        low_y, high_y = min(outline[i, 1], outline[j, 1]), max(outline[i, 1], outline[j, 1])
        for row in range(ny):
            if y_faces[row + 1] < low_y or y_faces[row] > high_y:
                continue
            for cell in range(nx):
                if x_faces[cell + 1] >= low_x and x_faces[cell] <= high_x:
                    marked[row, cell] = True
    return marked


@njit(nogil=True, cache=True)
def _holds(outline, x, y):  # type: ignore[no-untyped-def]
    inside = False
    for i in range(outline.shape[0]):
        j = i + 1 if i + 1 < outline.shape[0] else 0
        ax, ay, bx, by = outline[i, 0], outline[i, 1], outline[j, 0], outline[j, 1]
        if (ay > y) != (by > y) and x < ax + (y - ay) * (bx - ax) / (by - ay):
            inside = not inside
    return inside


@njit(nogil=True, cache=True)
def _clip(outline, x_faces, y_faces):  # type: ignore[no-untyped-def]
    """Area, first moments, inside length of the four faces, and walls
    (cell, length, normal x, y, middle x, y) of every cell."""
    nx, ny = x_faces.shape[0] - 1, y_faces.shape[0] - 1
    area, mx, my = np.zeros((ny, nx)), np.zeros((ny, nx)), np.zeros((ny, nx))
    along = np.zeros((4, ny, nx))
    marked = _marked(outline, x_faces, y_faces)
    size = 4 * outline.shape[0] + 32
    one, two = np.empty((size, 2)), np.empty((size, 2))
    walls = np.empty((256, 6))
    made = 0
    for row in range(ny):
        y0, y1 = y_faces[row], y_faces[row + 1]
        for cell in range(nx):
            x0, x1 = x_faces[cell], x_faces[cell + 1]
            if not marked[row, cell]:
                if _holds(outline, 0.5 * (x0 + x1), 0.5 * (y0 + y1)):
                    area[row, cell] = (x1 - x0) * (y1 - y0)
                    mx[row, cell] = area[row, cell] * 0.5 * (x0 + x1)
                    my[row, cell] = area[row, cell] * 0.5 * (y0 + y1)
                    along[0, row, cell] = along[1, row, cell] = y1 - y0
                    along[2, row, cell] = along[3, row, cell] = x1 - x0
                continue
            count = outline.shape[0]
            one[:count] = outline
            count = _half(one, count, two, 0, x0, 1.0)
            count = _half(two, count, one, 0, x1, -1.0)
            count = _half(one, count, two, 1, y0, 1.0)
            count = _half(two, count, one, 1, y1, -1.0)
            for i in range(count):
                j = i + 1 if i + 1 < count else 0
                ax, ay, bx, by = one[i, 0], one[i, 1], one[j, 0], one[j, 1]
                cross = ax * by - bx * ay
                area[row, cell] += 0.5 * cross
                mx[row, cell] += cross * (ax + bx) / 6.0
                my[row, cell] += cross * (ay + by) / 6.0
                if ax == x0 and bx == x0:
                    along[0, row, cell] += ay - by
                elif ax == x1 and bx == x1:
                    along[1, row, cell] += by - ay
                elif ay == y0 and by == y0:
                    along[2, row, cell] += bx - ax
                elif ay == y1 and by == y1:
                    along[3, row, cell] += ax - bx
                else:
                    length = np.hypot(bx - ax, by - ay)
                    if length <= 0.0:
                        continue
                    if made == walls.shape[0]:
                        more = np.empty((2 * made, 6))
                        more[:made] = walls
                        walls = more
                    walls[made, 0] = row * nx + cell
                    walls[made, 1] = length
                    walls[made, 2], walls[made, 3] = (by - ay) / length, (ax - bx) / length
                    walls[made, 4], walls[made, 5] = 0.5 * (ax + bx), 0.5 * (ay + by)
                    made += 1
    return area, mx, my, along, walls[:made].copy()


def holds_point(outline: Array, x: float, y: float) -> bool:
    """True if a point lies inside a closed outline (n, 2), by counting crossings."""
    return bool(_holds(outline, x, y))


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
