"""The right-hand side of the march: conduction in full, and one stage of the method on its tangent.

Small typed kernels; `core/tests/reference_march.py` is their plain twin.
"""

from __future__ import annotations

import numpy as np
from numba import njit


@njit(nogil=True, cache=True)
def _lost(levels, g_room, t, ambient):  # type: ignore[no-untyped-def]
    """Sum of g (T - ambient) over the levels [W], in the precision of `t` place by place, then in double.

    Place by place it is the same on every machine, however many of them the machine takes at a time.
    """
    at_place = np.zeros(t.shape[1], t.dtype)
    for k in range(1, levels + 1):
        g, here = g_room[k], t[k]
        for i in range(at_place.shape[0]):
            at_place[i] += g[i] * (here[i] - ambient)
    lost = 0.0
    for i in range(at_place.shape[0]):
        lost += at_place[i]
    return lost


@njit(nogil=True, cache=True)
def warming(cells, t, rate, out, ambient):  # type: ignore[no-untyped-def]
    """out = dT/dt of every cell [K/s], in double precision. Returns the power lost to the room [W]."""
    gx, gy, gz, ga, inverse, heat = cells.exact
    width = cells.width
    p = width + 1
    n = t.shape[1] - 2 * p
    for k in range(1, cells.levels + 1):
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
            o[i] = per_joule[i] * (
                g_right[i] * (right[i] - here[i]) + g_left[i] * (left[i] - here[i])
                + g_back[i] * (back[i] - here[i]) + g_front[i] * (front[i] - here[i])
                + g_above[i] * (above[i] - here[i]) + g_below[i] * (below[i] - here[i])
                + q[i] * r[i] - g_room[i] * (here[i] - ambient)
            )
    return _lost(cells.levels, ga, t, ambient)


@njit(nogil=True, cache=True)
def stage(  # type: ignore[no-untyped-def]
    cells, weights, moved_t, moved_a, last, before, new, first_t, first_a, by_t, by_a, warmer
):
    """out = c_last*last + c_before*before + c_slope*J(last) + c_first*first, in single precision.

    `last` and `before` are deviations from the start of the step, so that single precision costs
    a ten-millionth of what changes within a step, and no more; `first` is the slope there. J is
    the tangent there: conduction, loss to a room that has become `warmer` [K] since, and the
    slopes of the rate of cure. Returns by how much the power lost to the room has grown [W].

    weights   (c_last, c_before, c_slope, c_first)
    moved_t, moved_a   (3, ...) three buffers, of which `last`, `before` and `new` say which is which
    """
    gx, gy, gz, ga, inverse, heat = cells.quick
    c_last, c_before, c_slope, c_first = weights
    width, level = cells.width, first_t.shape[1]
    p = level + width + 1
    n = cells.levels * level - 2 * (width + 1)
    last_t, last_a = moved_t[last].reshape(-1), moved_a[last].reshape(-1)
    here, cure = last_t[p : p + n], last_a[p : p + n]
    right, left = last_t[p + 1 : p + 1 + n], last_t[p - 1 : p - 1 + n]
    back, front = last_t[p + width : p + width + n], last_t[p - width : p - width + n]
    above, below = last_t[p + level : p + level + n], last_t[p - level : p - level + n]
    g_x, g_y, g_z = gx.reshape(-1), gy.reshape(-1), gz.reshape(-1)
    g_right, g_left = g_x[p : p + n], g_x[p - 1 : p - 1 + n]
    g_back, g_front = g_y[p : p + n], g_y[p - width : p - width + n]
    g_above, g_below = g_z[p : p + n], g_z[p - level : p - level + n]
    g_room, per_joule, q = ga.reshape(-1)[p : p + n], inverse.reshape(-1)[p : p + n], heat.reshape(-1)[p : p + n]
    r_t, r_a = by_t.reshape(-1)[p : p + n], by_a.reshape(-1)[p : p + n]
    f_t, f_a = first_t.reshape(-1)[p : p + n], first_a.reshape(-1)[p : p + n]
    b_t, b_a = moved_t[before].reshape(-1)[p : p + n], moved_a[before].reshape(-1)[p : p + n]
    o_t, o_a = moved_t[new].reshape(-1)[p : p + n], moved_a[new].reshape(-1)[p : p + n]
    for i in range(n):
        rate = r_t[i] * here[i] + r_a[i] * cure[i]
        flow = (
            g_right[i] * (right[i] - here[i]) + g_left[i] * (left[i] - here[i])
            + g_back[i] * (back[i] - here[i]) + g_front[i] * (front[i] - here[i])
            + g_above[i] * (above[i] - here[i]) + g_below[i] * (below[i] - here[i])
            + q[i] * rate - g_room[i] * (here[i] - warmer)
        )
        o_t[i] = c_slope * per_joule[i] * flow + c_last * here[i] + c_before * b_t[i] + c_first * f_t[i]
        o_a[i] = c_slope * rate + c_last * cure[i] + c_before * b_a[i] + c_first * f_a[i]
    return _lost(cells.levels, ga, moved_t[last], warmer)
