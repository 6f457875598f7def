"""Bubbles: what leaves in time through a mix that thickens as an exponential."""

from __future__ import annotations

from collections.abc import Iterator
from math import log

import numpy as np

from ..cure.bubbles import escape_diameter, stokes_rise_speed
from .measured import Measured, measure

STEPS = 400_000
"""Of the way that is added up."""


@measure
def escaping() -> Iterator[Measured]:
    """The least bubble that leaves has risen just so far when time runs out: its way, added up step by step."""
    for fresh, minutes, depth_mm in ((0.3, 30, 5), (0.7, 45, 15), (1.2, 30, 50)):
        slower = minutes * 60 / log(10)
        least = escape_diameter(depth_mm * 1e-3, 1100.0, slower / fresh) or 0.0
        length = 40 * slower / STEPS
        middles = (np.arange(STEPS) + 0.5) * length
        way = float((stokes_rise_speed(least, 1100.0, fresh) * np.exp(-middles / slower)).sum()) * length
        yield Measured(
            model="Bubbles", quantity=f"rise of the least bubble that leaves {depth_mm} mm of {fresh:g} Pa s [mm]",
            against="depth; its way added up as the mix thickens tenfold in its working time", source="stokes1851",
            expected=float(depth_mm), found=1e3 * way, allowed=1e-3 * depth_mm,
        )
