"""Which bubbles leave before gel, and how far grains sink."""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ..units import GRAVITY, MM

Array = NDArray[np.float64]

STOKES = 1.0 / 18.0
"""Of a rigid surface, as small bubbles in formulated resin have. Source: stokes1851"""
GAS_DENSITY = 1.2
"""kg/m3, of air. Source: own_geometry"""
GRAINS_G_ML = {"glitter": 1.4, "mica": 2.8, "sand": 2.65, "coffee_grounds": 1.25}
"""Density of the grains. Source: own_solids"""
FLAT = {"glitter": 0.5, "mica": 0.3, "sand": 1.0, "coffee_grounds": 0.8}
"""Speed of a grain over that of a ball of its size: flakes fall slower. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class BubbleProfile:
    """Against depth, from the surface down: the smallest bubble that still leaves its own pour."""

    depth_mm: list[float]
    escape_diameter_mm: list[float | None]


@dataclass(frozen=True, slots=True, kw_only=True)
class Settling:
    """How far grains sink before the resin holds them; the whole pour if they reach its floor."""

    kind: str
    diameter_mm: float
    sinks_mm: float
    reaches_floor: bool


def stokes_rise_speed(diameter: float, density_gap: float, viscosity: float) -> float:
    """Terminal rise speed of a small bubble in still resin.

        v = g d^2 drho / (18 mu)

    diameter     bubble diameter               [m]
    density_gap  resin minus gas density       [kg/m3]
    viscosity    resin viscosity at that time  [Pa s]
    returns      rise speed                    [m/s]

    Valid for Re < 0.1 and a rigid bubble surface.
    Source: stokes1851

    >>> round(stokes_rise_speed(1e-3, 1100, 0.5), 4)
    0.0012
    """
    return STOKES * GRAVITY * diameter**2 * density_gap / viscosity


def escape_diameter(height: float, density_gap: float, fluidity: float) -> float | None:
    """Smallest bubble that rises through a height before gel.

        d = sqrt(z / (C drho g F)),  F = integral of dt/mu to gel

    height    [m]; density_gap [kg/m3]; fluidity F [s/(Pa s)]
    returns   [m]; None where the resin never flowed

    Source: stokes1851
    """
    if fluidity <= 0:
        return None
    return sqrt(max(height, 0.0) / (STOKES * density_gap * GRAVITY * fluidity))


def sink_distance(
    diameter: float, density_gap: float, fluidity: float, shape: float = 1.0
) -> float:
    """How far a grain sinks before gel: shape C drho g d^2 F [m]. Source: stokes1851"""
    return shape * STOKES * density_gap * GRAVITY * diameter**2 * fluidity


def bubble_profile(
    depths_mm: list[float], tops_mm: list[float], densities_g_ml: list[float], flown: Array
) -> BubbleProfile:
    """The profile for levels at depths, each in a pour whose upper line is at tops."""
    sizes = [
        escape_diameter((depth - top) * MM, density * 1e3 - GAS_DENSITY, float(fluidity))
        for depth, top, density, fluidity in zip(
            depths_mm, tops_mm, densities_g_ml, flown, strict=True
        )
    ]
    return BubbleProfile(
        depth_mm=depths_mm,
        escape_diameter_mm=[None if size is None else round(size / MM, 4) for size in sizes],
    )


def settling(
    kind: str, diameter_mm: float, density_g_ml: float, fluidity: float, depth_mm: float
) -> Settling:
    """How far grains of a kind sink in a pour of a depth."""
    gap = (GRAINS_G_ML[kind] - density_g_ml) * 1e3
    sinks = sink_distance(diameter_mm * MM, gap, fluidity, FLAT[kind]) / MM
    return Settling(
        kind=kind, diameter_mm=diameter_mm, sinks_mm=round(min(sinks, depth_mm), 1),
        reaches_floor=sinks >= depth_mm,
    )
