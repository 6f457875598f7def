"""How often a mesh winds around a point, also where it has holes, tears and loose triangles.

One for inside, nothing for outside, and between where the skin is missing: what is wound around by
more than a half is inside. Far triangles count as one dipole a branch of a tree.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .mesh import TriMesh

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

LEAF = 8
"""Triangles of a branch that is not divided further."""
FAR = 2.3
"""Distance over a branch's radius from which it counts as a dipole; off by 0.01 at most a sheet of skin
(tested). Source: barill2018"""


class WindingTree(NamedTuple):
    """Branches of triangles, children behind their parent.

    corners   (triangles, 3, 3) in the order of the leaves
    first, size   (branches,) triangles of each
    left, right    (branches,) children; -1 in leaves
    middle, radius, dipole   (branches, 3), (branches,), (branches, 3) mean by area, reach, area vectors
    """

    corners: Array
    first: Whole
    size: Whole
    left: Whole
    right: Whole
    middle: Array
    radius: Array
    dipole: Array


def winding_tree(mesh: TriMesh) -> WindingTree:
    """Divide the triangles of a mesh, always the longest side of a branch at its median."""
    corners = mesh.vertices[mesh.faces].astype(float)
    centres = corners.mean(axis=1)
    order = np.arange(len(corners))
    branches: list[tuple[int, int]] = [(0, len(corners))]
    left, right = [-1], [-1]
    at = 0
    while at < len(branches):
        first, count = branches[at]
        if count > LEAF:
            mine = order[first : first + count]
            axis = int(np.ptp(centres[mine], axis=0).argmax())
            half = count // 2
            order[first : first + count] = mine[np.argpartition(centres[mine, axis], half)]
            left[at], right[at] = len(branches), len(branches) + 1
            branches += [(first, half), (first + half, count - half)]
            left += [-1, -1]
            right += [-1, -1]
        at += 1
    corners = corners[order]
    # rows of their own: as columns of one table they would be of another kind, and compiled anew, where it has one line
    of, many = np.array(branches, dtype=np.int64).T.copy()
    across = 0.5 * np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    middle, radius, dipole = _sums(corners, across, of, many)
    return WindingTree(
        corners=corners, first=of, size=many, left=np.array(left),
        right=np.array(right), middle=middle, radius=radius, dipole=dipole,
    )


@njit(nogil=True, cache=True)
def _sums(corners, across, first, count):  # type: ignore[no-untyped-def]
    """Of each branch: its mean by area, its reach, its area vector. `across` is that of each triangle."""
    branches = first.shape[0]
    middle, dipole = np.zeros((branches, 3)), np.zeros((branches, 3))
    radius = np.zeros(branches)
    for b in range(branches):
        weight = 0.0
        for t in range(first[b], first[b] + count[b]):
            size = np.sqrt(across[t, 0] ** 2 + across[t, 1] ** 2 + across[t, 2] ** 2)
            weight += size
            for c in range(3):
                dipole[b, c] += across[t, c]
                middle[b, c] += size * (corners[t, 0, c] + corners[t, 1, c] + corners[t, 2, c]) / 3.0
        for c in range(3):
            middle[b, c] = middle[b, c] / weight if weight > 0.0 else corners[first[b], 0, c]
        for t in range(first[b], first[b] + count[b]):
            for k in range(3):
                away = 0.0
                for c in range(3):
                    away += (corners[t, k, c] - middle[b, c]) ** 2
                radius[b] = max(radius[b], np.sqrt(away))
    return middle, radius, dipole


@njit(nogil=True, cache=True)
def _half_angle(p, a, b, c):  # type: ignore[no-untyped-def]
    """A complex number whose argument is half the solid angle of a triangle seen from a point.

    Source: oosterom_strackee1983
    """
    ax, ay, az = a[0] - p[0], a[1] - p[1], a[2] - p[2]
    bx, by, bz = b[0] - p[0], b[1] - p[1], b[2] - p[2]
    cx, cy, cz = c[0] - p[0], c[1] - p[1], c[2] - p[2]
    la = np.sqrt(ax * ax + ay * ay + az * az)
    lb = np.sqrt(bx * bx + by * by + bz * bz)
    lc = np.sqrt(cx * cx + cy * cy + cz * cz)
    top = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
    below = (
        la * lb * lc + (ax * bx + ay * by + az * bz) * lc + (bx * cx + by * cy + bz * cz) * la
        + (cx * ax + cy * ay + cz * az) * lb
    )
    return below, top


@njit(nogil=True, cache=True)
def winding_numbers(tree, points):  # type: ignore[no-untyped-def]
    """Generalised winding number of each point (n, 3): (n,), and at how many triangles one by one was looked in all.

    Half angles are added by multiplying: the arctangent is taken once a point, and whole turns are
    counted where the product passes the cut of the plane.
    Source: barill2018
    """
    found = np.zeros(points.shape[0])
    stack = np.empty(128, dtype=np.int64)
    looked = 0
    for i in range(points.shape[0]):
        p = points[i]
        total = 0.0
        re, im, turns = 1.0, 0.0, 0
        size = 1
        stack[0] = 0
        while size > 0:
            size -= 1
            b = stack[size]
            dx, dy, dz = tree.middle[b, 0] - p[0], tree.middle[b, 1] - p[1], tree.middle[b, 2] - p[2]
            away = np.sqrt(dx * dx + dy * dy + dz * dz)
            if away > FAR * tree.radius[b]:
                total += (
                    dx * tree.dipole[b, 0] + dy * tree.dipole[b, 1] + dz * tree.dipole[b, 2]
                ) / away**3
            elif tree.left[b] < 0:
                looked += tree.size[b]
                for t in range(tree.first[b], tree.first[b] + tree.size[b]):
                    below, top = _half_angle(p, tree.corners[t, 0], tree.corners[t, 1], tree.corners[t, 2])
                    real, imaginary = re * below - im * top, re * top + im * below
                    length = abs(real) + abs(imaginary)
                    if length > 0.0:
                        if im > 0.0 and top > 0.0 and imaginary < 0.0:
                            turns += 1
                        elif im < 0.0 and top < 0.0 and imaginary > 0.0:
                            turns -= 1
                        re, im = real / length, imaginary / length
            else:
                stack[size] = tree.left[b]
                stack[size + 1] = tree.right[b]
                size += 2
        found[i] = (total + 2.0 * np.arctan2(im, re)) / (4.0 * np.pi) + turns
    return found, looked
