"""How figures stand in a drawn view: the silhouette of each, projected."""

from __future__ import annotations

from dataclasses import dataclass

import manifold3d
import numpy as np
from numpy.typing import NDArray

from ...scene import Figure
from .body import turned_mesh
from .mesh import Meshes, TriMesh

Array = NDArray[np.float64]

VIEWS: dict[str, tuple[int, int]] = {"front": (0, 2), "side": (1, 2), "above": (0, 1)}
"""Axes of the tank that each view shows: right, behind, up."""
GRAIN = 140
"""Corners of a silhouette lie on a grid of this many steps over its longer side."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """A closed line of (across, height or behind) points in mm.

    nearest_mm  how far it begins behind the plane that is looked through, for drawing order
    """

    points_mm: list[list[float]]
    nearest_mm: float


def outlines(figure: Figure, view: str, meshes: Meshes) -> list[Outline]:
    """The silhouette of a figure in a view; several lines where it falls apart."""
    return put_in_place(figure, view, silhouette_of(figure, view, meshes))


Shadow = tuple[list[Array], float]
"""Lines of a silhouette about the figure's own place, and how far it begins behind that place."""


def silhouette_of(figure: Figure, view: str, meshes: Meshes) -> Shadow:
    """A figure's silhouette about its own place: the same wherever it stands."""
    across, up = VIEWS[view]
    away = ({0, 1, 2} - {across, up}).pop()
    mesh = turned_mesh(figure, meshes)
    reach = mesh.vertices[:, away]
    nearest = reach.min() if view == "front" else -reach.max()
    return silhouette(mesh, across, up), float(nearest)


def put_in_place(figure: Figure, view: str, shadow: Shadow) -> list[Outline]:
    """A silhouette moved to where the figure stands."""
    lines, nearest = shadow
    across, up = VIEWS[view]
    away = ({0, 1, 2} - {across, up}).pop()
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    begins = round(nearest + (place[away] if view == "front" else -place[away]), 2)
    return [
        Outline(
            points_mm=np.round(line + place[[across, up]], 2).tolist(), nearest_mm=begins
        )
        for line in lines
    ]


def silhouette(mesh: TriMesh, across: int, up: int) -> list[Array]:
    """Outer and inner edges of a mesh's shadow on two of its axes, each (n, 2) [mm].

    Corners are first drawn to a fine grid and equal triangles dropped, so that a mesh of many
    triangles costs no more than its shadow shows.
    """
    flat = mesh.vertices[:, [across, up]]
    low = flat.min(axis=0)
    grain = max(float((flat.max(axis=0) - low).max()) / GRAIN, 1e-3)
    cell = np.rint((flat - low) / grain).astype(np.int64)
    # twice the area on the grid; slivers of no area add nothing
    a, b, c = (cell[mesh.faces[:, corner]] for corner in range(3))
    twice = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    key = cell[:, 0] * 100_000 + cell[:, 1]
    front = np.sort(key[mesh.faces[twice != 0]], axis=1)
    front = np.unique(front, axis=0)
    corners = np.stack([front // 100_000, front % 100_000], axis=-1).astype(float)
    turned = np.cross(
        np.append(corners[:, 1] - corners[:, 0], np.zeros((len(corners), 1)), axis=1),
        np.append(corners[:, 2] - corners[:, 0], np.zeros((len(corners), 1)), axis=1),
    )[:, 2] < 0
    corners[turned] = corners[turned][:, ::-1]
    shadow = manifold3d.CrossSection(list(corners), manifold3d.FillRule.NonZero)
    return [
        low + np.asarray(line) * grain for line in shadow.simplify(0.45).to_polygons()
        if len(line) > 2
    ]
