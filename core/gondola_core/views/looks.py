"""How every corner of bed and figures reads through the front glass, for the model in the round."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import RegularGridInterpolator

from ..scene import Scene
from ..shape import Meshes, TriMesh, figure_mesh
from ..shape.bodies.body import own_mesh
from ..shape.bodies.frame import figure_matrix
from ..tint import water_of
from ..tint.attenuation import Water
from ..tint.paint import linear_map
from .model import Look, bed_surface
from .raster import Pixels, corner_attributes
from .surface_paint import bed_paint, figure_paint

Array = NDArray[np.float64]
Paint = Callable[[Pixels, Array], Array]
"""Linear colour of corners, of their attributes and their places."""

DEPTHS, DISTANCES = 48, 12
"""Places over a body's height and thickness at which the water is computed; linear between."""


def scene_looks(scene: Scene, meshes: Meshes) -> dict[str, Look]:
    """Paint or own colours of every corner, read where it is; by the node of `scene_glb`.

    The water is that of the picture; facing and shade are left to whoever lights the model.
    """
    water, fill = water_of(scene), scene.tank.fill_height_mm

    def ground(attributes: Pixels, at: Array) -> Array:
        return bed_paint(scene, attributes, at[:, 0], at[:, 1], at[:, 2])

    looks = {"bed": _look(water, fill, bed_surface(scene), np.eye(3), ground)}
    if scene.bed.mesh is not None:
        looks["bed-mesh"] = _look(
            water, fill, own_mesh(scene.bed.mesh, meshes), np.eye(3), ground
        )
    for figure in scene.figures:
        mesh = figure_mesh(figure, meshes)
        looks[f"figure-{figure.id}"] = _look(
            water, fill, mesh if figure.own_colours else mesh.plain(), figure_matrix(figure),
            lambda attributes, _, figure=figure: figure_paint(figure, attributes),  # type: ignore[misc]
        )
    return looks


def _look(water: Water, fill_mm: float, mesh: TriMesh, turn: Array, painted: Paint) -> Look:
    attributes = corner_attributes(mesh, turn)
    attributes = attributes.reshape(-1, attributes.shape[2])
    corners = mesh.vertices[mesh.faces].reshape(-1, 3)
    place = np.stack(
        [np.clip(fill_mm - corners[:, 2], 0, fill_mm), np.maximum(corners[:, 1], 0)], axis=1
    )
    low, high = place.min(axis=0), place.max(axis=0) + 1e-3
    depth = np.linspace(low[0], high[0], DEPTHS)
    behind = np.linspace(low[1], high[1], DISTANCES)
    matrix, veil = linear_map(water, depth[:, None], behind)
    table = np.concatenate([matrix.reshape(DEPTHS, DISTANCES, 9), veil], axis=2)
    at = RegularGridInterpolator((depth, behind), table)(place)
    paint = painted(attributes, corners)
    reads = np.einsum("ijk,ik->ij", at[:, :9].reshape(-1, 3, 3), paint) + at[:, 9:]
    return Look(linear_srgb=np.clip(reads, 0, 1), normals=attributes[:, :3])
