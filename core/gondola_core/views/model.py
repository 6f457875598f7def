"""The scene as a 3-D model in GLB: bed, figures in the colours that they read as, pockets of air."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..scene import Scene
from ..shape import Meshes, TriMesh, bed_heights, figure_mesh, plan_box, tank_plan, wall_heights
from ..shape.bodies.body import own_mesh
from ..tint.colour import linear_of_hex
from ..units import MM

Array = NDArray[np.float64]

MOST_BED_STEPS = 90
POCKET_OPACITY = 0.6
AIR_SRGB, DRY_SRGB = "#a8246b", "#8a5a12"
"""Inks of cautions and of what is to be watched."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """What the corners of a body's triangles look like, triangle by triangle.

    linear_srgb  (3m, 3) colour
    normals      (3m, 3) which way the surface faces: right, behind, up
    """

    linear_srgb: Array
    normals: NDArray[np.float32]


def scene_glb(
    scene: Scene, meshes: Meshes, looks: Mapping[str, Look], pockets: Mapping[str, TriMesh]
) -> bytes:
    """A GLB file in metres, y up, the glass towards +z; nodes `bed`, `figure-ID`, `air-N`, `dry-N`.

    looks    colours of the corners of bed and figures, by the name of their node
    pockets  air that stays and hollows that fill late, by the name of their node
    """
    import trimesh

    whole: Any = trimesh.Scene()
    _add_looking(whole, "bed", bed_surface(scene), looks["bed"])
    if scene.bed.mesh is not None:
        _add_looking(whole, "bed-mesh", own_mesh(scene.bed.mesh, meshes), looks["bed-mesh"])
    for figure in scene.figures:
        name = f"figure-{figure.id}"
        _add_looking(whole, name, figure_mesh(figure, meshes), looks[name])
    for name, mesh in pockets.items():
        _add_plain(whole, name, mesh, AIR_SRGB if name.startswith("air-") else DRY_SRGB)
    return bytes(whole.export(file_type="glb", include_normals=True))


def _material(linear: Array, opacity: float = 1.0) -> Any:
    import trimesh

    return trimesh.visual.material.PBRMaterial(
        baseColorFactor=[*linear.tolist(), opacity], metallicFactor=0.0, roughnessFactor=0.85,
        doubleSided=True, alphaMode="OPAQUE" if opacity == 1.0 else "BLEND",
    )


def _add_plain(whole: Any, name: str, mesh: TriMesh, colour: str) -> None:
    """A body of one colour that shines through."""
    import trimesh

    body: Any = trimesh.Trimesh(_turned(mesh.vertices) * MM, mesh.faces, process=False)
    body.visual = trimesh.visual.TextureVisuals(material=_material(linear_of_hex(colour), POCKET_OPACITY))
    whole.add_geometry(body, node_name=name, geom_name=name)


def _add_looking(whole: Any, name: str, mesh: TriMesh, look: Look) -> None:
    """Corners coloured as shares of the brightest, so that dark ones keep their steps."""
    import trimesh

    brightest = np.maximum(look.linear_srgb.max(axis=0), 1e-6)
    shares = np.ones((len(look.linear_srgb), 4))
    shares[:, :3] = look.linear_srgb / brightest
    corners = mesh.vertices[mesh.faces].reshape(-1, 3)
    body: Any = trimesh.Trimesh(
        _turned(corners) * MM, np.arange(len(corners)).reshape(-1, 3),
        vertex_normals=_turned(look.normals), process=False,
    )
    body.visual = trimesh.visual.TextureVisuals(material=_material(brightest))
    body.visual.vertex_attributes["color"] = np.rint(255 * shares).astype(np.uint8)
    whole.add_geometry(body, node_name=name, geom_name=name)


def _turned(points: NDArray[Any]) -> NDArray[Any]:
    """Right, behind, up as right, up, towards the viewer."""
    return np.stack([points[:, 0], points[:, 2], -points[:, 1]], axis=1)


def bed_surface(scene: Scene) -> TriMesh:
    """The bed's upper surface inside the tank, with a skirt down to the floor [mm]."""
    tank = scene.tank
    left, right, front, back = plan_box(tank)
    steps = [
        max(8, min(MOST_BED_STEPS, round(size / 1.5))) for size in (right - left, back - front)
    ]
    x = np.linspace(left, right, steps[0] + 1)
    y = np.linspace(front, back, steps[1] + 1)
    heights = bed_heights(scene.bed, tank, x, y)
    begins = wall_heights(tank, 0.5 * (x[:-1] + x[1:]), 0.5 * (y[:-1] + y[1:]))
    px, py = np.meshgrid(x, y)
    top = np.stack([px, py, heights], axis=-1).reshape(-1, 3)
    floor = top * [1.0, 1.0, 0.0]
    nx, count = len(x), len(top)
    j, i = np.nonzero(np.isfinite(begins))
    a = j * nx + i
    b, c, d = a + 1, a + nx, a + nx + 1
    faces = [np.stack([a, b, d], axis=1), np.stack([a, d, c], axis=1)]
    edges = np.concatenate(
        [np.stack(pair, axis=1) for pair in ((a, b), (b, d), (d, c), (c, a))]
    )
    key = edges.min(axis=1) * count + edges.max(axis=1)
    _, first, counts = np.unique(key, return_index=True, return_counts=True)
    rim = edges[first[counts == 1]]
    if tank.taper_deg == 0:
        at = np.unique(rim)
        top[at, :2] = floor[at, :2] = _onto(tank_plan(tank, 0.0), top[at, :2])
    p, q = rim[:, 0], rim[:, 1]
    faces += [np.stack([p, p + count, q], axis=1), np.stack([q, p + count, q + count], axis=1)]
    return TriMesh(np.concatenate([top, floor]), np.concatenate(faces).astype(np.int32))


def _onto(outline: Array, points: Array) -> Array:
    """The nearest places on a closed outline (n, 2) to points (m, 2)."""
    along = np.roll(outline, -1, axis=0) - outline
    away = points[:, None] - outline[None]
    share = np.clip((away * along).sum(axis=2) / np.maximum((along**2).sum(axis=1), 1e-12), 0.0, 1.0)
    places = outline + share[..., None] * along
    nearest = np.linalg.norm(points[:, None] - places, axis=2).argmin(axis=1)
    return np.asarray(places[np.arange(len(points)), nearest])
