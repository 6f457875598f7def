"""What a test of a bottle would tell before it is made: the cups there are, and by how much each narrows the plan."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..answers.kept import Keeper
from ..evaluate import KEEPER
from ..learning.belief import CUP_SCATTER, Belief, taught
from ..learning.cup_fit import cup_prior
from ..learning.cup_model import ROOM_STEP, Class, Cup, CupModel, Off, class_of
from ..learning.least_squares import LEAST_SD, MOST_BINS, Whitened, binned, root_of, slopes_at
from ..materials import Resin
from ..scene import Scene
from ..shape import Meshes
from ..units import HOUR
from ..words import Words, words
from .forecast import ForecastTable, PourForecast, forecast, forecast_table

Array = NDArray[np.float64]

SENSOR_SD_K, SENSOR_STEP_K, EVERY = 0.3, 0.1, 60.0
"""Of a usual thermometer. Source: own_learning"""
HOT_C, SMOKES_C = 80.0, 100.0
"""A cup that may pass the first is warned of; one that may pass the second is not offered. Source: own_learning"""
FOAM_MELTS_C = (80.0, 90.0)
"""Source: own_learning"""
HANDS_ON_H = 0.75
"""Of work for one cup: to weigh, to mix, to look, to clean up. Source: assumed"""
ANOTHER_H = 0.25
"""More for a foam wrap. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class TestCup:
    """A cup that could be made."""

    mass_g: float
    wrap_mm: float
    hours: float


CUPS: dict[Class, tuple[TestCup, ...]] = {
    "deep": (TestCup(mass_g=100, wrap_mm=0, hours=12), TestCup(mass_g=300, wrap_mm=0, hours=20),
             TestCup(mass_g=60, wrap_mm=10, hours=20), TestCup(mass_g=100, wrap_mm=10, hours=20)),
    "casting": (TestCup(mass_g=50, wrap_mm=0, hours=4), TestCup(mass_g=70, wrap_mm=0, hours=4),
                TestCup(mass_g=100, wrap_mm=0, hours=4)),
    "coating": (TestCup(mass_g=10, wrap_mm=0, hours=3), TestCup(mass_g=15, wrap_mm=0, hours=3),
                TestCup(mass_g=30, wrap_mm=0, hours=3)),
}
"""By how deep a resin pours. Source: own_learning"""


@dataclass(frozen=True, slots=True, kw_only=True)
class TestTold:
    """A test and what it would bring for the pour that it narrows most.

    peak_c, hot_c   of the cup, and where rate and heat are one deviation above the row
    sure_gain_h     hours that are surely in the window more than now; gain_per_hour of one's own work
    """

    mass_g: float
    wrap_mm: float
    lid: bool
    hours: float
    peak_c: float
    hot_c: float
    rate_sd: float
    heat_sd: float
    pour_number: int
    now: PourForecast
    after: PourForecast
    gain_per_hour: float
    words: Words
    warning: Words | None


def tests_ahead(
    scene: Scene, resin: Resin, held: Belief, room_c: float | None = None, meshes: Meshes | None = None,
    keeper: Keeper = KEEPER,
) -> list[TestTold]:
    """Cups of a bottle, the one that narrows most for an hour of work first.

    resin  the row that the belief's factors are on; held, what is believed now

    A cup that may smoke is not offered. Source: own_learning, cramer1946
    """
    if resin.light is not None:
        return []
    table = forecast_table(scene, resin.id, held, meshes, keeper)
    now = forecast(table, held)
    room = scene.brief.room.mean_c if room_c is None else room_c
    told = [_told(one, resin, held, room, table, now) for one in CUPS[class_of(resin)]]
    return sorted((one for one in told if one is not None), key=lambda one: -one.gain_per_hour)


def _told(
    cup: TestCup, resin: Resin, held: Belief, room_c: float, table: ForecastTable, now: list[PourForecast]
) -> TestTold | None:
    model = _model(cup, resin, room_c)
    usual, hot = np.zeros(len(Off)), np.zeros(len(Off))
    usual[:2], hot[:2] = held.mean, held.mean + held.sd
    curve = model.curve(usual)
    hottest = float(model.curve(hot).max())
    if hottest > SMOKES_C:
        return None
    own = Belief(mean=held.mean, covariance=expected_covariance(model, held.scattered(CUP_SCATTER)))
    after = forecast(table, taught(held, own, CUP_SCATTER))
    gains = [_gain(was, then) for was, then in zip(now, after, strict=True)]
    at = int(np.argmax(gains))
    work = HANDS_ON_H + (ANOTHER_H if cup.wrap_mm else 0.0)
    return TestTold(
        mass_g=cup.mass_g, wrap_mm=cup.wrap_mm, lid=cup.wrap_mm > 0, hours=cup.hours,
        peak_c=round(float(curve.max()), 1), hot_c=round(hottest, 1), rate_sd=round(float(own.sd[0]), 3),
        heat_sd=round(float(own.sd[1]), 3), pour_number=now[at].pour_number, now=now[at], after=after[at],
        gain_per_hour=round(gains[at] / work, 2), words=_words(cup, now[at], after[at]),
        warning=words("learning.cup_hot", hot=hottest, melts=FOAM_MELTS_C) if hottest > HOT_C else None,
    )


def _gain(was: PourForecast, then: PourForecast) -> float:
    """By how many hours the ends of the window come closer."""
    def width(one: PourForecast) -> float:
        pairs = ((one.opens_low_h, one.opens_high_h), (one.closes_low_h, one.closes_high_h))
        return sum(high - low for low, high in pairs if low is not None and high is not None)

    return max(0.0, width(was) - width(then))


def _words(cup: TestCup, now: PourForecast, after: PourForecast) -> Words:
    given = {
        "mass": cup.mass_g, "hours": cup.hours, "pour": now.pour_number,
        "was": (now.peak_low_c, now.peak_high_c), "then": (after.peak_low_c, after.peak_high_c),
    }
    which = "learning.cup_would_wrapped" if cup.wrap_mm else "learning.cup_would"
    if now.opens_low_h is None or now.opens_high_h is None or after.opens_low_h is None or after.opens_high_h is None:
        return words(which, wrap=cup.wrap_mm, window="", **given)
    window = words(
        "learning.window_would", was=(now.opens_low_h, now.opens_high_h), then=(after.opens_low_h, after.opens_high_h)
    )
    return words(which, wrap=cup.wrap_mm, window=window, **given)


def _model(cup: TestCup, resin: Resin, room_c: float) -> CupModel:
    at = np.linspace(EVERY, cup.hours * HOUR, MOST_BINS)
    room = np.full(round(cup.hours * HOUR / ROOM_STEP) + 13, room_c)
    standing = Cup(resin=resin, mass_g=cup.mass_g, mix_c=room_c, wrap_mm=cup.wrap_mm, lid=cup.wrap_mm > 0)
    return CupModel(cup=standing, at=at, room_c=room)


def expected_covariance(model: CupModel, held: Belief) -> Array:
    """(2, 2) of (ln rate, ln heat) after a log of this cup with the room logged, before it is made.

        P = (J^T C^-1 J + P0^-1)^-1

    Source: cramer1946
    """
    prior = cup_prior(held, room_logged=True)
    curve = model.curve(prior.mean)
    seen = binned(model.at, curve, SENSOR_STEP_K)
    several = max(1.0, float(model.at[1] - model.at[0]) / EVERY)
    noise = np.eye(len(seen.at)) * SENSOR_SD_K**2 / several
    readings = Whitened(values=seen.values, root=root_of(seen.covariance + noise))
    jacobian = slopes_at(model.curve, readings, prior, prior.mean)
    spread = prior.root @ np.linalg.inv(jacobian.T @ jacobian) @ prior.root.T
    return np.asarray(spread[:2, :2] + np.diag(np.square(LEAST_SD)))
