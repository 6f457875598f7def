"""Tanks whose back wall is narrower than the front one."""

from __future__ import annotations

import numpy as np

from ...scene.tank import Wedge
from .register import Array, tank_shape


@tank_shape("wedge")
def wedge_floor(shape: Wedge, width: float, behind: float) -> Array:
    """Four corners; the back wall in the middle."""
    side = width * (1 - shape.back_fraction) / 2
    return np.array([[0, 0], [width, 0], [width - side, behind], [side, behind]])
