"""From spectra to what an eye and a display make of them."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from .spectrum import observer, reflectance_basis

Array = NDArray[np.float64]

_PRIMARIES_XY = np.array([[0.64, 0.33], [0.30, 0.60], [0.15, 0.06]])
_WHITE_XY = np.array([0.3127, 0.3290])


def _xyz_of(xy: Array) -> Array:
    return np.array([xy[0] / xy[1], 1.0, (1 - xy[0] - xy[1]) / xy[1]])


_WHITE_XYZ = _xyz_of(_WHITE_XY)
_COLUMNS = np.stack([_xyz_of(xy) for xy in _PRIMARIES_XY], axis=1)
_RGB_TO_XYZ = _COLUMNS * np.linalg.solve(_COLUMNS, _WHITE_XYZ)
_XYZ_TO_RGB = np.linalg.inv(_RGB_TO_XYZ)


def xyz(spectrum: ArrayLike) -> Array:
    """Tristimulus values under D65 of spectra relative to white, (..., 31) -> (..., 3).

    Source: cie15
    """
    return np.asarray(spectrum, dtype=float) @ observer()


def linear_srgb(spectrum: ArrayLike) -> Array:
    """Linear sRGB of spectra relative to white, (..., 31) -> (..., 3); may leave 0 to 1.

    The white of the 10 nm sum is brought to the white of sRGB, so that white stays (1, 1, 1).
    Source: iec61966
    """
    scale = _WHITE_XYZ / observer().sum(axis=0)
    return np.asarray((xyz(spectrum) * scale) @ _XYZ_TO_RGB.T)


def encode_srgb(linear: ArrayLike) -> Array:
    """Display values 0 to 255 of linear sRGB, clipped to what a display can show.

    Source: iec61966
    """
    clipped = np.clip(np.asarray(linear, dtype=float), 0.0, 1.0)
    low = clipped * 12.92
    high = 1.055 * clipped ** (1 / 2.4) - 0.055
    return np.asarray(np.rint(255.0 * np.where(clipped <= 0.0031308, low, high)))


def hex_of(linear: ArrayLike) -> str:
    """`#rrggbb` of one linear sRGB colour."""
    return hexes_of(np.asarray(linear, dtype=float)[None])[0]


def hexes_of(linear: ArrayLike) -> list[str]:
    """`#rrggbb` of each of many linear sRGB colours, (n, 3)."""
    return [f"#{red:02x}{green:02x}{blue:02x}" for red, green, blue in encode_srgb(linear).astype(int).tolist()]


def linear_of_hex(code: str) -> Array:
    """Linear sRGB of `#rrggbb`. Source: iec61966"""
    return linear_of_srgb(np.array([int(code[place : place + 2], 16) for place in (1, 3, 5)]))


def linear_of_srgb(code: ArrayLike) -> Array:
    """Linear sRGB of display values 0 to 255. Source: iec61966"""
    value = np.asarray(code, dtype=float) / 255.0
    return np.asarray(np.where(value <= 0.04045, value / 12.92, ((value + 0.055) / 1.055) ** 2.4))


def reflectance_of_hex(code: str) -> Array:
    """A smooth reflectance that looks like the paint `#rrggbb` in daylight, (31,).

    Source: mallett2019
    """
    return np.asarray(reflectance_basis() @ linear_of_hex(code))


def lab(spectrum: ArrayLike) -> Array:
    """CIE L*a*b* of spectra relative to white, (..., 31) -> (..., 3). Source: cie15"""
    ratio = xyz(spectrum) / observer().sum(axis=0)
    edge = 6.0 / 29.0
    f = np.where(ratio > edge**3, np.cbrt(ratio), ratio / (3 * edge**2) + 4.0 / 29.0)
    x, y, z = f[..., 0], f[..., 1], f[..., 2]
    return np.stack([116 * y - 16, 500 * (x - y), 200 * (y - z)], axis=-1)


def colour_difference(first: ArrayLike, second: ArrayLike) -> Array:
    """CIEDE2000 colour difference of L*a*b* values, (..., 3) and (..., 3) -> (...).

    About 1 is seen side by side, 2 to 4 at a glance.
    Source: sharma2005
    """
    l1, a1, b1 = np.moveaxis(np.asarray(first, dtype=float), -1, 0)
    l2, a2, b2 = np.moveaxis(np.asarray(second, dtype=float), -1, 0)
    chroma = 0.5 * (np.hypot(a1, b1) + np.hypot(a2, b2))
    stretch = 0.5 * (1.0 - np.sqrt(chroma**7 / (chroma**7 + 25.0**7)))
    a1, a2 = (1 + stretch) * a1, (1 + stretch) * a2
    c1, c2 = np.hypot(a1, b1), np.hypot(a2, b2)
    h1 = np.degrees(np.arctan2(b1, a1)) % 360.0
    h2 = np.degrees(np.arctan2(b2, a2)) % 360.0
    grey = c1 * c2 == 0
    turn = h2 - h1
    turn = np.where(turn > 180, turn - 360, np.where(turn < -180, turn + 360, turn))
    turn = np.where(grey, 0.0, turn)
    d_l, d_c = l2 - l1, c2 - c1
    d_h = 2 * np.sqrt(c1 * c2) * np.sin(np.radians(turn) / 2)
    mean_l, mean_c = 0.5 * (l1 + l2), 0.5 * (c1 + c2)
    sum_h = h1 + h2
    mean_h = np.where(
        np.abs(h1 - h2) <= 180, 0.5 * sum_h, np.where(sum_h < 360, sum_h / 2 + 180, sum_h / 2 - 180)
    )
    mean_h = np.where(grey, sum_h, mean_h)
    t = (
        1
        - 0.17 * np.cos(np.radians(mean_h - 30))
        + 0.24 * np.cos(np.radians(2 * mean_h))
        + 0.32 * np.cos(np.radians(3 * mean_h + 6))
        - 0.20 * np.cos(np.radians(4 * mean_h - 63))
    )
    lift = (mean_l - 50) ** 2
    s_l = 1 + 0.015 * lift / np.sqrt(20 + lift)
    s_c = 1 + 0.045 * mean_c
    s_h = 1 + 0.015 * mean_c * t
    rotation = (
        -2
        * np.sqrt(mean_c**7 / (mean_c**7 + 25.0**7))
        * np.sin(np.radians(60 * np.exp(-(((mean_h - 275) / 25) ** 2))))
    )
    return np.asarray(
        np.sqrt(
            (d_l / s_l) ** 2
            + (d_c / s_c) ** 2
            + (d_h / s_h) ** 2
            + rotation * (d_c / s_c) * (d_h / s_h)
        )
    )


def lab_of_linear(linear: ArrayLike) -> Array:
    """L*a*b* of linear sRGB, (..., 3) -> (..., 3). Source: cie15, iec61966"""
    tristimulus = np.asarray(linear, dtype=float) @ _RGB_TO_XYZ.T
    ratio = tristimulus / _WHITE_XYZ
    edge = 6.0 / 29.0
    f = np.where(ratio > edge**3, np.cbrt(ratio), ratio / (3 * edge**2) + 4.0 / 29.0)
    x, y, z = f[..., 0], f[..., 1], f[..., 2]
    return np.stack([116 * y - 16, 500 * (x - y), 200 * (y - z)], axis=-1)


def off_display(linear: ArrayLike) -> Array:
    """How far a display is from colours that it cannot show, (..., 3) -> (...) [dE00]."""
    values = np.asarray(linear, dtype=float)
    return colour_difference(lab_of_linear(values), lab_of_linear(np.clip(values, 0.0, 1.0)))
