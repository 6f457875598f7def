"""The register of tank shapes: the kind of a shape, and who lays its floor."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
FloorPlan = Callable[[Any, float, float], Array]
"""Corners of the floor, anticlockwise, from (shape, width, behind) in mm."""

FLOORS: dict[str, FloorPlan] = {}


def tank_shape(kind: str) -> Callable[[FloorPlan], FloorPlan]:
    """Register who lays the floor of a kind of shape."""

    def registered(floor: FloorPlan) -> FloorPlan:
        FLOORS[kind] = floor
        return floor

    return registered
