"""How figures stand in a drawn view: the outline of each solid, projected."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..scene import Box, Ellipsoid, Figure
from .frame import pitch_matrix, to_tank

Array = NDArray[np.float64]

VIEWS: dict[str, tuple[int, int]] = {"front": (0, 2), "side": (1, 2), "above": (0, 1)}
"""Axes of the tank that each view shows: right, behind, up."""
ROUND = 28
"""Points on a round outline; 1 % of its radius from the true curve."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """One solid in one view: a closed line of (across, height or behind) points in mm.

    nearest_mm  how far it begins behind the plane that is looked through, for drawing order
    """

    points_mm: list[list[float]]
    nearest_mm: float


def outlines(figure: Figure, view: str) -> list[Outline]:
    """Outlines of a figure's solids in a view, farthest first."""
    across, up = VIEWS[view]
    away = ({0, 1, 2} - {across, up}).pop()
    drawn = []
    for solid in figure.solids:
        points = _hull_points(solid, figure)
        flat = _hull(points[:, [across, up]])
        nearest = float(points[:, away].min() if view != "above" else -points[:, away].max())
        drawn.append(Outline(points_mm=np.round(flat, 2).tolist(), nearest_mm=round(nearest, 2)))
    return sorted(drawn, key=lambda outline: -outline.nearest_mm)


def extent_mm(figure: Figure) -> tuple[Array, Array]:
    """Lowest and highest corner of a figure in the tank, each (3,) [mm]."""
    points = np.concatenate([_hull_points(solid, figure) for solid in figure.solids])
    return points.min(axis=0), points.max(axis=0)


def _hull_points(solid: object, figure: Figure) -> Array:
    ring = np.linspace(0.0, 2 * np.pi, ROUND, endpoint=False)
    bands = np.linspace(-np.pi / 2, np.pi / 2, ROUND // 2 + 1)
    ball = np.stack(
        [
            np.outer(np.cos(bands), np.cos(ring)).ravel(),
            np.outer(np.cos(bands), np.sin(ring)).ravel(),
            np.outer(np.sin(bands), np.ones(ROUND)).ravel(),
        ],
        axis=1,
    )
    if isinstance(solid, Ellipsoid):
        tilted = (ball * np.array(solid.radii_mm)) @ pitch_matrix(solid.pitch_deg).T
        return to_tank(tilted + np.array(solid.centre_mm), figure)
    if isinstance(solid, Box):
        corners = np.array([[i, j, k] for i in (-1, 1) for j in (-1, 1) for k in (-1, 1)])
        return to_tank(corners * np.array(solid.size_mm) / 2 + np.array(solid.centre_mm), figure)
    ends = np.array([solid.from_mm, solid.to_mm])  # type: ignore[attr-defined]
    points = np.concatenate([ball * solid.radius_mm + end for end in ends])  # type: ignore[attr-defined]
    return to_tank(points, figure)


def _hull(points: Array) -> Array:
    """Convex hull by the monotone chain, anticlockwise."""
    order = points[np.lexsort((points[:, 1], points[:, 0]))]

    def chain(run: Array) -> list[Array]:
        kept: list[Array] = []
        for point in run:
            while len(kept) > 1:
                ab, ac = kept[-1] - kept[-2], point - kept[-2]
                if ab[0] * ac[1] - ab[1] * ac[0] > 1e-9:
                    break
                kept.pop()
            kept.append(point)
        return kept

    return np.array(chain(order)[:-1] + chain(order[::-1])[:-1])
