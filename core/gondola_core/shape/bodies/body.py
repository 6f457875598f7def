"""Figures as bodies in the tank: their meshes, what vertical lines meet, volume, area, undersides."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from ...errors import GondolaError
from ...scene import Box, Capsule, Ellipsoid, Figure, MeshSolid, Place, Solid
from .chords import figure_chords, has_chords, solid_volume
from .frame import figure_matrix, to_tank
from .mesh import Meshes, TriMesh, body_volume, joined, lines_over, mesh_area, mesh_spans, mesh_volume
from .shapes import solid_mesh

Array = NDArray[np.float64]

ONE_SHELL = ("eel", "hull", "ring")
"""Kinds whose mesh is a single shell."""
COLUMNS_OVER_A_BODY = 160
"""Lines over the longer side of a figure whose shells overlap, for its own volume."""


def own_mesh(solid: Solid, meshes: Meshes) -> TriMesh:
    """A solid's mesh in its figure's frame; GondolaError if it points at a mesh that is not there."""
    if not isinstance(solid, MeshSolid):
        return solid_mesh(solid)
    found = meshes.get(solid.mesh_id)
    if found is None:
        raise GondolaError(
            f"The mesh '{solid.mesh_id}' of this scene is not here: bring its file in again."
        )
    return found.moved(found.vertices * solid.scale_ratio + np.array(solid.offset_mm))


def turned_mesh(figure: Figure, meshes: Meshes) -> TriMesh:
    """All of a figure, rolled, tilted and turned about its own place, shells side by side [mm]."""
    whole = joined([own_mesh(solid, meshes) for solid in figure.solids])
    return whole.moved(np.asarray(whole.vertices @ figure_matrix(figure).T))


def figure_mesh(figure: Figure, meshes: Meshes) -> TriMesh:
    """All of a figure in the tank, its shells side by side [mm]."""
    whole = turned_mesh(figure, meshes)
    place = [figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm]
    return whole.moved(whole.vertices + np.array(place))


def figure_spans(
    figure: Figure, meshes: Meshes, x: Array, y: Array
) -> tuple[NDArray[np.int64], Array, Array]:
    """Solid spans of a figure on even lines: (column, low, high), column = row * nx + cell.

    Simple solids by their closed chords, all else by their meshes. A vent takes away what is solid
    above it; one that is narrower than the lines are apart takes the nearest line.
    """
    columns, lows, highs = [], [], []
    for rows, across, low, high in figure_chords(figure, x, y):
        hit = np.argwhere(low < high)
        columns.append((hit[:, 0] + rows.start) * len(x) + hit[:, 1] + across.start)
        lows.append(low[hit[:, 0], hit[:, 1]])
        highs.append(high[hit[:, 0], hit[:, 1]])
    others = [solid for solid in figure.solids if not has_chords(solid, figure)]
    if others:
        whole = joined([own_mesh(solid, meshes) for solid in others])
        spans = mesh_spans(whole.moved(to_tank(whole.vertices, figure)), x, y)
        columns.append(spans.column)
        lows.append(spans.low)
        highs.append(spans.high)
    if not columns:
        return np.zeros(0, dtype=np.int64), np.zeros(0), np.zeros(0)
    column, low, high = np.concatenate(columns), np.concatenate(lows), np.concatenate(highs)
    for vent in figure.vents:
        at = to_tank(np.array([vent.at_mm]), figure)[0]
        px, py = x[column % len(x)], y[column // len(x)]
        pitch = max(x[1] - x[0], y[1] - y[0]) if len(x) > 1 and len(y) > 1 else vent.width_mm
        near = np.hypot(px - at[0], py - at[1]) <= max(vent.width_mm / 2, 0.72 * pitch)
        high = np.where(near, np.minimum(high, at[2]), high)
        keep = high > low
        column, low, high = column[keep], low[keep], high[keep]
    return column, low, high


@dataclass(frozen=True, slots=True, kw_only=True)
class Bulk:
    """How much a figure is, wherever it stands: enclosed volume, area, flat underside, corners.

    spread_ml    by how much the volume is a guess, either way
    least, most  corners about its own place, (3,) [mm]
    column_mm2, low, high   its spans on close lines about its own place, overlaps counted once
    """

    volume_ml: float
    spread_ml: float
    area_cm2: float
    flat_underside_cm2: float
    least: Array
    most: Array
    column_mm2: float
    low: Array
    high: Array


def figure_bulk(figure: Figure, meshes: Meshes) -> Bulk:
    """Volume with overlaps counted once, area, and undersides of a figure about its own place.

    One shell: exact, by closed form or the divergence theorem. Several: by spans on lines close
    enough for some tenths of a percent.
    """
    at_home = figure.model_copy(
        update={"place": Place(x_mm=0.0, behind_mm=0.0, height_mm=0.0), "vents": []}
    )
    whole = turned_mesh(figure, meshes)
    x, y, area = lines_over(whole, COLUMNS_OVER_A_BODY)
    column, bottom, top = figure_spans(at_home, meshes, x, y)
    order = np.lexsort((bottom, column))
    column, bottom, top = column[order], bottom[order], top[order]
    fresh = np.maximum(bottom, _running_top(column, top))
    seen = top > fresh
    volume = float((top - fresh)[seen].sum() * area) / 1000
    if len(figure.solids) == 1:
        solid = figure.solids[0]
        if isinstance(solid, Ellipsoid | Box | Capsule):
            volume = solid_volume(solid) / 1000
        elif solid.kind == "mesh":
            volume = body_volume(whole)[0] / 1000
        elif solid.kind in ONE_SHELL:
            volume = abs(mesh_volume(whole)) / 1000
    return Bulk(
        volume_ml=volume,
        spread_ml=sum(
            solid.spread_ml * solid.scale_ratio**3 for solid in figure.solids if isinstance(solid, MeshSolid)
        ),
        area_cm2=mesh_area(whole) / 100,
        flat_underside_cm2=_flat_underside(whole) / 100,
        least=whole.vertices.min(axis=0),
        most=whole.vertices.max(axis=0),
        column_mm2=area,
        low=fresh[seen],
        high=top[seen],
    )


def above_ml(bulk: Bulk, fill_above_place_mm: float) -> float:
    """Volume of a figure above the fill line; that line above the figure's own place [mm]."""
    if bulk.most[2] <= fill_above_place_mm:
        return 0.0
    over = np.maximum(0.0, bulk.high - np.maximum(bulk.low, fill_above_place_mm))
    return float(over.sum() * bulk.column_mm2 / 1000)


@njit(nogil=True, cache=True)
def _running_top(column, top):  # type: ignore[no-untyped-def]
    """Highest top among the earlier spans of the same column; -inf at its first."""
    before = np.full(len(top), -np.inf)
    for index in range(1, len(top)):
        if column[index] == column[index - 1]:
            before[index] = max(before[index - 1], top[index - 1])
    return before


FLAT_DEG = 10.0
"""Undersides within this of level hold a sheet of small bubbles. Source: own_geometry"""


def _flat_underside(whole: TriMesh) -> float:
    """Area that faces down within some degrees of level [mm2]."""
    a, b, c = (whole.vertices[whole.faces[:, corner]] for corner in range(3))
    across = np.cross(b - a, c - a)
    size = np.linalg.norm(across, axis=1)
    facing = across[:, 2] <= -np.cos(np.radians(FLAT_DEG)) * size
    return float(0.5 * size[facing & (size > 0)].sum())
