"""One stock of each colourant for the whole piece: how thin, how much of it, and what that costs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

import numpy as np
from numpy.typing import NDArray

from ..materials import Colourant
from ..scene import Scene
from ..words import Words, words
from .doses import FACTORS, LEAST_DROPS, counted, differences, drop_takes, total_takes

Array = NDArray[np.float64]
Poured = tuple[float, float, float, Array]
"""Of a pour that takes some of a colourant: its dose, mix and part A [g], and what all of its colourants take [1/m]."""

SEEN_DE00 = 0.5
"""A step of colour that nobody sees between two pours. Source: assumed"""
SPARE = 1.15
"""Stock made over what is needed: it sticks to its bottle. Source: assumed"""
FEWEST_DROPS = 10
"""Neat drops below which a stock is not made: they cannot be counted well enough. Source: own_light"""
MOST_SHARE = 0.6
"""Of a pour's part A that may come with its stocks, each of them. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """A bottle that serves every pour.

    factor         1: neat; else one part of the colourant in so many, by mass
    neat_drops     of the colourant that go into it
    part_a_g       of part A that goes into it
    make_g         both together
    rounding_de00  most that counting its drops costs in any pour
    """

    colourant_id: str
    name: str
    factor: int
    neat_drops: int
    part_a_g: float
    make_g: float
    rounding_de00: float
    words: Words


def stocks_for(scene: Scene, batches: Sequence[tuple[float, float]]) -> list[Stock]:
    """The thickest stock of each colourant that gives every pour ten drops, and with which none is off by what is seen.

    batches  (mix, part A) of each pour [g]

    Drops differ in size, and fewer than ten do not even that out. Where no stock does both, one with which nothing
    is seen; where none keeps within that, the one that comes nearest. A stock never brings more than a share of a
    pour's part A. Two colourants may each be off by half a step; `MeasuredPour.rounding_de00` has them together.
    Source: own_light
    """
    used = {dose.colourant_id for pour in scene.pours for dose in pour.doses if dose.dose_drops_per_100g > 0}
    inks = {one.id: one for one in scene.colourants}
    takes = [total_takes([(inks[one.colourant_id], one.dose_drops_per_100g) for one in pour.doses])
             for pour in scene.pours]
    return [_stock(scene, ink, batches, takes) for ink in scene.colourants if ink.id in used]


def _stock(scene: Scene, ink: Colourant, batches: Sequence[tuple[float, float]], takes: list[Array]) -> Stock:
    poured = _poured(scene, ink, batches, takes)
    factor, cost = _chosen(_tried(scene, ink, poured))
    neat = sum(
        counted(ink, dose, mix_g, factor, scene.brief.habits.scale_step_g).given_drops for dose, mix_g, *_ in poured
    )
    drops = max(FEWEST_DROPS if factor > 1 else 1, ceil(SPARE * neat - 1e-9))
    part_a = drops * ink.drop_g * (factor - 1)
    return Stock(
        colourant_id=ink.id, name=ink.name, factor=factor, neat_drops=drops, part_a_g=round(part_a, 2),
        make_g=round(drops * ink.drop_g + part_a, 2), rounding_de00=round(cost, 2),
        words=words(
            "doses.bottle" if factor > 1 else "doses.bottle_neat", name=ink.name, factor=factor, drops=drops,
            part=part_a, cost=cost,
        ),
    )


def _poured(
    scene: Scene, ink: Colourant, batches: Sequence[tuple[float, float]], takes: list[Array]
) -> list[Poured]:
    """Pours that take some of it."""
    return [
        (dose.dose_drops_per_100g, mix_g, part_a_g, all_take)
        for pour, (mix_g, part_a_g), all_take in zip(scene.pours, batches, takes, strict=True) for dose in pour.doses
        if dose.colourant_id == ink.id and dose.dose_drops_per_100g > 0 and mix_g > 0
    ]


@dataclass(frozen=True, slots=True, kw_only=True)
class _Tried:
    """A dilution: the most that rounding costs in any pour, its fewest drops, whether every cup has room for it."""

    factor: int
    cost: float
    fewest: int
    fits: bool


def _chosen(tried: list[_Tried]) -> tuple[int, float]:
    """The first that does all; else the first with which nothing is seen; else what comes nearest."""
    room = [one for one in tried if one.fits] or tried[:1]
    unseen = [one for one in room if one.cost <= SEEN_DE00]
    even = [one for one in unseen if one.fewest >= LEAST_DROPS]
    best = (even or unseen or [min(room, key=lambda one: one.cost)])[0]
    return best.factor, best.cost


def _tried(scene: Scene, ink: Colourant, poured: list[Poured]) -> list[_Tried]:
    """Every dilution, their colours computed together."""
    if not poured:
        return [_Tried(factor=factor, cost=0.0, fewest=LEAST_DROPS, fits=True) for factor in FACTORS]
    step_g, drop = scene.brief.habits.scale_step_g, drop_takes(ink)
    cups = [[counted(ink, dose, mix_g, factor, step_g) for dose, mix_g, *_ in poured] for factor in FACTORS]
    asked = np.stack([takes for *_, takes in poured])
    given = [
        asked + np.array([cup.dose(mix_g) - dose for cup, (dose, mix_g, *_) in zip(row, poured, strict=True)])[:, None]
        * drop
        for row in cups
    ]
    costs = differences(
        np.concatenate([asked] * len(FACTORS)), np.concatenate(given), scene.tank.fill_height_mm
    ).reshape(len(FACTORS), -1)
    return [
        _Tried(
            factor=factor, cost=float(worst.max()), fewest=min([LEAST_DROPS, *(cup.drops for cup in row)]),
            fits=all(
                cup.stock_g * (1 - 1 / factor) <= MOST_SHARE * part_a_g
                for cup, (_, _, part_a_g, _) in zip(row, poured, strict=True)
            ),
        )
        for factor, row, worst in zip(FACTORS, cups, costs, strict=True)
    ]
