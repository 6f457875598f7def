"""What a face does to a ray: bends it, mirrors a share of it, and scatters it where it is sanded."""

from __future__ import annotations

from math import cos, log, pi, sin, sqrt

import numpy as np

from .kernels import njit_fast

INDEX = 1.52
"""Of a resin that is not told. Source: own_appearance"""
SANDED = ((120, 0.35), (240, 0.25), (400, 0.18), (600, 0.13), (800, 0.09), (1000, 0.065), (1500, 0.04), (2000, 0.025),
          (3000, 0.012))
"""Grit and the slope of its facets, Beckmann's alpha. Source: own_appearance, assumed"""
SMOOTH = 0.004
"""A slope below it blurs what lies 60 mm behind by less than an eye makes out at 300 mm. Source: assumed"""
COAT_CUTS = 26.0
"""By so much a coat of lacquer cuts the blur of a sanded face. Source: own_appearance"""


def facet_slope(grit: int, coated: bool = False) -> float:
    """Beckmann's alpha of a face sanded to a grit, between the grits by their logarithms; 0 beyond the finest.

    >>> facet_slope(400), facet_slope(400, coated=True) < 0.007, facet_slope(20_000)
    (0.18, True, 0.0)
    """
    grits, slopes = np.log([g for g, _ in SANDED]), np.log([a for _, a in SANDED])
    if grit > SANDED[-1][0]:
        return 0.0
    slope = float(np.exp(np.interp(log(grit), grits, slopes)))
    slope = round(slope / (COAT_CUTS if coated else 1.0), 6)
    return slope if slope > SMOOTH else 0.0


def blur_mm(behind_mm: float, slope: float, index: float = INDEX) -> float:
    """Standard deviation of the blur of what lies so far behind a sanded face: y (1 - 1/n) alpha/sqrt 2.

    Source: own_appearance

    >>> round(blur_mm(30.0, 0.18), 1)
    1.3
    """
    return behind_mm * (1 - 1 / index) * slope / sqrt(2.0)


@njit_fast
def mirrored(cosine, ratio):  # type: ignore[no-untyped-def]
    """Share of unpolarised light that a face mirrors, and the cosine beyond it; (1, 0) where it mirrors all.

    cosine   between the ray and the face's normal, on the side that it comes from
    ratio    index on that side over the index beyond
    Source: fresnel1823
    """
    sine2 = ratio * ratio * (1.0 - cosine * cosine)
    if sine2 >= 1.0:
        return 1.0, 0.0
    beyond = sqrt(1.0 - sine2)
    across = (ratio * cosine - beyond) / (ratio * cosine + beyond)
    along = (cosine - ratio * beyond) / (cosine + ratio * beyond)
    return 0.5 * (across * across + along * along), beyond


@njit_fast
def bent(d, ahead, cosine, beyond, ratio):  # type: ignore[no-untyped-def]
    """The ray beyond a face: r d + (cos t - r cos i) m, with m the normal on the ray's far side. Source: snell1621"""
    k = beyond - ratio * cosine
    return ratio * d[0] + k * ahead[0], ratio * d[1] + k * ahead[1], ratio * d[2] + k * ahead[2]


@njit_fast
def frame(n):  # type: ignore[no-untyped-def]
    """Two directions square to a third. Source: duff2017"""
    sign = 1.0 if n[2] >= 0.0 else -1.0
    a = -1.0 / (sign + n[2])
    b = n[0] * n[1] * a
    return (1.0 + sign * n[0] * n[0] * a, sign * b, -sign * n[0]), (b, sign + n[1] * n[1] * a, -n[1])


@njit_fast
def even(turn, number):  # type: ignore[no-untyped-def]
    """A number from 0 to 1, the same for the same pair: a hash, no dice."""
    h = np.uint64(turn) * np.uint64(0x9E3779B97F4A7C15) + np.uint64(number) * np.uint64(0xBF58476D1CE4E5B9)
    h ^= h >> np.uint64(30)
    h *= np.uint64(0xBF58476D1CE4E5B9)
    h ^= h >> np.uint64(27)
    h *= np.uint64(0x94D049BB133111EB)
    h ^= h >> np.uint64(31)
    return float(h >> np.uint64(11)) / 9007199254740992.0


@njit_fast
def facet(normal, slope, turn, number):  # type: ignore[no-untyped-def]
    """The normal of one facet of a sanded face: slope alpha sqrt(-ln(1 - u)), any way round.

    turn  64 times the number of a pixel or point, and the number of its ray, which lie evenly over the slopes
    Source: beckmann1963
    """
    own, ray = turn // 64, turn % 64
    tilt = slope * sqrt(-log(1.0 - 0.999999 * ((even(own, number) + 0.7548776662466927 * ray) % 1.0)))
    round_ = 2.0 * pi * ((even(own, number + 7919) + 0.5698402909980532 * ray) % 1.0)
    a, b = frame(normal)
    p, q = tilt * cos(round_), tilt * sin(round_)
    x = normal[0] + p * a[0] + q * b[0]
    y = normal[1] + p * a[1] + q * b[1]
    z = normal[2] + p * a[2] + q * b[2]
    long = sqrt(x * x + y * y + z * z)
    return x / long, y / long, z / long
