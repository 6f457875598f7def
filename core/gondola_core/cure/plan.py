"""Runs the march over a whole plan: pour after pour, then on until the last one can come out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..materials import Resin
from ..units import HOUR
from .box import CellGeometry, Surroundings, cell_box, faces
from .kinetics import Array, degree_at_glass_temperature
from .march import advance, spectral_radius
from .tables import rate_tables

COOL_C = 35.0
"""degrees C; a part is taken out only when it has cooled below this. Source: own_march"""
DEMOULD_TG_C = 30.0
"""degrees C; least glass temperature of a part that can come out. Source: own_march"""
LONGEST_STEP = 2 * HOUR
HISTORY_ROWS = 240


@dataclass(frozen=True, slots=True, kw_only=True)
class TimedPour:
    """A pour as the march sees it; time in seconds from the first pour."""

    start: float
    mix_c: float
    resin: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Tolerance:
    """Error allowed in one step of the march; the whole run stays within a few of them."""

    temperature_k: float
    degree: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Marched:
    """What the march leaves, ghosts cut off; times in seconds from the first pour.

    heights          (levels,) middle of each level above the floor, base first [m]
    base_levels      how many of them are base
    pour_of_level    (levels,) index of the pour, -1 for base
    resin            (levels, rows, cells) True where there is resin
    temperature_c    (levels, rows, cells) at the end
    degree_of_cure   (levels, rows, cells) at the end
    peak_c, peak_at  (levels, rows, cells) each cell's hottest moment
    crossed_at       (4, levels, rows, cells) gel, tack-free, hard, demould; NaN if not reached
    history_at       (rows,) and, by level, the hottest resin and the least cured at that time
    history_plane_c  (rows, levels, cells) temperature in the upright plane half way to the back,
                     and degree of cure in it; NaN where nothing is yet
    flown            (levels,) fluidity integral to gel of each level's middle cell [s/(Pa s)]
    end              time reached
    heat_released, heat_stored, heat_lost   [J]; released + brought = stored + lost
    steps, refused, stages   of the integrator
    """

    heights: Array
    base_levels: int
    pour_of_level: NDArray[np.int64]
    resin: NDArray[np.bool_]
    temperature_c: Array
    degree_of_cure: Array
    peak_c: Array
    peak_at: Array
    crossed_at: Array
    history_at: Array
    history_hottest_c: Array
    history_least_degree: Array
    history_plane_c: NDArray[np.float32]
    history_plane_degree: NDArray[np.float32]
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


def march_plan(
    geometry: CellGeometry,
    around: Surroundings,
    resins: list[Resin],
    pours: list[TimedPour],
    room_c: Array,
    room_step: float,
    end: float,
    tolerance: Tolerance,
    progress: Callable[[float], None] | None = None,
    history_rows: int = HISTORY_ROWS,
) -> Marched:
    """Heat and cure of every pour from the first drop to demould, or to `end` at the latest.

    room_c     room temperature at even steps of `room_step` seconds from the first pour [C]
    end        latest time [s]
    progress   called with the share of `end` that is done, between pours and days
    history_rows  how many moments are kept for scrubbing
    """
    box = cell_box(geometry, [pour.resin for pour in pours], resins, around)
    tables = rate_tables(resins)
    shape = box.inverse.shape
    temperature = np.zeros(shape)
    cure = np.zeros(shape)
    reached = np.zeros(shape, dtype=np.int64)
    mean_room = float(room_c.mean())
    thresholds = np.stack([thresholds_of(resins[pour.resin], mean_room) for pour in pours])
    crossed_at = np.full((thresholds.shape[1], *shape), np.nan)
    peak = np.full(shape, -1e9)
    peak_at = np.zeros(shape)
    history_at = np.zeros(history_rows)
    hot = np.full((history_rows, shape[0]), np.nan)
    least = np.full((history_rows, shape[0]), np.nan)
    middle_row = shape[1] // 2
    plane = np.full((history_rows, shape[0], shape[2] - 2), np.nan, dtype=np.float32)
    plane_cure = np.full_like(plane, np.nan)
    probe = _probes(box.heat)
    flown = np.zeros(shape[0])
    rows, lost, steps, refused, stages = 1, 0.0, 0, 0, 0
    baseline = np.zeros(shape)
    inside = (slice(1, -1), slice(1, -1))
    room_at = np.arange(len(room_c)) * room_step
    temperature[(slice(1, box.base_levels + 1), *inside)] = room_c[0]
    baseline[1 : box.base_levels + 1] = temperature[1 : box.base_levels + 1]
    levels = box.base_levels
    time, end = 0.0, float(end)
    history_step = end / (history_rows - 2)

    def flat(array: NDArray[Any]) -> NDArray[Any]:
        return array.reshape(shape[0], -1)

    for number, pour in enumerate(pours):
        fresh = np.flatnonzero(box.pour_of_level == number)
        room_now = float(np.interp(pour.start, room_at, room_c))
        share = box.resin_capacity[fresh] * box.inverse[fresh]
        temperature[fresh] = np.where(
            box.inverse[fresh] > 0, room_now + share * (pour.mix_c - room_now), 0.0
        )
        baseline[fresh] = temperature[fresh]
        wet = box.heat[fresh] > 0
        peak[fresh] = np.where(wet, temperature[fresh], -1e9)
        peak_at[fresh] = pour.start
        levels = int(fresh[-1])
        gz, ga = box.gz.copy(), box.ga.copy()
        gz[levels] = 0.0
        ga[levels] += box.top[levels]
        working = _WorkingBox(gx=box.gx, gy=box.gy, gz=gz, ga=ga, inverse=box.inverse)
        until = float(pours[number + 1].start) if number + 1 < len(pours) else end
        last = number + 1 == len(pours)
        radius = spectral_radius(working, levels)
        while time < until - 1e-6:
            slice_end = min(until, time + 24 * HOUR) if progress else until
            time, out, more, less, used, rows = advance(
                flat(temperature), flat(cure), shape[2], levels, time, slice_end,
                30.0, LONGEST_STEP, COOL_C if last else -1e9,
                tolerance.temperature_k, tolerance.degree, radius,
                flat(box.gx), flat(box.gy), flat(gz), flat(ga), flat(box.inverse), flat(box.heat),
                box.resin_of_level, box.pour_of_level, thresholds,
                room_c, room_step, tables.by_temperature, tables.by_degree,
                tables.sharpness, tables.logistic,
                flat(reached), crossed_at.reshape(len(crossed_at), shape[0], -1),
                flat(peak), flat(peak_at),
                history_at, hot, least, plane, plane_cure, middle_row * shape[2] + 1, rows, history_step,
                probe, flown,
            )
            lost, steps, refused, stages = lost + out, steps + more, refused + less, stages + used
            if progress:
                progress(min(1.0, time / end))
            if time < slice_end - 1e-6:
                break
    core = (slice(1, -1), slice(1, -1), slice(1, -1))
    peak[peak < -1e8] = np.nan
    return Marched(
        heights=box.z_centres,
        base_levels=box.base_levels,
        pour_of_level=box.pour_of_level[1:-1],
        resin=box.heat[core] > 0,
        temperature_c=temperature[core],
        degree_of_cure=cure[core],
        peak_c=peak[core],
        peak_at=peak_at[core],
        crossed_at=crossed_at[(slice(None), *core)],
        history_at=history_at[1:rows],
        history_hottest_c=hot[1:rows, 1:-1],
        history_least_degree=least[1:rows, 1:-1],
        history_plane_c=_of_cells(plane[1:rows, 1:-1], box.inverse[1:-1, middle_row, 1:-1]),
        history_plane_degree=_of_cells(plane_cure[1:rows, 1:-1], box.heat[1:-1, middle_row, 1:-1]),
        flown=flown[1:-1],
        end=time,
        heat_released=float((box.heat * cure).sum()),
        heat_stored=float((box.capacity * (temperature - baseline)).sum()),
        heat_lost=lost,
        steps=steps,
        refused=refused,
        stages=stages,
    )


def _probes(heat: Array) -> NDArray[np.int64]:
    """Flat index of the resin cell of each level that is nearest its middle; -1 without resin."""
    rows, cells = heat.shape[1:]
    away = np.hypot(np.arange(rows)[:, None] - rows / 2 + 0.5, np.arange(cells)[None] - cells / 2 + 0.5)
    far = np.where(heat > 0, away[None], np.inf).reshape(len(heat), -1)
    return np.where(np.isfinite(far.min(axis=1)), far.argmin(axis=1), -1)


def _of_cells(plane: NDArray[np.float32], there: Array) -> NDArray[np.float32]:
    """A plane with what is no cell blanked."""
    return np.where(there > 0, plane, np.float32(np.nan))


@dataclass(frozen=True, slots=True, kw_only=True)
class _WorkingBox:
    """The conductances of a box that is filled only so far."""

    gx: Array
    gy: Array
    gz: Array
    ga: Array
    inverse: Array


def whole_box(
    size: tuple[float, float], layer_tops: list[float], cell: float, least_levels: int = 3
) -> CellGeometry:
    """Cells of an empty tank: inner size across and behind, layer tops above the floor [m]."""
    x_faces, y_faces = faces(size[0], cell), faces(size[1], cell)
    z_faces, pour_of_level = layered_faces(layer_tops, cell, least_levels)
    shape = (0, len(pour_of_level), len(y_faces) - 1, len(x_faces) - 1)
    return CellGeometry(
        x_faces=x_faces, y_faces=y_faces, z_faces=z_faces, pour_of_level=pour_of_level,
        solid_fractions=np.zeros(shape), solids=(),
    )


def layered_faces(
    layer_tops: list[float], cell: float, least_levels: int
) -> tuple[Array, NDArray[np.int64]]:
    """Faces in height with one at every layer line, and the pour of each level.

    A layer has at least `least_levels` levels, but none thinner than 2 mm unless it is one.
    """
    all_faces = [0.0]
    pour_of_level: list[int] = []
    below = 0.0
    for number, top in enumerate(layer_tops):
        thick = top - below
        least = max(1, min(least_levels, int(thick / 0.002)))
        inner = below + faces(thick, cell, least)
        all_faces.extend(float(face) for face in inner[1:])
        pour_of_level.extend([number] * (len(inner) - 1))
        below = top
    return np.array(all_faces), np.array(pour_of_level)
