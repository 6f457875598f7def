"""A fit with priors: whitened readings, Gaussian priors, and what is left open."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares

from .temperature_log import MAD_TO_SD

Array = NDArray[np.float64]

STEP_X, STEP_OTHER = 0.02, 0.1
"""Forward differences: of ln rate and ln heat, well above what the march jitters, and of the rest in
their priors' deviations. Source: own_learning"""
LEAST_SD = (0.015, 0.010)
"""Of rate and heat, for what two factors leave out. Source: own_learning"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Prior:
    """Gaussian: mean (p,), and the root of its covariance (p, p), lower triangular."""

    mean: Array
    root: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Fit:
    """A least squares fit.

    off         (p,) where the fit ends
    covariance  (p, p) of it, with the misfit in it
    chi2        sum of squares of the whitened readings; prior2 of what the priors were pulled
    """

    off: Array
    covariance: Array
    chi2: float
    prior2: float
    readings: int

    @property
    def misfit(self) -> float:
        """Sum of squares over readings: 1 where the noise is as reckoned."""
        return self.chi2 / max(1, self.readings)


@dataclass(frozen=True, slots=True, kw_only=True)
class Whitened:
    """Readings with what they are believed to be off.

    root  (n, n) lower triangular root of the covariance of the readings
    """

    values: Array
    root: Array

    def away(self, modelled: Array) -> Array:
        """(n,) L^-1 (y - f)."""
        return np.asarray(np.linalg.solve(self.root, self.values - modelled))


def fitted(
    curve: Callable[[Array], Array], readings: Whitened, prior: Prior, start: Array, most: int = 20,
    more: Callable[[Array], Array] | None = None,
) -> Fit:
    """The fit from one start; unknowns are steps in the priors' own deviations.

    curve  from (p,) unknowns to (n,) modelled readings
    more   residuals of what was only looked at, in deviations
    """
    residuals = _residuals(curve, readings, prior, more)
    steps = _steps(prior)

    def slopes(turned: Array) -> Array:
        return _slopes(residuals, turned, steps)

    begin = np.linalg.solve(prior.root, start - prior.mean)
    found = least_squares(residuals, begin, jac=slopes, method="trf", xtol=1e-4, ftol=1e-4, max_nfev=most)
    turned, count = found.x, len(readings.values)
    away = residuals(turned)
    chi2, prior2 = float((away[:count] ** 2).sum()), float((away[-len(turned):] ** 2).sum())
    spread = np.linalg.inv(found.jac.T @ found.jac) * max(1.0, chi2 / max(1, count))
    covariance = prior.root @ spread @ prior.root.T
    covariance[:2, :2] += np.diag(np.square(LEAST_SD))
    return Fit(off=prior.mean + prior.root @ turned, covariance=covariance, chi2=chi2, prior2=prior2, readings=count)


def slopes_at(curve: Callable[[Array], Array], readings: Whitened, prior: Prior, off: Array) -> Array:
    """(n + p, p) by how much residuals move with steps in the priors' deviations, those of the priors last."""
    turned: Array = np.asarray(np.linalg.solve(prior.root, off - prior.mean), dtype=np.float64)
    return _slopes(_residuals(curve, readings, prior, None), turned, _steps(prior))


def _steps(prior: Prior) -> Array:
    steps = np.full(len(prior.mean), STEP_OTHER)
    steps[:2] = STEP_X / np.diag(prior.root)[:2]
    return steps


def _residuals(
    curve: Callable[[Array], Array], readings: Whitened, prior: Prior, more: Callable[[Array], Array] | None
) -> Callable[[Array], Array]:
    """Of readings, of looks and of the priors, all in deviations."""
    inverse = np.linalg.inv(readings.root)

    def residuals(turned: Array) -> Array:
        off = prior.mean + prior.root @ turned
        looked = more(off) if more is not None else np.zeros(0)
        return np.concatenate([inverse @ (readings.values - curve(off)), looked, turned])

    return residuals


def _slopes(residuals: Callable[[Array], Array], turned: Array, steps: Array) -> Array:
    here = residuals(turned)
    columns = []
    for at, step in enumerate(steps):
        moved = turned.copy()
        moved[at] += step
        columns.append((residuals(moved) - here) / step)
    return np.array(columns).T


def best(fits: Sequence[Fit]) -> Fit:
    """That with the least sum of squares, priors counted."""
    return min(fits, key=lambda one: one.chi2 + one.prior2)


@dataclass(frozen=True, slots=True, kw_only=True)
class Binned:
    """A log in even bins: moments [s], means, and the covariance that they are believed with."""

    at: Array
    values: Array
    covariance: Array


MOST_BINS = 150
ROUGH_SD_K, ROUGH_OF_RISE, ROUGH_OF_TIME = 0.2, 0.02, 0.015
"""What a model is off: everywhere, of the rise, and in time. Source: own_learning"""
ROUGH_FOR = 0.1
"""Over so much of the time to the peak what it is off stays alike. Source: own_learning"""


def root_of(covariance: Array) -> Array:
    """Lower triangular root of a covariance; empty of an empty one."""
    return np.asarray(np.linalg.cholesky(covariance), dtype=np.float64) if len(covariance) else covariance


def binned(at: Array, values: Array, step: float, rough: tuple[float, float] = (ROUGH_SD_K, ROUGH_OF_RISE)) -> Binned:
    """Means of even bins and their covariance.

        C_ij = (sd^2/n + step^2/12) d_ij + s_i s_j exp(-|t_i - t_j|/(0.1 t_peak))
        s^2 = 0.2^2 + (0.02 rise)^2 + (0.015 t |dT/dt|)^2

    at, values  [s], [K]; step of the display, which does not average out [K]
    Source: own_learning
    """
    count = min(MOST_BINS, len(at))
    bins = np.minimum((count * (at - at[0]) / max(float(np.ptp(at)), 1e-9)).astype(int), count - 1)
    held = np.bincount(bins, minlength=count)
    there = held > 0
    held = held[there]
    times = np.bincount(bins, at, minlength=count)[there] / held
    means = np.bincount(bins, values, minlength=count)[there] / held
    noise = MAD_TO_SD * float(np.median(np.abs(np.diff(values) - np.median(np.diff(values))))) / np.sqrt(2)
    rise = np.abs(means - means[0])
    slope = np.gradient(means, times) if len(times) > 2 else np.zeros(len(times))
    peak_at = max(float(times[np.argmax(means)]), float(np.ptp(times)) / 20)
    off = np.sqrt(rough[0] ** 2 + (rough[1] * rise) ** 2 + (ROUGH_OF_TIME * times * slope) ** 2)
    gaps = np.abs(times[:, None] - times[None])
    covariance = off[:, None] * off[None] * np.exp(-gaps / (ROUGH_FOR * peak_at))
    covariance[np.diag_indices(len(times))] += noise**2 / held + step**2 / 12 + 1e-6
    return Binned(at=times, values=means, covariance=covariance)
