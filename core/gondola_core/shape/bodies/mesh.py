"""Closed triangle meshes: volume, area, packing, and what vertical lines meet in them."""

from __future__ import annotations

import base64
import hashlib
import zlib
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from ...errors import GondolaError
from ...scene import Scene

Array = NDArray[np.float64]
Faces = NDArray[np.int32]
Colours = NDArray[np.uint8]


@dataclass(frozen=True, slots=True, eq=False)
class TriMesh:
    """Triangles anticlockwise from outside.

    vertices  (n, 3) right, behind, up [mm]
    faces     (m, 3) indices of vertices
    colours   (n, 3) sRGB of each vertex; None where its file told none
    """

    vertices: Array
    faces: Faces
    colours: Colours | None = None

    def moved(self, vertices: Array) -> TriMesh:
        """The same triangles and colours at other places."""
        return TriMesh(vertices, self.faces, self.colours)

    def plain(self) -> TriMesh:
        """The same without its colours."""
        return self if self.colours is None else TriMesh(self.vertices, self.faces)


Meshes = Mapping[str, TriMesh]
"""Meshes by id; what a scene's `mesh_id` points at."""


def mesh_volume(mesh: TriMesh) -> float:
    """Volume enclosed, by the divergence theorem; overlapping shells count twice [mm3].

    Source: gauss1813
    """
    a, b, c = (mesh.vertices[mesh.faces[:, corner]] for corner in range(3))
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6.0)


def mesh_area(mesh: TriMesh) -> float:
    """Area of all triangles [mm2]."""
    a, b, c = (mesh.vertices[mesh.faces[:, corner]] for corner in range(3))
    return float(0.5 * np.linalg.norm(np.cross(b - a, c - a), axis=1).sum())


def joined(meshes: list[TriMesh]) -> TriMesh:
    """All shells in one mesh; overlaps stay, spans count them once. Coloured if every shell is."""
    if len(meshes) == 1:
        return meshes[0]
    colours = [mesh.colours for mesh in meshes if mesh.colours is not None]
    offsets = np.cumsum([0, *(len(mesh.vertices) for mesh in meshes[:-1])])
    return TriMesh(
        np.concatenate([mesh.vertices for mesh in meshes]),
        np.concatenate(
            [mesh.faces + int(offset) for mesh, offset in zip(meshes, offsets, strict=True)]
        ).astype(np.int32),
        np.concatenate(colours) if len(colours) == len(meshes) else None,
    )


def pack_mesh(mesh: TriMesh) -> bytes:
    """As stored and sent: counts, 32-bit vertices in mm, 32-bit faces, any colours, compressed."""
    counts = np.array([len(mesh.vertices), len(mesh.faces)], dtype="<u4")
    body = (
        counts.tobytes()
        + mesh.vertices.astype("<f4").tobytes()
        + mesh.faces.astype("<u4").tobytes()
        + (b"" if mesh.colours is None else mesh.colours.tobytes())
    )
    return zlib.compress(body, 1)


LARGEST_UNPACKED = 96 * 1024 * 1024
"""bytes of all meshes that a scene brings along, unpacked"""
DAMAGED = "A mesh in this file is damaged: export the scene again."


def unpacked_bytes(packed: bytes) -> int:
    """How long a packed mesh is, colours and all, by its own counts; GondolaError if it is none."""
    try:
        head = zlib.decompressobj().decompress(packed, 8)
        vertices, triangles = (int(one) for one in np.frombuffer(head, "<u4", 2))
    except (zlib.error, ValueError):
        raise GondolaError(DAMAGED) from None
    return 8 + 15 * vertices + 12 * triangles


def unpack_mesh(packed: bytes) -> TriMesh:
    """The mesh of `pack_mesh`; GondolaError if it is none."""
    size = unpacked_bytes(packed)
    if size > LARGEST_UNPACKED:
        raise GondolaError(f"A mesh in this file has over {LARGEST_UNPACKED // 2**20} MB: make it simpler.")
    try:
        body = zlib.decompressobj().decompress(packed, size + 1)
        count, triangles = np.frombuffer(body, "<u4", 2)
        vertices = np.frombuffer(body, "<f4", 3 * int(count), 8).reshape(-1, 3)
        faces = np.frombuffer(body, "<u4", 3 * int(triangles), 8 + vertices.nbytes).reshape(-1, 3)
        rest = body[8 + vertices.nbytes + faces.nbytes :]
        colours = np.frombuffer(rest, np.uint8).reshape(len(vertices), 3) if rest else None
    except (zlib.error, ValueError):
        raise GondolaError(DAMAGED) from None
    if len(faces) and (int(faces.max()) >= len(vertices) or not np.isfinite(vertices).all()):
        raise GondolaError(DAMAGED)
    return TriMesh(vertices.astype(float), faces.astype(np.int32), colours)


def mesh_id_of(packed: bytes) -> str:
    """Name of a mesh by its content."""
    return "m" + hashlib.blake2b(packed, digest_size=12).hexdigest()


def meshes_in(scene: Scene) -> dict[str, TriMesh]:
    """The meshes that a scene file brings along and points at; GondolaError if one is damaged or all are too large.

    They are counted before any is unpacked.
    """
    used = set(scene.mesh_ids())
    packed = {body.id: _from_base64(body.packed_base64) for body in scene.meshes if body.id in used}
    if sum(map(unpacked_bytes, packed.values())) > LARGEST_UNPACKED:
        most = LARGEST_UNPACKED // 2**20
        raise GondolaError(f"The meshes of this scene have over {most} MB unpacked: make them simpler.", "meshes")
    return {key: unpack_mesh(one) for key, one in packed.items()}


def meshes_held(scene: Scene, meshes: Meshes | None = None) -> Meshes:
    """The given meshes and those that the scene brings; GondolaError names one that is missing."""
    held = {**(meshes or {}), **meshes_in(scene)}
    for key in scene.mesh_ids():
        if key not in held:
            raise GondolaError(
                f"The mesh '{key}' of this scene is not here: bring its file in again."
            )
    return held


def _from_base64(text: str) -> bytes:
    try:
        return base64.b64decode(text, validate=True)
    except ValueError:
        raise GondolaError(DAMAGED) from None


@njit(nogil=True, cache=True)
def _edge_side(ax, ay, bx, by, px, py):  # type: ignore[no-untyped-def]
    """Which side of the edge a-b the line at p is on; ties as if p were shifted by (e, e^2).

    The edge is taken in one canonical order for both its triangles, so that they agree to the bit.
    """
    turned = (ay > by) or (ay == by and ax > bx)
    if turned:
        ax, ay, bx, by = bx, by, ax, ay
    value = (bx - ax) * (py - ay) - (by - ay) * (px - ax)
    side = 1
    if value < 0.0:
        side = -1
    elif value == 0.0:
        # d/dpx = -(by - ay), then d/dpy = bx - ax
        slope = -(by - ay)
        if slope == 0.0:
            slope = bx - ax
        side = 1 if slope > 0.0 else -1
    return -side if turned else side


@njit(nogil=True, cache=True)
def _cross_lines(vertices, faces, x0, dx, nx, y0, dy, ny):  # type: ignore[no-untyped-def]
    """Crossings of every vertical line with every triangle: (line, height, way), as they are met."""
    room = 4 * faces.shape[0] + 64
    column = np.empty(room, dtype=np.int64)
    z_out = np.empty(room)
    way = np.empty(room, dtype=np.int64)
    count = 0
    for f in range(faces.shape[0]):
        a, b, c = faces[f, 0], faces[f, 1], faces[f, 2]
        ax, ay = vertices[a, 0], vertices[a, 1]
        bx, by = vertices[b, 0], vertices[b, 1]
        cx, cy = vertices[c, 0], vertices[c, 1]
        # a hair wider than the triangle, so that no line on its edge is left out
        i0 = max(0, int(np.ceil((min(ax, bx, cx) - x0) / dx - 1e-9)))
        i1 = min(nx - 1, int(np.floor((max(ax, bx, cx) - x0) / dx + 1e-9)))
        if i0 > i1:
            continue
        j0 = max(0, int(np.ceil((min(ay, by, cy) - y0) / dy - 1e-9)))
        j1 = min(ny - 1, int(np.floor((max(ay, by, cy) - y0) / dy + 1e-9)))
        if j0 > j1:
            continue
        area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
        for j in range(j0, j1 + 1):
            py = y0 + j * dy
            for i in range(i0, i1 + 1):
                px = x0 + i * dx
                s1 = _edge_side(ax, ay, bx, by, px, py)
                if s1 != _edge_side(bx, by, cx, cy, px, py):
                    continue
                if s1 != _edge_side(cx, cy, ax, ay, px, py):
                    continue
                az, bz, cz = vertices[a, 2], vertices[b, 2], vertices[c, 2]
                if area != 0.0:
                    u = ((bx - px) * (cy - py) - (by - py) * (cx - px)) / area
                    v = ((cx - px) * (ay - py) - (cy - py) * (ax - px)) / area
                    z = u * az + v * bz + (1.0 - u - v) * cz
                else:
                    z = (az + bz + cz) / 3.0
                if count == room:
                    room *= 2
                    column = np.append(column, np.empty(room - count, dtype=np.int64))
                    z_out = np.append(z_out, np.empty(room - count))
                    way = np.append(way, np.empty(room - count, dtype=np.int64))
                column[count], z_out[count], way[count] = j * nx + i, z, -s1
                count += 1
    return column[:count], z_out[:count], way[:count]


@njit(nogil=True, cache=True)
def _by_line(lines, column, z, way):  # type: ignore[no-untyped-def]
    """Crossings sorted by their line: (start of each line, heights, ways)."""
    start = np.zeros(lines + 1, dtype=np.int64)
    for k in range(column.shape[0]):
        start[column[k] + 1] += 1
    for line in range(lines):
        start[line + 1] += start[line]
    at = start.copy()
    z_out = np.empty_like(z)
    way_out = np.empty_like(way)
    for k in range(column.shape[0]):
        to = at[column[k]]
        z_out[to], way_out[to] = z[k], way[k]
        at[column[k]] += 1
    return start, z_out, way_out


@njit(nogil=True, cache=True)
def _wind(start, z, way, column_out, low_out, high_out):  # type: ignore[no-untyped-def]
    """Solid where the running winding is above 0.

    Returns (spans, unbalanced columns, columns hit, length that counts more than once).

    An upward-facing triangle (way -1) is left through its top when one goes up, so going up enters
    at downward-facing ones.
    """
    count = 0
    unbalanced = 0
    hit = 0
    shared = 0.0
    for column in range(start.shape[0] - 1):
        a, b = start[column], start[column + 1]
        if a == b:
            continue
        hit += 1
        for k in range(a + 1, b):
            zk, wk = z[k], way[k]
            m = k - 1
            while m >= a and (z[m] > zk or (z[m] == zk and way[m] < wk)):
                z[m + 1], way[m + 1] = z[m], way[m]
                m -= 1
            z[m + 1], way[m + 1] = zk, wk
        wind = 0
        low = 0.0
        bad = False
        for k in range(a, b):
            before = wind
            if before > 1:
                shared += (before - 1) * (z[k] - z[k - 1])
            wind += way[k]
            if wind < 0:
                bad = True
            if before <= 0 and wind > 0:
                low = z[k]
            elif before > 0 and wind <= 0 and z[k] > low:
                column_out[count], low_out[count], high_out[count] = column, low, z[k]
                count += 1
        if wind != 0 or bad:
            unbalanced += 1
    return count, unbalanced, hit, shared


@dataclass(frozen=True, slots=True, eq=False)
class MeshSpans:
    """Solid spans of a mesh on a grid of vertical lines, row by row.

    column     (n,) index of the line, row * nx + cell
    low, high  (n,) [mm]
    unbalanced, hit   lines that a sound mesh would not leave open, of all lines that meet it
    shared_mm         length in more than one shell, once for each too many, over all lines
    """

    column: NDArray[np.int64]
    low: Array
    high: Array
    unbalanced: int
    hit: int
    shared_mm: float


def mesh_spans(mesh: TriMesh, x_mm: Array, y_mm: Array) -> MeshSpans:
    """What the lines at even x (nx,) and y (ny,) meet in a mesh: solid where winding is above 0.

    Exact along the line; overlapping shells count once. Ties on edges and corners are broken
    alike for all triangles, so a sound mesh leaves no line unbalanced.
    """
    nx, ny = len(x_mm), len(y_mm)
    dx = float(x_mm[1] - x_mm[0]) if nx > 1 else 1.0
    dy = float(y_mm[1] - y_mm[0]) if ny > 1 else 1.0
    vertices = np.ascontiguousarray(mesh.vertices, dtype=float)
    faces = np.ascontiguousarray(mesh.faces, dtype=np.int32)
    place = (float(x_mm[0]), dx, nx, float(y_mm[0]), dy, ny)
    start, z, way = _by_line(nx * ny, *_cross_lines(vertices, faces, *place))
    total = len(z)
    column = np.empty(total, dtype=np.int64)
    low, high = np.empty(total), np.empty(total)
    count, unbalanced, hit, shared = _wind(start, z, way, column, low, high)
    return MeshSpans(
        column[:count], low[:count], high[:count], int(unbalanced), int(hit), float(shared)
    )


LINES_TO_LOOK, LINES_TO_MEASURE = 80, 480
"""Lines over the longer side of a mesh: whether its shells share anything, and how much."""


def body_volume(mesh: TriMesh) -> tuple[float, float]:
    """(volume with overlaps counted once, what its shells share) of a closed mesh [mm3].

    The whole by the divergence theorem, less what close lines meet more than once.

    Source: gauss1813
    """
    shared = _shared(mesh, LINES_TO_LOOK)
    if shared > 0.0:
        shared = _shared(mesh, LINES_TO_MEASURE)
    return mesh_volume(mesh) - shared, shared


def _shared(mesh: TriMesh, lines: int) -> float:
    x, y, column_mm2 = lines_over(mesh, lines)
    return mesh_spans(mesh, x, y).shared_mm * column_mm2


LEAST_PITCH_MM = 0.02
"""Lines over a body are no closer than this. Source: assumed"""


def lines_over(mesh: TriMesh, lines: int) -> tuple[Array, Array, float]:
    """Even lines over a mesh, so many over its longer side: their x and y, and each one's area [mm2]."""
    low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
    span = high - low
    pitch = max(float(span[:2].max()) / lines, LEAST_PITCH_MM)
    nx, ny = (max(4, int(np.ceil(size / pitch))) for size in span[:2])
    x = low[0] + (np.arange(nx) + 0.5) * span[0] / nx
    y = low[1] + (np.arange(ny) + 0.5) * span[1] / ny
    return x, y, float(span[0] / nx * span[1] / ny)
