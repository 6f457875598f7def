"""What is left of the cure once the piece stands at the temperature of its room."""

from __future__ import annotations

import functools
from dataclasses import dataclass

import numpy as np
from numba import njit

from ..digests import digest
from ..materials import Resin
from ..units import DAY, HOUR
from .march.chemistry import cell_rate
from .march.tables import RateTables, rate_tables

LAST_DAY = 30.0
"""days after a pour at which its cure counts as all that this room gives. Source: own_march"""
NEARLY = 0.97
"""share of that at which a pour counts as fully cured. Source: own_march"""
_STEP = 0.5 * HOUR
LONGEST_WARM = 3 * DAY
"""s; a warm box is not kept longer. Source: assumed"""
WARMEST_BOX_C = 40.0
"""degrees C; warmer softens dam and glue. Source: assumed"""


@njit(nogil=True, cache=True)
def _tail(cure, room_c, steps, step, by_temperature, by_degree, sharpness, logistic):  # type: ignore[no-untyped-def]
    history = np.empty(steps + 1)
    history[0] = cure
    for index in range(steps):
        a = cell_rate(cure, room_c, by_temperature, by_degree, sharpness, logistic)
        b = cell_rate(cure + 0.5 * step * a, room_c, by_temperature, by_degree, sharpness, logistic)
        cure += step * b
        history[index + 1] = cure
    return history


class _Alike:
    """A resin as a key: two of the same numbers are one. As it was mixed it may lie beyond what a row may say."""

    def __init__(self, resin: Resin) -> None:
        self.resin, self._hash = resin, digest(resin)

    def __hash__(self) -> int:
        return hash(self._hash)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Alike) and self._hash == other._hash


@functools.lru_cache(maxsize=32)
def _tables(alike: _Alike) -> RateTables:
    return rate_tables([alike.resin])


@dataclass(frozen=True, slots=True, kw_only=True)
class WarmEnd:
    """A warm box after the last pour's tack, in which it gets hard enough to come out."""

    warm_c: float
    warm_h: float


def warm_end(resin: Resin, room_c: float, demould_degree: float) -> WarmEnd | None:
    """The least warm box, in whole degrees, that brings a cold room's pour to demould in three days.

    room_c          mean of the cold room; boxes from the next whole degree up are tried
    demould_degree  degree of cure to be reached, from that at which it is no longer tacky

    None where no box up to 40 degrees does.
    Source: assumed
    """
    tables = _tables(_Alike(resin))
    steps = int(LONGEST_WARM / _STEP)
    for warm_c in range(int(np.floor(room_c)) + 1, int(WARMEST_BOX_C) + 1):
        history = _tail(
            resin.tack_free_degree, float(warm_c), steps, _STEP, tables.by_temperature[0],
            tables.by_degree[0], float(tables.sharpness[0]), tables.logistic,
        )
        there = np.flatnonzero(history >= demould_degree)
        if len(there):
            return WarmEnd(warm_c=float(warm_c), warm_h=float(there[0]) * _STEP / HOUR)
    return None


def full_cure(
    degree: float, at: float, start: float, room_c: float, resin: Resin
) -> tuple[float, float]:
    """When a pour is as good as fully cured in its room, and how far that is.

    degree   degree of cure of its least cured place at time `at` [s]
    start    when it was poured [s]
    room_c   mean room temperature [degrees C]
    returns  (days after the pour at which 97 % of the degree at 30 days is reached, that degree)

    Half-hour midpoint steps: the rates left by then change over days.
    """
    tables = _tables(_Alike(resin))
    steps = max(2, int((LAST_DAY * DAY - (at - start)) / _STEP))
    history = _tail(
        degree, room_c, steps, _STEP, tables.by_temperature[0], tables.by_degree[0],
        float(tables.sharpness[0]), tables.logistic,
    )
    last = float(history[-1])
    enough = int(np.argmax(history >= NEARLY * last))
    return (at - start + enough * _STEP) / DAY, last
