"""Air that cannot leave as the level rises, and hollows that fill late or never.

Both floods run over free spans: the stretches of a column that are not solid. Two free spans of
neighbouring columns are joined where they overlap in height.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .columns import BED, ColumnSpans, cell_shares

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

FAR = 1e5
"""Height of the open sky in the floods [mm]."""


@dataclass(frozen=True, slots=True, kw_only=True)
class FreeSpans:
    """Stretches of each column that are not solid; the highest is open above.

    first        (columns + 1,) index of each column's first stretch
    low, high    (n,) [mm]; `FAR` where open above
    escape_mm    (n,) highest lip over which its air leaves; air above it is trapped
    rim_mm       (n,) level at which resin first runs in; infinite where it never does
    above        (n,) what is solid above it, as `ColumnSpans.what`; -1 where open
    below        (n,) what is solid under it; -1 on the tank's floor
    closed       (n,) True where no way at all leads to the open
    """

    first: Whole
    low: Array
    high: Array
    escape_mm: Array
    rim_mm: Array
    above: Whole
    below: Whole
    closed: NDArray[np.bool_]


@njit(nogil=True, cache=True)
def _free(columns, first, low, high, what, far):  # type: ignore[no-untyped-def]
    out_first = np.zeros(columns + 1, dtype=np.int64)
    room = low.shape[0] + columns
    out_low, out_high = np.empty(room), np.empty(room)
    above, below = np.empty(room, dtype=np.int64), np.empty(room, dtype=np.int64)
    count = 0
    for c in range(columns):
        out_first[c] = count
        at, under = 0.0, -1
        for s in range(first[c], first[c + 1]):
            if low[s] > at + 1e-9:
                out_low[count], out_high[count] = at, low[s]
                above[count], below[count] = what[s], under
                count += 1
            if high[s] > at:
                at, under = high[s], what[s]
        if at < far:
            out_low[count], out_high[count], above[count], below[count] = at, far, -1, under
            count += 1
    out_first[columns] = count
    return (
        out_first, out_low[:count].copy(), out_high[:count].copy(), above[:count].copy(),
        below[:count].copy(),
    )


@njit(nogil=True, cache=True)
def _sift_up(heap, keys, at):  # type: ignore[no-untyped-def]
    node = heap[at]
    key = keys[node]
    while at > 0:
        parent = (at - 1) >> 1
        if keys[heap[parent]] <= key:
            break
        heap[at] = heap[parent]
        at = parent
    heap[at] = node


@njit(nogil=True, cache=True)
def _pop(heap, keys, size):  # type: ignore[no-untyped-def]
    top = heap[0]
    size -= 1
    node = heap[size]
    key = keys[node]
    at = 0
    while True:
        child = 2 * at + 1
        if child >= size:
            break
        if child + 1 < size and keys[heap[child + 1]] < keys[heap[child]]:
            child += 1
        if keys[heap[child]] >= key:
            break
        heap[at] = heap[child]
        at = child
    if size > 0:
        heap[at] = node
    return top, size


@njit(nogil=True, cache=True)
def _flood(nx, ny, first, low, high, cost, seeds, upward, wall):  # type: ignore[no-untyped-def]
    """Least, over all paths from the seeds, of the greatest link: a priority flood.

    A link between overlapping spans costs -min(high) when `upward` (air leaving), else max(low)
    (resin running in). `cost` holds the seeds' own values and comes back filled.
    """
    n = low.shape[0]
    column = np.empty(n, dtype=np.int64)
    for c in range(nx * ny):
        for s in range(first[c], first[c + 1]):
            column[s] = c
    done = np.zeros(n, dtype=np.bool_)
    heap = np.empty(8 * n + 8, dtype=np.int64)
    # lazy heap on copies of keys: an entry is an index into these
    keys = np.empty(8 * n + 8)
    nodes = np.empty(8 * n + 8, dtype=np.int64)
    size = 0
    made = 0
    for s in seeds:
        keys[made], nodes[made] = cost[s], s
        heap[size] = made
        _sift_up(heap, keys, size)
        size += 1
        made += 1
    while size > 0:
        entry, size = _pop(heap, keys, size)
        s = nodes[entry]
        if done[s] or keys[entry] > cost[s]:
            continue
        done[s] = True
        c = column[s]
        i, j = c % nx, c // nx
        for way in range(4):
            ii = i + (1 if way == 0 else -1 if way == 1 else 0)
            jj = j + (1 if way == 2 else -1 if way == 3 else 0)
            if ii < 0 or jj < 0 or ii >= nx or jj >= ny:
                continue
            d = jj * nx + ii
            for t in range(first[d], first[d + 1]):
                if done[t]:
                    continue
                bottom = max(low[s], low[t])
                top = min(min(high[s], wall[s]), min(high[t], wall[t]))
                if top <= bottom:
                    continue
                link = -min(high[s], high[t]) if upward else bottom
                through = max(cost[s], link)
                if through < cost[t]:
                    cost[t] = through
                    if made < keys.shape[0]:
                        keys[made], nodes[made] = through, t
                        heap[size] = made
                        _sift_up(heap, keys, size)
                        size += 1
                        made += 1
    return cost


def free_spans(spans: ColumnSpans, prefilled: frozenset[int] = frozenset()) -> FreeSpans:
    """Both floods over the free spans of a tank.

    Air at height z is trapped if and only if no path of free points at or above z leads to the
    open top: its lip is the highest over all paths of their lowest link. Resin is poured wherever
    bed or floor lie open from above, so that every valley fills with the level, and runs in from
    there; it passes no trapped air. A hollow of a figure stays dry until its rim is passed.

    prefilled  what keeps its hollows brushed full, as `ColumnSpans.what`: no air stays there
    Source: own_geometry
    """
    nx, ny = len(spans.x_mm), len(spans.y_mm)
    first, low, high, above, below = _free(
        nx * ny, spans.first, spans.low, spans.high, spans.what, FAR
    )
    open_above = np.flatnonzero(above == -1)
    escape = np.full(len(low), np.inf)
    escape[open_above] = -FAR
    nowhere = np.full(len(low), np.inf)
    escape = -_flood(nx, ny, first, low, high, escape, open_above, True, nowhere)
    closed = np.isinf(escape)
    escape = np.where(closed, low, escape)
    for what in prefilled:
        escape = np.where(above == what, high, escape)
    wall = np.where(above == -1, np.inf, np.maximum(escape, low))
    rim = np.full(len(low), np.inf)
    poured_at = _where_poured(low, above, below)
    rim[poured_at] = low[poured_at]
    rim = _flood(nx, ny, first, low, high, rim, poured_at, False, wall)
    return FreeSpans(
        first=first, low=low, high=high, escape_mm=escape, rim_mm=rim, above=above, below=below,
        closed=closed,
    )


def _where_poured(low: Array, above: Whole, below: Whole) -> Whole:
    """Stretches that one pours into: over bed, floor or leaning wall, open from above; else the lowest open."""
    ground = np.flatnonzero((above == -1) & (below <= BED))
    if len(ground):
        return ground
    open_above = np.flatnonzero(above == -1)
    return open_above[np.argmin(low[open_above])][None] if len(open_above) else open_above


def air_from_mm(free: FreeSpans) -> Array:
    """Height from which each stretch keeps its air, once the level has shut the way to it: its lip, or all
    of it where resin never comes because air stands before it."""
    return np.where(np.isfinite(free.rim_mm), np.maximum(free.escape_mm, free.low), free.low)


def air_shares(spans: ColumnSpans, free: FreeSpans, fill_mm: float, faces_mm: tuple[Array, Array, Array]) -> Array:
    """Share of each cell of a coarser grid that stays air up to the fill line: pockets, and hollows that are
    shut; (nz, ny, nx)."""
    empty = free.closed | ((free.above >= 0) & (free.escape_mm < fill_mm))
    low = np.where(free.closed, free.low, air_from_mm(free))
    high = np.where(empty, np.minimum(free.high, fill_mm), low)
    group = np.zeros(len(low), dtype=np.int64)
    return np.asarray(cell_shares(spans, (free.first, low, high, group), 1, faces_mm)[0])


def wet_and_trapped_ml(
    free: FreeSpans, area_mm2: float, heights_mm: Array
) -> tuple[Array, Array]:
    """Volume below each level that resin or shut-in air fills, and that air: (n,), (n,) [ml].

    What the resin takes up is the one less the other. Air behind air, which resin never reaches, is
    shut in as soon as the way to it is.
    """
    wet, trapped = _wet(
        free.low, free.high, free.escape_mm, free.rim_mm, free.closed,
        np.ascontiguousarray(heights_mm, dtype=float),
    )
    return wet * area_mm2 / 1000, trapped * area_mm2 / 1000


@njit(nogil=True, cache=True)
def _wet(low, high, escape, rim, closed, levels):  # type: ignore[no-untyped-def]
    wet = np.zeros(levels.shape[0])
    trapped = np.zeros(levels.shape[0])
    for s in range(low.shape[0]):
        reached = np.isfinite(rim[s])
        if closed[s]:
            continue
        # behind air that stays, all is air as soon as the level shuts the way to it
        lip = max(escape[s], low[s]) if reached else low[s]
        begins = max(rim[s] if reached else escape[s], low[s])
        for k in range(levels.shape[0]):
            h = levels[k]
            if h <= begins:
                continue
            top = min(h, high[s])
            wet[k] += top - low[s]
            if h > lip and top > lip:
                trapped[k] += top - lip
    return wet, trapped
