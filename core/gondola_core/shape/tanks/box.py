"""Upright boxes."""

from __future__ import annotations

import numpy as np

from ...scene import BoxShape
from .register import Array, tank_shape


@tank_shape("box")
def box_floor(_: BoxShape, width: float, behind: float) -> Array:
    """Four corners."""
    return np.array([[0, 0], [width, 0], [width, behind], [0, behind]], dtype=float)
