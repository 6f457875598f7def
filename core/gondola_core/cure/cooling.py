"""How a pour cools through its glass temperature: what its core sheds inside a skin that is hard already."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..materials import Resin
from .kinetics import Array, glass_temperature_c
from .march import Marched


@dataclass(frozen=True, slots=True, kw_only=True)
class PourCooling:
    """One pour, in the upright plane in the middle of the tank.

    frozen_at_c    temperature of the hottest place when it turned to glass for good; at the end where it did not
    frozen_gap_k   by how much it was then warmer than the coolest place
    shed_k         how far it cooled before, from when the coolest place was glass already
    """

    frozen_at_c: float
    frozen_gap_k: float
    shed_k: float


def pour_cooling(marched: Marched, number: int, resin: Resin) -> PourCooling | None:
    """Read from the history of the march; None where that plane holds nothing of the pour."""
    levels = np.flatnonzero(marched.pour_of_level == number)
    warm = marched.history_plane_c[:, levels].reshape(len(marched.history_at), -1).astype(float)
    cure = marched.history_plane_degree[:, levels].reshape(len(marched.history_at), -1).astype(float)
    there = np.isfinite(warm) & np.isfinite(cure)
    rows = np.flatnonzero(there.any(axis=1))
    if not len(rows):
        return None
    warm, cure = np.where(there, warm, np.nan)[rows], cure[rows]
    core, core_glass = _at(np.nanargmax(warm, axis=1), warm, cure, resin)
    edge, edge_glass = _at(np.nanargmin(warm, axis=1), warm, cure, resin)
    rows_of = np.arange(len(core), dtype=float)
    frozen, stiff = _last_fall(core - core_glass), _first_fall(edge - edge_glass)
    core_frozen, edge_frozen = (float(np.interp(frozen, rows_of, one)) for one in (core, edge))
    shed = 0.0
    if stiff < frozen:
        between = core[int(np.ceil(stiff)) : int(frozen) + 1]
        shed = float(max([np.interp(stiff, rows_of, core), *between])) - core_frozen
    return PourCooling(frozen_at_c=core_frozen, frozen_gap_k=max(0.0, core_frozen - edge_frozen), shed_k=max(0.0, shed))


def _last_fall(over: Array) -> float:
    """Row, with its fraction, after which nothing is over zero any more; the last where that never comes."""
    soft = np.flatnonzero(over > 0.0)
    if not len(soft):
        return 0.0
    return _fall(over, int(soft[-1])) if soft[-1] + 1 < len(over) else len(over) - 1.0


def _first_fall(over: Array) -> float:
    """Row, with its fraction, at which it first is over zero no more; infinity where that never comes."""
    stiff = np.flatnonzero(over <= 0.0)
    if not len(stiff):
        return float("inf")
    return _fall(over, int(stiff[0]) - 1) if stiff[0] else 0.0


def _fall(over: Array, row: int) -> float:
    """Where it passes zero between a row and the next, on a straight line."""
    return row + float(over[row] / (over[row] - over[row + 1]))


def _at(place: np.ndarray, warm: Array, cure: Array, resin: Resin) -> tuple[Array, Array]:
    """Temperature at one place of each row, and the glass temperature there."""
    rows = np.arange(len(warm))
    return warm[rows, place], glass_temperature_c(np.clip(cure[rows, place], 0.0, 1.0), resin)
