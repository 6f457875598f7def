"""Round and oval tanks."""

from __future__ import annotations

import numpy as np

from ...scene import Round
from .register import Array, tank_shape
from .regular import corners_round

ROUND_SIDES = 144


@tank_shape("round")
def round_floor(_: Round, width: float, behind: float) -> Array:
    """A polygon of the ellipse's own area."""
    points = corners_round(ROUND_SIDES)
    points *= np.sqrt(np.pi / (ROUND_SIDES / 2 * np.sin(2 * np.pi / ROUND_SIDES)))
    return np.asarray(np.array([width / 2, behind / 2]) * (1 + points), dtype=float)
