"""Panels of the dam: the table of plates against the double series of a hinged one under liquid."""

from __future__ import annotations

from collections.abc import Iterator
from math import pi

import numpy as np

from ..dam import plate_coefficients
from .measured import Measured, measure

TERMS, PLACES = 41, 81
"""Terms each way, and heights at which the largest is looked for: more change no digit that is told."""


def hinged_under_liquid(length_over_depth: float) -> float:
    """Largest w D / (q0 h^4) of a panel hinged all round, q = q0 (1 - z/h): Navier's double series.

        q_mn = 4 q0 / (m n pi^2) (1 - cos m pi),  w = sum q_mn / (D pi^4 (m^2/L^2 + n^2/h^2)^2) sin sin

    Source: timoshenko1959
    """
    at = np.linspace(0.0, 1.0, PLACES)
    m, n = np.arange(1, 2 * TERMS, 2), np.arange(1, TERMS)
    load = 8.0 / (pi**2 * m[:, None] * n[None, :])
    stiff = pi**4 * ((m[:, None] / length_over_depth) ** 2 + n[None, :] ** 2) ** 2
    up = np.sin(pi * np.outer(n, at))
    middle = np.sin(pi * m / 2)
    return float(((load / stiff * middle[:, None]).sum(axis=0) @ up).max())


@measure
def hinged_panels() -> Iterator[Measured]:
    """Rows of the table that have a series of their own."""
    for ratio in (0.5, 1.0, 2.0, 4.0):
        exact = hinged_under_liquid(ratio)
        yield Measured(
            model="Panels", quantity=f"bulge of a panel {ratio:g} times as long as deep, hinged all round [q0 h^4 / D]",
            against="double series", source="timoshenko1959", expected=exact,
            found=plate_coefficients(ratio, "SSSS")[0], allowed=0.02 * exact,
        )
