"""Panels under liquid: bulge and bending stress from tabulated plate coefficients."""

from __future__ import annotations

import functools

import numpy as np
from numpy.typing import NDArray

from ..materials import SolidMaterial
from ..materials.library import read_rows
from ..units import GRAVITY

Array = NDArray[np.float64]

POISSON = 0.35
"""Of the sheets, and of the table. Source: own_plates"""
LEAST_RATIO, MOST_RATIO = 0.5, 18.0
"""Length over depth that the table reaches."""


@functools.cache
def _table(edges: str) -> tuple[Array, Array, Array]:
    rows = [
        row for row in read_rows("plate_coefficients") if row["edges_left_right_bottom_top"] == edges
    ]
    ratio, alpha, beta = (
        np.array([float(row[name]) for row in rows])
        for name in ("length_over_depth", "alpha_deflection", "beta_moment")
    )
    return np.log(ratio), np.log(alpha), np.log(beta)


def plate_coefficients(length_over_depth: float, edges: str) -> tuple[float, float]:
    """Deflection alpha and moment beta of a panel as high as its liquid is deep.

        w = alpha q0 h^4 / D,  M = beta q0 h^2

    length_over_depth  of the panel; held within 0.5 to 18, between which the table runs
    edges              left, right, bottom, top: C clamped, S hinged, F free, such as "CCCF"

    Log-log between rows. Source: own_plates

    >>> round(plate_coefficients(2.0, "CCCF")[0], 5)
    0.00845
    """
    ratio, alpha, beta = _table(edges)
    at = np.log(np.clip(length_over_depth, LEAST_RATIO, MOST_RATIO))
    return (
        float(np.exp(np.interp(at, ratio, alpha))), float(np.exp(np.interp(at, ratio, beta)))
    )


def top_load_share(share: float) -> float:
    """Bulge of a panel that liquid loads over its upper part only, over that of one loaded to its foot.

        r = 5 (f^2 - f^3 + f^5/5),  tip of a cantilever under a triangular load over the top f of it

    share  depth of the liquid over the height of the panel, 0 to 1

    Of clamped panels twice as long as high 0.67 at one half, by own_plates.
    Source: euler_bernoulli1750

    >>> round(top_load_share(0.5), 3)
    0.656
    """
    return 5.0 * (share**2 - share**3 + share**5 / 5.0)


def bulge(
    length: float, depth: float, thickness: float, stiffness: float, density: float, edges: str,
    share: float = 1.0,
) -> tuple[float, float]:
    """Greatest bulge [m] and bending stress [Pa] of a panel holding liquid of its own height.

        q0 = rho g h,  D = E t^3 / (12 (1 - nu^2)),  sigma = 6 beta q0 h^2 / t^2

    share  of both that is left where liquid stands against the upper part only; see `top_load_share`

    Units SI. Linear: above about half the thickness it overstates.
    Source: timoshenko1959, own_plates
    """
    alpha, beta = plate_coefficients(length / depth, edges)
    load = share * density * GRAVITY * depth
    rigidity = stiffness * thickness**3 / (12 * (1 - POISSON**2))
    return alpha * load * depth**4 / rigidity, 6 * beta * load * depth**2 / thickness**2


def least_thickness(
    length: float, depth: float, stiffness: float, density: float, edges: str, most_bulge: float,
    share: float = 1.0,
) -> float:
    """Thinnest sheet that bulges no more than `most_bulge`.

        t = (12 (1 - nu^2) alpha q0 h^4 / (E w))^(1/3)

    Units SI; `share` as in `bulge`. Source: timoshenko1959, own_plates
    """
    alpha, _ = plate_coefficients(length / depth, edges)
    load = share * density * GRAVITY * depth
    return float(
        (12 * (1 - POISSON**2) * alpha * load * depth**4 / (stiffness * most_bulge)) ** (1 / 3)
    )


def warm_stiffness_gpa(sheet: SolidMaterial, wall_c: float, hours: float = 24.0) -> float | None:
    """Stiffness of a sheet at its temperature after so long under load; None if unknown.

    Linear between 20, 40, 60 and 80 degrees, held at both ends; creep in full from a day on,
    by the logarithm of time before. Source: own_plates
    """
    if sheet.stiffness_gpa is None:
        return None
    marks = [1.0, sheet.warm_40_fraction, sheet.warm_60_fraction, sheet.warm_80_fraction]
    known = [(at, mark) for at, mark in zip((20, 40, 60, 80), marks, strict=True) if mark]
    warm = float(np.interp(wall_c, [at for at, _ in known], [mark for _, mark in known]))
    creep = sheet.creep_fraction or 1.0
    share = float(np.clip(np.log10(max(hours, 0.1) / 0.1) / np.log10(240), 0, 1))
    return sheet.stiffness_gpa * warm * (1 - share * (1 - creep))
