"""How every corner of each figure reads through the front glass, for the model in the round."""

from __future__ import annotations

import numpy as np
from scipy.interpolate import RegularGridInterpolator

from .geometry import Meshes, figure_mesh
from .geometry.frame import figure_matrix
from .model import FigureLook
from .raster import corner_attributes
from .scene import Scene
from .surface_paint import figure_paint
from .tint import water_of
from .tint.paint import linear_map

DEPTHS, DISTANCES = 48, 12
"""Places over a figure's height and thickness at which the water is computed; linear between."""


def figure_looks(scene: Scene, meshes: Meshes) -> dict[str, FigureLook]:
    """Paint or own colours of each figure's corners, read where they are; by figure id.

    The water is that of the picture; facing and shade are left to whoever lights the model.
    """
    water = water_of(scene)
    fill = scene.tank.fill_height_mm
    looks = {}
    for figure in scene.figures:
        mesh = figure_mesh(figure, meshes)
        if not figure.own_colours:
            mesh = mesh.plain()
        attributes = corner_attributes(mesh, figure_matrix(figure))
        attributes = attributes.reshape(-1, attributes.shape[2])
        corners = mesh.vertices[mesh.faces].reshape(-1, 3)
        place = np.stack([np.clip(fill - corners[:, 2], 0, fill), np.maximum(corners[:, 1], 0)], axis=1)
        low, high = place.min(axis=0), place.max(axis=0) + 1e-3
        depth = np.linspace(low[0], high[0], DEPTHS)
        behind = np.linspace(low[1], high[1], DISTANCES)
        matrix, veil = linear_map(water, depth[:, None], behind)
        table = np.concatenate([matrix.reshape(DEPTHS, DISTANCES, 9), veil], axis=2)
        at = RegularGridInterpolator((depth, behind), table)(place)
        paint = figure_paint(figure, attributes)
        reads = np.einsum("ijk,ik->ij", at[:, :9].reshape(-1, 3, 3), paint) + at[:, 9:]
        looks[figure.id] = FigureLook(linear_srgb=np.clip(reads, 0, 1), normals=attributes[:, :3])
    return looks
