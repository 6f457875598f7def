"""A tree of boxes over triangles, and the nearest triangle that a ray meets."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from .kernels import njit_fast

Single = NDArray[np.float32]
Index = NDArray[np.int32]

BINS = 12
LEAF = 3
"""Most triangles of a leaf that a split would not make cheaper."""
CLOSED = 2e-5
"""Triangles reach so far over their edges, over their size: between parted ones nothing is seen. Source: assumed"""
DEEP = 64
"""Boxes that can wait while the nearer ones are looked into."""


class Tree(NamedTuple):
    """Boxes of triangles.

    box        (nodes, 6) lowest and highest corner
    link       (nodes, 2) of a leaf its first triangle and how many; else its left child, the right one next to it,
               and 0
    triangles  (m, 9) a corner and the two edges from it, in the order of the leaves
    """

    box: Single
    link: Index
    triangles: Single


def tree_of(corners: Single) -> tuple[Tree, Index]:
    """The tree of triangles given by their corners, (m, 3, 3), and the number of each in the tree's order; m may be 0.

    Binned surface area heuristic. Source: wald2007
    """
    corners = np.ascontiguousarray(corners, dtype=np.float32)
    if not len(corners):
        corners = np.full((1, 3, 3), 1e30, dtype=np.float32)
    low, high = corners.min(axis=1), corners.max(axis=1)
    order = np.arange(len(corners), dtype=np.int32)
    box, link = _built(low, high, np.float32(0.5) * (low + high), order)
    own = corners[order]
    packed = np.concatenate([own[:, 0], own[:, 1] - own[:, 0], own[:, 2] - own[:, 0]], axis=1)
    return Tree(box, link, np.ascontiguousarray(packed)), order


@njit_fast
def _area(low, high):  # type: ignore[no-untyped-def]
    x, y, z = high[0] - low[0], high[1] - low[1], high[2] - low[2]
    return x * y + y * z + z * x


@njit_fast
def _cut(low, high, middle, order, start, stop):  # type: ignore[no-untyped-def]
    """Where to part the triangles from start to stop: the axis, the place, and what it would cost."""
    best = np.float32(np.inf)
    axis, place = -1, np.float32(0.0)
    lows, highs = np.empty((BINS, 3), np.float32), np.empty((BINS, 3), np.float32)
    held = np.empty(BINS, np.int64)
    right = np.empty(BINS, np.float32)
    grown_low, grown_high = np.empty(3, np.float32), np.empty(3, np.float32)
    for a in range(3):
        least, most = np.float32(np.inf), np.float32(-np.inf)
        for k in range(start, stop):
            here = middle[order[k], a]
            least, most = min(least, here), max(most, here)
        if not most > least:
            continue
        per = np.float32(BINS) / (most - least)
        lows[:], highs[:], held[:] = np.inf, -np.inf, 0
        for k in range(start, stop):
            one = order[k]
            at = min(BINS - 1, int((middle[one, a] - least) * per))
            held[at] += 1
            for c in range(3):
                lows[at, c] = min(lows[at, c], low[one, c])
                highs[at, c] = max(highs[at, c], high[one, c])
        grown_low[:], grown_high[:], total = np.inf, -np.inf, 0
        for at in range(BINS - 1, 0, -1):
            total += held[at]
            for c in range(3):
                grown_low[c] = min(grown_low[c], lows[at, c])
                grown_high[c] = max(grown_high[c], highs[at, c])
            right[at] = total * _area(grown_low, grown_high) if total else np.float32(0.0)
        grown_low[:], grown_high[:], total = np.inf, -np.inf, 0
        for at in range(BINS - 1):
            total += held[at]
            for c in range(3):
                grown_low[c] = min(grown_low[c], lows[at, c])
                grown_high[c] = max(grown_high[c], highs[at, c])
            if total == 0 or total == stop - start:
                continue
            cost = total * _area(grown_low, grown_high) + right[at + 1]
            if cost < best:
                best, axis, place = cost, a, least + (at + 1) / per
    return axis, place, best


@njit_fast
def _built(low, high, middle, order):  # type: ignore[no-untyped-def]
    most = 2 * len(order)
    node_low, node_high = np.empty((most, 3), np.float32), np.empty((most, 3), np.float32)
    first, count = np.zeros(most, np.int32), np.zeros(most, np.int32)
    waiting = np.empty((DEEP + most, 3), np.int64)
    waiting[0] = (0, 0, len(order))
    left_over, used = 1, 1
    while left_over:
        left_over -= 1
        node, start, stop = waiting[left_over]
        node_low[node], node_high[node] = np.inf, -np.inf
        for k in range(start, stop):
            for c in range(3):
                node_low[node, c] = min(node_low[node, c], low[order[k], c])
                node_high[node, c] = max(node_high[node, c], high[order[k], c])
        size = stop - start
        axis, place, cost = -1, np.float32(0.0), np.float32(0.0)
        if size > LEAF:
            axis, place, cost = _cut(low, high, middle, order, start, stop)
        if (axis < 0 and size <= 8 * LEAF) or (axis >= 0 and size <= 8 and cost >= size * _area(
            node_low[node], node_high[node]
        )):
            first[node], count[node] = start, size
            continue
        at, end = start, stop - 1
        while at <= end and axis >= 0:
            if middle[order[at], axis] < place:
                at += 1
            else:
                order[at], order[end] = order[end], order[at]
                end -= 1
        if at in (start, stop) or axis < 0:
            at = (start + stop) // 2
        first[node] = used
        waiting[left_over] = (used, start, at)
        waiting[left_over + 1] = (used + 1, at, stop)
        left_over += 2
        used += 2
    box, link = np.empty((used, 6), np.float32), np.empty((used, 2), np.int32)
    box[:, :3], box[:, 3:] = node_low[:used], node_high[:used]
    link[:, 0], link[:, 1] = first[:used], count[:used]
    return box, link


@njit_fast
def _reach(box, node, origin, inverse, far):  # type: ignore[no-untyped-def]
    """How far along a ray a box begins; infinite where it is missed or lies beyond `far`."""
    near, end = 0.0, far
    for c in range(3):
        a = (box[node, c] - origin[c]) * inverse[c]
        b = (box[node, c + 3] - origin[c]) * inverse[c]
        near, end = max(near, min(a, b)), min(end, max(a, b))
    return near if near <= end * 1.0000004 else 1e30


@njit_fast
def _inverse(x):  # type: ignore[no-untyped-def]
    return 1.0 / x if abs(x) > 1e-12 else (1e12 if x >= 0 else -1e12)


@njit_fast
def nearest(tree, origin, way, far, stack):  # type: ignore[no-untyped-def]
    """The first triangle that a ray meets nearer than `far`: (distance, its place in the tree or -1, u, v).

    origin, way   three numbers each
    stack         (DEEP,) to work in
    Source: moller1997 for the triangle
    """
    inverse = (_inverse(way[0]), _inverse(way[1]), _inverse(way[2]))
    found, at_u, at_v = -1, 0.0, 0.0
    waiting, node = 0, 0
    if _reach(tree.box, 0, origin, inverse, far) >= 1e30:
        return far, found, at_u, at_v
    while True:
        if tree.link[node, 1]:
            for k in range(tree.link[node, 0], tree.link[node, 0] + tree.link[node, 1]):
                t, u, v = _met(tree.triangles, k, origin, way)
                if 1e-6 < t < far:
                    far, found, at_u, at_v = t, k, u, v
        else:
            one, other = tree.link[node, 0], tree.link[node, 0] + 1
            near, beyond = _reach(tree.box, one, origin, inverse, far), _reach(tree.box, other, origin, inverse, far)
            if beyond < near:
                one, other, near, beyond = other, one, beyond, near
            if near < 1e30:
                if beyond < 1e30:
                    stack[waiting] = other
                    waiting += 1
                node = one
                continue
        while waiting:
            waiting -= 1
            node = stack[waiting]
            if _reach(tree.box, node, origin, inverse, far) < 1e30:
                break
        else:
            return far, found, at_u, at_v


@njit_fast
def _met(triangles, k, origin, way):  # type: ignore[no-untyped-def]
    ax, ay, az = triangles[k, 3], triangles[k, 4], triangles[k, 5]
    bx, by, bz = triangles[k, 6], triangles[k, 7], triangles[k, 8]
    px, py, pz = way[1] * bz - way[2] * by, way[2] * bx - way[0] * bz, way[0] * by - way[1] * bx
    det = ax * px + ay * py + az * pz
    if abs(det) < 1e-12:
        return 1e30, 0.0, 0.0
    share = 1.0 / det
    tx, ty, tz = origin[0] - triangles[k, 0], origin[1] - triangles[k, 1], origin[2] - triangles[k, 2]
    u = (tx * px + ty * py + tz * pz) * share
    if u < -CLOSED or u > 1.0 + CLOSED:
        return 1e30, 0.0, 0.0
    qx, qy, qz = ty * az - tz * ay, tz * ax - tx * az, tx * ay - ty * ax
    v = (way[0] * qx + way[1] * qy + way[2] * qz) * share
    if v < -CLOSED or u + v > 1.0 + CLOSED:
        return 1e30, 0.0, 0.0
    return (bx * qx + by * qy + bz * qz) * share, u, v
