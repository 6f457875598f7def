"""Boxes with cut corners."""

from __future__ import annotations

import numpy as np

from ...scene import Chamfered
from .register import Array, tank_shape


@tank_shape("chamfered")
def chamfered_floor(shape: Chamfered, width: float, behind: float) -> Array:
    """Eight corners."""
    c = shape.corner_mm
    return np.array([
        [c, 0], [width - c, 0], [width, c], [width, behind - c], [width - c, behind], [c, behind], [0, behind - c],
        [0, c],
    ])
