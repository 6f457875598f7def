"""What colourants take from the light, band by band, and how the light falls with depth."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import log

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ..materials import Colourant, Resin
from ..units import CM, MM
from .haze import HazeField
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
    "mixed": (0.6, 0.3, 0.1),
}
"""Share of the light that comes from above, from the front and from behind. Source: own_light"""


def absorbance_per_cm(colourant: Colourant) -> Array:
    """Decadic absorbance of 1 drop in 100 g, (31,): a sum of Gaussian bands.

        A10(l) = sum h exp(-((l - centre)/width)^2 / 2)

    or as measured, where it was. Source: own_colourants
    """
    if colourant.absorbances_per_cm:
        return np.array(colourant.absorbances_per_cm)
    return _of_bands(
        tuple((band.absorbance_per_cm, band.centre_nm, band.width_nm) for band in colourant.bands)
    )


@lru_cache(maxsize=128)
def _of_bands(bands: tuple[tuple[float, float, float], ...]) -> Array:
    total = np.zeros(len(WAVELENGTHS_NM))
    for height, centre, width in bands:
        total += height * np.exp(-0.5 * ((WAVELENGTHS_NM - centre) / width) ** 2)
    total.flags.writeable = False
    return total


def absorption_of_drop(colourant: Colourant) -> Array:
    """Absorption coefficient of 1 drop in 100 g [1/m], (31,): ln(10) A10. Source: beer1852"""
    return log(10.0) * absorbance_per_cm(colourant) / CM


def scatter_of_drop(colourant: Colourant) -> Array:
    """Scattering coefficient of 1 drop in 100 g [1/m], (31,): b0 (550/l)^p. Source: own_colourants"""
    if colourant.scatter_per_mm == 0:
        return np.zeros(len(WAVELENGTHS_NM))
    fall = (550.0 / WAVELENGTHS_NM) ** colourant.scatter_power
    return np.asarray(colourant.scatter_per_mm / MM * fall)


def attenuation(doses: list[tuple[Colourant, float]]) -> Array:
    """Absorption coefficient of dyed resin [1/m], (31,).

        a = sum x ln(10) A10

    doses  each colourant with its drops per 100 g

    Source: beer1852
    """
    total = np.zeros(len(WAVELENGTHS_NM))
    for colourant, dose in doses:
        total += dose * absorption_of_drop(colourant)
    return total


def scattering(doses: list[tuple[Colourant, float]]) -> tuple[Array, Array]:
    """Scattering coefficient [1/m] and its mean cosine, (31,) each; the cosine weighted by scatter."""
    total = np.zeros(len(WAVELENGTHS_NM))
    forward = np.zeros(len(WAVELENGTHS_NM))
    for colourant, dose in doses:
        part = dose * scatter_of_drop(colourant)
        total += part
        forward += part * colourant.scatter_cosine
    return total, np.divide(forward, total, out=np.zeros_like(total), where=total > 0)


def own_tint(resin: Resin, display_years: float = 0.0) -> Array:
    """Absorption of a resin's own yellow [1/m], (31,): falls to a third every 60 nm from 400.

        a = ln(10) (yellow + years yellowing) exp(-(l - 400)/60)

    What it gains in a year is for room light, out of the sun. Source: own_colourants
    """
    decadic = resin.yellow_per_cm + display_years * resin.yellowing_per_cm_year
    return np.asarray(log(10.0) * decadic / CM * np.exp(-(WAVELENGTHS_NM - 400.0) / 60.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class Water:
    """Layers of tinted resin from the fill line down.

    depths       (layers + 1,) from 0, downward [m]
    attenuation  (layers, 31) absorption [1/m]
    scatter      (layers, 31) scattering [1/m], and its mean cosine
    light        shares from above, front and behind
    behind       inner size from the glass to the back [m]
    haze         light field where there is scatter; None for clear inks
    """

    depths: Array
    attenuation: Array
    scatter: Array
    cosine: Array
    light: tuple[float, float, float]
    behind: float
    haze: HazeField | None

    def layer_at(self, depth: ArrayLike) -> NDArray[np.int64]:
        """Index of the layer at depths (...); on a line, the one below."""
        place = np.searchsorted(self.depths, np.asarray(depth, dtype=float), side="right") - 1
        return np.clip(place, 0, len(self.attenuation) - 1)

    def beam(self) -> Array:
        """Beam attenuation c = a + b of each layer [1/m], (layers, 31)."""
        return np.asarray(self.attenuation + self.scatter)

    def optical_depth(self, depth: ArrayLike) -> Array:
        """Absorption summed from the fill line to depths (...): (..., 31)."""
        at = np.asarray(depth, dtype=float)[..., None]
        within = np.clip(at - self.depths[:-1], 0.0, np.diff(self.depths))
        return np.asarray(within @ self.attenuation)

    def from_above(self, depth: ArrayLike) -> Array:
        """Light from above that is left on a level surface, over that which entered: (..., 31).

            E = exp(-D tau(z)),  or the two-stream field where the resin scatters

        Source: beer1852, schuster1905
        """
        if self.haze is not None:
            return self.haze.light(depth)
        return np.asarray(np.exp(-DIFFUSE_PATH * self.optical_depth(depth)))

    def light_at(self, depth: ArrayLike, behind: ArrayLike) -> Array:
        """Light that falls on a figure over that in clear resin, (..., 31).

            E = p_top E_top(z) + p_front exp(-1.1 c y) + p_back exp(-1.1 c (Y - y))

        depth, behind  [m], broadcast against each other

        Source: beer1852 with own_light
        """
        depth, behind = np.broadcast_arrays(
            np.asarray(depth, dtype=float), np.asarray(behind, dtype=float)
        )
        top, front, back = self.light
        total = top * self.from_above(depth)
        if front or back:
            here = self.beam()[self.layer_at(depth)]
            if front:
                total = total + front * np.exp(-FRONT_PATH * here * behind[..., None])
            if back:
                total = total + back * np.exp(
                    -FRONT_PATH * here * (self.behind - behind)[..., None]
                )
        return np.asarray(total)

    def veil(self, depth: ArrayLike, behind: ArrayLike) -> Array:
        """Scattered light between the eye and a distance behind the glass, (..., 31).

            V = V_inf(z) (1 - exp(-c' y)),  c' = a + b (1 - g)

        0 for clear inks. Source: schuster1905, own_light
        """
        depth, behind = np.broadcast_arrays(
            np.asarray(depth, dtype=float), np.asarray(behind, dtype=float)
        )
        if self.haze is None:
            return np.zeros((*depth.shape, len(WAVELENGTHS_NM)))
        layer = self.layer_at(depth)
        reduced = self.attenuation + self.scatter * (1 - self.cosine)
        return np.asarray(
            self.haze.veil(depth) * -np.expm1(-reduced[layer] * behind[..., None])
        )

    def sight(self, depth: ArrayLike, behind: ArrayLike) -> Array:
        """What the way to the glass leaves of a surface's own light: exp(-c y), (..., 31)."""
        away = np.asarray(behind, dtype=float)[..., None]
        return np.asarray(np.exp(-self.beam()[self.layer_at(depth)] * away))

    def seen(self, reflectance: Array, depth: ArrayLike, behind: ArrayLike) -> Array:
        """Spectrum that reaches the eye from a surface, over a white one in clear resin.

            L = rho E(z, y) exp(-c y) + V(z, y)

        reflectance  (31,) or (..., 31); depth and behind the front glass in m, broadcast

        Source: beer1852, schuster1905
        """
        own = reflectance * self.light_at(depth, behind) * self.sight(depth, behind)
        return np.asarray(own if self.haze is None else own + self.veil(depth, behind))
