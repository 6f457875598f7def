"""What is held of a bottle: by how much it is quicker and hotter than its row, and how surely."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..materials import Resin

Array = NDArray[np.float64]

TYPED_SD = (0.25, 0.10)
"""Of the logarithms of rate and heat where a row says nothing. Source: own_learning"""
POUR_SCATTER = np.diag([0.04**2, 0.02**2])
"""Scatter of (ln rate, ln heat) from pour to pour of one bottle. Source: own_learning"""
CUP_SCATTER = np.diag([0.07**2, 0.03**2])
"""The same from a cup to a pour. Source: own_learning"""
MONTHLY = np.diag([0.02**2, 0.005**2])
"""By how much a bottle drifts in a month. Source: own_learning"""
DISAGREES = 9.0
"""Squared distance above which a log is not of the same bottle. Source: own_learning"""
COVERS = 1.645
"""Standard deviations on either side that hold nine in ten. Source: definition"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Belief:
    """Gaussian in (ln rate factor, ln heat factor).

    mean        (2,)
    covariance  (2, 2)
    """

    mean: Array
    covariance: Array

    @property
    def sd(self) -> Array:
        """(2,) standard deviations."""
        return np.asarray(np.sqrt(np.diag(self.covariance)))

    @property
    def correlation(self) -> float:
        """Of rate and heat."""
        first, second = self.sd
        return float(self.covariance[0, 1] / max(first * second, 1e-12))

    def scattered(self, scatter: Array) -> Belief:
        """What is held of one pour of it."""
        return Belief(mean=self.mean, covariance=self.covariance + scatter)

    def aged(self, months: float) -> Belief:
        """After standing for so long."""
        return self.scattered(max(0.0, months) * MONTHLY)

    def between(self, which: int) -> tuple[float, float]:
        """Nine in ten of the factor: 0 is rate, 1 heat."""
        middle, off = float(self.mean[which]), COVERS * float(self.sd[which])
        return float(np.exp(middle - off)), float(np.exp(middle + off))


def row_belief(resin: Resin) -> Belief:
    """What a row says of itself: nothing off, by its own spreads."""
    rate, heat = resin.rate_spread_fraction or TYPED_SD[0], resin.heat_spread_fraction or TYPED_SD[1]
    return Belief(mean=np.zeros(2), covariance=np.diag([rate**2, heat**2]))


def distance2(prior: Belief, own: Belief, scatter: Array) -> float:
    """Squared distance of a log's own mean from what was held of it. Source: mahalanobis1936"""
    gap = own.mean - prior.mean
    return float(gap @ np.linalg.solve(prior.covariance + scatter, gap))


def taught(prior: Belief, own: Belief, scatter: Array) -> Belief:
    """The bottle after one log of it, exact for Gaussians.

        K = P (P + S)^-1,  m <- m + K (m_i - m),  P <- P - K (P + S - P_i) K^T

    own      (m_i, P_i), fitted with the prior N(m, P + S)
    scatter  S, between logs of one bottle

    S = 0 gives own; own = N(m, P + S) leaves the prior.
    Source: own_learning, rauch_tung_striebel1965
    """
    held = prior.covariance
    gain = held @ np.linalg.inv(held + scatter)
    covariance = held - gain @ (held + scatter - own.covariance) @ gain.T
    return Belief(mean=prior.mean + gain @ (own.mean - prior.mean), covariance=0.5 * (covariance + covariance.T))


def rebased(own: Belief, was: Belief, prior: Belief) -> Belief:
    """A log's own belief as it would be from another prior: what the log itself said, and the new prior.

        L = P_i^-1 - P_was^-1,  P = (L + P_new^-1)^-1

    Exact where the log is linear in what it tells. Source: definition
    """
    told = np.linalg.inv(own.covariance) - np.linalg.inv(was.covariance)
    said = np.linalg.solve(own.covariance, own.mean) - np.linalg.solve(was.covariance, was.mean)
    covariance = np.linalg.inv(told + np.linalg.inv(prior.covariance))
    return Belief(mean=covariance @ (said + np.linalg.solve(prior.covariance, prior.mean)), covariance=covariance)


def factored(resin: Resin, logs: Array) -> Resin:
    """The resin with factors on its rates and its heat, by their logarithms."""
    return resin.scaled(float(np.exp(logs[0])), float(np.exp(logs[1])))
