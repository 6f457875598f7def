"""How figures stand in a drawn view: the outline of each solid, projected."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..scene import Box, Ellipsoid, Figure, Solid
from .frame import ellipsoid_shape, to_tank

Array = NDArray[np.float64]

VIEWS: dict[str, tuple[int, int]] = {"front": (0, 2), "side": (1, 2), "above": (0, 1)}
"""Axes of the tank that each view shows: right, behind, up."""
ROUND = 24
"""Points on a round outline; 1 % of its radius from the true curve."""
_TURN = np.linspace(0.0, 2 * np.pi, ROUND, endpoint=False)
_CIRCLE = np.stack([np.cos(_TURN), np.sin(_TURN)], axis=1)
_CORNERS = np.array([[i, j, k] for i in (-1, 1) for j in (-1, 1) for k in (-1, 1)]) / 2.0


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
        least, most = _reach(solid, figure)
        drawn.append(
            Outline(
                points_mm=np.round(_flat(solid, figure, [across, up]), 2).tolist(),
                nearest_mm=round(float(-most[away] if view == "above" else least[away]), 2),
            )
        )
    return sorted(drawn, key=lambda outline: -outline.nearest_mm)


def extent_mm(figure: Figure) -> tuple[Array, Array]:
    """Lowest and highest corner of a figure in the tank, each (3,) [mm]."""
    reaches = [_reach(solid, figure) for solid in figure.solids]
    return (
        np.min([least for least, _ in reaches], axis=0),
        np.max([most for _, most in reaches], axis=0),
    )


def _flat(solid: Solid, figure: Figure, axes: list[int]) -> Array:
    """The closed outline of one solid on two axes of the tank, (n, 2)."""
    if isinstance(solid, Ellipsoid):
        # the shadow of an ellipsoid is the ellipse of the same rows and columns of its matrix
        centre, shape = ellipsoid_shape(solid, figure)
        return np.asarray(centre[axes] + _CIRCLE @ np.linalg.cholesky(shape[np.ix_(axes, axes)]).T)
    if isinstance(solid, Box):
        return _hull(_corners(solid, figure)[:, axes])
    start, end = to_tank(np.array([solid.from_mm, solid.to_mm]), figure)[:, axes]
    facing = np.arctan2(*(end - start)[::-1])
    ahead = np.cos(_TURN - facing) >= 0
    return np.asarray(np.where(ahead[:, None], end, start) + solid.radius_mm * _CIRCLE)


def _reach(solid: Solid, figure: Figure) -> tuple[Array, Array]:
    if isinstance(solid, Ellipsoid):
        centre, shape = ellipsoid_shape(solid, figure)
        half = np.sqrt(np.diag(shape))
        return centre - half, centre + half
    if isinstance(solid, Box):
        corners = _corners(solid, figure)
        return corners.min(axis=0), corners.max(axis=0)
    ends = to_tank(np.array([solid.from_mm, solid.to_mm]), figure)
    return ends.min(axis=0) - solid.radius_mm, ends.max(axis=0) + solid.radius_mm


def _corners(box: Box, figure: Figure) -> Array:
    return to_tank(_CORNERS * np.array(box.size_mm) + np.array(box.centre_mm), figure)


def _hull(points: Array) -> Array:
    """Convex hull of a few points by the monotone chain, anticlockwise."""
    order = points[np.lexsort((points[:, 1], points[:, 0]))].tolist()

    def chain(run: list[list[float]]) -> list[list[float]]:
        kept: list[list[float]] = []
        for x, y in run:
            while len(kept) > 1:
                (ax, ay), (bx, by) = kept[-2], kept[-1]
                if (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 1e-9:
                    break
                kept.pop()
            kept.append([x, y])
        return kept[:-1]

    return np.array(chain(order) + chain(order[::-1]))
