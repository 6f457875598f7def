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
from typing import Any

import numpy as np
from numba import njit
from numpy.typing import NDArray

from .stage import react, stage, warming
from .tables import COLDEST_C, DEGREE_STEPS, STEP_K

MOST_STAGES = 200

Array = NDArray[np.float64]


@njit(nogil=True, cache=True)
def _room_at(time, room_c, room_step):  # type: ignore[no-untyped-def]
    place = time / room_step
    row = min(max(int(place), 0), room_c.shape[0] - 2)
    part = min(max(place - row, 0.0), 1.0)
    return room_c[row] + part * (room_c[row + 1] - room_c[row])


@njit(nogil=True, cache=True)
def _hermite(part, step, y0, f0, y1, f1):  # type: ignore[no-untyped-def]
    """Cubic through both ends with both slopes, at `part` of the step."""
    rest = 1.0 - part
    return (
        y0 * rest * rest * (1.0 + 2.0 * part)
        + y1 * part * part * (1.0 + 2.0 * rest)
        + step * part * rest * (f0 * rest - f1 * part)
    )


@njit(nogil=True, cache=True)
def _crossing(level, step, y0, f0, y1, f1):  # type: ignore[no-untyped-def]
    """Part of the step at which the cubic first reaches a level between y0 and y1."""
    low, high = 0.0, 1.0
    for _ in range(24):
        middle = 0.5 * (low + high)
        if _hermite(middle, step, y0, f0, y1, f1) >= level:
            high = middle
        else:
            low = middle
    return high


@njit(nogil=True, cache=True, fastmath=True)
def _error(levels, step, y0, f0, y1, f1, tolerance):  # type: ignore[no-untyped-def]
    """Largest embedded error estimate over its tolerance (sommeijer1998, eq. 2.9)."""
    worst = 0.0
    for k in range(1, levels + 1):
        a, b, c, d = y0[k], y1[k], f0[k], f1[k]
        level_worst = 0.0
        for i in range(a.shape[0]):
            estimate = abs(0.8 * (a[i] - b[i]) + 0.4 * step * (c[i] + d[i]))
            level_worst = max(level_worst, estimate)
        worst = max(worst, level_worst)
    return worst / tolerance


@njit(nogil=True, cache=True)
def _note_step(  # type: ignore[no-untyped-def]
    levels, time, step, t0, ft0, a0, fa0, t1, ft1, a1, fa1,
    heat, resin_of_level, pour_of_level, thresholds, reached, crossed_at, peak, peak_at,
):
    """Keep each cell's hottest moment and the times at which it passed each degree of cure.

    Returns (thresholds still open in resin cells, hottest resin now).
    """
    open_count = 0
    hottest = -1e9
    for k in range(1, levels + 1):
        if resin_of_level[k] < 0:
            continue
        marks = thresholds[pour_of_level[k]]
        for i in range(t0.shape[1]):
            if heat[k, i] <= 0.0:
                continue
            now = t1[k, i]
            if now > hottest:
                hottest = now
            if now > peak[k, i]:
                peak[k, i] = now
                peak_at[k, i] = time + step
            f0 = ft0[k, i]
            f1 = ft1[k, i]
            if f0 > 0.0 and f1 < 0.0:
                part = f0 / (f0 - f1)
                top = _hermite(part, step, t0[k, i], f0, now, f1)
                if top > peak[k, i]:
                    peak[k, i] = top
                    peak_at[k, i] = time + part * step
            mark = reached[k, i]
            while mark < marks.shape[0] and a1[k, i] >= marks[mark]:
                crossed_at[mark, k, i] = time + step * _crossing(
                    marks[mark], step, a0[k, i], fa0[k, i], a1[k, i], fa1[k, i]
                )
                mark += 1
            reached[k, i] = mark
            open_count += marks.shape[0] - mark
    return open_count, hottest


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
def _note_fluidity(  # type: ignore[no-untyped-def]
    levels, step, t0, a0, t1, a1, probe, resin_of_level, by_temperature, by_degree, flown
):
    """Add the step to each level's fluidity integral, at its one probe cell (trapezoid)."""
    for k in range(1, levels + 1):
        resin = resin_of_level[k]
        i = probe[k]
        if resin < 0 or i < 0:
            continue
        before = _fluidity(t0[k, i], a0[k, i], by_temperature[resin], by_degree[resin])
        if before <= 0.0:
            continue
        after = _fluidity(t1[k, i], a1[k, i], by_temperature[resin], by_degree[resin])
        flown[k] += 0.5 * step * (before + after)


@njit(nogil=True, cache=True)
def _note_history(  # type: ignore[no-untyped-def]
    levels, t, a, heat, resin_of_level, hottest_row, least_row, plane_row, cure_row, plane_first
):
    cells = plane_row.shape[1]
    for k in range(1, levels + 1):
        for i in range(cells):
            plane_row[k, i] = t[k, plane_first + i]
            cure_row[k, i] = a[k, plane_first + i]
    for k in range(1, levels + 1):
        hottest = -1e9
        least = 2.0
        if resin_of_level[k] >= 0:
            for i in range(t.shape[1]):
                if heat[k, i] > 0.0:
                    hottest = max(hottest, t[k, i])
                    least = min(least, a[k, i])
        hottest_row[k] = hottest if hottest > -1e8 else np.nan
        least_row[k] = least if least < 1.5 else np.nan
    for k in range(levels + 1, hottest_row.shape[0]):
        hottest_row[k] = np.nan
        least_row[k] = np.nan


@njit(nogil=True, cache=True)
def advance(  # type: ignore[no-untyped-def]
    t0, a0, width, levels, time, end, first_step, longest_step, stop_below_c,
    tolerance_k, tolerance_degree, spectral_radius,
    gx, gy, gz, ga, inverse, heat, resin_of_level, pour_of_level, thresholds,
    room_c, room_step, by_temperature, by_degree, sharpness, logistic,
    reached, crossed_at, peak, peak_at,
    history_t, history_hot, history_least, history_plane, history_cure, plane_first,
    history_count, history_step,
    probe, flown,
):
    """March from `time` to `end` [s] with `levels` levels of cells in place.

    Ends early once every resin cell has passed every threshold and none is above `stop_below_c`.
    Arrays are those of `CellBox` with each level laid out flat, rows `width` long;
    `t0`, `a0` and the notes are changed in place.

    returns (time reached, heat lost to the room [J], steps taken, steps refused, stages,
             rows of history)
    """
    shape = t0.shape
    rate0, rate1 = np.zeros(shape), np.zeros(shape)
    by_t, by_a = np.zeros(shape, np.float32), np.zeros(shape, np.float32)
    next_by_t, next_by_a = np.zeros(shape, np.float32), np.zeros(shape, np.float32)
    ft0, ft1 = np.zeros(shape), np.zeros(shape)
    t1, a1 = np.zeros(shape), np.zeros(shape)
    first_t, first_a = np.zeros(shape, np.float32), np.zeros(shape, np.float32)
    moved_t = np.zeros((3, *shape), np.float32)
    moved_a = np.zeros((3, *shape), np.float32)
    gx_s, gy_s, gz_s = gx.astype(np.float32), gy.astype(np.float32), gz.astype(np.float32)
    ga_s, inverse_s = ga.astype(np.float32), inverse.astype(np.float32)
    heat_s = heat.astype(np.float32)
    lost_total = 0.0
    steps = 0
    refused = 0
    stages_total = 0
    step = first_step
    react(
        levels, t0, a0, heat, resin_of_level, by_temperature, by_degree, sharpness, logistic,
        rate0, by_t, by_a,
    )
    power0 = warming(
        levels, width, t0, rate0, ft0, gx, gy, gz, ga, inverse, heat, _room_at(time, room_c, room_step)
    )
    while time < end - 1e-6:
        step = min(step, longest_step, end - time)
        s = 1 + int(math.sqrt(1.0 + 1.54 * step * spectral_radius))
        if s < 2:
            s = 2
        if s > MOST_STAGES:
            s = MOST_STAGES
            step = (s * s - 1.0) / (1.54 * spectral_radius)
        # Chebyshev polynomials and their derivatives at w0, and the coefficients of the stages.
        w0 = 1.0 + 2.0 / (13.0 * s * s)
        root = math.sqrt(w0 * w0 - 1.0)
        angle = s * math.log(w0 + root)
        w1 = (
            math.sinh(angle) * (w0 * w0 - 1.0)
            / (math.cosh(angle) * s * root - w0 * math.sinh(angle))
        )
        b_last = 1.0 / (4.0 * w0 * w0)
        b_before = b_last
        mus = w1 * b_last
        z_last, z_before = w0, 1.0
        d_last, d_before = 1.0, 0.0
        e_last, e_before = 0.0, 0.0
        c_last_time = mus
        c_before_time = 0.0
        room0 = _room_at(time, room_c, room_step)
        # the slope at the start is known, and with it the first stage's way from there
        first = np.float32(mus * step)
        for k in range(1, levels + 1):
            for i in range(shape[1]):
                first_t[k, i] = ft0[k, i]
                first_a[k, i] = rate0[k, i]
                moved_t[0, k, i] = 0.0
                moved_a[0, k, i] = 0.0
                moved_t[1, k, i] = first * first_t[k, i]
                moved_a[1, k, i] = first * first_a[k, i]
        lost_before, lost_last = 0.0, mus * step * power0
        before, last, new = 0, 1, 2
        for _later in range(2, s + 1):
            z = 2.0 * w0 * z_last - z_before
            d = 2.0 * w0 * d_last - d_before + 2.0 * z_last
            e = 2.0 * w0 * e_last - e_before + 4.0 * d_last
            b = e / (d * d)
            shift = 1.0 - z_last * b_last
            mu = 2.0 * w0 * b / b_last
            nu = -b / b_before
            mus = mu * w1 / w0
            gamma = -shift * mus
            warmer = _room_at(time + c_last_time * step, room_c, room_step) - room0
            power = power0 + stage(
                levels, width, np.float32(mu), np.float32(nu), np.float32(mus * step),
                np.float32((mus + gamma) * step),
                moved_t[last], moved_a[last], moved_t[before], moved_a[before], first_t, first_a,
                moved_t[new], moved_a[new],
                gx_s, gy_s, gz_s, ga_s, inverse_s, heat_s, np.float32(warmer), by_t, by_a,
            )
            lost = mu * lost_last + nu * lost_before + mus * step * power + gamma * step * power0
            c = mu * c_last_time + nu * c_before_time + mus + gamma
            lost_before, lost_last = lost_last, lost
            c_before_time, c_last_time = c_last_time, c
            before, last, new = last, new, before
            b_before, b_last = b_last, b
            z_before, z_last = z_last, z
            d_before, d_last = d_last, d
            e_before, e_last = e_last, e
        for k in range(1, levels + 1):
            for i in range(shape[1]):
                t1[k, i] = t0[k, i] + moved_t[last, k, i]
                a1[k, i] = a0[k, i] + moved_a[last, k, i]
        stages_total += s
        react(
            levels, t1, a1, heat, resin_of_level, by_temperature, by_degree, sharpness,
            logistic, rate1, next_by_t, next_by_a,
        )
        power1 = warming(
            levels, width, t1, rate1, ft1, gx, gy, gz, ga, inverse, heat,
            _room_at(time + step, room_c, room_step),
        )
        error = max(
            _error(levels, step, t0, ft0, t1, ft1, tolerance_k),
            _error(levels, step, a0, rate0, a1, rate1, tolerance_degree),
        )
        if error > 1.0 and step > 1e-3:
            refused += 1
            step *= max(0.2, 0.8 * error ** (-1.0 / 3.0))
            continue
        steps += 1
        lost_total += lost_last
        open_count, hottest = _note_step(
            levels, time, step, t0, ft0, a0, rate0, t1, ft1, a1, rate1,
            heat, resin_of_level, pour_of_level, thresholds, reached, crossed_at, peak, peak_at,
        )
        _note_fluidity(
            levels, step, t0, a0, t1, a1, probe, resin_of_level, by_temperature, by_degree,
            flown,
        )
        time += step
        for k in range(1, levels + 1):
            t0[k] = t1[k]
            a0[k] = a1[k]
        ft0, ft1 = ft1, ft0
        rate0, rate1 = rate1, rate0
        by_t, next_by_t = next_by_t, by_t
        by_a, next_by_a = next_by_a, by_a
        power0 = power1
        if (
            history_count < history_t.shape[0]
            and time - history_t[history_count - 1] >= history_step
        ):
            history_t[history_count] = time
            _note_history(
                levels, t0, a0, heat, resin_of_level,
                history_hot[history_count], history_least[history_count],
                history_plane[history_count], history_cure[history_count],
                plane_first,
            )
            history_count += 1
        if open_count == 0 and hottest < stop_below_c:
            break
        step *= min(4.0, 0.8 * max(error, 1e-6) ** (-1.0 / 3.0))
    return time, lost_total, steps, refused, stages_total, history_count


def spectral_radius(box: Any, levels: int) -> float:
    """Bound of Gershgorin on the fastest rate at which a cell exchanges heat [1/s]."""
    gx, gy, gz, ga = (array[: levels + 2] for array in (box.gx, box.gy, box.gz, box.ga))
    total = ga + gx + gy + gz
    total[:, :, 1:] += gx[:, :, :-1]
    total[:, 1:, :] += gy[:, :-1, :]
    total[1:] += gz[:-1]
    return float(1.05 * np.max(2.0 * total * box.inverse[: levels + 2])) + 1e-6
