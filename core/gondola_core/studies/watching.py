"""A pour under a thermometer: what it should show, and what it means when it does not."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..answers.book import Book
from ..answers.flood import FLOOD, SPANS
from ..answers.grades import BAND
from ..answers.heat import OneMarch, marched_at
from ..answers.kept import Keeper
from ..answers.march import cells_of
from ..errors import GondolaError
from ..evaluate import KEEPER
from ..scene import Scene
from ..scene.schedule import pour_starts_h
from ..shape import Meshes
from ..units import HOUR, MM
from ..words import Words, words

Array = NDArray[np.float64]

LONGEST_H = 48.0
"""As long as a pour is watched. Source: assumed"""
MARGIN_K = 3.0
"""Beyond the band by so much it is told: a thermometer is off by 1 K, and its place by 2. Source: assumed"""
IN_A_ROW = 2
"""Readings out of the band before it is told; one may be a slip. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Watched:
    """What a thermometer in the middle of a pour shows, in hours from the start of that pour.

    low_c, high_c   if room and resin run cool, and warm
    """

    pour_number: int
    depth_mm: float
    at_h: list[float]
    low_c: list[float]
    middle_c: list[float]
    high_c: list[float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """One reading, in hours from the start of its pour."""

    at_h: float
    measured_c: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict:
    """What the last readings mean. `stop` where the pour leaves its band upward."""

    state: Literal["none", "within", "above", "below"]
    stop: bool
    words: Words


def watched(scene: Scene, number: int, meshes: Meshes | None = None, keeper: Keeper = KEEPER) -> Watched:
    """The band of a pour's middle, from three marches on coarse cells: middle, all cool, all warm.

    number  of the pour, from 1; GondolaError where there is none
    """
    if not 1 <= number <= len(scene.pours):
        raise GondolaError(words("refusals.no_pour", most=len(scene.pours), number=number), "number")
    book = Book(scene, BAND, keeper, meshes)
    cells = cells_of(scene, BAND, book.ask(SPANS), book.ask(FLOOD))
    start = pour_starts_h(scene.pours)[number - 1]
    hours = np.linspace(0.0, LONGEST_H, round(LONGEST_H * 4) + 1)
    marches = [marched_at(scene, BAND, cells, way) for way in (-1.0, 0.0, 1.0)]
    level, cell = _place(marches[1], number)
    low, middle, high = (_curve(one, level, cell, start + hours) for one in marches)
    known = np.isfinite(low) & np.isfinite(middle) & np.isfinite(high)
    lower, upper = np.minimum(np.minimum(low, middle), high), np.maximum(np.maximum(low, middle), high)
    height_mm = float(marches[1].marched.heights[level]) / MM
    return Watched(
        pour_number=number, depth_mm=round(scene.tank.fill_height_mm - height_mm, 1),
        at_h=hours[known].round(3).tolist(), low_c=lower[known].round(1).tolist(),
        middle_c=middle[known].round(1).tolist(), high_c=upper[known].round(1).tolist(),
    )


def _place(one: OneMarch, number: int) -> tuple[int, int]:
    """The middle level of a pour, and its most central cell that holds resin there."""
    marched = one.marched
    levels = [at for at, pour in enumerate(marched.pour_of_level) if pour == number - 1]
    level = levels[len(levels) // 2]
    row = marched.history_plane_c.shape[2]
    held = np.isfinite(marched.history_plane_c[-1, level])
    cells = np.flatnonzero(held) if held.any() else np.arange(row)
    return level, int(cells[np.abs(cells - row / 2).argmin()])


def _curve(one: OneMarch, level: int, cell: int, hours: Array) -> Array:
    """Temperature there; not a number before it is poured and after the march ends."""
    times = one.marched.history_at / HOUR
    values = one.marched.history_plane_c[:, level, cell].astype(float)
    known = np.isfinite(values)
    if known.sum() < 2:
        return np.full(len(hours), np.nan)
    return np.asarray(np.interp(hours, times[known], values[known], left=np.nan, right=np.nan))


def judged(band: Watched, readings: Sequence[Reading]) -> Verdict:
    """What readings of a pour mean against its band; a single one outside of it is not told yet."""
    if not readings or not band.at_h:
        return Verdict(state="none", stop=False, words=words("watching.none"))
    last = sorted(readings, key=lambda one: one.at_h)[-IN_A_ROW:]
    high = [one.measured_c - float(np.interp(one.at_h, band.at_h, band.high_c)) for one in last]
    low = [float(np.interp(one.at_h, band.at_h, band.low_c)) - one.measured_c for one in last]
    now = last[-1]
    if len(last) == IN_A_ROW and min(high) > MARGIN_K:
        return Verdict(
            state="above", stop=True, words=words("watching.above", now_c=now.measured_c, by=high[-1])
        )
    if len(last) == IN_A_ROW and min(low) > MARGIN_K:
        return Verdict(state="below", stop=False, words=words("watching.below", now_c=now.measured_c, by=low[-1]))
    return Verdict(state="within", stop=False, words=words("watching.within", now_c=now.measured_c))
