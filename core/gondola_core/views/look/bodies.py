"""Bed and figures as vertices that carry paint and light, and the points at which light is gathered for them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from ...answers.bodies import PLACED
from ...answers.columns import OUTLINE
from ...answers.kept import Keeper
from ...answers.reading import Reading
from ...digests import digest
from ...scene import Figure, Scene
from ...shape import Meshes, TriMesh, figure_mesh
from ...shape.bodies.body import own_mesh
from ...shape.bodies.frame import figure_matrix
from ...tint.colour import linear_of_hex
from ..model import bed_surface
from ..raster import corner_attributes
from ..surface_paint import bed_tone, figure_paint
from .bvh import Single, Tree, tree_of
from .world import GRAINY, LIGHT, Array, Block

FINEST_EDGE_MM, SAME_MM = 4.0, 1e-4
EDGES_ACROSS = 24
"""Triangles are parted until no edge is longer than this share of their body, or than the finest edge."""
INSET_MM = 0.004
"""The bed stands so far within the walls, so that a ray at the glass has a side."""
LOWERED = 0.96
"""Light on the bed's flank is gathered a little lower: at the crest it would see over it. Source: own_appearance"""
NORMAL_WEIGHT = 1.2
NEIGHBOURS = 4
MOST_KEPT = 96
GROUND = Reading(*OUTLINE, "bed.heights_mm", "bed.mesh")
SHAPED = Reading(*PLACED, "own_colours")


@dataclass(frozen=True, slots=True, eq=False)
class Form:
    """The shape of a body: vertices, parted where it creases, and what its paint needs to know of them.

    points, normals  (v, 3); carried  (v, 6 or 9) as `corner_attributes` has it; corner  (m, 3)
    """

    points: Single
    normals: Single
    carried: Single
    corner: NDArray[np.int32]


@dataclass(frozen=True, slots=True, eq=False)
class Forms:
    """All bodies in one.

    key       of all that shapes them
    parts     first vertex of each body, and the end; the bed's parts come first
    bed_parts how many of them are bed
    flank     (v,) True where the bed stands at a wall
    outside   True if something stands out of the block
    area_mm2  of all surfaces
    """

    key: str
    points: Single
    normals: Single
    flank: NDArray[np.bool_]
    corner: NDArray[np.int32]
    tree: Tree
    carried: list[Single]
    parts: list[int]
    bed_parts: int
    outside: bool
    area_mm2: float


@dataclass(frozen=True, slots=True, eq=False)
class LightPoints:
    """Where light is gathered, and how vertices share it.

    points, normals  (p, 3); near  (v, 4) points of each vertex; share  (v, 4) that sum to 1
    """

    points: Array
    normals: Array
    near: NDArray[np.int64]
    share: Single


def forms_of(scene: Scene, block: Block, meshes: Meshes, keeper: Keeper) -> Forms:
    """All bodies of a scene; each is kept by what shapes it, so that a dose or a paint costs nothing here."""
    _, ground = GROUND(scene)
    shaped = [SHAPED(figure)[1] for figure in scene.figures]
    key = digest([ground, shaped, block.planes.tolist()])
    return keeper.keep("look-forms", key, lambda: _forms(key, scene, block, meshes, keeper), most=3)


def _forms(key: str, scene: Scene, block: Block, meshes: Meshes, keeper: Keeper) -> Forms:
    _, ground = GROUND(scene)
    upright = np.eye(3)
    found = [keeper.keep("look-bed", digest(ground), lambda: _form(_finer(bed_surface(scene)), upright), most=3)]
    if scene.bed.mesh is not None:
        found.append(_form(own_mesh(scene.bed.mesh, meshes), upright))
    bed_parts = len(found)
    for figure in scene.figures:
        found.append(keeper.keep(
            "look-figure", digest(SHAPED(figure)[1]),
            lambda figure=figure: _figure_form(figure, meshes), most=MOST_KEPT,  # type: ignore[misc]
        ))
    starts = np.cumsum([0, *(len(one.points) for one in found)])
    points = np.concatenate([one.points for one in found]).astype(np.float64)
    bed = slice(0, starts[bed_parts])
    points[bed] = _inset(points[bed], block)
    corner = np.concatenate([one.corner + start for one, start in zip(found, starts[:-1], strict=True)])
    corners = points[corner]
    across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    tree, order = tree_of(corners.astype(np.float32))
    out = points @ block.planes[:, :3].T - block.planes[:, 3]
    normals = np.concatenate([one.normals for one in found])
    at_wall = (out[:, :-2] > -2 * INSET_MM).any(axis=1) & (np.abs(normals[:, 2]) < 0.5)
    at_wall[starts[bed_parts]:] = False
    out = out[starts[bed_parts]:]
    return Forms(
        key=key, points=points.astype(np.float32), normals=normals, flank=at_wall,
        corner=np.ascontiguousarray(corner[order] if len(corner) else corner, dtype=np.int32), tree=tree,
        carried=[one.carried for one in found], parts=starts.tolist(), bed_parts=bed_parts,
        outside=bool(len(out) and out.max() > 0.1), area_mm2=float(0.5 * np.linalg.norm(across, axis=1).sum()),
    )


def _figure_form(figure: Figure, meshes: Meshes) -> Form:
    mesh = figure_mesh(figure, meshes)
    return _form(_finer(mesh if figure.own_colours else mesh.plain()), figure_matrix(figure))


def _finer(mesh: TriMesh) -> TriMesh:
    """The same body with its long triangles parted, so that light can change along them."""
    import trimesh

    if mesh.colours is not None or not len(mesh.faces):
        return mesh
    edge = max(FINEST_EDGE_MM, float(np.ptp(mesh.vertices, axis=0).max()) / EDGES_ACROSS)
    vertices, faces = trimesh.remesh.subdivide_to_size(mesh.vertices, mesh.faces, max_edge=edge, max_iter=12)
    # parted triangles share no corners: put together again, so that soft shapes stay soft
    _, first, back = np.unique(np.rint(np.asarray(vertices) / SAME_MM), axis=0, return_index=True, return_inverse=True)
    return TriMesh(np.asarray(vertices)[first], back.reshape(-1)[faces].astype(np.int32))


def _form(mesh: TriMesh, turn: Array) -> Form:
    carried = corner_attributes(mesh, turn)
    flat = carried.reshape(-1, carried.shape[2])
    facing = np.rint(flat[:, :3] * 16).astype(np.int64) + 17
    key = ((mesh.faces.reshape(-1).astype(np.int64) * 64 + facing[:, 0]) * 64 + facing[:, 1]) * 64 + facing[:, 2]
    _, first, back = np.unique(key, return_index=True, return_inverse=True)
    return Form(
        points=mesh.vertices[mesh.faces].reshape(-1, 3)[first].astype(np.float32),
        normals=np.ascontiguousarray(flat[first, :3]), carried=np.ascontiguousarray(flat[first]),
        corner=back.reshape(-1, 3).astype(np.int32),
    )


def _inset(points: Array, block: Block) -> Array:
    """Points moved to a hair within the block's faces, those of the top left aside."""
    moved = points.copy()
    for x, y, z, off in block.planes[:-1]:
        normal = np.array([x, y, z])
        over = moved @ normal - off + INSET_MM
        moved -= np.maximum(over, 0.0)[:, None] * normal
    return moved


def light_points(forms: Forms, count: int, keeper: Keeper) -> LightPoints:
    """Vertices thinned to about a count, by place and by facing; kept by the shape."""
    return keeper.keep("look-points", digest([forms.key, count]), lambda: _thinned(forms, count), most=6)


def _thinned(forms: Forms, count: int) -> LightPoints:
    step = np.sqrt(max(forms.area_mm2, 1.0) / count)
    place = forms.points.astype(np.float64)
    normal = forms.normals.astype(np.float64)
    normal = normal / np.maximum(np.linalg.norm(normal, axis=1), 1e-9)[:, None]
    cell = np.concatenate([np.floor(place / step), np.rint(NORMAL_WEIGHT * normal)], axis=1).astype(np.int64) + 4096
    key = np.zeros(len(cell), dtype=np.uint64)
    for column in cell.T:
        key = key * np.uint64(0x9E3779B1) + column.astype(np.uint64)
    _, first = np.unique(key, return_index=True)
    first.sort()
    at = place[first]
    at[forms.flank[first], 2] *= LOWERED
    known = cKDTree(np.concatenate([place[first] / step, NORMAL_WEIGHT * normal[first]], axis=1))
    away, near = known.query(
        np.concatenate([place / step, NORMAL_WEIGHT * normal], axis=1), k=min(NEIGHBOURS, len(first))
    )
    away, near = away.reshape(len(place), -1), near.reshape(len(place), -1)
    share = 1.0 / (away + 0.05) ** 2
    share /= share.sum(axis=1, keepdims=True)
    return LightPoints(at, normal[first], near, share.astype(np.float32))


def paint_of(scene: Scene, forms: Forms, bands: int) -> Single:
    """Vertices with linear sRGB of their paint, where the bed's grain lies on it, and no light yet, (v, 4 + bands)."""
    vertex = np.zeros((len(forms.points), LIGHT + bands), dtype=np.float32)
    paint = vertex[:, :GRAINY]
    bed = slice(0, forms.parts[forms.bed_parts])
    up = np.concatenate([one[:, 2] for one in forms.carried[: forms.bed_parts]])
    paint[bed] = np.multiply.outer(bed_tone(scene, up, forms.points[bed, 2]), linear_of_hex(scene.bed.paint_srgb))
    vertex[bed, GRAINY] = 1.0
    for at, figure in enumerate(scene.figures, start=forms.bed_parts):
        paint[forms.parts[at]:forms.parts[at + 1]] = figure_paint(figure, forms.carried[at])
    np.clip(paint, 0.0, 1.0, out=paint)
    return vertex
