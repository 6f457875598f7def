"""The right-hand side of the march: conduction in full, and one stage of the method on its tangent.

Small typed kernels; `core/tests/reference_march.py` is their plain twin.
"""

from __future__ import annotations

import numpy as np
from numba import njit


@njit(nogil=True, cache=True, inline="always")
def _lost(g_room, here, ambient, nothing):  # type: ignore[no-untyped-def]
    """Sum of g (T - ambient) over a level [W], in eight sums side by side, always in the same order.

    nothing  zero of the precision to sum in
    """
    s0, s1, s2, s3, s4, s5, s6, s7 = (nothing, nothing, nothing, nothing, nothing, nothing, nothing, nothing)
    whole = g_room.shape[0] - g_room.shape[0] % 8
    for i in range(0, whole, 8):
        s0 += g_room[i] * (here[i] - ambient)
        s1 += g_room[i + 1] * (here[i + 1] - ambient)
        s2 += g_room[i + 2] * (here[i + 2] - ambient)
        s3 += g_room[i + 3] * (here[i + 3] - ambient)
        s4 += g_room[i + 4] * (here[i + 4] - ambient)
        s5 += g_room[i + 5] * (here[i + 5] - ambient)
        s6 += g_room[i + 6] * (here[i + 6] - ambient)
        s7 += g_room[i + 7] * (here[i + 7] - ambient)
    for i in range(whole, g_room.shape[0]):
        s0 += g_room[i] * (here[i] - ambient)
    return ((s0 + s4) + (s1 + s5)) + ((s2 + s6) + (s3 + s7))


@njit(nogil=True, cache=True)
def warming(cells, t, rate, out, ambient):  # type: ignore[no-untyped-def]
    """out = dT/dt of every cell [K/s], in double precision. Returns the power lost to the room [W]."""
    gx, gy, gz, ga, inverse, heat = cells.exact
    width = cells.width
    lost = 0.0
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
        lost += _lost(g_room, here, ambient, 0.0)
    return lost


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
    last_t, last_a, before_t, before_a = moved_t[last], moved_a[last], moved_t[before], moved_a[before]
    out_t, out_a = moved_t[new], moved_a[new]
    width = cells.width
    lost = 0.0
    p = width + 1
    n = last_t.shape[1] - 2 * p
    for k in range(1, cells.levels + 1):
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
        lost += float(_lost(g_room, here, warmer, np.float32(0.0)))
    return lost
