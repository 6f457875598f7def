"""What is solid along even vertical lines of the tank, and the free volume that this leaves.

One vertical line stands in the middle of each column of the tank. What is solid along it is kept
as spans, joined where they overlap, so that overlaps count once; free height below a level is
exact in height and a midpoint sum across.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from ..polygon import polygon_area
from ..scene import Bed, Figure, Tank
from . import Meshes, bed_heights, figure_spans, mesh_spans, plan_box, tank_plan, wall_heights
from .bodies.body import own_mesh

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

COLUMN_MM, CLOSE_COLUMN_MM = 1.0, 0.5
USUAL_COLUMNS, MOST_COLUMNS = 24_000, 60_000
"""Columns of 1 mm up to a desk-size tank; small tanks get columns of half that, large ones wider."""
OUTSIDE, BED, FIRST_FIGURE = 0, 1, 2
"""What a span is: beyond the walls, bed, and the figures in their order from 2 on."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Columns:
    """Even vertical lines over the tank.

    x_mm, y_mm  (nx,), (ny,) middles of the columns
    area_mm2    of one column; in tanks that are no boxes so scaled that the floor's area is exact
    begins_mm   (ny, nx) height at which the tank begins, infinite where there is none
    """

    x_mm: Array
    y_mm: Array
    area_mm2: float
    begins_mm: Array


Parts = tuple[Whole, Array, Array]
"""Spans of one thing: (column, low, high), column = row * nx + cell."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ColumnSpans:
    """Solid spans of every column.

    x_mm, y_mm  (nx,), (ny,) middles of the columns
    area_mm2    of one column
    first       (ny*nx + 1,) index of each column's first span, row by row
    low, high   (spans,) heights above the floor, rising and apart within a column [mm]
    what        (spans,) `OUTSIDE`, `BED`, or `FIRST_FIGURE` and on
    """

    x_mm: Array
    y_mm: Array
    area_mm2: float
    first: Whole
    low: Array
    high: Array
    what: Whole


def tank_columns(tank: Tank) -> Columns:
    """Columns of 1 mm, closer in small tanks and wider in large ones, over the smallest box around the tank."""
    left, right, front, back = plan_box(tank)
    width, behind = right - left, back - front
    small = width * behind <= USUAL_COLUMNS * CLOSE_COLUMN_MM**2
    pitch = max(CLOSE_COLUMN_MM if small else COLUMN_MM, float(np.sqrt(width * behind / MOST_COLUMNS)))
    nx, ny = max(12, round(width / pitch)), max(12, round(behind / pitch))
    x = left + (np.arange(nx) + 0.5) * width / nx
    y = front + (np.arange(ny) + 0.5) * behind / ny
    begins = wall_heights(tank, x, y)
    area = width / nx * behind / ny
    floor = polygon_area(tank_plan(tank))
    if tank.taper_deg == 0:
        area = floor / max(1, int((begins == 0).sum()))
    return Columns(x_mm=x, y_mm=y, area_mm2=area, begins_mm=begins)


def ground_spans(tank: Tank, bed: Bed, columns: Columns, meshes: Meshes) -> tuple[Parts, Parts]:
    """What lies beyond the walls, and the bed: its heights and the mesh on them."""
    count = columns.begins_mm.size
    every = np.arange(count)
    begins = columns.begins_mm.ravel()
    beyond = begins > 0
    outside = (
        every[beyond], np.full(int(beyond.sum()), -1.0),
        np.where(np.isinf(begins[beyond]), 1e6, begins[beyond]),
    )
    ground = bed_heights(bed, tank, columns.x_mm, columns.y_mm).ravel()
    parts: list[Parts] = [(every, np.full(count, -1.0), ground)]
    if bed.mesh is not None:
        spans = mesh_spans(own_mesh(bed.mesh, meshes), columns.x_mm, columns.y_mm)
        parts.append((spans.column, spans.low, spans.high))
    column, low, high = (np.concatenate(arrays) for arrays in zip(*parts, strict=True))
    return outside, (column, low, high)


def spans_of(figure: Figure, columns: Columns, meshes: Meshes) -> Parts:
    """What is solid of one figure along the columns."""
    return figure_spans(figure, meshes, columns.x_mm, columns.y_mm)


def put_together(columns: Columns, parts: list[Parts]) -> ColumnSpans:
    """All things in one; where two overlap, the one named first keeps the place.

    parts  beyond the walls, the bed, then each figure
    """
    column, low, high = (np.concatenate(arrays) for arrays in zip(*parts, strict=True))
    what = np.repeat(np.arange(len(parts)), [len(part[0]) for part in parts])
    order = np.argsort(column, kind="stable")
    first, out_low, out_high, out_what = _apart(
        columns.begins_mm.size, column[order], low[order], high[order], what[order]
    )
    return ColumnSpans(
        x_mm=columns.x_mm, y_mm=columns.y_mm, area_mm2=columns.area_mm2,
        first=first, low=out_low, high=out_high, what=out_what,
    )


def column_spans(
    tank: Tank, bed: Bed, figures: list[Figure], meshes: Meshes | None = None
) -> ColumnSpans:
    """Spans of tank, bed and all figures in one call; the composer keeps the pieces instead."""
    held = meshes or {}
    columns = tank_columns(tank)
    outside, ground = ground_spans(tank, bed, columns, held)
    return put_together(
        columns, [outside, ground, *(spans_of(figure, columns, held) for figure in figures)]
    )


def lowest_gap_mm(figure_part: Parts, ground: Parts, count: int) -> float | None:
    """How far a figure could sink before it touches the bed; None if no column has both [mm]."""
    column, low, _ = figure_part
    if not len(column):
        return None
    top = np.full(count, -np.inf)
    np.maximum.at(top, ground[0], ground[2])
    gap = low - top[column]
    gap = gap[np.isfinite(gap)]
    return float(gap.min()) if len(gap) else None


@njit(nogil=True, cache=True)
def _apart(columns, column, low, high, what):  # type: ignore[no-untyped-def]
    """Spans of each column made apart, in rising order; an earlier one keeps what it covers."""
    size = column.shape[0]
    first = np.zeros(columns + 1, dtype=np.int64)
    room = 4 * size + 16
    out_low, out_high = np.empty(room), np.empty(room)
    out_what = np.empty(room, dtype=np.int64)
    count = 0
    cursor = 0
    for c in range(columns):
        first[c] = count
        start = count
        while cursor < size and column[cursor] == c:
            a = max(low[cursor], 0.0)
            b = high[cursor]
            k = start
            while k < count and a < b:
                if out_high[k] <= a:
                    k += 1
                    continue
                if out_low[k] >= b:
                    break
                if out_low[k] > a:
                    if count >= room:
                        raise ValueError("too many overlapping solids in one place")
                    for m in range(count, k, -1):
                        out_low[m] = out_low[m - 1]
                        out_high[m] = out_high[m - 1]
                        out_what[m] = out_what[m - 1]
                    out_low[k], out_high[k], out_what[k] = a, out_low[k + 1], what[cursor]
                    count += 1
                    k += 1
                a = out_high[k]
                k += 1
            if a < b:
                if count >= room:
                    raise ValueError("too many overlapping solids in one place")
                for m in range(count, k, -1):
                    out_low[m] = out_low[m - 1]
                    out_high[m] = out_high[m - 1]
                    out_what[m] = out_what[m - 1]
                out_low[k], out_high[k], out_what[k] = a, b, what[cursor]
                count += 1
            cursor += 1
    first[columns] = count
    return first, out_low[:count].copy(), out_high[:count].copy(), out_what[:count].copy()


@njit(nogil=True, cache=True)
def _solid_below(levels, low, high):  # type: ignore[no-untyped-def]
    """Summed solid height below each rising level, over all columns."""
    total = np.zeros(levels.shape[0])
    cut = np.zeros(levels.shape[0], dtype=np.int64)
    for s in range(low.shape[0]):
        for k in range(levels.shape[0]):
            if levels[k] <= low[s]:
                continue
            if levels[k] < high[s]:
                total[k] += levels[k] - low[s]
                cut[k] += 1
            else:
                total[k] += high[s] - low[s]
    return total, cut


def free_volume_ml(spans: ColumnSpans, heights_mm: Array) -> Array:
    """Volume below each height that is not solid; heights (n,) above the floor, result (n,)."""
    heights = np.ascontiguousarray(heights_mm, dtype=float)
    solid, _ = _solid_below(heights, spans.low, spans.high)
    return np.asarray((heights * (len(spans.first) - 1) - solid) * spans.area_mm2 / 1000)


def free_surface_cm2(spans: ColumnSpans, heights_mm: Array) -> Array:
    """Area of the open surface at each height (n,): result (n,)."""
    heights = np.ascontiguousarray(heights_mm, dtype=float)
    _, cut = _solid_below(heights, spans.low, spans.high)
    return np.asarray((len(spans.first) - 1 - cut) * spans.area_mm2 / 100)


@njit(nogil=True, cache=True)
def _cell_volumes(nx, ny, first, low, high, group, groups, xi, yi, faces, shape, area):  # type: ignore[no-untyped-def]
    volume = np.zeros((groups, faces.shape[0] - 1, shape[0], shape[1]))
    for c in range(nx * ny):
        i = xi[c % nx]
        j = yi[c // nx]
        for s in range(first[c], first[c + 1]):
            g = group[s]
            for k in range(faces.shape[0] - 1):
                bottom = max(low[s], faces[k])
                top = min(high[s], faces[k + 1])
                if top > bottom:
                    volume[g, k, j, i] += (top - bottom) * area
    return volume


def solid_fractions(
    spans: ColumnSpans, group_of: list[int], x_faces_mm: Array, y_faces_mm: Array, z_faces_mm: Array
) -> Array:
    """Share of each solid group in each cell of a coarser grid, (groups, nz, ny, nx).

    group_of  group of what lies beyond the walls, of the bed, then of each figure, from 0
    """
    group = np.array(group_of)[spans.what]
    return cell_shares(
        spans, (spans.first, spans.low, spans.high, group), max(group_of) + 1, (x_faces_mm, y_faces_mm, z_faces_mm)
    )


def cell_shares(
    spans: ColumnSpans, stretches: tuple[Whole, Array, Array, Whole], groups: int, faces_mm: tuple[Array, Array, Array]
) -> Array:
    """Share of each group of stretches in each cell of a coarser grid, (groups, nz, ny, nx).

    spans      whose columns they stand on
    stretches  (columns + 1,) first of each column, and of each stretch low, high [mm] and group
    faces_mm   of the cells along x, y, z

    A column belongs whole to the cell that holds its middle; shares are of the columns there.
    """
    x_faces_mm, y_faces_mm, z_faces_mm = faces_mm
    xi = np.clip(np.searchsorted(x_faces_mm, spans.x_mm) - 1, 0, len(x_faces_mm) - 2)
    yi = np.clip(np.searchsorted(y_faces_mm, spans.y_mm) - 1, 0, len(y_faces_mm) - 2)
    first, low, high, group = stretches
    volume = _cell_volumes(
        len(spans.x_mm), len(spans.y_mm), first, low, high, group, groups, xi, yi,
        np.ascontiguousarray(z_faces_mm, dtype=float), (len(y_faces_mm) - 1, len(x_faces_mm) - 1), spans.area_mm2,
    )
    columns = np.bincount(yi, minlength=len(y_faces_mm) - 1)[:, None] * np.bincount(
        xi, minlength=len(x_faces_mm) - 1
    )
    whole = columns[None, None] * spans.area_mm2 * np.diff(z_faces_mm)[None, :, None, None]
    shares = volume / np.where(whole > 0, whole, 1.0)
    # cells narrower than a column may hold none: they are as the nearest that does
    return np.asarray(shares[:, :, _nearest_of(yi, shares.shape[2])][:, :, :, _nearest_of(xi, shares.shape[3])])


def _nearest_of(held: Whole, count: int) -> Whole:
    """For each of `count` cells the nearest one that holds a column."""
    some = np.unique(held)
    return np.asarray(some[np.abs(some[None, :] - np.arange(count)[:, None]).argmin(axis=1)])
