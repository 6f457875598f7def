"""Windows and peaks of a scene for what is believed of a bottle: tabled once, then free to ask again."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm, qmc

from ..answers.book import Book
from ..answers.grades import BAND
from ..answers.heat import coarse_cells
from ..answers.kept import Keeper
from ..answers.march import march, room_of, timed_pours
from ..cure.moments import PourCure, pour_cures
from ..evaluate import KEEPER
from ..learning.belief import COVERS, POUR_SCATTER, Belief, factored
from ..learning.grid import Grid, grid_around
from ..scene import Scene
from ..shape import Meshes
from .chances import BAND_SHARES

Array = NDArray[np.float64]

DRAWS = 512
"""Of a scrambled Sobol sequence; the same for each question. Source: sobol1967"""
NEVER_H = 400.0
"""Stands for a moment that is not reached, so that it can be told between points."""
ASKED = ("peak_c", "tack_opens_h", "tack_closes_h")


@dataclass(frozen=True, slots=True, kw_only=True)
class PourForecast:
    """Nine in ten of one pour; sure_h: hours that lie in its window whatever the bottle, below nought where none do."""

    pour_number: int
    peak_low_c: float
    peak_high_c: float
    opens_low_h: float | None
    opens_high_h: float | None
    closes_low_h: float | None
    closes_high_h: float | None
    sure_h: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class ForecastTable:
    """Answers of a scene over a grid of (ln rate, ln heat).

    values     (rates, heats, pours x asked) peaks as they are, moments as logarithms
    room       (pours x asked) by one kelvin of the room
    room_sd_k  of the room
    """

    grid: Grid
    values: Array
    room: Array
    room_sd_k: float
    pours_count: int


def forecast_table(
    scene: Scene, resin_id: str, around: Belief, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> ForecastTable:
    """Marches the scene at each point around a belief, on the cells of the bands.

    resin_id  the bottle's row in the scene; other resins stay as they are
    """
    cells = coarse_cells(Book(scene, BAND, keeper, meshes))
    grid = grid_around(around.scattered(POUR_SCATTER))
    timed, room_c = timed_pours(scene), float(room_of(scene).mean())

    def answers(logs: Array, room_k: float = 0.0) -> Array:
        resins = [factored(one, logs) if one.id == resin_id else one for one in scene.resins]
        marched = march(scene, cells, BAND, resins=resins, room_offset_k=room_k)
        return np.concatenate([_row(one) for one in pour_cures(marched, cells, timed, resins, room_c + room_k)])

    values = grid.table([answers(logs) for logs in grid.points])
    return ForecastTable(
        grid=grid, values=values, room=answers(around.mean, 1.0) - answers(around.mean),
        room_sd_k=scene.brief.room.spread_k / COVERS, pours_count=len(scene.pours),
    )


def _row(cure: PourCure | None) -> Array:
    if cure is None:
        return np.array([np.nan, np.nan, np.nan])
    opens, closes = (NEVER_H if one is None else max(one, 1e-3) for one in (cure.tack_opens_h, cure.tack_closes_h))
    return np.array([cure.peak_c, np.log(opens), np.log(closes)])


def forecast(table: ForecastTable, belief: Belief) -> list[PourForecast]:
    """Nine in ten of each pour for what is believed of the bottle, its scatter and the room's with it.

    Source: own_learning
    """
    even = qmc.Sobol(3, scramble=True, seed=1).random(DRAWS)
    normal = norm.ppf(np.clip(even, 1e-6, 1 - 1e-6))
    spread = belief.scattered(POUR_SCATTER)
    logs = belief.mean + normal[:, :2] @ np.linalg.cholesky(spread.covariance).T
    drawn = np.array([table.grid.at(table.values, one) for one in logs])
    drawn = drawn + normal[:, 2:] * table.room_sd_k * table.room
    low, high = np.quantile(drawn, BAND_SHARES, axis=0)
    return [
        _forecast(number + 1, low[3 * number:3 * number + 3], high[3 * number:3 * number + 3])
        for number in range(table.pours_count) if np.isfinite(low[3 * number])
    ]


def _forecast(number: int, low: Array, high: Array) -> PourForecast:
    def hours(logged: float) -> float | None:
        found = float(np.exp(logged))
        return None if found > 0.75 * NEVER_H else round(found, 2)

    opens, closes = (hours(low[1]), hours(high[1])), (hours(low[2]), hours(high[2]))
    sure = None if opens[1] is None or closes[0] is None else round(closes[0] - opens[1], 2)
    return PourForecast(
        pour_number=number, peak_low_c=round(float(low[0]), 1), peak_high_c=round(float(high[0]), 1),
        opens_low_h=opens[0], opens_high_h=opens[1], closes_low_h=closes[0], closes_high_h=closes[1], sure_h=sure,
    )
