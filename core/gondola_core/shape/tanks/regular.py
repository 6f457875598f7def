"""Tanks of equal sides."""

from __future__ import annotations

import numpy as np

from ...scene import Regular
from .register import Array, tank_shape


@tank_shape("regular")
def regular_floor(shape: Regular, width: float, behind: float) -> Array:
    """Equal sides, stretched to the inner size, a side at the glass."""
    points = corners_round(shape.sides_count)
    low, high = points.min(axis=0), points.max(axis=0)
    size: Array = np.array([width, behind])
    return np.asarray((points - low) / (high - low) * size)


def corners_round(sides: int) -> Array:
    """Corners of a regular polygon on the unit circle, its first side at the glass."""
    turn = -np.pi / 2 - np.pi / sides + 2 * np.pi * np.arange(sides) / sides
    return np.stack([np.cos(turn), np.sin(turn)], axis=1)
