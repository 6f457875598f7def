"""Light in resin that scatters: two streams by adding thin slabs, with a direct beam from above."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]

SURFACE_BACK = 0.608
"""Share of diffuse light from below that the flat face throws back, n 1.52. Source: own_light"""
LEAK = 0.196
"""Diffuse light that leaves through bare polished walls, times (W + B)/(W B). Source: own_light"""
FORWARD_VEIL = 0.65
"""Brightening of the veil by forward scatter, times the mean cosine. Source: own_light"""
SLABS = 160


@dataclass(frozen=True, slots=True, eq=False)
class HazeField:
    """Light in hazy water at even depths from the fill line to the floor.

    depths            (n,) [m]
    downward, veiling (n, 31) light on a level surface, and the veil of an endless way
    """

    depths: Array
    downward: Array
    veiling: Array

    def light(self, depth: ArrayLike) -> Array:
        """Light on an upward-facing surface over what entered, (..., 31)."""
        return self._at(self.downward, depth)

    def veil(self, depth: ArrayLike) -> Array:
        """Veil of an endless way at a depth, (..., 31)."""
        return self._at(self.veiling, depth)

    def _at(self, table: Array, depth: ArrayLike) -> Array:
        step = self.depths[1] - self.depths[0]
        place = np.clip(np.asarray(depth, dtype=float) / step, 0, len(self.depths) - 1.000001)
        row = place.astype(int)
        part = (place - row)[..., None]
        return np.asarray(table[row] * (1 - part) + table[row + 1] * part)


def slab(absorption: Array, backscatter: Array, thickness: float) -> tuple[Array, Array]:
    """Reflectance and transmittance of a slab for diffuse light.

        k = sqrt(alpha^2 - beta^2),  alpha = 2a + b',  beta = b'
        r = beta sinh(k h) / (k cosh(k h) + alpha sinh(k h)),  t = k / (same)

    absorption, backscatter  a and b' = b (1 - g) [1/m]; thickness h [m]
    Source: schuster1905

    >>> r, t = slab(np.array([0.0]), np.array([10.0]), 0.1)
    >>> round(float(r[0] + t[0]), 9), round(float(t[0]), 9)
    (1.0, 0.5)
    """
    alpha, beta = 2 * absorption + backscatter, backscatter
    k = np.sqrt(np.maximum(alpha**2 - beta**2, 0.0))
    small = k * thickness < 1e-4
    sinh = np.where(small, thickness, np.sinh(np.minimum(k * thickness, 300)) / np.where(small, 1, k))
    cosh = np.cosh(np.minimum(k * thickness, 300))
    below = cosh + alpha * sinh
    return np.asarray(beta * sinh / below), np.asarray(1.0 / below)


@dataclass(frozen=True, slots=True)
class Block:
    """A block of water: its size [m], its sides (polished, sanded or painted_white), and the light on its bed.

    path              mean path of the light that enters from above
    bed_reflectance   (31,)
    """

    width: float
    behind: float
    sides: str
    path: float
    bed_reflectance: Array

    @property
    def leak(self) -> float:
        """What leaks out through the sides [1/m]."""
        if self.sides == "painted_white":
            return 0.0
        return LEAK * (self.width + self.behind) / (self.width * self.behind) * (2.0 if self.sides == "sanded" else 1.0)


def haze_field(depths: Array, absorption: Array, scatter: Array, cosine: Array, block: Block) -> HazeField:
    """The light field of layers that scatter, by adding thin slabs from the floor up.

    depths            (layers + 1,) from 0 [m]
    absorption, scatter, cosine   (layers, 31) a, b [1/m], g

        dF/dz = -(2(a + leak) + b')F + b'G + b'D F_d / 2, and the mirror of it for G
        F(0) = r_i G(0),  G(H) = rho (F(H) + F_d(H))

    Source: schuster1905, own_light
    """
    edges = np.linspace(0.0, depths[-1], SLABS + 1)
    middle = 0.5 * (edges[:-1] + edges[1:])
    thin = float(edges[1] - edges[0])
    layer = np.clip(np.searchsorted(depths, middle, side="right") - 1, 0, len(absorption) - 1)
    a, b, g = absorption[layer], scatter[layer], cosine[layer]
    back = b * (1 - g)
    extinct = a + back
    direct = np.concatenate([np.zeros((1, a.shape[1])), np.cumsum(block.path * extinct * thin, axis=0)])
    direct = np.exp(-direct)
    r, t = slab(a + block.leak, back, thin)
    # half of what the beam loses to scatter in a slab leaves it either way, from its middle
    lost = -np.diff(direct, axis=0) * np.divide(back, extinct, out=np.zeros_like(back), where=back > 0)
    half_r, half_t = slab(a + block.leak, back, 0.5 * thin)
    source = 0.5 * lost * half_t / (1.0 - half_r)
    down, up = _streams(r, t, source, block.bed_reflectance, direct[-1])
    at = np.clip(np.searchsorted(depths, edges, side="right") - 1, 0, len(absorption) - 1)
    b_at, g_at = scatter[at], cosine[at]
    back_at = b_at * (1 - g_at)
    albedo = np.divide(back_at, absorption[at] + back_at, out=np.zeros_like(b_at), where=b_at > 0)
    veiling = albedo / 4 * (block.path * direct + 2 * down + 2 * up) * (1 + FORWARD_VEIL * g_at)
    return HazeField(edges, direct + down, veiling)


def _streams(r: Array, t: Array, source: Array, bed_reflectance: Array, on_bed: Array) -> tuple[Array, Array]:
    """Light downward and upward at the edges of the slabs, each (slabs + 1, 31), that of the beam left out.

    r, t, source   reflectance, transmittance and own light of each slab
    on_bed         what is left of the beam at the bed
    """
    up_reflect = np.empty((SLABS + 1, r.shape[1]))
    up_source = np.empty_like(up_reflect)
    up_reflect[-1] = bed_reflectance
    up_source[-1] = bed_reflectance * on_bed
    for k in range(SLABS - 1, -1, -1):
        many = 1.0 / (1.0 - r[k] * up_reflect[k + 1])
        up_reflect[k] = r[k] + t[k] ** 2 * up_reflect[k + 1] * many
        up_source[k] = source[k] + t[k] * (up_source[k + 1] + up_reflect[k + 1] * source[k]) * many
    down = np.empty_like(up_reflect)
    down[0] = SURFACE_BACK * up_source[0] / (1.0 - SURFACE_BACK * up_reflect[0])
    for k in range(SLABS):
        many = 1.0 / (1.0 - r[k] * up_reflect[k + 1])
        down[k + 1] = (t[k] * down[k] + source[k] + r[k] * up_source[k + 1]) * many
    return down, up_reflect * down + up_source
