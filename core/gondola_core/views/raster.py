"""A depth buffer of meshes: what each pixel of an orthographic view meets first."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from ..shape import TriMesh
from ..tint.colour import linear_of_srgb

Array = NDArray[np.float64]
Pixels = NDArray[np.float32]

ATTRIBUTES = 6
"""Carried to each pixel: normal (3), own upness, own place along and own height (0 to 1)."""
COLOURED = 9
"""The same and linear sRGB of the body's own colours; NaN on a body that has none."""
CREASE = 0.85
"""Corners between faces that turn by more than its arc cosine stay sharp. Source: assumed"""


@dataclass(frozen=True, slots=True, eq=False)
class Buffer:
    """What each pixel meets: distance from the viewer [mm], object (-1 for none), attributes."""

    away: Pixels
    what: NDArray[np.int32]
    carried: Pixels


def corner_attributes(mesh: TriMesh, turn: Array) -> Pixels:
    """Attributes of each face's corners, (faces, 3, 6), or (faces, 3, 9) of a coloured mesh.

    turn  the body's rotation (3, 3); own upness is the normal's third axis in its own frame
    Normals are smooth where faces meet softly, sharp at creases.
    """
    a, b, c = (mesh.vertices[mesh.faces[:, corner]] for corner in range(3))
    across = np.cross(b - a, c - a)
    length = np.linalg.norm(across, axis=1)
    face_normal = across / np.maximum(length, 1e-12)[:, None]
    summed = np.zeros_like(mesh.vertices)
    for corner in range(3):
        np.add.at(summed, mesh.faces[:, corner], face_normal)
    smooth = summed / np.maximum(np.linalg.norm(summed, axis=1), 1e-12)[:, None]
    own = mesh.vertices @ turn
    low, span = own.min(axis=0), np.maximum(np.ptp(own, axis=0), 1e-9)
    own_colours = None if mesh.colours is None else linear_of_srgb(mesh.colours)
    count = ATTRIBUTES if own_colours is None else COLOURED
    out = np.empty((len(mesh.faces), 3, count), dtype=np.float32)
    for corner in range(3):
        index = mesh.faces[:, corner]
        soft = (smooth[index] * face_normal).sum(axis=1) > CREASE
        normal = np.where(soft[:, None], smooth[index], face_normal)
        out[:, corner, :3] = normal
        out[:, corner, 3] = (normal @ turn)[:, 2]
        out[:, corner, 4] = (own[index, 0] - low[0]) / span[0]
        out[:, corner, 5] = (own[index, 2] - low[2]) / span[2]
        if own_colours is not None:
            out[:, corner, ATTRIBUTES:] = own_colours[index]
    return out


@njit(nogil=True, cache=True)
def _draw(u, v, w, faces, carried_in, number, away, what, carried):  # type: ignore[no-untyped-def]
    """Draw triangles into the buffer; u right, v down in pixels, w away from the viewer."""
    rows, columns = away.shape
    for f in range(faces.shape[0]):
        a, b, c = faces[f, 0], faces[f, 1], faces[f, 2]
        ua, ub, uc = u[a], u[b], u[c]
        va, vb, vc = v[a], v[b], v[c]
        area = (ub - ua) * (vc - va) - (vb - va) * (uc - ua)
        if abs(area) < 1e-9:
            continue
        share = 1.0 / area
        i0 = max(0, int(np.ceil(min(ua, ub, uc) - 0.5)))
        i1 = min(columns - 1, int(np.floor(max(ua, ub, uc) - 0.5)))
        j0 = max(0, int(np.ceil(min(va, vb, vc) - 0.5)))
        j1 = min(rows - 1, int(np.floor(max(va, vb, vc) - 0.5)))
        for j in range(j0, j1 + 1):
            y = j + 0.5
            for i in range(i0, i1 + 1):
                x = i + 0.5
                p = ((ub - x) * (vc - y) - (vb - y) * (uc - x)) * share
                q = ((uc - x) * (va - y) - (vc - y) * (ua - x)) * share
                r = 1.0 - p - q
                if p < -1e-6 or q < -1e-6 or r < -1e-6:
                    continue
                depth = p * w[a] + q * w[b] + r * w[c]
                if depth < away[j, i] and depth > -1e-3:
                    away[j, i] = depth
                    what[j, i] = number
                    for k in range(carried.shape[2]):
                        carried[j, i, k] = (
                            p * carried_in[f, 0, k] + q * carried_in[f, 1, k] + r * carried_in[f, 2, k]
                        )


def draw(
    bodies: list[tuple[TriMesh, Pixels]], rows: int, columns: int, axes: tuple[int, int, int],
    origin: tuple[float, float, float], signs: tuple[float, float, float], scale: float,
) -> Buffer:
    """The nearest body at each pixel of a view.

    bodies  meshes [mm] with their corner attributes, numbered in their order
    axes    which axis runs right, down, and away from the viewer
    origin, signs   place of the upper left corner of the near face, and which way each axis runs
    scale   pixels per mm
    """
    away = np.full((rows, columns), np.inf, dtype=np.float32)
    what = np.full((rows, columns), -1, dtype=np.int32)
    most = max((attributes.shape[2] for _, attributes in bodies), default=ATTRIBUTES)
    carried = np.zeros((rows, columns, most), dtype=np.float32)
    for number, (mesh, attributes) in enumerate(bodies):
        short = most - attributes.shape[2]
        if short:
            attributes = np.pad(attributes, ((0, 0), (0, 0), (0, short)), constant_values=np.nan)
        u, v, w = (
            np.ascontiguousarray(sign * (mesh.vertices[:, axis] - start))
            for axis, start, sign in zip(axes, origin, signs, strict=True)
        )
        _draw(u * scale, v * scale, w, mesh.faces, attributes, number, away, what, carried)
    return Buffer(away, what, carried)
