"""Doses as drops that can be counted: whole drops, stocks, grams, and what rounding costs."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..materials import Colourant
from ..scene import Scene
from ..tint.attenuation import absorption_of_drop, scatter_of_drop
from ..tint.colour import colour_difference
from ..tint.solver import front_card
from ..tint.spectrum import WAVELENGTHS_NM
from ..units import MM
from ..words import Words, words

Array = NDArray[np.float64]

FACTORS = (1, 10, 20, 50, 100, 250)
"""Stocks that are mixed: one part in so many. Source: own_light"""
LEAST_DROPS = 10
"""Fewest drops by which rounding stays under 5 %. Source: own_light"""
MOST_DROPS = 100
"""More drops than this are weighed. Source: own_light"""
NEAT_DROPS = 10
"""Neat drops that a test stock is made from. Source: own_light"""
CUP_ML, CUP_ACROSS_MM = 20.0, 30.0
"""The test cup. Source: assumed"""
LEAST_COUNTED = 3
"""Fewer drops than this cannot be counted to any purpose. Source: own_light"""
CUP_DROPS = 3
"""Fewest drops that a test cup is dosed with. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """One colourant of one pour, as it is measured.

    factor          1: neat; else the stock holds 1/factor of colourant by mass
    drops           whole drops of neat colourant or stock
    part_a_g        part A that comes with the stock, to be left out of the batch
    off_fraction    by how much the rounded dose is off
    """

    colourant_id: str
    name: str
    neat_drops: float
    factor: int
    drops: int
    stock_g: float
    weighed: bool
    part_a_g: float
    off_fraction: float
    more_de00: float
    less_de00: float
    recipe: Words
    risk: Words | None


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredPour:
    """All colourants of a pour: what rounding costs, the plain part A left, and a test cup."""

    pour_number: int
    batch_g: float
    plain_part_a_g: float
    plain_part_a_ml: float
    rounding_de00: float
    doses: list[Measured]
    cup_words: Words | None


def measured_pour(
    scene: Scene, number: int, batch_g: float, part_a_g: float, factors: Mapping[str, int] | None = None
) -> MeasuredPour:
    """How the doses of a pour are measured for a batch of a mass.

    factors  of the stock of each colourant, 1 for neat; for one that is not named, the strongest
             of which at least ten drops are needed

    What would take more than a hundred drops is weighed, to the step of the scale.
    Source: own_light
    """
    pour = scene.pours[number - 1]
    inks = {one.id: one for one in scene.colourants}
    pairs = [(inks[dose.colourant_id], dose.dose_drops_per_100g) for dose in pour.doses]
    depth, asked = scene.tank.fill_height_mm, total_takes(pairs)
    step_g, chosen = scene.brief.habits.scale_step_g, factors or {}
    counts = [
        counted(ink, dose, batch_g, chosen.get(ink.id) or own_factor(dose, batch_g), step_g)
        for ink, dose in pairs if dose > 0 and batch_g > 0
    ]
    rounded = total_takes([(one.ink, one.dose(batch_g)) for one in counts])
    moved = [asked + by * drop_takes(one.ink) for one in counts for by in _one_drop(one, batch_g)]
    off = differences(asked, np.stack([rounded, *moved]), depth)
    measured = [_measured(one, more, less) for one, (more, less) in zip(counts, off[1:].reshape(-1, 2), strict=True)]
    booked = sum(one.part_a_g for one in measured)
    return MeasuredPour(
        pour_number=number,
        batch_g=round(batch_g, 1),
        plain_part_a_g=round(part_a_g - booked, 2),
        plain_part_a_ml=round((part_a_g - booked) / scene.resin_of(pour).density_a_g_ml, 2),
        rounding_de00=round(float(off[0]), 2),
        doses=measured,
        cup_words=_cup_words(scene, number, pairs),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Counted:
    """A dose as it is counted or weighed: how much of a stock, and how much of the neat colourant is in that."""

    ink: Colourant
    neat_drops: float
    factor: int
    drops: int
    stock_g: float
    weighed: bool

    @property
    def given_drops(self) -> float:
        """Neat drops that really go in."""
        return self.stock_g / self.ink.drop_g / self.factor

    def dose(self, batch_g: float) -> float:
        """Neat drops in 100 g."""
        return self.given_drops / batch_g * 100


def own_factor(dose: float, batch_g: float) -> int:
    """The strongest stock of which at least ten drops are needed. Source: own_light"""
    neat = dose * batch_g / 100
    return next((one for one in FACTORS if one * neat >= LEAST_DROPS), FACTORS[-1])


def counted(ink: Colourant, dose: float, batch_g: float, factor: int, step_g: float) -> Counted:
    """A dose in whole drops of a stock, or in whole steps of the scale where they are too many to count."""
    neat = dose * batch_g / 100
    exact = neat * factor
    weighed = exact > MOST_DROPS
    drops = max(1, round(exact))
    stock_g = max(1, round(exact * ink.drop_g / step_g)) * step_g if weighed else drops * ink.drop_g
    return Counted(ink=ink, neat_drops=neat, factor=factor, drops=drops, stock_g=stock_g, weighed=weighed)


def _one_drop(one: Counted, batch_g: float) -> tuple[float, float]:
    """What one drop more, and one less, make of a dose [neat drops in 100 g]."""
    step = 1 / one.factor / batch_g * 100
    return step, max(-step, -one.neat_drops / batch_g * 100)


def _measured(one: Counted, more_de00: float, less_de00: float) -> Measured:
    ink, factor, neat = one.ink, one.factor, one.neat_drops
    return Measured(
        colourant_id=ink.id,
        name=ink.name,
        neat_drops=round(neat, 3),
        factor=factor,
        drops=one.drops,
        stock_g=round(one.stock_g, 3),
        weighed=one.weighed,
        part_a_g=round(one.stock_g * (1 - 1 / factor), 3),
        off_fraction=round(one.given_drops / neat - 1, 4),
        more_de00=round(float(more_de00), 2),
        less_de00=round(float(less_de00), 2),
        recipe=_recipe(ink, factor),
        risk=_risk(ink, neat * factor, neat),
    )


def _recipe(ink: Colourant, factor: int) -> Words:
    if factor == 1:
        return words("doses.neat")
    part = NEAT_DROPS * ink.drop_g * (factor - 1)
    return words("doses.stock", drops=NEAT_DROPS, name=ink.name, part=part)


def _risk(ink: Colourant, exact: float, neat: float) -> Words | None:
    if ink.form == "craft_paint":
        return words("doses.milky")
    if not ink.modelled:
        return words("doses.not_modelled")
    if exact < LEAST_COUNTED:
        return words("doses.too_few", neat=neat)
    return words("doses.dense") if ink.form in ("paste", "white") else None


def drop_takes(ink: Colourant) -> Array:
    """What a drop in 100 g takes of a look straight through [1/m]."""
    return np.asarray(scatter_of_drop(ink) * (1 - ink.scatter_cosine) + absorption_of_drop(ink))


def total_takes(doses: list[tuple[Colourant, float]]) -> Array:
    """What a recipe takes [1/m], (31,)."""
    return sum((dose * drop_takes(ink) for ink, dose in doses), np.zeros(len(WAVELENGTHS_NM)))


def differences(asked: Array, others: Array, depth_mm: float) -> Array:
    """Worst colour difference (n,) of recipes (n, 31) from one (31,), or each from its own (n, 31).

    A white card at four depths, from the front.
    """
    wanted = np.atleast_2d(asked)
    fronts = front_card(np.concatenate([wanted, others]), depth_mm * MM)
    return np.asarray(colour_difference(fronts[: len(wanted)], fronts[len(wanted) :]).max(axis=-1))


def _cup_drops(ink: Colourant, neat: float) -> Words:
    """Drops for the cup: neat, or of the strongest stock that needs a few."""
    factor = next((one for one in FACTORS if one * neat >= CUP_DROPS), FACTORS[-1])
    return words(
        "doses.cup_drops" if factor == 1 else "doses.cup_stock", drops=neat * factor, name=ink.name, factor=factor
    )


def _cup_words(scene: Scene, number: int, pairs: list[tuple[Colourant, float]]) -> Words | None:
    """A cup of the same dose, and how deep to look through it to see the whole tank's tint."""
    if not pairs:
        return None
    grams = CUP_ML * scene.resin_of(scene.pours[number - 1]).density_g_ml
    deep_mm = CUP_ML * 1000 / (np.pi * (CUP_ACROSS_MM / 2) ** 2)
    fill_mm = scene.tank.fill_height_mm
    return words(
        "doses.cup", mix=grams, across=CUP_ACROSS_MM, deep=deep_mm, fill=fill_mm, times=fill_mm / deep_mm,
        drops=[_cup_drops(ink, dose * grams / 100) for ink, dose in pairs if dose > 0],
    )
