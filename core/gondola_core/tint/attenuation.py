"""What a dose of ink takes from the light, band by band, and how the light falls with depth."""

from __future__ import annotations

from dataclasses import dataclass
from math import log

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ..materials import Colourant
from ..units import CM
from .spectrum import WAVELENGTHS_NM

Array = NDArray[np.float64]

DIFFUSE_PATH = 1.13
"""Mean path of diffuse light from above through a flat face of n 1.52. Source: own_light"""
FRONT_PATH = 1.1
"""Mean path of room light from the front. Source: own_light"""

LIGHTS: dict[str, tuple[float, float, float]] = {
    "lamp_above": (1.0, 0.0, 0.0),
    "room": (0.3, 0.6, 0.1),
    "lit_from_behind": (0.2, 0.1, 0.7),
}
"""Share of the light that comes from above, from the front and from behind. Source: own_light"""


def absorbance_per_cm(colourant: Colourant) -> Array:
    """Decadic absorbance of 1 drop in 100 g, (31,): a sum of Gaussian bands.

        A10(l) = sum h exp(-((l - centre)/width)^2 / 2)

    Source: own_colourants
    """
    total = np.zeros(len(WAVELENGTHS_NM))
    for band in colourant.bands:
        away = (WAVELENGTHS_NM - band.centre_nm) / band.width_nm
        total += band.absorbance_per_cm * np.exp(-0.5 * away**2)
    return total


def attenuation(doses: list[tuple[Colourant, float]]) -> Array:
    """Absorption coefficient of dyed resin [1/m], (31,).

        a = sum x ln(10) A10

    doses  each colourant with its drops per 100 g

    Source: beer1852
    """
    total = np.zeros(len(WAVELENGTHS_NM))
    for colourant, dose in doses:
        total += dose * log(10.0) * absorbance_per_cm(colourant) / CM
    return total


@dataclass(frozen=True, slots=True, kw_only=True)
class Water:
    """Layers of dyed resin from the fill line down.

    depths       (layers + 1,) from 0, downward [m]
    attenuation  (layers, 31) [1/m]
    light        shares from above, front and behind
    behind       inner size from the glass to the back [m]
    """

    depths: Array
    attenuation: Array
    light: tuple[float, float, float]
    behind: float

    def layer_at(self, depth: ArrayLike) -> NDArray[np.int64]:
        """Index of the layer at depths (...); on a line, the one below."""
        place = np.searchsorted(self.depths, np.asarray(depth, dtype=float), side="right") - 1
        return np.clip(place, 0, len(self.attenuation) - 1)

    def optical_depth(self, depth: ArrayLike) -> Array:
        """Absorption summed from the fill line to depths (...): (..., 31)."""
        at = np.asarray(depth, dtype=float)[..., None]
        within = np.clip(at - self.depths[:-1], 0.0, np.diff(self.depths))
        return np.asarray(within @ self.attenuation)

    def light_at(self, depth: ArrayLike, behind: ArrayLike) -> Array:
        """Light that falls on a figure over that in clear resin, (..., 31).

            E = p_top exp(-D tau(z)) + p_front exp(-1.1 a y) + p_back exp(-1.1 a (Y - y))

        depth, behind  [m], broadcast against each other

        Source: beer1852 with own_light
        """
        depth, behind = np.broadcast_arrays(
            np.asarray(depth, dtype=float), np.asarray(behind, dtype=float)
        )
        here = self.attenuation[self.layer_at(depth)]
        top, front, back = self.light
        total = top * np.exp(-DIFFUSE_PATH * self.optical_depth(depth))
        if front:
            total = total + front * np.exp(-FRONT_PATH * here * behind[..., None])
        if back:
            total = total + back * np.exp(-FRONT_PATH * here * (self.behind - behind)[..., None])
        return np.asarray(total)

    def seen(self, reflectance: Array, depth: ArrayLike, behind: ArrayLike) -> Array:
        """Spectrum that reaches the eye from a surface, over a white one in clear resin.

            L = rho E(z, y) exp(-a y)

        reflectance  (31,) or (..., 31); depth and behind the front glass in m, broadcast

        Source: beer1852
        """
        away = np.asarray(behind, dtype=float)[..., None]
        sight = np.exp(-self.attenuation[self.layer_at(depth)] * away)
        return np.asarray(reflectance * self.light_at(depth, behind) * sight)
