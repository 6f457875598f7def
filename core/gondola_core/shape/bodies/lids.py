"""Lids over the holes of a mesh: flat ones, and smooth ones where a hole is small against the body."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .mesh import TriMesh, mesh_area

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

LARGEST_LIDS = 0.10
"""Share of the closed skin that lids may make up. Source: own_geometry"""
FLAT_LID = 0.08
"""How far a hole may be from flat, by its own width, to get a flat lid. Source: own_geometry"""
SMALL_HOLE = 0.02
"""Share of the closed skin up to which a hole that is not flat gets a smooth lid. Source: assumed"""
MOST_RINGS = 6
"""Rings of corners in a smooth lid."""


@dataclass(frozen=True, slots=True)
class Lid:
    """A lid over one loop: corners of its own, triangles over rim and own corners, size and whether it is flat.

    faces  indices below `len(loop)` are of the rim, the rest of `points`
    """

    loop: list[int]
    points: Array
    faces: Whole
    area: float
    width: float
    flat: bool


@dataclass(frozen=True, slots=True)
class Closed:
    """A mesh with its lids, and what they are."""

    vertices: Array
    faces: Whole
    lids: list[Lid]
    lid_share: float


class CannotClose(Exception):
    """Why lids do not close a mesh; `{width}` in the words stands for a width in the mesh's own unit."""

    def __init__(self, words: str, width: float = 0.0) -> None:
        super().__init__(words)
        self.words, self.width = words, width


def loops_of(open_edges: Whole) -> list[list[int]]:
    """Open edges chained into loops; CannotClose where they do not close up."""
    following: dict[int, list[int]] = {}
    for a, b in open_edges.tolist():
        following.setdefault(a, []).append(b)
    loops = []
    while following:
        start = next(iter(following))
        loop = [start]
        while True:
            ways = following.get(loop[-1])
            if not ways:
                raise CannotClose("its open edges form no loops that could be closed")
            to = ways.pop()
            if not ways:
                del following[loop[-1]]
            if to == start:
                break
            loop.append(to)
        loops.append(loop)
    return loops


def close_holes(vertices: Array, faces: Whole, open_edges: Whole) -> Closed:
    """Lids over all holes; CannotClose says why not."""
    skin = mesh_area(TriMesh(vertices, faces.astype(np.int32)))
    lids = [_lid(vertices, loop) for loop in loops_of(open_edges)]
    whole = skin + sum(lid.area for lid in lids)
    for lid in lids:
        if not lid.flat and lid.area > SMALL_HOLE * whole:
            raise CannotClose("a hole {width} wide is neither flat nor small", lid.width)
    share = sum(lid.area for lid in lids) / whole
    if share > LARGEST_LIDS:
        raise CannotClose(f"lids over its holes would make {share:.0%} of its skin, over {LARGEST_LIDS:.0%}")
    points, added, at = [vertices], [faces], len(vertices)
    for lid in lids:
        rim = np.array(lid.loop)
        own = np.concatenate([rim, at + np.arange(len(lid.points))])
        added.append(own[lid.faces])
        points.append(lid.points)
        at += len(lid.points)
    return Closed(np.concatenate(points), np.concatenate(added), lids, share)


def _lid(vertices: Array, loop: list[int]) -> Lid:
    rim = vertices[loop]
    middle = rim.mean(axis=0)
    _, _, axes = np.linalg.svd(rim - middle, full_matrices=False)
    width = float(np.ptp((rim - middle) @ axes[0]))
    off = float(np.abs((rim - middle) @ axes[-1]).max())
    flat = off <= FLAT_LID * width or len(loop) <= 4
    rings = 1 if flat else min(MOST_RINGS, max(2, len(loop) // 6))
    points, faces = _membrane(rim, rings)
    whole = np.concatenate([rim, points])
    a, b, c = (whole[faces[:, corner]] for corner in range(3))
    area = float(0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1).sum())
    return Lid(loop, points, faces, area, width, flat)


def _membrane(rim: Array, rings: int) -> tuple[Array, Whole]:
    """A smooth skin in a rim: each coordinate is harmonic in a disc whose edge is the rim.

        p(r, t) = sum c_m r^|m| e^(i m t),  c_m the rim's Fourier coefficients

    One ring is a fan about the middle. Source: definition
    """
    count = len(rim)
    waves = np.fft.fft(rim, axis=0) / count
    order = np.abs(np.fft.fftfreq(count, 1.0 / count))
    points: list[Array] = []
    faces: list[Whole] = []
    outer = np.arange(count)
    for ring in range(rings - 1, 0, -1):
        shrunk = np.fft.ifft(waves * ((ring / rings) ** order)[:, None] * count, axis=0).real
        inner = count + len(points) * count + np.arange(count)
        points.append(shrunk)
        ahead, beyond = np.roll(outer, -1), np.roll(inner, -1)
        faces += [np.stack([ahead, outer, inner], axis=1), np.stack([ahead, inner, beyond], axis=1)]
        outer = inner
    middle = count + len(points) * count
    faces.append(np.stack([np.roll(outer, -1), outer, np.full(count, middle)], axis=1))
    return np.concatenate([*points, waves[:1].real]), np.concatenate(faces)
