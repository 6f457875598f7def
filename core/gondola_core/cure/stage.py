"""The right-hand side of the march: one cell's rate, its tangent, and one stage of the method.

Small typed kernels; `core/tests/reference_march.py` is their plain twin.
"""

from __future__ import annotations

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
    rest, by_t, by_a,
):
    """The rate of every resin cell as rest + by_t*T + by_a*a, its tangent at (T, a).

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
            rest[k, i] = speed * free - slope_t * here - slope_a * cure


@njit(nogil=True, cache=True, fastmath=True)
def stage(  # type: ignore[no-untyped-def]
    levels, width, c_start, c_last, c_before, c_slope, c_first,
    start_t, start_a, last_t, last_a, before_t, before_a, first_t, first_a,
    out_t, out_a, flow, rate,
    gx, gy, gz, ga, inverse, heat, resin_of_level, ambient, rest, by_t, by_a,
):
    """out = c_start*start + c_last*last + c_before*before + c_slope*F(last) + c_first*first.

    Returns the power lost to the room at `last` [W]. Arrays are (levels+2, cells of a level with
    its rim of ghosts); a row is `width` long. Each loop touches few arrays, so that it can be
    proved free of overlap and runs in vectors.
    """
    lost = 0.0
    p = width + 1
    n = last_t.shape[1] - 2 * p
    for k in range(1, levels + 1):
        line = last_t[k]
        here = line[p : p + n]
        right, left = line[p + 1 : p + 1 + n], line[p - 1 : p - 1 + n]
        back, front = line[p + width : p + width + n], line[p - width : p - width + n]
        above, below = last_t[k + 1, p : p + n], last_t[k - 1, p : p + n]
        g_right, g_left = gx[k, p : p + n], gx[k, p - 1 : p - 1 + n]
        g_back, g_front = gy[k, p : p + n], gy[k, p - width : p - width + n]
        g_above, g_below = gz[k, p : p + n], gz[k - 1, p : p + n]
        g_room = ga[k, p : p + n]
        turn = inverse[k, p : p + n]
        for i in range(n):
            flow[i] = g_right[i] * (right[i] - here[i]) + g_left[i] * (left[i] - here[i])
        for i in range(n):
            flow[i] += g_back[i] * (back[i] - here[i]) + g_front[i] * (front[i] - here[i])
        for i in range(n):
            flow[i] += g_above[i] * (above[i] - here[i]) + g_below[i] * (below[i] - here[i])
        level_lost = 0.0
        for i in range(n):
            away = g_room[i] * (here[i] - ambient)
            level_lost += away
            flow[i] -= away
        lost += level_lost
        if resin_of_level[k] >= 0:
            cure = last_a[k, p : p + n]
            r, r_t, r_a = rest[k, p : p + n], by_t[k, p : p + n], by_a[k, p : p + n]
            q = heat[k, p : p + n]
            for i in range(n):
                rate[i] = r[i] + r_t[i] * here[i] + r_a[i] * cure[i]
            for i in range(n):
                flow[i] += q[i] * rate[i]
            s_a, b_a = start_a[k, p : p + n], before_a[k, p : p + n]
            f_a, o_a = first_a[k, p : p + n], out_a[k, p : p + n]
            for i in range(n):
                rate[i] = c_slope * rate[i] + c_last * cure[i] + c_before * b_a[i]
            for i in range(n):
                o_a[i] = rate[i] + c_start * s_a[i] + c_first * f_a[i]
        s_t, b_t = start_t[k, p : p + n], before_t[k, p : p + n]
        f_t, o_t = first_t[k, p : p + n], out_t[k, p : p + n]
        for i in range(n):
            flow[i] = c_slope * flow[i] * turn[i] + c_last * here[i] + c_before * b_t[i]
        for i in range(n):
            o_t[i] = flow[i] + c_start * s_t[i] + c_first * f_t[i]
    return lost
