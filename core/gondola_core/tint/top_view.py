"""How the bed looks from above, with what the flat face throws back."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from .attenuation import DIFFUSE_PATH

Array = NDArray[np.float64]

INDEX = 1.52
FACE = ((INDEX - 1) / (INDEX + 1)) ** 2
"""Reflectance of the face at normal incidence."""
ENTERS = 0.9053
"""Share of diffuse light that enters through the face. Source: own_light"""


def back_from_face(optical_depth: Array) -> Array:
    """Light from the bed that the face throws back to it, by optical depth. Source: own_light

    >>> round(float(back_from_face(np.array(0.0))), 4)
    0.6082
    """
    return np.asarray(
        0.6082 * (0.741 * np.exp(-3.185 * optical_depth) + 0.259 * np.exp(-9.017 * optical_depth))
    )


def seen_from_above(reflectance: ArrayLike, optical_depth: ArrayLike) -> Array:
    """A bed cast in at an optical depth, seen from above, over the same in clear resin.

        R = (1 - F0)/n^2 exp(-tau) rho Td / (1 - rho k2),  divided by R(0)

    reflectance, optical_depth  (..., 31)
    Source: own_light

    >>> float(seen_from_above(0.8, 0.0))
    1.0
    """
    rho = np.asarray(reflectance, dtype=float)
    tau = np.asarray(optical_depth, dtype=float)

    def whole(at: Array) -> Array:
        light = ENTERS * np.exp(-DIFFUSE_PATH * at)
        return np.asarray(
            (1 - FACE) / INDEX**2 * np.exp(-at) * light / (1 - rho * back_from_face(at))
        )

    return np.asarray(whole(tau) / whole(np.zeros_like(tau)))
