"""Boxes with round corners."""

from __future__ import annotations

import numpy as np

from ...scene import Rounded
from .register import Array, tank_shape

ARC_POINTS = 12
"""Points on a quarter of a round corner."""


@tank_shape("rounded")
def rounded_floor(shape: Rounded, width: float, behind: float) -> Array:
    """A quarter of a circle at each corner, as a polygon of the same area."""
    r = shape.corner_mm
    arc = _quarter()
    turn_by = np.array([[0, -1], [1, 0]])
    corners = [(width - r, r, -1), (width - r, behind - r, 0), (r, behind - r, 1), (r, r, 2)]
    return np.concatenate([
        [x, y] + r * arc @ np.linalg.matrix_power(turn_by, turn % 4).T for x, y, turn in corners
    ])


def _quarter() -> Array:
    """Points on a quarter circle; those inside a little outside of it, so that the polygon has its area."""
    angle = np.linspace(0, np.pi / 2, ARC_POINTS + 1)
    arc = np.stack([np.cos(angle), np.sin(angle)], axis=1)
    chords, inner = np.sin(np.pi / 2 / ARC_POINTS), ARC_POINTS - 2
    arc[1:-1] *= (-2 * chords + np.sqrt(4 * chords**2 + 4 * inner * chords * np.pi / 2)) / (2 * inner * chords)
    return np.asarray(arc)
