"""The scene as a 3-D model in GLB: bed, figures in the colours that they read as, pockets of air."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from .geometry import Meshes, TriMesh, bed_heights, figure_mesh, plan_box, wall_heights
from .geometry.body import own_mesh
from .geometry.shapes import block
from .scene import Scene
from .tint.colour import linear_of_hex
from .traps import AirTrap
from .units import MM

Array = NDArray[np.float64]

MOST_BED_STEPS = 90


def scene_glb(
    scene: Scene, meshes: Meshes, figure_srgb: dict[str, str], traps: list[AirTrap]
) -> bytes:
    """A GLB file in metres, y up, the glass towards +z; nodes `bed`, `figure-ID`, `air-N`.

    figure_srgb  colour that each figure reads as in the water, by id
    """
    import trimesh

    whole: Any = trimesh.Scene()

    def add(name: str, mesh: TriMesh, colour: str, flat: bool) -> None:
        points = mesh.vertices
        turned = np.stack([points[:, 0], points[:, 2], -points[:, 1]], axis=1) * MM
        material = trimesh.visual.material.PBRMaterial(
            baseColorFactor=[*linear_of_hex(colour).tolist(), 1.0], metallicFactor=0.0,
            roughnessFactor=0.85, doubleSided=True,
        )
        body: Any = trimesh.Trimesh(turned, mesh.faces, process=False)
        if flat:
            body = trimesh.Trimesh(
                body.triangles.reshape(-1, 3), np.arange(3 * len(mesh.faces)).reshape(-1, 3),
                process=False,
            )
        body.visual = trimesh.visual.TextureVisuals(material=material)
        whole.add_geometry(body, node_name=name, geom_name=name)

    add("bed", bed_surface(scene), scene.bed.paint_srgb, False)
    if scene.bed.mesh is not None:
        add("bed-mesh", own_mesh(scene.bed.mesh, meshes), scene.bed.paint_srgb, False)
    for figure in scene.figures:
        add(
            f"figure-{figure.id}", figure_mesh(figure, meshes),
            figure_srgb.get(figure.id, figure.paint_srgb), figure.solids[0].kind == "wagon",
        )
    fill = scene.tank.fill_height_mm
    for number, trap in enumerate(traps, start=1):
        side = max(2.0, (trap.volume_ml * 1000) ** (1 / 3))
        add(
            f"air-{number}",
            block(
                [trap.x_mm - side / 2, trap.behind_mm - side / 2, fill - trap.lip_depth_mm],
                [trap.x_mm + side / 2, trap.behind_mm + side / 2,
                 max(fill - trap.depth_mm, fill - trap.lip_depth_mm + 0.5)],
            ),
            "#a8246b", True,
        )
    return bytes(whole.export(file_type="glb"))


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
    p, q = rim[:, 0], rim[:, 1]
    faces += [np.stack([p, p + count, q], axis=1), np.stack([q, p + count, q + count], axis=1)]
    return TriMesh(np.concatenate([top, floor]), np.concatenate(faces).astype(np.int32))
