"""Tanks of corners given one by one."""

from __future__ import annotations

import numpy as np

from ...polygon import polygon_area
from ...scene import FreeShape
from .register import Array, tank_shape


@tank_shape("free")
def free_floor(shape: FreeShape, _: float, __: float) -> Array:
    """The corners as given, anticlockwise."""
    given: Array = np.array(shape.points_mm, dtype=float)
    return given if polygon_area(given) > 0 else given[::-1].copy()
