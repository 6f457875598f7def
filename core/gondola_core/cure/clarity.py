"""Bubbles that a person would see once it has set: what brings them in, what lets them out, what is left."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

import numpy as np
from numpy.typing import NDArray

from ..units import GRAVITY, ML, MM
from .bubbles import STOKES

Array = NDArray[np.float64]

SIZES_MM = np.array([0.05, 0.1, 0.2, 0.5, 1.0])
"""Classes of stirred-in bubbles [mm]. Source: own_geometry"""
FOLDED_PER_ML = np.array([20.0, 10.0, 5.0, 1.0, 0.1])
"""How many of each a slow hand folds in. Source: own_geometry; a guess within a factor of three"""
STIRS = {"slow": 1.0, "brisk": 5.0, "paddle": 10.0}
"""Times as much air as a slow hand, by the way of stirring. Source: assumed, from 0.05 to 0.3 and 0.5 to 3 % of air"""
STREAMS = {"low": 1.0, "high": 0.7, "broken": 2.5}
"""Times the air of a low pour down a stick or a wall: a thin unbroken stream from a hand's height stretches bubbles
until they burst, a broken one folds air in. Source: assumed"""
GUESS = 3.0
"""Factor either way within which counts are known. Source: own_geometry"""
SEEN_MM = 0.1
"""Smallest bubble that an eye makes out at reading distance. Source: own_geometry"""
PORE_MM = 1.0
"""Bubbles in which gas leaves a bed or a figure [mm]. Source: assumed"""
ATMOSPHERE_BAR = 1.013
VACUUM_BAR, VACUUM_MIN = 0.03, 3.0
"""A cup under vacuum, and how long after its foam has broken. Source: assumed"""
SEEN_IN_ML = 10.0
"""How much is looked at: a spoonful."""
PASSES_MIN = (2.0, 10.0, 20.0)
"""After pouring, when a flame or a heat gun is passed over the surface. Source: assumed"""
SKINS_AT = 10.0
"""Times as thick as fresh at which the surface wrinkles under a flame. Source: assumed"""
FEW, MANY = 1.0, 10.0
"""Seen in so much below which there are few, and from which there are many. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Handling:
    """What is done to a mix: how it is stirred and poured, rest in the cup [min], vacuum, pressure in a pot [bar]."""

    stirs: str
    pours: str
    rest_min: float
    vacuum: bool
    pot_bar: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Liquid:
    """A pour while it flows.

    height      from its line down to what is solid [m]
    density_gap resin less air [kg/m3]
    flown       fluidity integral to gel [s/(Pa s)]
    viscosity   as it is mixed [Pa s]
    cup         height of the mixed cup [m]
    volume_ml   of the pour
    """

    height: float
    density_gap: float
    flown: float
    viscosity: float
    cup: float
    volume_ml: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Gas:
    """Gas that comes out of bed or figures [ml], and the fluidity that was left, by share of it: (n,), (n,)."""

    volume_ml: float
    left: Array
    shares: Array


def pressed(bar: float) -> float:
    """Diameter of a bubble under a gauge pressure, over that at none: (P0/P)^(1/3). Source: own_geometry

    >>> round(pressed(2.0), 3), round(pressed(4.14), 3)
    (0.695, 0.582)
    """
    return float((ATMOSPHERE_BAR / (ATMOSPHERE_BAR + bar)) ** (1 / 3))


def left_fraction(diameter: Array | float, height: float, density_gap: float, flown: Array | float) -> Array:
    """Share of evenly spread bubbles that has not reached the surface: 1 - min(1, (d/d*)^2).

    d* of `escape_diameter`; all of them where nothing flowed. Source: own_geometry
    """
    rise = STOKES * density_gap * GRAVITY * np.square(diameter) * np.asarray(flown)
    return np.asarray(1.0 - np.minimum(1.0, rise / max(height, 1e-9)))


def stirred_left(liquid: Liquid, handling: Handling) -> tuple[Array, Array]:
    """Bubbles of stirring that the set pour keeps: their sizes [m], and how many of each in a ml."""
    sizes = SIZES_MM * MM
    rest_s = 60.0 * (handling.rest_min + (VACUUM_MIN if handling.vacuum else 0.0))
    # under vacuum a bubble rises as one that has grown by (P0/P)^(1/3)
    grown = (ATMOSPHERE_BAR / VACUUM_BAR) ** (1 / 3) if handling.vacuum else 1.0
    in_cup = left_fraction(sizes * grown, liquid.cup, liquid.density_gap, rest_s / liquid.viscosity)
    shrunk = sizes * pressed(handling.pot_bar)
    in_pour = left_fraction(shrunk, liquid.height, liquid.density_gap, liquid.flown)
    return shrunk, STIRS[handling.stirs] * STREAMS[handling.pours] * FOLDED_PER_ML * in_cup * in_pour


def gas_left(liquid: Liquid, gas: Gas, handling: Handling) -> tuple[float, float]:
    """Bubbles of gas out of pores that the set pour keeps: their size [m], and how many in a ml.

        N = V/(pi d^3/6) of d = 1 mm, each let out into what still flows
    """
    size = PORE_MM * pressed(handling.pot_bar) * MM
    if gas.volume_ml <= 0 or liquid.volume_ml <= 0:
        return size, 0.0
    count = gas.volume_ml * 1e3 / (pi / 6 * PORE_MM**3)
    left = left_fraction(size, liquid.height, liquid.density_gap, gas.left)
    return size, float(count * (gas.shares * left).sum() / liquid.volume_ml)


def stirred_seen(liquid: Liquid, handling: Handling) -> float:
    """Bubbles of stirring that are seen in 10 ml of the set pour."""
    sizes, counts = stirred_left(liquid, handling)
    return float(SEEN_IN_ML * counts[sizes >= SEEN_MM * MM - 1e-12].sum())


def gas_seen(liquid: Liquid, gas: Gas, handling: Handling) -> float:
    """Bubbles of gas out of pores that are seen in 10 ml of the set pour."""
    size, count = gas_left(liquid, gas, handling)
    return 0.0 if size < SEEN_MM * MM else SEEN_IN_ML * count


def veil_fraction(liquid: Liquid, gases: tuple[Gas, ...], handling: Handling, path: float) -> float:
    """Share of a sight path [m] through the set pour that bubbles of all sizes stand before.

        1 - exp(-Y sum n pi d^2/4)

    Source: own_geometry
    """
    sizes, counts = stirred_left(liquid, handling)
    met = float((counts * sizes**2).sum())
    for gas in gases:
        size, count = gas_left(liquid, gas, handling)
        met += count * size**2
    return float(-np.expm1(-path * pi / 4 * met / ML))


def thick_after(at_s: Array, viscosity: Array) -> float | None:
    """When a mix is ten times as thick as fresh [s after the first moment]; None if not within these moments.

    at_s  moments (n,); viscosity at them [Pa s], infinite from gel on
    """
    thick = np.flatnonzero(viscosity >= SKINS_AT * viscosity[0])
    if not len(thick):
        return None
    after = int(thick[0])
    if after == 0 or not np.isfinite(viscosity[after]):
        return float(at_s[after] - at_s[0])
    low, high = np.log(viscosity[after - 1]), np.log(viscosity[after])
    share = (np.log(SKINS_AT * viscosity[0]) - low) / (high - low)
    return float(at_s[after - 1] + share * (at_s[after] - at_s[after - 1]) - at_s[0])


def surfaces_after(diameter: float, height: float, density_gap: float, at_s: Array, viscosity: Array) -> float | None:
    """When a bubble from the foot of a pour reaches its surface [s after the first moment]; None if never.

        C drho g d^2 F(t) = z,  F of the moments by the trapezium

    Source: stokes1851
    """
    fluid = 1.0 / viscosity
    flown = np.concatenate([[0.0], np.cumsum(0.5 * (fluid[1:] + fluid[:-1]) * np.diff(at_s))])
    needed = height / (STOKES * density_gap * GRAVITY * diameter**2)
    if flown[-1] < needed:
        return None
    return float(np.interp(needed, flown, at_s) - at_s[0])


def release(at_s: Array, warm_c: Array, viscosity: Array) -> tuple[Array, Array]:
    """Fluidity that is left at each moment until gel [s/(Pa s)], and the share of gas that comes then: (n,), (n,).

    at_s       moments while it flows (n,); warm_c what the bed feels then; viscosity [Pa s], infinite from gel on

    Gas grows with absolute temperature: it comes as the pour warms, evenly where it does not.
    """
    fluid = 1.0 / viscosity
    steps = 0.5 * (fluid[1:] + fluid[:-1]) * np.diff(at_s)
    left = np.append(np.cumsum(steps[::-1])[::-1], 0.0)
    grows = np.maximum(np.diff(np.maximum.accumulate(warm_c), prepend=warm_c[0]), 0.0)
    if grows.sum() <= 0:
        grows = np.ones_like(grows)
    return left, grows / grows.sum()
