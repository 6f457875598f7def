"""The rate law as tables, so that the march looks it up instead of taking powers and exponents.

Linear between entries; against the law itself the rate is within 1e-4 of its size (tested).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ...materials import Resin
from ..kinetics import Array, degree_at_glass_temperature, rate_constant, viscosity

COLDEST_C = -40.0
HOTTEST_C = 460.0
STEP_K = 0.25
DEGREE_STEPS = 2048
LOGISTIC_REACH = 24.0
LOGISTIC_STEPS = 3072


@dataclass(frozen=True, slots=True, kw_only=True)
class RateTables:
    """Tables of all resins of a scene.

    by_temperature  (resins, temperatures, 4): k1 [1/s], k2 [1/s], critical degree times sharpness,
                    fluidity of the fresh mix [1/(Pa s)]
    by_degree       (resins, degrees, 3): a^m (1-a)^n, (1-a)^n, and what thickening leaves of fluidity
    sharpness       (resins,): C
    logistic        1/(1+exp(u)) for u from -24 to 24
    """

    by_temperature: NDArray[np.float64]
    by_degree: NDArray[np.float64]
    sharpness: NDArray[np.float64]
    logistic: NDArray[np.float64]


def rate_tables(resins: list[Resin], used: set[int] | None = None) -> RateTables:
    """Tables for the march, in the order given; those not in `used` are left as nothing."""
    temperature = np.arange(COLDEST_C, HOTTEST_C + 2 * STEP_K, STEP_K)
    degree = np.linspace(0.0, 1.0, DEGREE_STEPS + 1)
    degree = np.append(degree, 1.0)
    reach = np.linspace(-LOGISTIC_REACH, LOGISTIC_REACH, LOGISTIC_STEPS + 1)
    return RateTables(
        by_temperature=_stacked(_by_temperature, temperature, 4, resins, used),
        by_degree=_stacked(_by_degree, degree, 3, resins, used),
        sharpness=np.array([resin.diffusion_sharpness for resin in resins]),
        logistic=np.append(1.0 / (1.0 + np.exp(reach)), 0.0),
    )


def _stacked(
    table: Callable[[Array, Resin], Array], at: Array, width: int, resins: list[Resin], used: set[int] | None
) -> Array:
    whole = np.zeros((len(resins), len(at), width))
    for index, resin in enumerate(resins):
        if used is None or index in used:
            whole[index] = table(at, resin)
    return whole


def _by_temperature(temperature: Array, resin: Resin) -> Array:
    critical = degree_at_glass_temperature(temperature + resin.diffusion_shift_k, resin)
    return np.stack(
        [
            rate_constant(resin.k1_per_s, temperature, resin.activation_1_kj_mol),
            rate_constant(resin.k2_per_s, temperature, resin.activation_2_kj_mol),
            critical * resin.diffusion_sharpness,
            1.0 / viscosity(np.zeros_like(temperature), temperature, resin),
        ],
        axis=1,
    )


def _by_degree(degree: Array, resin: Resin) -> Array:
    left = (1.0 - degree) ** resin.order_n
    thin = np.maximum(1.0 - degree / resin.gel_degree, 0.0) ** (1.5 + degree)
    return np.stack([degree**resin.order_m * left, left, thin], axis=1)
