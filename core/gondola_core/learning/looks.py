"""What a finger found and when: it bounds the moment of gel and of tack, and says nothing of points between."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.stats import norm

What = Literal["gel", "tack"]

LOOK_SD = {"gel": 0.09, "tack": 0.15}
"""Spread of the threshold, in the logarithm of its moment. Source: own_learning"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """Not yet at one moment, seen at a later one [h from the pour]; None where it was never so.

    what  gel: draws no strings any more; tack: takes no print any more
    """

    what: What
    not_yet_h: float | None
    seen_h: float | None


def look_residual(look: Look, moment_h: float) -> float:
    """Of a modelled moment, in deviations.

        (ln t - (ln a + ln b)/2)/sqrt(s^2 + ln(b/a)^2/12),  of an open end  sqrt(-2 ln Phi(...))

    Source: own_learning, tobin1958

    >>> look_residual(Look(what="gel", not_yet_h=16.0, seen_h=16.0), 16.0)
    0.0
    """
    spread, modelled = LOOK_SD[look.what], np.log(max(moment_h, 1e-3))
    if look.not_yet_h is None and look.seen_h is None:
        return 0.0
    if look.not_yet_h is None or look.seen_h is None or look.not_yet_h <= 0:
        if look.seen_h is not None:
            held = norm.logcdf((np.log(look.seen_h) - modelled) / spread)
        else:
            held = norm.logcdf((modelled - np.log(max(look.not_yet_h or 1e-3, 1e-3))) / spread)
        return float(np.sqrt(max(0.0, -2 * held)))
    low, high = np.log(look.not_yet_h), np.log(max(look.seen_h, look.not_yet_h))
    return float((modelled - 0.5 * (low + high)) / np.sqrt(spread**2 + (high - low) ** 2 / 12))


def looks_of(felt: list[tuple[float, str]]) -> list[Look]:
    """Looks from what a finger found of one pour: (hours from its start, strings, prints, marks or dry)."""
    found = []
    ordered = sorted(felt)
    for what, before in (("gel", {"strings"}), ("tack", {"strings", "prints"})):
        seen = next((at for at, feels in ordered if feels not in before), None)
        earlier = [at for at, feels in ordered if feels in before and (seen is None or at < seen)]
        if seen is not None or earlier:
            kind: What = "gel" if what == "gel" else "tack"
            found.append(Look(what=kind, not_yet_h=max(earlier, default=None), seen_h=seen))
    return found
