"""The bed as a surface: bilinear between its points, clipped to the tank."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..scene import Bed, Tank

Array = NDArray[np.float64]


def bed_heights(bed: Bed, tank: Tank, x_mm: Array, y_mm: Array) -> Array:
    """Height of the bed above the floor on the lines x (nx,) by y (ny,): (ny, nx) [mm]."""
    heights = np.array(bed.heights_mm)
    rows, columns = heights.shape
    u = np.clip(np.asarray(x_mm) / tank.inner_width_mm, 0, 1) * (columns - 1)
    v = np.clip(np.asarray(y_mm) / tank.inner_behind_mm, 0, 1) * (rows - 1)
    i = np.minimum(u.astype(int), columns - 2)
    j = np.minimum(v.astype(int), rows - 2)
    s = (u - i)[None, :]
    t = (v - j)[:, None]
    a = heights[np.ix_(j, i)]
    b = heights[np.ix_(j, i + 1)]
    c = heights[np.ix_(j + 1, i)]
    d = heights[np.ix_(j + 1, i + 1)]
    return np.asarray(a * (1 - s) * (1 - t) + b * s * (1 - t) + c * (1 - s) * t + d * s * t)


def bed_area_cm2(bed: Bed, tank: Tank) -> float:
    """Surface of the bed with its slopes, at 1 mm: what a seal coat has to cover [cm2]."""
    x = np.linspace(0, tank.inner_width_mm, max(2, round(tank.inner_width_mm)))
    y = np.linspace(0, tank.inner_behind_mm, max(2, round(tank.inner_behind_mm)))
    heights = bed_heights(bed, tank, x, y)
    along_y, along_x = np.gradient(heights, y, x)
    slant = np.sqrt(1 + along_x**2 + along_y**2)
    cell = (x[1] - x[0]) * (y[1] - y[0])
    middle = 0.25 * (slant[1:, 1:] + slant[1:, :-1] + slant[:-1, 1:] + slant[:-1, :-1])
    return float(middle.sum() * cell / 100)
