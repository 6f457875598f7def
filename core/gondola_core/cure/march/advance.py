"""The march: heat and cure through time on a box of cells, with error control.

Method: second-order Runge-Kutta-Chebyshev (sommeijer1998). It is explicit, its stages stretch
along the real axis so that stiff conduction costs only the square root of the step, and its
embedded estimate holds the error of temperature and degree of cure alike. A step's stages are
marched as deviations from its start, along the tangent there, in single precision; the state, its
slopes and their errors are kept in double. Heat lost to the room is carried as one more unknown, so
the balance of energy closes to the single precision of what a step changes.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np
from numba import njit

from .blocks import Array, Step
from .chemistry import react
from .notes import PEAKS_FROM, USUAL, is_due, note_cells, note_fluidity, note_row, note_skin
from .stage import stage, warming

MOST_STAGES = 200
STRETCH = 1.54
"""A step of h is stable with s stages where h times the spectral radius is under (s^2 - 1)/1.54. Source:
sommeijer1998"""


class Tally(NamedTuple):
    """What a stretch of the march cost: time reached [s], heat lost [J], steps, refused ones, stages."""

    time: float
    lost: float
    steps: int
    refused: int
    stages: int


class Slopes(NamedTuple):
    """Slopes at one end of a step, and the rate's own slopes by T and by a (single precision)."""

    t: Array
    a: Array
    by_t: Array
    by_a: Array


class Moved(NamedTuple):
    """Deviations within a step: three buffers each, and the slope at its start, single precision."""

    t: Array
    a: Array
    first_t: Array
    first_a: Array


@njit(nogil=True, cache=True)
def room_at(time, room):  # type: ignore[no-untyped-def]
    """The room at a moment [degrees C]."""
    place = time / room.step
    row = min(max(int(place), 0), room.temperature_c.shape[0] - 2)
    part = min(max(place - row, 0.0), 1.0)
    return room.temperature_c[row] + part * (room.temperature_c[row + 1] - room.temperature_c[row])


@njit(nogil=True, cache=True)
def _error(levels, step, y0, f0, y1, f1, tolerance):  # type: ignore[no-untyped-def]
    """Largest embedded error estimate over its tolerance (sommeijer1998, eq. 2.9)."""
    worst = np.zeros(y0.shape[1])
    for k in range(1, levels + 1):
        a, b, c, d = y0[k], y1[k], f0[k], f1[k]
        for i in range(worst.shape[0]):
            estimate = abs(0.8 * (a[i] - b[i]) + 0.4 * step * (c[i] + d[i]))
            worst[i] = estimate if estimate > worst[i] else worst[i]
    return worst.max() / tolerance


@njit(nogil=True, cache=True)
def _stages_for(step, radius):  # type: ignore[no-untyped-def]
    """How many stages a step needs to be stable, and the step if that many are too many."""
    count = max(2, 1 + int(math.sqrt(1.0 + STRETCH * step * radius)))
    if count > MOST_STAGES:
        count = MOST_STAGES
        step = (count * count - 1.0) / (STRETCH * radius)
    return count, step


@njit(nogil=True, cache=True)
def _begin(cells, moved, slopes, first):  # type: ignore[no-untyped-def]
    """The first stage: along the slope at the start, which is known."""
    for k in range(1, cells.levels + 1):
        for i in range(slopes.t.shape[1]):
            moved.first_t[k, i] = slopes.t[k, i]
            moved.first_a[k, i] = slopes.a[k, i]
            moved.t[0, k, i] = 0.0
            moved.a[0, k, i] = 0.0
            moved.t[1, k, i] = first * moved.first_t[k, i]
            moved.a[1, k, i] = first * moved.first_a[k, i]


@njit(nogil=True, cache=True)
def _stages(cells, room, moved, slopes, time, step, count, power0):  # type: ignore[no-untyped-def]
    """All stages of one step, by the recurrence of Chebyshev polynomials.

    Returns (buffer that holds the end, heat lost to the room [J]).
    """
    w0 = 1.0 + 2.0 / (13.0 * count * count)
    root = math.sqrt(w0 * w0 - 1.0)
    angle = count * math.log(w0 + root)
    w1 = (
        math.sinh(angle) * (w0 * w0 - 1.0)
        / (math.cosh(angle) * count * root - w0 * math.sinh(angle))
    )
    b_last = 1.0 / (4.0 * w0 * w0)
    b_before = b_last
    mus = w1 * b_last
    z_last, z_before = w0, 1.0
    d_last, d_before = 1.0, 0.0
    e_last, e_before = 0.0, 0.0
    c_last, c_before = mus, 0.0
    room0 = room_at(time, room)
    _begin(cells, moved, slopes, np.float32(mus * step))
    lost_before, lost_last = 0.0, mus * step * power0
    before, last, new = 0, 1, 2
    for _later in range(2, count + 1):
        z = 2.0 * w0 * z_last - z_before
        d = 2.0 * w0 * d_last - d_before + 2.0 * z_last
        e = 2.0 * w0 * e_last - e_before + 4.0 * d_last
        b = e / (d * d)
        shift = 1.0 - z_last * b_last
        mu = 2.0 * w0 * b / b_last
        nu = -b / b_before
        mus = mu * w1 / w0
        gamma = -shift * mus
        warmer = room_at(time + c_last * step, room) - room0
        weights = (np.float32(mu), np.float32(nu), np.float32(mus * step), np.float32((mus + gamma) * step))
        power = power0 + stage(
            cells, weights, moved.t, moved.a, last, before, new, moved.first_t, moved.first_a,
            slopes.by_t, slopes.by_a, np.float32(warmer),
        )
        lost = mu * lost_last + nu * lost_before + mus * step * power + gamma * step * power0
        c = mu * c_last + nu * c_before + mus + gamma
        lost_before, lost_last = lost_last, lost
        c_before, c_last = c_last, c
        before, last, new = last, new, before
        b_before, b_last = b_last, b
        z_before, z_last = z_last, z
        d_before, d_last = d_last, d
        e_before, e_last = e_last, e
    return last, lost_last


@njit(nogil=True, cache=True)
def _slopes_at(cells, chemistry, t, a, slopes, ambient):  # type: ignore[no-untyped-def]
    """Fill the slopes at a state; returns the power lost to the room [W], and the fastest decay of a cure [1/s]."""
    fastest = react(cells, chemistry, t, a, slopes.a, slopes.by_t, slopes.by_a)
    return warming(cells, t, slopes.a, slopes.t, ambient), fastest


@njit(nogil=True, cache=True)
def _blank_slopes(shape):  # type: ignore[no-untyped-def]
    return Slopes(
        np.zeros(shape), np.zeros(shape), np.zeros(shape, np.float32), np.zeros(shape, np.float32)
    )


@njit(nogil=True, cache=True)
def advance(cells, chemistry, room, control, state, notes, trace, skin, points, time, end):  # type: ignore[no-untyped-def]
    """March from `time` to `end` [s]; see `blocks` for what is given.

    state    (temperature, degree of cure), changed in place, as are notes, trace and skin
    points   how many points of the skin are poured

    Ends early once everything has passed every mark and no resin is above `stop_below_c`, or when the stages
    it may take are used up.
    Returns a `Tally`.
    """
    t0, a0 = state
    shape = t0.shape
    now, then = _blank_slopes(shape), _blank_slopes(shape)
    t1, a1 = np.zeros(shape), np.zeros(shape)
    moved = Moved(
        np.zeros((3, *shape), np.float32), np.zeros((3, *shape), np.float32),
        np.zeros(shape, np.float32), np.zeros(shape, np.float32),
    )
    lost_total, steps, refused, stages = 0.0, 0, 0, 0
    length = 30.0
    power, fastest = _slopes_at(cells, chemistry, t0, a0, now, room_at(time, room))
    while time < end - 1e-6:
        if stages + control.step_stages * (steps + refused) > control.most_stages:
            break
        length = min(length, control.longest_step, end - time)
        count, length = _stages_for(length, control.spectral_radius + fastest)
        last, lost = _stages(cells, room, moved, now, time, length, count, power)
        for k in range(1, cells.levels + 1):
            for i in range(shape[1]):
                t1[k, i] = t0[k, i] + moved.t[last, k, i]
                a1[k, i] = min(a0[k, i] + moved.a[last, k, i], 1.0)
        stages += count
        power_then, fastest_then = _slopes_at(cells, chemistry, t1, a1, then, room_at(time + length, room))
        error = max(
            _error(cells.levels, length, t0, now.t, t1, then.t, control.tolerance_k),
            _error(cells.levels, length, a0, now.a, a1, then.a, control.tolerance_degree),
        )
        if error > 1.0 and length > 1e-3:
            refused += 1
            length *= max(0.2, 0.8 * error ** (-1.0 / 3.0))
            continue
        steps += 1
        lost_total += lost
        made = Step(time, length, t0, now.t, a0, now.a, t1, then.t, a1, then.a)
        open_count, hottest, peaked, part = note_cells(cells, made, notes, trace)
        open_count += note_skin(
            cells, chemistry, made, notes, trace, skin, points, room_at(time, room),
            room_at(time + length, room),
        )
        if peaked >= 0:
            note_row(cells, made, part, PEAKS_FROM + peaked, trace)
        note_fluidity(cells, chemistry, made, notes)
        time += length
        done = open_count == 0 and hottest < control.stop_below_c
        if is_due(cells, time, trace) or done or time >= end - 1e-6:
            note_row(cells, made, 1.0, USUAL, trace)
        for k in range(1, cells.levels + 1):
            t0[k] = t1[k]
            a0[k] = a1[k]
        now, then = then, now
        power, fastest = power_then, fastest_then
        control.signal[1] = time
        if done or control.signal[0] != 0.0:
            break
        length *= min(4.0, 0.8 * max(error, 1e-6) ** (-1.0 / 3.0))
    return Tally(time, lost_total, steps, refused, stages)


def spectral_radius(cells) -> float:  # type: ignore[no-untyped-def]
    """Bound of Gershgorin on the fastest rate at which a cell exchanges heat [1/s]."""
    gx, gy, gz, ga, inverse, _ = (array[: cells.levels + 2] for array in cells.exact)
    total = ga + gx + gy + gz
    total[:, 1:] += gx[:, :-1]
    total[:, cells.width :] += gy[:, : -cells.width]
    total[1:] += gz[:-1]
    return float(1.05 * np.max(2.0 * total * inverse)) + 1e-6
