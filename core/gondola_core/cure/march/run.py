"""Runs the march over pour after pour, then on until the last one can come out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...materials import Resin
from ...units import HOUR, ML
from ..box import CellBox, cell_box
from ..cells import CellGeometry
from ..kinetics import Array, degree_at_glass_temperature
from ..losses import Surroundings
from ..skin import Skin, cover, skin_of
from .advance import STRETCH, Tally, advance, spectral_radius
from .blocks import Cells, Chemistry, Conductances, Control, Notes, Room, Step, Trace
from .hearing import Hearing
from .notes import START_OF_POUR, grown_gas, note_row
from .tables import rate_tables

COOL_C = 35.0
"""degrees C; a part is taken out only when it has cooled below this. Source: own_march"""
DEMOULD_TG_C = 30.0
"""degrees C; least glass temperature of a part that can come out. Source: own_march"""
STEP_WORK = 10.0
"""Stages that what is done once a step costs. Source: own_march, by the clock"""


class OutOfWorkError(Exception):
    """The march took more work than it was given."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TimedPour:
    """A pour as the march sees it; time in seconds from the first pour."""

    start: float
    mix_c: float
    resin: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Scrubbing:
    """How close the rows of history lie: a row at each change of so much, or after so long [s].

    When there would be more than `most_rows`, every other one goes and changes may be larger.
    """

    change_k: float = 1.0
    change_degree: float = 0.02
    longest: float = 4 * HOUR
    most_rows: int = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class Tolerance:
    """Error allowed in one step of the march, of which the whole run stays within a few; how close its rows lie.

    longest_step   of the march [s]: the day's swing of the room must not slip through
    most_work   work after which the march gives up, in cells times stages; None: never
    """

    temperature_k: float
    degree: float
    scrubbing: Scrubbing = Scrubbing()
    longest_step: float = 2 * HOUR
    most_work: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Marched:
    """What the march leaves, ghosts cut off; times in seconds from the first pour.

    heights          (levels,) middle of each level above the floor, base first [m]
    base_levels      how many of them are base
    pour_of_level    (levels,) index of the pour, -1 for base
    resin            (levels, rows, cells) True where there is resin
    resin_volume     (levels, rows, cells) [m3]
    temperature_c    (levels, rows, cells) at the end
    degree_of_cure   (levels, rows, cells) at the end
    peak_c, peak_at  (levels, rows, cells) each cell's hottest moment
    crossed_at       (4, levels, rows, cells) gel, tack-free, hard, demould; NaN if not reached
    skin_level       (points,) level of each point on the skin of the pours
    skin_crossed_at  (4, points) the same there
    skin_degree      (points,) degree of cure there at the end
    top_degree       (pours,) least degree of the upper face of each pour when the next one came, or
                     at the end; NaN where it has none
    history_at       (rows,) and, by level, the hottest resin and the least cured at that time
    history_plane_c  (rows, levels, cells) temperature in the upright plane half way to the back,
                     and degree of cure in it; NaN where nothing is yet
    wall_cell        (pieces,) flat index of the cell of each piece of wall
    wall_kept        (pieces,) share of its excess over the room that is left at the wall's inner face
    pores_ml         gas in the pores of the bed
    gas_ml           (pours,) by how much it grows at most while a pour is liquid
    flown            (levels,) fluidity integral to gel of each level's middle cell [s/(Pa s)]
    end              time reached
    heat_released, heat_stored, heat_lost   [J]; released + brought = stored + lost
    steps, refused, stages   of the integrator
    """

    heights: Array
    base_levels: int
    pour_of_level: NDArray[np.int64]
    resin: NDArray[np.bool_]
    resin_volume: Array
    temperature_c: Array
    degree_of_cure: Array
    peak_c: Array
    peak_at: Array
    crossed_at: Array
    skin_level: NDArray[np.int64]
    skin_crossed_at: Array
    skin_degree: Array
    top_degree: Array
    history_at: Array
    history_hottest_c: Array
    history_least_degree: Array
    history_plane_c: NDArray[np.float32]
    history_plane_degree: NDArray[np.float32]
    wall_cell: NDArray[np.int64]
    wall_kept: Array
    pores_ml: float
    gas_ml: Array
    flown: Array
    end: float
    heat_released: float
    heat_stored: float
    heat_lost: float
    steps: int
    refused: int
    stages: int


def thresholds_of(resin: Resin, room_c: float) -> Array:
    """Degrees of cure at gel, tack-free, hard (glassy in this room) and demould, rising."""
    marks = np.array(
        [
            resin.gel_degree,
            resin.tack_free_degree,
            float(degree_at_glass_temperature(room_c, resin)),
            float(degree_at_glass_temperature(DEMOULD_TG_C, resin)),
        ]
    )
    return np.maximum.accumulate(marks)


def march_pours(
    geometry: CellGeometry,
    around: Surroundings,
    resins: list[Resin],
    pours: list[TimedPour],
    room: Room,
    end: float,
    tolerance: Tolerance,
    *,
    progress: Callable[[float], None] | None = None,
) -> Marched:
    """Heat and cure of every pour from the first drop to demould, or to `end` at the latest.

    room       from the first pour on, at even steps
    end        latest time [s]; pours that would begin after it are left out
    progress   called with the share of `end` that is done, from a thread; what it raises ends the march

    Raises OutOfWorkError where `tolerance` bounds the work.
    """
    box = cell_box(geometry, [pour.resin for pour in pours], resins, around)
    mean_room = float(room.temperature_c.mean())
    thresholds = np.stack([thresholds_of(resins[pour.resin], mean_room) for pour in pours])
    chemistry = rate_chemistry(resins, {pour.resin for pour in pours})
    run = _Run(box, chemistry, room, thresholds, tolerance, tolerance.scrubbing)
    run.begin_only_what_can_end(pours, end)
    with Hearing(progress, float(end)) as hearing:
        for number, pour in enumerate(pours):
            if number and pour.start >= end:
                break
            run.pour(number, pour)
            last = number + 1 == len(pours) or pours[number + 1].start >= end
            run.march_to(end if last else pours[number + 1].start, COOL_C if last else -1e9, hearing.signal)
            hearing.check()
    return run.left()


def rate_chemistry(resins: list[Resin], used: set[int]) -> Chemistry:
    """The rate tables of the resins that are poured, as the kernels take them."""
    tables = rate_tables(resins, used)
    return Chemistry(tables.by_temperature, tables.by_degree, tables.sharpness, tables.logistic)


class _Run:
    """The state of one march between its pours."""

    def __init__(
        self, box: CellBox, chemistry: Chemistry, room: Room, thresholds: Array, tolerance: Tolerance,
        scrubbing: Scrubbing,
    ) -> None:
        self.box, self.chemistry, self.room, self.tolerance = box, chemistry, room, tolerance
        shape = box.inverse.shape
        self.shape, self.flat_shape = shape, (shape[0], shape[1] * shape[2])
        self.temperature, self.cure, self.baseline = (np.zeros(shape) for _ in range(3))
        base = (slice(1, box.base_levels + 1), slice(1, -1), slice(1, -1))
        self.temperature[base] = self.baseline[base] = room.temperature_c[0]
        self.notes = self._notes(thresholds)
        self.skin: Skin = skin_of(box, thresholds.shape[1])
        self.trace = self._trace(scrubbing)
        self.top_degree = np.full(len(thresholds), np.nan)
        self.tally = Tally(0.0, 0.0, 0, 0, 0)
        self.cells: Cells | None = None
        self.work_left = float("inf") if tolerance.most_work is None else tolerance.most_work

    def _notes(self, thresholds: Array) -> Notes:
        size = self.flat_shape
        return Notes(
            thresholds=thresholds, reached=np.zeros(size, dtype=np.int64),
            crossed_at=np.full((thresholds.shape[1], *size), np.nan), peak=np.full(size, -1e9),
            peak_at=np.zeros(size), pour_peak=np.full(len(thresholds), -1e9),
            probe=_probes(self.box.heat), flown=np.zeros(size[0]), pores=self._flat(self.box.pores),
            rest_c=np.zeros(size), gas=np.zeros((2, len(thresholds))),
        )

    def _trace(self, scrubbing: Scrubbing) -> Trace:
        rows, levels, cells = scrubbing.most_rows, self.shape[0], self.shape[2] - 2
        plane = (rows, levels, cells)
        return Trace(
            at=np.zeros(rows), kind=np.zeros(rows, dtype=np.int64), hottest=np.full((rows, levels), np.nan),
            least=np.full((rows, levels), np.nan), plane=np.full(plane, np.nan, dtype=np.float32),
            plane_cure=np.full(plane, np.nan, dtype=np.float32),
            plane_first=self.shape[1] // 2 * self.shape[2] + 1, made=np.zeros(1, dtype=np.int64),
            gaps=np.array([scrubbing.change_k, scrubbing.change_degree, scrubbing.longest]),
            now_hot=np.full(levels, -1e9), now_least=np.full(levels, 2.0),
        )

    def _flat(self, array: NDArray[Any]) -> NDArray[Any]:
        return array.reshape(self.flat_shape)

    def begin_only_what_can_end(self, pours: list[TimedPour], end: float) -> None:
        """OutOfWorkError where even the longest steps from pour to pour are more work than there is.

        Stages grow with the root of a step (`STRETCH`), so that shorter ones take more in all.
        """
        waits = [after.start - pour.start for pour, after in pairwise(pours) if after.start < end]
        if not waits or self.work_left == float("inf"):
            return
        highest = [int(np.flatnonzero(self.box.pour_of_level == number)[-1]) for number in range(len(waits))]
        longest = self.tolerance.longest_step
        stages = (STRETCH * longest * spectral_radius(self._cells_to(highest[0]))) ** 0.5
        steps_times_cells = np.dot(waits, highest) / longest * self.flat_shape[1]
        if steps_times_cells * (stages + STEP_WORK) > self.work_left:
            raise OutOfWorkError

    def pour(self, number: int, pour: TimedPour) -> None:
        """Bring the cells of a pour, at its own temperature; what is solid in them is at the room's."""
        box = self.box
        fresh = np.flatnonzero(box.pour_of_level == number)
        steps = np.arange(len(self.room.temperature_c)) * self.room.step
        room_now = float(np.interp(pour.start, steps, self.room.temperature_c))
        share = box.resin_capacity[fresh] * box.inverse[fresh]
        self.temperature[fresh] = np.where(
            box.inverse[fresh] > 0, room_now + share * (pour.mix_c - room_now), 0.0
        )
        self.baseline[fresh] = self.temperature[fresh]
        wet = box.heat[fresh] > 0
        self._note_start(number, fresh, np.where(wet, self.temperature[fresh], -1e9), pour.start)
        if number:
            below = int(fresh[0]) - 1
            self.top_degree[number - 1] = self._top_degree(below)
            cover(self.skin, below)
        self.cells = self._cells_to(int(fresh[-1]))
        self.notes.gas[:, number] = grown_gas(self.cells, self._flat(self.temperature), self.notes)
        self._start_row(pour.start)

    def _note_start(self, number: int, fresh: NDArray[np.int64], peak: Array, start: float) -> None:
        notes = self.notes
        notes.peak[fresh] = peak.reshape(len(fresh), -1)
        notes.peak_at[fresh] = start
        notes.rest_c[fresh] = self._flat(self.baseline)[fresh]
        notes.pour_peak[number] = peak.max(initial=-1e9)

    def _top_degree(self, level: int) -> float:
        points = self.skin.points
        upper = points.degree[self.skin.is_top & (points.level == level)]
        return float(upper.min()) if len(upper) else float("nan")

    def _cells_to(self, levels: int) -> Cells:
        """The cells that are in place up to a level, the highest open to the air."""
        box = self.box
        gz, ga = box.gz.copy(), box.ga.copy()
        gz[levels] = 0.0
        ga[levels] += box.top[levels]
        exact = Conductances(*(self._flat(one) for one in (box.gx, box.gy, gz, ga, box.inverse, box.heat)))
        return Cells(
            levels=levels, width=self.shape[2], exact=exact,
            quick=Conductances(*(np.asarray(one, dtype=np.float32) for one in exact)),
            resin_of_level=box.resin_of_level, pour_of_level=box.pour_of_level,
        )

    def _start_row(self, start: float) -> None:
        """A row of history at the very start of a pour."""
        assert self.cells is not None
        t, a = self._flat(self.temperature), self._flat(self.cure)
        still = np.zeros(self.flat_shape)
        self.trace.now_least[:] = 2.0
        note_row(self.cells, Step(start, 0.0, t, still, a, still, t, still, a, still), 1.0, START_OF_POUR, self.trace)

    def march_to(self, until: float, stop_below_c: float, signal: Array) -> None:
        """On to the next pour, or until the last is hard and cool."""
        cells = self.cells
        assert cells is not None
        control = Control(
            self.tolerance.temperature_k, self.tolerance.degree, self.tolerance.longest_step, stop_below_c,
            spectral_radius(cells), signal, self.work_left / (cells.levels * self.flat_shape[1]), STEP_WORK,
        )
        points = int(self.skin.first_of_level[cells.levels + 1])
        state = (self._flat(self.temperature), self._flat(self.cure))
        if self.tally.time < until - 1e-6:
            part = advance(
                cells, self.chemistry, self.room, control, state, self.notes, self.trace, self.skin.points,
                points, self.tally.time, float(until),
            )
            self._count(part, cells.levels * self.flat_shape[1])

    def _count(self, part: Tally, cells: int) -> None:
        """Add a stretch to the tally; see that there is work left."""
        had = self.tally
        self.tally = Tally(
            part.time, had.lost + part.lost, had.steps + part.steps, had.refused + part.refused,
            had.stages + part.stages,
        )
        self.work_left -= cells * (part.stages + STEP_WORK * (part.steps + part.refused))
        if self.work_left <= 0.0:
            raise OutOfWorkError

    def left(self) -> Marched:
        """What the march leaves, ghosts cut off."""
        box, notes, trace, skin = self.box, self.notes, self.trace, self.skin.points
        core = (slice(1, -1), slice(1, -1), slice(1, -1))
        rows = int(trace.made[0])
        middle_row = self.shape[1] // 2
        peak = notes.peak.reshape(self.shape)
        self.top_degree[-1] = self._top_degree(self.shape[0] - 2)
        return Marched(
            heights=box.z_centres,
            base_levels=box.base_levels,
            pour_of_level=box.pour_of_level[1:-1],
            resin=box.heat[core] > 0,
            resin_volume=box.volume[core],
            temperature_c=self.temperature[core],
            degree_of_cure=self.cure[core],
            peak_c=np.where(peak < -1e8, np.nan, peak)[core],
            peak_at=notes.peak_at.reshape(self.shape)[core],
            crossed_at=notes.crossed_at.reshape(-1, *self.shape)[(slice(None), *core)],
            skin_level=skin.level - 1,
            skin_crossed_at=skin.crossed_at,
            skin_degree=skin.degree,
            top_degree=self.top_degree,
            history_at=trace.at[:rows],
            history_hottest_c=trace.hottest[:rows, 1:-1],
            history_least_degree=trace.least[:rows, 1:-1],
            history_plane_c=_of_cells(trace.plane[:rows, 1:-1], box.inverse[1:-1, middle_row, 1:-1]),
            history_plane_degree=_of_cells(trace.plane_cure[:rows, 1:-1], box.heat[1:-1, middle_row, 1:-1]),
            wall_cell=_without_rim(box.walls.cell, self.shape),
            wall_kept=box.walls.kept,
            pores_ml=float(box.pores.sum()) / ML,
            gas_ml=(notes.gas[1] - notes.gas[0]) / ML,
            flown=notes.flown[1:-1],
            end=self.tally.time,
            heat_released=float((box.heat * self.cure).sum()),
            heat_stored=float((box.capacity * (self.temperature - self.baseline)).sum()),
            heat_lost=self.tally.lost,
            steps=self.tally.steps,
            refused=self.tally.refused,
            stages=self.tally.stages,
        )


def _without_rim(cell: NDArray[np.int64], shape: tuple[int, ...]) -> NDArray[np.int64]:
    """Flat index among the cells from that among the cells with their rim."""
    level, row, column = np.unravel_index(cell, shape)
    return np.asarray(((level - 1) * (shape[1] - 2) + row - 1) * (shape[2] - 2) + column - 1)


def _probes(heat: Array) -> NDArray[np.int64]:
    """Flat index of the resin cell of each level that is nearest its middle; -1 without resin."""
    rows, cells = heat.shape[1:]
    away = np.hypot(np.arange(rows)[:, None] - rows / 2 + 0.5, np.arange(cells)[None] - cells / 2 + 0.5)
    far = np.where(heat > 0, away[None], np.inf).reshape(len(heat), -1)
    return np.where(np.isfinite(far.min(axis=1)), far.argmin(axis=1), -1)


def _of_cells(plane: NDArray[np.float32], there: Array) -> NDArray[np.float32]:
    """A plane with what is no cell blanked."""
    return np.where(there > 0, plane, np.float32(np.nan))
