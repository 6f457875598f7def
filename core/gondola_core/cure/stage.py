"""The right-hand side of the march: one cell's rate, its tangent, and one stage of the method.

Small typed kernels; `core/tests/reference_march.py` is their plain twin.
"""

from __future__ import annotations

import numpy as np
from numba import njit

from .tables import (
    COLDEST_C,
    DEGREE_STEPS,
    LOGISTIC_REACH,
    LOGISTIC_STEPS,
    STEP_K,
)

_ROWS_PER_K = 1.0 / STEP_K
_LOGISTIC_PER_UNIT = LOGISTIC_STEPS / (2.0 * LOGISTIC_REACH)


@njit(nogil=True, cache=True, fastmath=True, inline="always")
def cell_rate(cure, temperature, by_temperature, by_degree, sharpness, logistic):  # type: ignore[no-untyped-def]
    """One cell's rate of cure [1/s] from the tables; the law is `kinetics.cure_rate`."""
    place = (temperature - COLDEST_C) * _ROWS_PER_K
    place = min(max(place, 0.0), by_temperature.shape[0] - 2.0)
    row = int(place)
    part = place - row
    k1 = by_temperature[row, 0] + part * (by_temperature[row + 1, 0] - by_temperature[row, 0])
    k2 = by_temperature[row, 1] + part * (by_temperature[row + 1, 1] - by_temperature[row, 1])
    stop = by_temperature[row, 2] + part * (by_temperature[row + 1, 2] - by_temperature[row, 2])
    place = min(max(cure, 0.0), 1.0) * DEGREE_STEPS
    row = int(place)
    part = place - row
    grown = by_degree[row, 0] + part * (by_degree[row + 1, 0] - by_degree[row, 0])
    left = by_degree[row, 1] + part * (by_degree[row + 1, 1] - by_degree[row, 1])
    place = (cure * sharpness - stop + LOGISTIC_REACH) * _LOGISTIC_PER_UNIT
    place = min(max(place, 0.0), LOGISTIC_STEPS * 1.0)
    row = int(place)
    diffusion = logistic[row] + (place - row) * (logistic[row + 1] - logistic[row])
    return (k1 * left + k2 * grown) * diffusion


@njit(nogil=True, cache=True, fastmath=True)
def react(  # type: ignore[no-untyped-def]
    levels, t, a, heat, resin_of_level, by_temperature, by_degree, sharpness, logistic,
    rate, by_t, by_a,
):
    """The rate of every resin cell and its slopes by T and by a at (T, a).

    The slopes are those of the tables themselves, so they cost no second look-up. A step that
    runs on the tangent is off by the square of what changes within it, which keeps the method's
    second order; the error estimate sees it, since the slope at the end is the law's own.
    """
    for k in range(1, levels + 1):
        resin = resin_of_level[k]
        if resin < 0:
            continue
        table_t = by_temperature[resin]
        table_a = by_degree[resin]
        sharp = sharpness[resin]
        most = table_t.shape[0] - 2.0
        for i in range(t.shape[1]):
            if heat[k, i] <= 0.0:
                continue
            here, cure = t[k, i], a[k, i]
            place = min(max((here - COLDEST_C) * _ROWS_PER_K, 0.0), most)
            row = int(place)
            part = place - row
            k1_s = table_t[row + 1, 0] - table_t[row, 0]
            k2_s = table_t[row + 1, 1] - table_t[row, 1]
            stop_s = table_t[row + 1, 2] - table_t[row, 2]
            k1 = table_t[row, 0] + part * k1_s
            k2 = table_t[row, 1] + part * k2_s
            stop = table_t[row, 2] + part * stop_s
            place = min(max(cure, 0.0), 1.0) * DEGREE_STEPS
            row = int(place)
            part = place - row
            grown_s = table_a[row + 1, 0] - table_a[row, 0]
            left_s = table_a[row + 1, 1] - table_a[row, 1]
            grown = table_a[row, 0] + part * grown_s
            left = table_a[row, 1] + part * left_s
            place = (cure * sharp - stop + LOGISTIC_REACH) * _LOGISTIC_PER_UNIT
            place = min(max(place, 0.0), LOGISTIC_STEPS * 1.0)
            row = int(place)
            fall = logistic[row + 1] - logistic[row]
            free = logistic[row] + (place - row) * fall
            fall *= _LOGISTIC_PER_UNIT
            speed = k1 * left + k2 * grown
            slope_t = _ROWS_PER_K * ((k1_s * left + k2_s * grown) * free - speed * fall * stop_s)
            slope_a = (k1 * left_s + k2 * grown_s) * DEGREE_STEPS * free + speed * fall * sharp
            by_t[k, i] = slope_t
            by_a[k, i] = slope_a
            rate[k, i] = speed * free


@njit(nogil=True, cache=True, fastmath=True)
def warming(  # type: ignore[no-untyped-def]
    levels, width, t, rate, out, gx, gy, gz, ga, inverse, heat, ambient
):
    """out = dT/dt of every cell [K/s], in double precision. Returns the power lost to the room [W].

    Arrays are (levels+2, cells of a level with its rim of ghosts); a row is `width` long.
    """
    lost = 0.0
    p = width + 1
    n = t.shape[1] - 2 * p
    for k in range(1, levels + 1):
        here = t[k, p : p + n]
        right, left = t[k, p + 1 : p + 1 + n], t[k, p - 1 : p - 1 + n]
        back, front = t[k, p + width : p + width + n], t[k, p - width : p - width + n]
        above, below = t[k + 1, p : p + n], t[k - 1, p : p + n]
        g_right, g_left = gx[k, p : p + n], gx[k, p - 1 : p - 1 + n]
        g_back, g_front = gy[k, p : p + n], gy[k, p - width : p - width + n]
        g_above, g_below = gz[k, p : p + n], gz[k - 1, p : p + n]
        g_room, per_joule = ga[k, p : p + n], inverse[k, p : p + n]
        q, r, o = heat[k, p : p + n], rate[k, p : p + n], out[k, p : p + n]
        for i in range(n):
            away = g_room[i] * (here[i] - ambient)
            lost += away
            o[i] = per_joule[i] * (
                g_right[i] * (right[i] - here[i]) + g_left[i] * (left[i] - here[i])
                + g_back[i] * (back[i] - here[i]) + g_front[i] * (front[i] - here[i])
                + g_above[i] * (above[i] - here[i]) + g_below[i] * (below[i] - here[i])
                + q[i] * r[i] - away
            )
    return lost


@njit(nogil=True, cache=True, fastmath=True)
def stage(  # type: ignore[no-untyped-def]
    levels, width, c_last, c_before, c_slope, c_first,
    last_t, last_a, before_t, before_a, first_t, first_a, out_t, out_a,
    gx, gy, gz, ga, inverse, heat, warmer, by_t, by_a,
):
    """out = c_last*last + c_before*before + c_slope*J(last) + c_first*first, in single precision.

    `last` and `before` are deviations from the start of the step, so that single precision costs
    a ten-millionth of what changes within a step, and no more; `first` is the slope there. J is
    the tangent there: conduction, loss to a room that has become `warmer` [K] since, and the
    slopes of the rate of cure. Returns by how much the power lost to the room has grown [W].
    """
    lost = 0.0
    p = width + 1
    n = last_t.shape[1] - 2 * p
    for k in range(1, levels + 1):
        here, cure = last_t[k, p : p + n], last_a[k, p : p + n]
        right, left = last_t[k, p + 1 : p + 1 + n], last_t[k, p - 1 : p - 1 + n]
        back, front = last_t[k, p + width : p + width + n], last_t[k, p - width : p - width + n]
        above, below = last_t[k + 1, p : p + n], last_t[k - 1, p : p + n]
        g_right, g_left = gx[k, p : p + n], gx[k, p - 1 : p - 1 + n]
        g_back, g_front = gy[k, p : p + n], gy[k, p - width : p - width + n]
        g_above, g_below = gz[k, p : p + n], gz[k - 1, p : p + n]
        g_room, per_joule, q = ga[k, p : p + n], inverse[k, p : p + n], heat[k, p : p + n]
        r_t, r_a = by_t[k, p : p + n], by_a[k, p : p + n]
        b_t, f_t, o_t = before_t[k, p : p + n], first_t[k, p : p + n], out_t[k, p : p + n]
        b_a, f_a, o_a = before_a[k, p : p + n], first_a[k, p : p + n], out_a[k, p : p + n]
        level_lost = np.float32(0.0)
        for i in range(n):
            away = g_room[i] * (here[i] - warmer)
            level_lost += away
            rate = r_t[i] * here[i] + r_a[i] * cure[i]
            flow = (
                g_right[i] * (right[i] - here[i]) + g_left[i] * (left[i] - here[i])
                + g_back[i] * (back[i] - here[i]) + g_front[i] * (front[i] - here[i])
                + g_above[i] * (above[i] - here[i]) + g_below[i] * (below[i] - here[i])
                + q[i] * rate - away
            )
            o_t[i] = c_slope * per_joule[i] * flow + c_last * here[i] + c_before * b_t[i] + c_first * f_t[i]
            o_a[i] = c_slope * rate + c_last * cure[i] + c_before * b_a[i] + c_first * f_a[i]
        lost += float(level_lost)
    return lost
