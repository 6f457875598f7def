"""How many cups a pour is mixed in: by the label, the cup, the scale, and how long a warm cup waits."""

from __future__ import annotations

import functools
from dataclasses import dataclass
from math import ceil, inf
from typing import Literal

import numpy as np

from ..cure.cup import POUR_BY, POUR_NOW_C
from ..cure.kinetics import adiabatic_rise_k, cure_rate
from ..materials import Resin
from ..scene.brief import Habits
from ..units import MINUTE
from .hands import pouring_min, stirring_min

Binds = Literal["", "label", "cup", "scale", "heat"]
LEAST_CUP_G = 50.0
"""Smaller cups are not made for the sake of heat. Source: assumed"""
FULL_SHARE = 0.8
"""Of a cup's volume that can be stirred without spilling. Source: assumed"""
SLICES = 400
"""Of the way to a warm cup, for its time."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Batches:
    """How many cups of one size, and what asks for as many; "" where one is enough."""

    cups_count: int
    binds: Binds


@functools.lru_cache(maxsize=256)
def warm_after_min(resin: Resin, mix_c: float) -> float:
    """Time until the middle of a large cup, which loses no heat, has come to 50 degrees [min].

        t = integral of da / rate(a, T0 + a H/cp)  up to  a = (50 - T0) cp/H

    Infinite where its heat does not bring it there. The middle of any real cup takes as long or longer.
    Source: kamal_sourour1973
    """
    reached = (POUR_NOW_C - mix_c) / adiabatic_rise_k(resin)
    if reached >= 1.0:
        return inf
    if reached <= 0.0:
        return 0.0
    degree = np.linspace(0.0, reached, SLICES + 1)
    rate = cure_rate(degree, mix_c + degree * adiabatic_rise_k(resin), resin)
    if not (rate > 0).all():
        return inf
    return float(np.trapezoid(1.0 / rate, degree)) / MINUTE


def batches(volume_ml: float, resin: Resin, habits: Habits, mix_c: float) -> Batches:
    """The fewest equal cups that label, cup, scale and heat allow.

    A cup is to be stirred and poured in two thirds of the time in which its middle comes to 50 degrees.
    Source: own_geometry, own_march
    """
    mass_g = volume_ml * resin.density_g_ml
    limits: list[tuple[int, Binds]] = [(1, ""), (_cups(mass_g, resin.most_mix_g), "label")]
    if habits.cup_ml is not None:
        limits.append((_cups(volume_ml, FULL_SHARE * habits.cup_ml), "cup"))
    if habits.scale_most_g is not None:
        limits.append((_cups(mass_g, habits.scale_most_g), "scale"))
    count, binds = max(limits, key=lambda one: one[0])
    most_min = POUR_BY * warm_after_min(resin, mix_c) if resin.light is None else inf
    while mass_g / (count + 1) >= LEAST_CUP_G and _minutes(volume_ml / count, resin) > most_min:
        count, binds = count + 1, "heat"
    return Batches(cups_count=count, binds=binds if count > 1 else "")


def _cups(amount: float, most: float) -> int:
    return max(1, ceil(amount / most - 1e-9))


def _minutes(volume_ml: float, resin: Resin) -> float:
    """Stirring and pouring one cup."""
    return stirring_min(volume_ml * resin.density_g_ml) + pouring_min(volume_ml)
