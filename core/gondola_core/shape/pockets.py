"""Pockets of air and hollows that fill late, as bodies: where they are, how large, and their shape."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..scene import Scene, Tank
from ..words import Words, words
from . import TriMesh
from .columns import FIRST_FIGURE, ColumnSpans
from .floods import FreeSpans, air_from_mm
from .groups import touching

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

LEAST_POCKET_ML = 0.05
"""Pockets below this are not told. Source: own_geometry"""
LEAST_HOLLOW_MM = 1.0
"""Hollows shallower than this are not told. Source: own_geometry"""
MOST_ROWS = 60
"""Columns of a pocket's drawn outline."""


@dataclass(frozen=True, slots=True, kw_only=True)
class AirTrap:
    """One pocket of air. `lip_depth_mm` is the level that seals it."""

    figure_id: str | None
    volume_ml: float
    x_mm: float
    behind_mm: float
    depth_mm: float
    lip_depth_mm: float
    cells_mm: list[list[float]]


@dataclass(frozen=True, slots=True, kw_only=True)
class DryBasin:
    """A hollow that stays dry until its rim is passed, then fills all at once."""

    volume_ml: float
    x_mm: float
    behind_mm: float
    depth_mm: float
    rim_depth_mm: float
    sealed: bool
    cells_mm: list[list[float]]


@dataclass(frozen=True, slots=True, eq=False)
class Pocket:
    """Free spans that touch, cut to what the pocket holds of them.

    members     (n,) spans of `FreeSpans`; column (n,) where each stands
    x, y        (n,) middle of its column [mm]
    low, high   (n,) [mm above the floor]
    volume_ml
    """

    members: Whole
    column: Whole
    x: Array
    y: Array
    low: Array
    high: Array
    volume_ml: float


def kept_air(scene: Scene, spans: ColumnSpans, free: FreeSpans) -> list[Pocket]:
    """Air that is left at the fill line, largest first."""
    fill = scene.tank.fill_height_mm
    lip = air_from_mm(free)
    top = np.minimum(free.high, fill)
    kept = (free.above >= 0) & (top > lip + 1e-6) & (lip < fill) & (free.escape_mm < fill) & ~free.closed
    found = _touching(spans, free, np.flatnonzero(kept), lip, top)
    return [one for one in found if one.volume_ml >= LEAST_POCKET_ML]


def air_under_ml(spans: ColumnSpans, free: FreeSpans, levels_mm: Sequence[float], count: int) -> Array:
    """Air that levels have shut in under each thing, up to that level: (levels, count) by `ColumnSpans.what`."""
    roofed = np.flatnonzero((free.above >= 0) & ~free.closed & (free.escape_mm < max(levels_mm)))
    lip, above = air_from_mm(free)[roofed], free.above[roofed]
    escape, high = free.escape_mm[roofed], free.high[roofed]
    found = np.zeros((len(levels_mm), count))
    for row, level in zip(found, levels_mm, strict=True):
        tall = np.where(escape < level, np.maximum(np.minimum(high, level) - lip, 0.0), 0.0)
        row += np.bincount(above, tall, minlength=count)[:count] * spans.area_mm2 / 1000
    return found


def late_hollows(scene: Scene, spans: ColumnSpans, free: FreeSpans) -> list[Pocket]:
    """Hollows whose rim stands above their floor, and voids that nothing reaches, largest first."""
    fill = scene.tank.fill_height_mm
    rim = free.rim_mm
    top = np.minimum(np.minimum(free.high, fill), np.where(np.isfinite(rim), rim, fill))
    dry = np.isfinite(rim) | free.closed
    late = np.flatnonzero((rim > free.low + 0.5) & dry & (top > free.low + 1e-6) & (free.low < fill))
    return [
        one for one in _touching(spans, free, late, free.low, top)
        if one.volume_ml >= 4 * LEAST_POCKET_ML and (one.high - one.low).max() >= LEAST_HOLLOW_MM
    ]


def air_traps(scene: Scene, spans: ColumnSpans, free: FreeSpans) -> list[AirTrap]:
    """Pockets that are left at the fill line, largest first; joined where they touch."""
    fill = scene.tank.fill_height_mm
    found = []
    for pocket in kept_air(scene, spans, free):
        highest = int(np.argmax(pocket.high))
        by = int(free.above[pocket.members[highest]])
        figure = scene.figures[by - FIRST_FIGURE] if by >= FIRST_FIGURE else None
        tall = pocket.high - pocket.low
        found.append(
            AirTrap(
                figure_id=figure.id if figure else None,
                volume_ml=round(pocket.volume_ml, 3),
                x_mm=round(float(np.average(pocket.x, weights=tall)), 1),
                behind_mm=round(float(np.average(pocket.y, weights=tall)), 1),
                depth_mm=round(fill - float(pocket.high[highest]), 1),
                lip_depth_mm=round(fill - float(pocket.low.max()), 1),
                cells_mm=_outline_rows(pocket, fill),
            )
        )
    return found


def dry_basins(scene: Scene, spans: ColumnSpans, free: FreeSpans) -> list[DryBasin]:
    """Hollows that fill late or never, largest first."""
    fill = scene.tank.fill_height_mm
    found = []
    for pocket in late_hollows(scene, spans, free):
        tall = pocket.high - pocket.low
        found.append(
            DryBasin(
                volume_ml=round(pocket.volume_ml, 3),
                x_mm=round(float(np.average(pocket.x, weights=tall)), 1),
                behind_mm=round(float(np.average(pocket.y, weights=tall)), 1),
                depth_mm=round(fill - float(pocket.low.min()), 1),
                rim_depth_mm=round(fill - float(pocket.high.max()), 1),
                sealed=bool(np.isinf(free.rim_mm[pocket.members]).all()),
                cells_mm=_outline_rows(pocket, fill),
            )
        )
    return found


def pocket_mesh(pocket: Pocket, spans: ColumnSpans) -> TriMesh:
    """The pocket as upright columns: tops, floors, and walls wherever a neighbour ends elsewhere [mm]."""
    nx = len(spans.x_mm)
    half_x = 0.5 * float(spans.x_mm[1] - spans.x_mm[0])
    half_y = 0.5 * float(spans.y_mm[1] - spans.y_mm[0])
    x, y, low, high = pocket.x, pocket.y, pocket.low, pocket.high
    corners = ((-1, -1), (1, -1), (1, 1), (-1, 1))
    quads = [
        np.stack([np.stack([x + i * half_x, y + j * half_y, at], axis=1) for i, j in way], axis=1)
        for at, way in ((high, corners), (low, corners[::-1]))
    ]
    sides = ((1, (1, -1), (1, 1)), (-1, (-1, 1), (-1, -1)), (nx, (1, 1), (-1, 1)), (-nx, (-1, -1), (1, -1)))
    for step, start, stop in sides:
        ends = [(x + i * half_x, y + j * half_y) for i, j in (start, stop)]
        for foot, top in _uncovered(pocket, step, 3 * max(half_x, half_y)):
            some = top > foot + 1e-9
            quads.append(np.stack([
                np.stack([px[some], py[some], at[some]], axis=1)
                for (px, py), at in ((ends[0], foot), (ends[1], foot), (ends[1], top), (ends[0], top))
            ], axis=1))
    whole = np.concatenate(quads)
    corner = np.arange(4 * len(whole)).reshape(-1, 4)
    faces = np.concatenate([corner[:, [0, 1, 2]], corner[:, [0, 2, 3]]])
    return TriMesh(whole.reshape(-1, 3), faces.astype(np.int32))


def _uncovered(pocket: Pocket, step: int, reach: float) -> list[tuple[Array, Array]]:
    """Stretches of each column's side, (foot, top), that the pocket's next column does not cover.

    step   to the next column; one further away than `reach` [mm] is in another row
    """
    order = np.argsort(pocket.column, kind="stable")
    sorted_columns = pocket.column[order]
    first = np.searchsorted(sorted_columns, pocket.column + step, side="left")
    last = np.searchsorted(sorted_columns, pocket.column + step, side="right")
    foot = pocket.low
    found = []
    for turn in range(int((last - first).max(initial=0))):
        there = first + turn < last
        beside = order[np.minimum(first + turn, len(order) - 1)]
        there &= np.hypot(pocket.x[beside] - pocket.x, pocket.y[beside] - pocket.y) < reach
        found.append((foot, np.where(there, np.minimum(pocket.high, pocket.low[beside]), foot)))
        foot = np.where(there, np.maximum(foot, pocket.high[beside]), foot)
    return [*found, (foot, pocket.high)]


def _touching(
    spans: ColumnSpans, free: FreeSpans, held: Whole, low: Array, top: Array
) -> list[Pocket]:
    """Groups of spans that touch through neighbouring columns, largest first."""
    nx = len(spans.x_mm)
    found = []
    groups, column = touching(nx, free.first, held, low, top)
    for rows in groups:
        members, here = held[rows], column[rows]
        behind, foot, roof = here // nx, low[members], top[members]
        found.append(
            Pocket(
                members=members, column=here, x=spans.x_mm[here - nx * behind], y=spans.y_mm[behind],
                low=foot, high=roof, volume_ml=float((roof - foot).sum() * spans.area_mm2 / 1000),
            )
        )
    return sorted(found, key=lambda one: -one.volume_ml)


def _outline_rows(pocket: Pocket, fill: float) -> list[list[float]]:
    """A pocket as seen from the front: (from the left, depth from, depth to) by column of x."""
    rows = []
    for at in np.unique(pocket.x):
        here = pocket.x == at
        rows.append(
            [
                round(float(at), 1), round(fill - float(pocket.high[here].max()), 1),
                round(fill - float(pocket.low[here].min()), 1),
            ]
        )
    return rows[:: max(1, len(rows) // MOST_ROWS)]


LEAST_PLACE_ML = 0.2
"""A hollow that takes less of a pour is not a place of its own. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class PourPlace:
    """One body of water of a pour that no other of that pour runs into: it is poured by itself."""

    name: Words
    volume_ml: float
    x_mm: float
    behind_mm: float


def pour_places(
    tank: Tank, spans: ColumnSpans, free: FreeSpans, tops_mm: Sequence[float]
) -> list[list[PourPlace]]:
    """Where each pour has to be poured, the largest first; mostly one place.

    tops_mm  level of each pour above the floor, rising
    """
    found = []
    bottom = 0.0
    air_from = np.where(free.above >= 0, air_from_mm(free), np.inf)
    for line in tops_mm:
        low = np.maximum(free.low, bottom)
        top = np.minimum(np.minimum(free.high, line), air_from)
        # a hollow whose rim lies above the line stays dry for now
        fresh = np.flatnonzero((top > low + 1e-6) & (free.rim_mm < line))
        bodies = _touching(spans, free, fresh, low, top)
        told = [one for one in bodies if one.volume_ml >= LEAST_PLACE_ML]
        names = _place_names(tank, told)
        found.append([
            PourPlace(
                name=name, volume_ml=round(one.volume_ml, 2),
                x_mm=round(float(np.average(one.x, weights=one.high - one.low)), 1),
                behind_mm=round(float(np.average(one.y, weights=one.high - one.low)), 1),
            )
            for name, one in zip(names, told, strict=True)
        ])
        bottom = float(line)
    return found


def _place_names(tank: Tank, bodies: list[Pocket]) -> list[Words]:
    """"the hollow at the left", "... at the back right"; numbered where that is not enough."""
    if len(bodies) == 1:
        return [words("places.whole")]
    middles = [
        (float(np.average(one.x, weights=one.high - one.low)) / tank.inner_width_mm,
         float(np.average(one.y, weights=one.high - one.low)) / tank.inner_behind_mm)
        for one in bodies
    ]
    spread = [max(side) - min(side) for side in zip(*middles, strict=True)] if middles else [0.0, 0.0]
    names = []
    for x, y in middles:
        across = ("left" if x < 0.4 else "right" if x > 0.6 else "middle") if spread[0] > 0.1 else ""
        along = ("front" if y < 0.4 else "back" if y > 0.6 else "") if spread[1] > 0.2 else ""
        names.append("_".join(word for word in (along, across) if word) or "middle")
    return [
        words("places.numbered", place=words(f"places.{name}"), number=names[: at + 1].count(name))
        if names.count(name) > 1 else words(f"places.{name}")
        for at, name in enumerate(names)
    ]
