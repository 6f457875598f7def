"""The rate of cure in the kernels: from tables, with its slopes.

`core/tests/reference_march.py` is the plain twin.
"""

from __future__ import annotations

from numba import njit

from .tables import COLDEST_C, DEGREE_STEPS, LOGISTIC_REACH, LOGISTIC_STEPS, STEP_K

WHOLE = 1.0 - 5e-5
"""Degree of cure from which a cell counts as cured: what is left would only make it stiff. Source: own_march"""
_ROWS_PER_K = 1.0 / STEP_K
_LOGISTIC_PER_UNIT = LOGISTIC_STEPS / (2.0 * LOGISTIC_REACH)


@njit(nogil=True, cache=True, inline="always")
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


@njit(nogil=True, cache=True)
def react(cells, chemistry, t, a, rate, by_t, by_a):  # type: ignore[no-untyped-def]
    """The rate of every resin cell and its slopes by T and by a at (T, a). Returns the fastest decay of a cure [1/s].

    The slopes are those of the tables themselves, so they cost no second look-up. A step that
    runs on the tangent is off by the square of what changes within it, which keeps the method's
    second order; the error estimate sees it, since the slope at the end is the law's own.
    """
    heat, logistic = cells.exact.heat, chemistry.logistic
    fastest = 0.0
    for k in range(1, cells.levels + 1):
        resin = cells.resin_of_level[k]
        if resin < 0:
            continue
        table_t = chemistry.by_temperature[resin]
        table_a = chemistry.by_degree[resin]
        sharp = chemistry.sharpness[resin]
        most = table_t.shape[0] - 2.0
        for i in range(t.shape[1]):
            if heat[k, i] <= 0.0:
                continue
            here, cure = t[k, i], a[k, i]
            if cure >= WHOLE:
                rate[k, i] = by_t[k, i] = by_a[k, i] = 0.0
                continue
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
            fastest = max(fastest, -slope_a)
    return fastest
