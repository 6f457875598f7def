"""What is noted at each step of the march: hottest moments, marks of cure, how it flowed, history."""

from __future__ import annotations

import numpy as np
from numba import njit

from .chemistry import cell_rate
from .tables import COLDEST_C, DEGREE_STEPS, STEP_K

USUAL, START_OF_POUR, PEAKS_FROM = 0, 1, 2
"""Kinds of rows of history: at the end of a step; as a pour comes; from there on, hottest moment of pour 0, 1 ..."""
COLDER = -1e8
"""Below this a temperature stands for 'nothing here'."""


@njit(nogil=True, cache=True)
def hermite(part, step, y0, f0, y1, f1):  # type: ignore[no-untyped-def]
    """Cubic through both ends with both slopes, at `part` of the step."""
    rest = 1.0 - part
    return (
        y0 * rest * rest * (1.0 + 2.0 * part)
        + y1 * part * part * (1.0 + 2.0 * rest)
        + step * part * rest * (f0 * rest - f1 * part)
    )


@njit(nogil=True, cache=True)
def crossing(level, step, y0, f0, y1, f1):  # type: ignore[no-untyped-def]
    """Part of the step at which the cubic first reaches a level between y0 and y1."""
    low, high = 0.0, 1.0
    for _ in range(24):
        middle = 0.5 * (low + high)
        if hermite(middle, step, y0, f0, y1, f1) >= level:
            high = middle
        else:
            low = middle
    return high


@njit(nogil=True, cache=True)
def note_cells(cells, step, notes, trace):  # type: ignore[no-untyped-def]
    """Keep each cell's hottest moment and the times at which it passed each degree of cure.

    Returns (marks still open, hottest resin now, the pour whose hottest moment lies within this
    step or -1, its part of the step).
    """
    open_count, liquid = 0, 0
    newest = cells.pour_of_level[cells.levels]
    hottest, best_pour, best_part = -1e9, -1, 1.0
    heat = cells.exact.heat
    for k in range(1, cells.levels + 1):
        trace.now_hot[k] = -1e9
        trace.now_least[k] = 2.0
        pour = cells.pour_of_level[k]
        if pour < 0:
            continue
        marks = notes.thresholds[pour]
        for i in range(step.t0.shape[1]):
            if heat[k, i] <= 0.0:
                continue
            now = step.t1[k, i]
            trace.now_hot[k] = max(trace.now_hot[k], now)
            trace.now_least[k] = min(trace.now_least[k], step.a1[k, i])
            if now > notes.peak[k, i]:
                notes.peak[k, i] = now
                notes.peak_at[k, i] = step.time + step.length
            f0, f1 = step.ft0[k, i], step.ft1[k, i]
            if f0 > 0.0 and f1 < 0.0:
                part = f0 / (f0 - f1)
                top = hermite(part, step.length, step.t0[k, i], f0, now, f1)
                if top > notes.peak[k, i]:
                    notes.peak[k, i] = top
                    notes.peak_at[k, i] = step.time + part * step.length
                    if top > notes.pour_peak[pour]:
                        best_pour, best_part = pour, part
            notes.pour_peak[pour] = max(notes.pour_peak[pour], notes.peak[k, i])
            mark = notes.reached[k, i]
            while mark < marks.shape[0] and step.a1[k, i] >= marks[mark]:
                notes.crossed_at[mark, k, i] = step.time + step.length * crossing(
                    marks[mark], step.length, step.a0[k, i], step.fa0[k, i], step.a1[k, i],
                    step.fa1[k, i],
                )
                mark += 1
            notes.reached[k, i] = mark
            open_count += marks.shape[0] - mark
            if mark == 0 and pour == newest:
                liquid += 1
        hottest = max(hottest, trace.now_hot[k])
    if liquid > 0:
        notes.gas[1, newest] = max(notes.gas[1, newest], grown_gas(cells, step.t1, notes))
    return open_count, hottest, best_pour, best_part


@njit(nogil=True, cache=True)
def grown_gas(cells, t, notes):  # type: ignore[no-untyped-def]
    """By how much the gas in pores has grown since it came, at constant pressure [m3]: V (T/T0 - 1)."""
    grown = 0.0
    for k in range(1, cells.levels + 1):
        for i in range(t.shape[1]):
            if notes.pores[k, i] > 0.0:
                rest = notes.rest_c[k, i]
                grown += notes.pores[k, i] * (t[k, i] - rest) / (rest + 273.15)
    return grown


@njit(nogil=True, cache=True)
def note_skin(cells, chemistry, step, notes, trace, skin, points, room0_c, room1_c):  # type: ignore[no-untyped-def]
    """Cure every point of the skin through the step; returns the marks still open.

    By the trapezium from an Euler prediction, whose rate is kept for the next step: second order at
    one rate a step.

    points  how many of them are poured
    """
    open_count = 0
    for p in range(points):
        k, b = skin.level[p], skin.beside_level[p]
        resin = cells.resin_of_level[k]
        here, there = skin.cell[p], skin.beside[p]
        own, other = skin.own[p], skin.other[p]
        by_temperature, by_degree = chemistry.by_temperature[resin], chemistry.by_degree[resin]
        sharp, logistic = chemistry.sharpness[resin], chemistry.logistic
        a0, f0 = skin.degree[p], skin.rate[p]
        if f0 < 0.0:
            t0 = room0_c + own * (step.t0[k, here] - room0_c) + other * (step.t0[b, there] - room0_c)
            f0 = cell_rate(a0, t0, by_temperature, by_degree, sharp, logistic)
        t1 = room1_c + own * (step.t1[k, here] - room1_c) + other * (step.t1[b, there] - room1_c)
        f1 = cell_rate(a0 + step.length * f0, t1, by_temperature, by_degree, sharp, logistic)
        a1 = a0 + 0.5 * step.length * (f0 + f1)
        skin.degree[p] = a1
        skin.rate[p] = f1
        mark = skin.reached[p]
        marks = notes.thresholds[cells.pour_of_level[k]]
        while mark < marks.shape[0] and a1 >= marks[mark]:
            skin.crossed_at[mark, p] = step.time + step.length * crossing(
                marks[mark], step.length, a0, f0, a1, f1
            )
            mark += 1
        skin.reached[p] = mark
        open_count += marks.shape[0] - mark
        trace.now_least[k] = min(trace.now_least[k], a1)
    return open_count


@njit(nogil=True, cache=True)
def _fluidity(t, a, by_temperature, by_degree):  # type: ignore[no-untyped-def]
    """1/viscosity [1/(Pa s)] by table; 0 from gel on."""
    place = min(max((t - COLDEST_C) / STEP_K, 0.0), by_temperature.shape[0] - 2.0)
    row = int(place)
    part = place - row
    thin = by_temperature[row, 3] + part * (by_temperature[row + 1, 3] - by_temperature[row, 3])
    place = min(max(a, 0.0), 1.0) * DEGREE_STEPS
    row = int(place)
    part = place - row
    return thin * (by_degree[row, 2] + part * (by_degree[row + 1, 2] - by_degree[row, 2]))


@njit(nogil=True, cache=True)
def note_fluidity(cells, chemistry, step, notes):  # type: ignore[no-untyped-def]
    """Add the step to each level's fluidity integral, at its one probe cell (trapezoid)."""
    for k in range(1, cells.levels + 1):
        resin = cells.resin_of_level[k]
        i = notes.probe[k]
        if resin < 0 or i < 0:
            continue
        by_temperature, by_degree = chemistry.by_temperature[resin], chemistry.by_degree[resin]
        before = _fluidity(step.t0[k, i], step.a0[k, i], by_temperature, by_degree)
        if before <= 0.0:
            continue
        after = _fluidity(step.t1[k, i], step.a1[k, i], by_temperature, by_degree)
        notes.flown[k] += 0.5 * step.length * (before + after)


@njit(nogil=True, cache=True)
def is_due(cells, time, trace):  # type: ignore[no-untyped-def]
    """True if enough has changed since the last row of history."""
    row = trace.made[0] - 1
    if row < 0 or time - trace.at[row] >= trace.gaps[2]:
        return True
    for k in range(1, cells.levels + 1):
        if trace.now_hot[k] < COLDER:
            continue
        if abs(trace.now_hot[k] - trace.hottest[row, k]) > trace.gaps[0]:
            return True
        if abs(trace.now_least[k] - trace.least[row, k]) > trace.gaps[1]:
            return True
    return False


@njit(nogil=True, cache=True)
def _extremes(cells, step, part, k):  # type: ignore[no-untyped-def]
    """Hottest and least cured resin of a level at `part` of the step."""
    hottest, least = -1e9, 2.0
    if cells.resin_of_level[k] < 0:
        return hottest, least
    for i in range(step.t1.shape[1]):
        if cells.exact.heat[k, i] > 0.0:
            hottest = max(hottest, hermite(
                part, step.length, step.t0[k, i], step.ft0[k, i], step.t1[k, i], step.ft1[k, i]))
            least = min(least, hermite(
                part, step.length, step.a0[k, i], step.fa0[k, i], step.a1[k, i], step.fa1[k, i]))
    return hottest, least


@njit(nogil=True, cache=True)
def note_row(cells, step, part, kind, trace):  # type: ignore[no-untyped-def]
    """One more row of history, at `part` of the step; a usual one at its end, of which hottest and least are known."""
    if trace.made[0] == trace.at.shape[0]:
        _thin_out(trace)
    row = trace.made[0]
    trace.at[row] = step.time + part * step.length
    trace.kind[row] = kind
    trace.hottest[row] = np.nan
    trace.least[row] = np.nan
    trace.plane[row] = np.nan
    trace.plane_cure[row] = np.nan
    for k in range(1, cells.levels + 1):
        for i in range(trace.plane.shape[2]):
            at = trace.plane_first + i
            trace.plane[row, k, i] = hermite(
                part, step.length, step.t0[k, at], step.ft0[k, at], step.t1[k, at], step.ft1[k, at])
            trace.plane_cure[row, k, i] = hermite(
                part, step.length, step.a0[k, at], step.fa0[k, at], step.a1[k, at], step.fa1[k, at])
        hottest, least = trace.now_hot[k], 2.0
        if kind != USUAL:
            hottest, least = _extremes(cells, step, part, k)
        if hottest > COLDER:
            trace.hottest[row, k] = hottest
            trace.least[row, k] = min(least, trace.now_least[k])
    trace.made[0] = row + 1


@njit(nogil=True, cache=True)
def _thin_out(trace):  # type: ignore[no-untyped-def]
    """Make room: of the usual rows every other goes; of each pour's hottest moments the last stays."""
    kept = 0
    usual = 0
    for row in range(trace.made[0]):
        kind = trace.kind[row]
        stays = kind == START_OF_POUR
        if kind == USUAL:
            usual += 1
            stays = usual % 2 == 0
        elif kind >= PEAKS_FROM:
            stays = True
            for later in range(row + 1, trace.made[0]):
                if trace.kind[later] == kind:
                    stays = False
        if not stays:
            continue
        if kept < row:
            trace.at[kept] = trace.at[row]
            trace.kind[kept] = kind
            trace.hottest[kept] = trace.hottest[row]
            trace.least[kept] = trace.least[row]
            trace.plane[kept] = trace.plane[row]
            trace.plane_cure[kept] = trace.plane_cure[row]
        kept += 1
    trace.made[0] = kept
    trace.gaps[:2] *= 1.6
