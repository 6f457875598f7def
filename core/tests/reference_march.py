"""A plain NumPy and SciPy twin of the march: same cells, no tables, a stiff solver.

Slow and simple on purpose; tests and benchmarks hold the fast march against it.
"""

from __future__ import annotations

from functools import partial

import numpy as np
from scipy.integrate import solve_ivp
from scipy.sparse import coo_matrix, diags, lil_matrix

from gondola_core.cure.box import cell_box
from gondola_core.cure.cells import CellGeometry
from gondola_core.cure.kinetics import cure_rate
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import TimedPour
from gondola_core.materials import Resin


def reference_peak(
    geometry: CellGeometry,
    around: Surroundings,
    resins: list[Resin],
    pours: list[TimedPour],
    room_c: float,
    end: float,
    rtol: float = 1e-5,
) -> tuple[float, float, np.ndarray]:
    """(peak [C], its time [s], final temperatures) by BDF with a sparse Jacobian."""
    box = cell_box(geometry, [pour.resin for pour in pours], resins, around)
    whole = tuple(size - 2 for size in box.inverse.shape)
    temperature = np.zeros(whole)
    cure = np.zeros(whole)
    temperature[: box.base_levels] = room_c
    peak, peak_at = -np.inf, 0.0
    per_level = whole[1] * whole[2]
    for number, pour in enumerate(pours):
        fresh = np.flatnonzero(box.pour_of_level[1:-1] == number)
        share = (box.resin_capacity * box.inverse)[1:-1, 1:-1, 1:-1][fresh]
        temperature[fresh] = room_c + share * (pour.mix_c - room_c)
        levels = int(fresh[-1]) + 1
        size = levels * per_level
        laplace, exchange = _conduction(box, levels)
        inverse = box.inverse[1 : levels + 1, 1:-1, 1:-1].ravel()
        heat = box.heat[1 : levels + 1, 1:-1, 1:-1].ravel()
        resin_of = np.repeat(box.resin_of_level[1 : levels + 1], per_level)
        wet = heat > 0

        kinds = [(wet & (resin_of == index), resin) for index, resin in enumerate(resins)]
        slope = partial(_slope, laplace, exchange, heat, inverse, kinds, room_c)
        eye = diags(np.ones(size))
        pattern = lil_matrix((2 * size, 2 * size))
        pattern[:size, :size] = (laplace != 0).astype(float) + eye
        pattern[:size, size:] = eye
        pattern[size:, :size] = eye
        pattern[size:, size:] = eye
        start = pour.start
        until = pours[number + 1].start if number + 1 < len(pours) else end
        state = np.concatenate([temperature[:levels].ravel(), cure[:levels].ravel()])
        found = solve_ivp(
            slope, (start, until), state, method="BDF", rtol=rtol, atol=1e-6,
            jac_sparsity=pattern.tocsc(),
        )
        hottest = found.y[:size][wet].max(axis=0)
        best = int(np.argmax(hottest))
        if hottest[best] > peak:
            peak, peak_at = float(hottest[best]), float(found.t[best])
        temperature[:levels] = found.y[:size, -1].reshape(levels, *whole[1:])
        cure[:levels] = found.y[size:, -1].reshape(levels, *whole[1:])
    return peak, peak_at, temperature


def _slope(laplace, exchange, heat, inverse, kinds, room_c, _, state):
    t, a = np.split(state, 2)
    rate = np.zeros(t.size)
    for mine, resin in kinds:
        rate[mine] = cure_rate(a[mine], t[mine], resin)
    flow = laplace @ t - exchange * (t - room_c) + heat * rate
    return np.concatenate([flow * inverse, rate])


def _conduction(box, levels):
    shape = (levels, box.inverse.shape[1] - 2, box.inverse.shape[2] - 2)
    index = np.arange(np.prod(shape)).reshape(shape)
    inner = (slice(1, levels + 1), slice(1, -1), slice(1, -1))
    rows, columns, values = [], [], []
    for axis, conductance in enumerate((box.gz, box.gy, box.gx)):
        low = np.take(index, range(shape[axis] - 1), axis).ravel()
        high = np.take(index, range(1, shape[axis]), axis).ravel()
        g = np.take(conductance[inner], range(shape[axis] - 1), axis).ravel()
        rows += [low, high, low, high]
        columns += [high, low, low, high]
        values += [g, g, -g, -g]
    laplace = coo_matrix(
        (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))),
        shape=(index.size, index.size),
    ).tocsr()
    exchange = box.ga[inner].copy()
    exchange[-1] += box.top[inner][-1]
    return laplace, exchange.ravel()
