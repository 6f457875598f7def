"""Rate and heat of a bottle from the thermometer in a cup of it, and what the cup cannot tell."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from ..errors import GondolaError
from ..materials import Resin
from ..part import Part, bounded
from ..units import HOUR
from ..words import Words, words
from .belief import COVERS, Belief, distance2, row_belief
from .cup_model import ROOM_STEP, Cup, CupModel, Off, class_of
from .least_squares import Binned, Fit, Prior, Whitened, best, binned, fitted, root_of
from .temperature_log import TemperatureLog, step_of

Array = NDArray[np.float64]
State = Literal["told", "rate_only", "together", "little", "place", "refused", "shape"]

LOSS_SD = 0.25
ROOM_SD_K, DRIFT_SD_K = 0.7, 1.0
LOGGED_SD_K = 0.3
UNKNOWN_ROOM_SD_K = 3.0
START_SD, MIX_SD_K, LAG, LAG_SD, HEIGHT_SD_MM = 100.0, 0.7, 30.0, 15.0, 3.0
"""Priors of what is not known exactly of a cup. Source: own_learning"""
RESTART_MISFIT, RESTART_PRIOR = 0.6, 8.0
"""Above these other starts are tried. Source: own_learning"""
WARM_C, WIDER, WIDE = 60.0, 1.2, 1.1
"""A cup that passed this, or a fit begun again, has fat tails; all have a little (tested). Source: own_learning"""
ADDS_LITTLE, MIXED_UP, HEAT_OPEN = 0.8, -0.8, 0.7
"""Deviation over the prior's; correlation; the heat's share, by which a cup says too little. Source: own_learning"""
BAD_SHAPE, ASKED_AT, REFUSED_AT = 2.0, 2.5, 3.5
"""Misfit, and prior distances, at which a resin does not fit. Source: own_learning"""
LEAST_RISE_K, PAST_PEAK, COARSE_STEP = 6.0, 1.3, 0.2
"""Rise of a cup, its length over the time to its peak, and step over rise, that tell enough. Source: own_learning"""
UNFIT = ("shape", "place", "refused")
RATE, HEAT = np.array([1.0, 0.0]), np.array([0.0, 1.0])
"""Ways in (ln rate, ln heat)."""


class CupSetting(Part):
    """How the cup stood. Without a room it is taken as unknown, unless the log holds it.

    mixed_at_h  when the parts were mixed, on the clock of the log from its first reading
    """

    mass_g: float = bounded("mass in the cup", "g", 5, 2000, default=100.0)
    wrap_mm: float = bounded("foam around the cup", "mm", 0, 40, default=0.0)
    lid: bool = False
    mix_c: Annotated[float | None, Field(title="mixed at", ge=5, le=60, json_schema_extra={"unit": "°C"})] = None
    room_c: Annotated[float | None, Field(title="room", ge=5, le=45, json_schema_extra={"unit": "°C"})] = None
    mixed_at_h: float = bounded("moment of mixing", "h", -48, 200, default=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Factor:
    """One factor: its middle, and between what nine in ten lie."""

    middle: float
    low: float
    high: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LogCurve:
    """A log in its bins, as it was fitted, and as what was held before would have it."""

    at_h: list[float]
    measured_c: list[float]
    fitted_c: list[float]
    row_c: list[float]


@dataclass(frozen=True, slots=True, kw_only=True)
class LogFit:
    """What a log says of a bottle.

    state         told, rate_only, together, little; place (ask), refused, shape: it does not fit
    mean, covariance   of (ln rate, ln heat)
    early         rate times heat, which is told best
    misfit        over readings; distance from the row in deviations
    merges        True where a row may take it
    """

    state: State
    rate: Factor
    heat: Factor
    early: Factor
    mean: list[float]
    covariance: list[list[float]]
    misfit: float
    distance: float
    peak_c: float
    peak_at_h: float
    merges: bool
    words: list[Words]
    curve: LogCurve

    @property
    def belief(self) -> Belief:
        """As the bottle takes it."""
        return Belief(mean=np.array(self.mean), covariance=np.array(self.covariance))


def fit_cup(log: TemperatureLog, setting: CupSetting, resin: Resin, prior: Belief | None = None) -> LogFit:
    """Rate and heat of a bottle from one cup of it.

    resin  the row that its factors are on
    prior  of (ln rate, ln heat); the row's own spreads for None
    GondolaError where the log does not reach past mixing, or the resin sets by light.
    Source: own_learning, levenberg1944
    """
    if resin.light is not None:
        raise GondolaError(words("learning.by_light", name=resin.name), "resin")
    held = prior or row_belief(resin)
    seen, room, sds = _read(log, setting)
    mix_c = setting.mix_c if setting.mix_c is not None else float(seen.values[0])
    cup = Cup(resin=resin, mass_g=setting.mass_g, mix_c=mix_c, wrap_mm=setting.wrap_mm, lid=setting.lid)
    model = CupModel(cup=cup, at=seen.at, room_c=room)
    prior_all = _prior(held, sds)
    whitened = Whitened(values=seen.values, root=root_of(seen.covariance))
    found, again = _searched(model, whitened, prior_all, held)
    warm = float(seen.values.max()) > WARM_C
    covariance = found.covariance[:2, :2] * (WIDER if warm or again else WIDE) ** 2
    own = Belief(mean=found.off[:2], covariance=covariance)
    fits = np.array([model.curve(found.off), model.curve(np.array(prior_all.mean))])
    return _told(own, held, found, seen, fits, log, (setting, resin))


def _read(log: TemperatureLog, setting: CupSetting) -> tuple[Binned, Array, tuple[float, float]]:
    """The bins from mixing on, the room every five minutes, and how well it is known."""
    at = (np.array(log.at_h) - setting.mixed_at_h) * HOUR
    values, after = np.array(log.measured_c), (np.array(log.at_h) >= setting.mixed_at_h)
    if after.sum() < 8 or float(at[-1]) < 0.25 * HOUR:
        raise GondolaError(words("learning.before_mixing"), "mixed_at_h")
    seen = binned(at[after], values[after], step_of(values))
    steps = np.arange(0.0, float(at[-1]) + HOUR, ROOM_STEP)
    if log.room_c is not None:
        return seen, np.interp(steps, at, np.array(log.room_c)), (LOGGED_SD_K, LOGGED_SD_K)
    if setting.room_c is not None:
        return seen, np.full(len(steps), setting.room_c), (ROOM_SD_K, DRIFT_SD_K)
    return seen, np.full(len(steps), float(min(values[after][0], values[after][-1]))), (UNKNOWN_ROOM_SD_K, DRIFT_SD_K)


def cup_prior(held: Belief, room_logged: bool) -> Prior:
    """What is not known of a cup before it is read."""
    return _prior(held, (LOGGED_SD_K, LOGGED_SD_K) if room_logged else (ROOM_SD_K, DRIFT_SD_K))


def _prior(held: Belief, room_sds: tuple[float, float]) -> Prior:
    sds = np.array([LOSS_SD, *room_sds, MIX_SD_K, START_SD, LAG_SD, HEIGHT_SD_MM])
    mean = np.concatenate([held.mean, np.zeros(len(sds))])
    mean[Off.LAG] = LAG
    root = np.zeros((len(mean), len(mean)))
    root[:2, :2] = np.linalg.cholesky(held.covariance)
    root[2:, 2:] = np.diag(sds)
    return Prior(mean=mean, root=root)


def _searched(model: CupModel, seen: Whitened, prior: Prior, held: Belief) -> tuple[Fit, bool]:
    """From the best of a coarse grid, and from the pace of the peak; begun again where that does not do."""
    starts = []
    for rate in np.linspace(-1.5, 1.5, 5):
        for heat in (-1.2, 0.0, 1.2):
            start = prior.mean.copy()
            start[:2] = held.mean + np.array([rate, heat]) * held.sd
            starts.append(start)
    model_peak = float(model.at[np.argmax(model.curve(prior.mean))])
    log_peak = max(float(model.at[np.argmax(seen.values)]), 60.0)
    paced = prior.mean.copy()
    paced[Off.RATE] = np.clip(np.log(max(model_peak, 60.0) / log_peak), -2.0, 2.0)
    starts.append(paced)

    def cost(start: Array) -> float:
        pulled = np.linalg.solve(prior.root, start - prior.mean)
        return float((seen.away(model.curve(start)) ** 2).sum() + pulled @ pulled)

    ranked = sorted(starts, key=cost)
    found = [fitted(model.curve, seen, prior, ranked[0])]
    again = found[0].misfit > RESTART_MISFIT or found[0].prior2 > RESTART_PRIOR
    if again:
        found += [fitted(model.curve, seen, prior, start) for start in ranked[1:3]]
    chosen = best(found)
    return chosen, chosen is not found[0]


def _factor(belief: Belief, way: Array) -> Factor:
    """A factor, or a product of them, and nine in ten of it."""
    middle, sd = float(way @ belief.mean), float(np.sqrt(way @ belief.covariance @ way))
    return Factor(
        middle=round(float(np.exp(middle)), 3), low=round(float(np.exp(middle - COVERS * sd)), 3),
        high=round(float(np.exp(middle + COVERS * sd)), 3),
    )


def _told(
    own: Belief, held: Belief, found: Fit, seen: Binned, fits: Array, log: TemperatureLog,
    stood: tuple[CupSetting, Resin],
) -> LogFit:
    modelled_peak_at = float(seen.at[int(np.argmax(fits[0]))])
    passed = _passed(seen, modelled_peak_at)
    state = _state(own, held, found, passed)
    said = _words(state, own, seen, passed, log, stood)
    return _fit(state, own, held, found, _curve(seen, fits), said)


def told_of_pour(own: Belief, held: Belief, found: Fit, seen: Binned, fits: Array) -> LogFit:
    """The same for a pour that was heard, or only looked at: a look tells what it tells."""
    passed = len(seen.at) > 0 and _passed(seen, 0.0)
    state = _state(own, held, found, passed) if len(seen.at) else "told"
    return _fit(state, own, held, found, _curve(seen, fits), _pour_words(state, own, passed))


def _passed(seen: Binned, modelled_peak_at: float) -> bool:
    """Whether a log goes on past its peak: before it, rate and heat are one number."""
    peak_at = float(seen.at[int(np.argmax(seen.values))])
    return float(seen.at[-1]) >= PAST_PEAK * max(peak_at, modelled_peak_at, 1.0)


def _curve(seen: Binned, fits: Array) -> LogCurve:
    return LogCurve(
        at_h=(seen.at / HOUR).round(3).tolist(), measured_c=seen.values.round(2).tolist(),
        fitted_c=fits[0].round(2).tolist(), row_c=fits[1].round(2).tolist(),
    )


def _distance(own: Belief, held: Belief) -> float:
    """Of a log from what was held, in deviations."""
    return float(np.sqrt(distance2(held, own, np.zeros((2, 2)))))


def _fit(state: State, own: Belief, held: Belief, found: Fit, curve: LogCurve, said: list[Words]) -> LogFit:
    peak = max(range(len(curve.at_h)), key=lambda at: curve.measured_c[at], default=None)
    return LogFit(
        state=state, rate=_factor(own, RATE), heat=_factor(own, HEAT), early=_factor(own, RATE + HEAT),
        mean=own.mean.tolist(), covariance=own.covariance.tolist(), misfit=round(found.misfit, 3),
        distance=round(_distance(own, held), 2), peak_c=0.0 if peak is None else round(curve.measured_c[peak], 1),
        peak_at_h=0.0 if peak is None else round(curve.at_h[peak], 2), merges=state not in UNFIT, words=said,
        curve=curve,
    )


def _state(own: Belief, held: Belief, found: Fit, passed: bool) -> State:
    distance = _distance(own, held)
    if found.misfit > BAD_SHAPE:
        return "shape"
    if distance > ASKED_AT:
        return "refused" if distance > REFUSED_AT else "place"
    shrink = own.sd / held.sd
    if own.correlation < MIXED_UP and shrink[1] > HEAT_OPEN and not passed:
        return "together"
    if shrink.min() > ADDS_LITTLE:
        return "little"
    return "rate_only" if shrink[0] < ADDS_LITTLE < shrink[1] else "told"


def _words(
    state: State, own: Belief, seen: Binned, passed: bool, log: TemperatureLog, stood: tuple[CupSetting, Resin]
) -> list[Words]:
    """What it means, the reason where little is told, and what to do next."""
    (setting, resin), rise = stood, float(seen.values.max() - seen.values[0])
    if state in UNFIT:
        return _unfit(state, own)
    said = [_factors(own)]
    if state != "told":
        pace = _said(_factor(own, RATE), "quicker", "slower")
        said = [words(f"learning.{state}", rate=pace)]
        if rise < LEAST_RISE_K:
            said.append(words("learning.little_rise", rise=rise, next=_next_cup(resin)))
        elif not passed:
            said.append(words("learning.ends_early"))
        elif log.room_c is None and setting.room_c is None:
            said.append(words("learning.room_unknown"))
        elif step_of(np.array(log.measured_c)) > COARSE_STEP * rise:
            said.append(words("learning.coarse_step"))
    return [*said, words("learning.next_mix")]


def _next_cup(resin: Resin) -> Words:
    """The cup that tells most and stays safe, by the class of the resin. Source: own_learning"""
    which = class_of(resin)
    mass, foam, more = {"deep": (60.0, 10.0, 300.0), "casting": (70.0, 0.0, 0.0), "coating": (15.0, 0.0, 0.0)}[which]
    return words(f"learning.try_{which}", mass=mass, foam=foam, more=more)


def _said(told: Factor, more: str, less: str) -> Words:
    """"quicker than its row by 9 % (2 to 15)"; "as its row" where nought lies well inside."""
    low, middle, high = (100 * (one - 1) for one in (told.low, told.middle, told.high))
    if abs(middle) < 1.5:
        return words("learning.as_row", low=low, high=high)
    word, sign = (more, 1) if middle > 0 else (less, -1)
    ends = sorted((sign * low, sign * high))
    return words("learning.off_row", way=word, by=sign * middle, low=ends[0], high=ends[1])


def _pour_words(state: State, own: Belief, passed: bool) -> list[Words]:
    if state in UNFIT:
        return _unfit(state, own)
    said = words(f"learning.{state}") if state in ("little", "together") else _factors(own)
    return [said, words("learning.next_mix" if passed else "learning.still_setting")]


def _factors(own: Belief) -> Words:
    rate, heat = _factor(own, RATE), _factor(own, HEAT)
    return words("learning.factors", rate=_said(rate, "quicker", "slower"), heat=_said(heat, "hotter", "cooler"))


def _unfit(state: State, own: Belief) -> list[Words]:
    """What does not fit: the shape of the curve, the pace, or the heat."""
    if state == "shape":
        return [words("learning.shape")]
    if abs(float(own.mean[0])) > abs(2 * float(own.mean[1])):
        way = "as quick" if own.mean[0] > 0 else "as slow"
        return [words("learning.other_resin", times=float(np.exp(abs(own.mean[0]))), way=way)]
    return [words("learning.other_heat", share=_factor(own, HEAT).middle)]
