"""A solid for a mesh that does not close: what its skin winds around by more than a half."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .mesh import TriMesh, mesh_volume
from .winding import WindingTree, winding_numbers, winding_tree

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

MOST_POINTS, LEAST_POINTS = 260_000, 20_000
"""Points at which a mesh is asked; 27 along each side of a cube are the fewest from which a volume is told.
Source: assumed"""
MOST_LOOKS = 30_000_000
"""Triangles that are looked at one by one for all of these; some 30 ns each. In a sound mesh every point looks at a
few dozen near ones; where triangles reach across the whole mesh, every point looks at all, and fewer are asked.
Source: assumed"""
TRIED = 500
"""Points by which it is told how many each looks at. Source: assumed"""
INSIDE = 0.5
LESS, MORE = 0.65, 0.35
"""Winding that bounds the solid from within and from without: its spread. Source: own_geometry"""
CLEAR_INSIDE = 0.8
"""Winding just under the skin from which there is an inside to speak of. Source: assumed"""
LEAST_CLEAR = 0.65
"""Share of the skin that has to have an inside; a bowl without a lid has less. Source: assumed"""
ASKED = 4000
"""Triangles of the skin that are asked for what is under them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class EstimatedSolid:
    """A closed mesh in place of an open one; volumes in the cube of the mesh's own unit.

    less, more   the same solid at its least and at its most: between them lies what is guessed
    clear_share  of the skin, by area, that has a clear inside
    """

    mesh: TriMesh
    less: TriMesh
    more: TriMesh
    volume: float
    least_volume: float
    most_volume: float
    clear_share: float


def estimated_solid(mesh: TriMesh) -> EstimatedSolid:
    """The solid of a mesh with holes, tears or loose triangles; it may be nothing."""
    tree = winding_tree(mesh)
    step, low, winding = _field(mesh, tree)
    if np.abs(winding.min()) > winding.max():
        winding = -winding
    solids = [surface(winding, level, low, step) for level in (INSIDE, LESS, MORE)]
    volumes = [abs(mesh_volume(solid)) if len(solid.faces) else 0.0 for solid in solids]
    return EstimatedSolid(
        mesh=solids[0], less=solids[1], more=solids[2], volume=volumes[0], least_volume=volumes[1],
        most_volume=volumes[2], clear_share=_clear_share(mesh, tree),
    )


def _field(mesh: TriMesh, tree: WindingTree) -> tuple[float, Array, Array]:
    """Step, first point, and winding at points (nx, ny, nz) over the mesh and a little beyond."""
    low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
    size = np.maximum(high - low, 1e-9 * float((high - low).max()))
    some = low + size * np.random.default_rng(0).random((TRIED, 3))
    looks = winding_numbers(tree, some)[1] / TRIED
    most = float(np.clip(MOST_LOOKS / max(looks, 1.0), LEAST_POINTS, MOST_POINTS))
    step = float((np.prod(size) / most) ** (1 / 3))
    step = max(step, float(size.max()) / 160)
    counts = np.ceil(size / step).astype(int) + 4
    low = 0.5 * (low + high) - 0.5 * (counts - 1) * step
    axes = [low[axis] + step * np.arange(counts[axis]) for axis in range(3)]
    points = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, 3)
    return step, low, winding_numbers(tree, points)[0].reshape(counts)


def _clear_share(mesh: TriMesh, tree: WindingTree) -> float:
    a, b, c = (mesh.vertices[mesh.faces[:, corner]] for corner in range(3))
    across = np.cross(b - a, c - a)
    area = np.linalg.norm(across, axis=1)
    some = np.linspace(0, len(area) - 1, min(ASKED, len(area))).astype(int)
    some = some[area[some] > 0]
    if not len(some):
        return 0.0
    reach = 1e-3 * float(np.ptp(mesh.vertices, axis=0).max())
    middle = ((a + b + c) / 3)[some]
    inward = across[some] / area[some][:, None] * reach
    under = np.maximum(
        np.abs(winding_numbers(tree, middle - inward)[0]), np.abs(winding_numbers(tree, middle + inward)[0])
    )
    return float(area[some][under > CLEAR_INSIDE].sum() / area[some].sum())


def surface(field: Array, level: float, low: Array, step: float) -> TriMesh:
    """Closed surface of a field on even points where it passes a level; corners in cells, faces across edges.

    field  (nx, ny, nz), below the level on its whole rim
    Source: gibson1998
    """
    inside = field > level
    inside[0] = inside[-1] = False
    inside[:, 0] = inside[:, -1] = False
    inside[:, :, 0] = inside[:, :, -1] = False
    corner, at = _cell_corners(field, inside, level)
    quads = [_quads(inside, at, axis) for axis in range(3)]
    faces = np.concatenate([
        np.concatenate([quad[:, [0, 1, 2]], quad[:, [0, 2, 3]]]) for quad in quads
    ])
    return TriMesh(low + step * corner, faces.astype(np.int32))


def _cell_corners(field: Array, inside: NDArray[np.bool_], level: float) -> tuple[Array, Whole]:
    """One corner in each cell that the surface passes: the mean of where it crosses the cell's edges."""
    cells = tuple(size - 1 for size in field.shape)
    total, count = np.zeros((*cells, 3)), np.zeros(cells)
    for axis in range(3):
        ahead = tuple(slice(1, None) if dim == axis else slice(None) for dim in range(3))
        behind = tuple(slice(None, -1) if dim == axis else slice(None) for dim in range(3))
        crossed = inside[ahead] != inside[behind]
        span = field[ahead] - field[behind]
        part = np.clip((level - field[behind]) / np.where(span == 0, 1.0, span), 0.05, 0.95)
        others = [dim for dim in range(3) if dim != axis]
        for i in (0, 1):
            for j in (0, 1):
                pick = [slice(None)] * 3
                pick[others[0]] = slice(i, i + cells[others[0]])
                pick[others[1]] = slice(j, j + cells[others[1]])
                here = crossed[tuple(pick)]
                count += here
                total[..., axis] += np.where(here, part[tuple(pick)], 0.0)
                total[..., others[0]] += here * i
                total[..., others[1]] += here * j
    used = count > 0
    at = np.full(cells, -1)
    at[used] = np.arange(int(used.sum()))
    base = np.argwhere(used)
    return base + total[used] / count[used][:, None], at


def _quads(inside: NDArray[np.bool_], at: Whole, axis: int) -> Whole:
    """A face across every edge along one axis that the surface crosses, turned outward."""
    ahead = tuple(slice(1, None) if dim == axis else slice(None) for dim in range(3))
    behind = tuple(slice(None, -1) if dim == axis else slice(None) for dim in range(3))
    edges = np.argwhere(inside[ahead] != inside[behind])
    one, two = ((1, 2), (2, 0), (0, 1))[axis]
    ring = []
    for i, j in ((0, 0), (-1, 0), (-1, -1), (0, -1)):
        cell = edges.copy()
        cell[:, one] += i
        cell[:, two] += j
        ring.append(at[tuple(cell.T)])
    quad = np.stack(ring, axis=1)
    outward = inside[behind][tuple(edges.T)]
    return np.where(outward[:, None], quad, quad[:, ::-1])
