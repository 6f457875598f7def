"""Light in 31 bands from 400 to 700 nm: the observer, the daylight, and smooth paints."""

from __future__ import annotations

import functools

import numpy as np
from numpy.typing import NDArray

from ..materials.library import read_rows

Array = NDArray[np.float64]

WAVELENGTHS_NM: Array = np.arange(400.0, 701.0, 10.0)
"""Middles of the bands."""


def _column(table: str, name: str) -> Array:
    return np.array([float(row[name]) for row in read_rows(table)])


@functools.cache
def observer() -> Array:
    """Weights that turn 31 reflectances into XYZ under D65, (31, 3); white has Y = 1.

    Source: cie15
    """
    light = _column("cie_10nm", "d65")
    matching = np.stack([_column("cie_10nm", f"{axis}_bar") for axis in "xyz"], axis=1)
    weights = light[:, None] * matching
    return np.asarray(weights / weights[:, 1].sum())


@functools.cache
def luminance() -> Array:
    """Share of each band in the brightness of a white under D65, (31,); sums to 1."""
    return observer()[:, 1]


@functools.cache
def reflectance_basis() -> Array:
    """Smooth reflectances of pure red, green and blue, (31, 3), that sum to 1 in every band.

    Source: mallett2019
    """
    return np.stack(
        [_column("reflectance_basis", colour) for colour in ("red", "green", "blue")], axis=1
    )
