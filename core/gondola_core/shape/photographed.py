"""Places on a photograph of the built base, by the four corners of its dam."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ..errors import GondolaError
from ..scene import MeasuredDepth
from ..words import words

Array = NDArray[np.float64]

LEAST_CORNER_SINE = 0.02
"""Sine of the angle at a clicked corner below which three of them lie on a line. Source: assumed"""


def places_mm(
    size_mm: tuple[float, float], corners_px: Sequence[Sequence[float]], points_px: Sequence[Sequence[float]]
) -> Array:
    """Places (from the left, behind the glass) of points of a photograph: (n, 2) [mm].

    size_mm     of the dam, across and to the back
    corners_px  front left, front right, back right, back left, all at one height of the dam
    points_px   (n, 2), of what lies at about that height

    The projective map that takes the corners to those of the inner size; GondolaError where
    three corners lie on a line. Source: hartley2004
    """
    corners = np.asarray(corners_px, dtype=float)
    _refuse_flat(corners)
    width, behind = size_mm
    plan = np.array([[0, 0], [width, 0], [width, behind], [0, behind]], dtype=float)
    rows, ends = [], []
    for (u, v), (x, y) in zip(corners, plan, strict=True):
        rows += [[u, v, 1, 0, 0, 0, -u * x, -v * x], [0, 0, 0, u, v, 1, -u * y, -v * y]]
        ends += [x, y]
    h = np.append(np.linalg.solve(np.array(rows), np.array(ends)), 1.0).reshape(3, 3)
    points = np.asarray(points_px, dtype=float).reshape(-1, 2)
    mapped = np.column_stack([points, np.ones(len(points))]) @ h.T
    return np.asarray(mapped[:, :2] / mapped[:, 2:])


def _refuse_flat(corners: Array) -> None:
    sides = np.roll(corners, -1, axis=0) - corners
    lengths = np.linalg.norm(sides, axis=1)
    if lengths.min() < 1:
        raise GondolaError(words("refusals.corners_flat"), "corners_px")
    units = sides / lengths[:, None]
    after = np.roll(units, -1, axis=0)
    turns = units[:, 0] * after[:, 1] - units[:, 1] * after[:, 0]
    if np.abs(turns).min() < LEAST_CORNER_SINE or not (np.all(turns > 0) or np.all(turns < 0)):
        raise GondolaError(words("refusals.corners_flat"), "corners_px")


def photographed_depths(
    size_mm: tuple[float, float], corners_px: Sequence[Sequence[float]], depths: Sequence[tuple[float, float, float]]
) -> list[MeasuredDepth]:
    """Measured depths by where they were clicked: each (u, v) of the photograph and its depth [mm].

    GondolaError for one that lies outside the dam.
    """
    found = []
    at = places_mm(size_mm, corners_px, [(u, v) for u, v, _ in depths])
    for (x, y), (_, _, depth) in zip(at.tolist(), depths, strict=True):
        if not (0 <= x <= size_mm[0] and 0 <= y <= size_mm[1]):
            raise GondolaError(words("refusals.outside_dam", depth=depth), "depths")
        found.append(MeasuredDepth(x_mm=round(x, 1), behind_mm=round(y, 1), depth_mm=depth))
    return found
