"""Laws of the cure: how fast the mix reacts, and what it has become at a degree of cure."""

from __future__ import annotations

import functools

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ..materials import Resin
from ..units import GAS_CONSTANT, HOUR, J_PER_G, KJ_PER_MOL, MPA_S, ZERO_C

Array = NDArray[np.float64]

REFERENCE_K = 25.0 + ZERO_C
"""Rates and viscosities are stated at 25 degrees Celsius."""


FASTEST_PER_S = 10.0
"""1/s; a rate constant grows no further with temperature: within a tenth of a second no heat leaves a cell, so that
faster is the same. Some 260 degrees Celsius in the usual resins. Source: own_march"""


def arrhenius_factor(temperature_c: ArrayLike, activation_kj_mol: float) -> Array:
    """How much faster than at 25 C a thermally activated process runs.

        f = exp(-E/R (1/T - 1/298.15))

    temperature_c      [degrees C]
    activation_kj_mol  [kJ/mol]
    returns            dimensionless

    Source: kamal_sourour1973

    >>> round(float(arrhenius_factor(25.0, 58.0)), 6)
    1.0
    """
    kelvin = np.asarray(temperature_c, dtype=float) + ZERO_C
    energy = activation_kj_mol * KJ_PER_MOL
    return np.asarray(np.exp(-energy / GAS_CONSTANT * (1.0 / kelvin - 1.0 / REFERENCE_K)))


def rate_constant(per_s_at_25: float, temperature_c: ArrayLike, activation_kj_mol: float) -> Array:
    """A rate constant at a temperature [1/s], no faster than `FASTEST_PER_S`.

    Source: kamal_sourour1973; the bound is own_march
    """
    return np.minimum(per_s_at_25 * arrhenius_factor(temperature_c, activation_kj_mol), FASTEST_PER_S)


def glass_temperature_c(degree_of_cure: ArrayLike, resin: Resin) -> Array:
    """Glass transition temperature of the partly cured resin.

        Tg = Tg0 + (Tginf - Tg0) lam a / (1 - (1 - lam) a)

    degree_of_cure  0 to 1
    returns         [degrees C]

    Source: dibenedetto1987
    """
    cure = np.asarray(degree_of_cure, dtype=float)
    span = resin.tg_full_c - resin.tg_uncured_c
    return np.asarray(
        resin.tg_uncured_c + span * resin.tg_lambda * cure / (1.0 - (1.0 - resin.tg_lambda) * cure)
    )


def degree_at_glass_temperature(temperature_c: ArrayLike, resin: Resin) -> Array:
    """The degree of cure at which the glass temperature is that given; inverse of the above.

        a = th / (lam + (1 - lam) th),  th = (Tg - Tg0)/(Tginf - Tg0)

    returns  dimensionless; above 1 where full cure does not reach the temperature

    Source: dibenedetto1987
    """
    theta = (np.asarray(temperature_c, dtype=float) - resin.tg_uncured_c) / (
        resin.tg_full_c - resin.tg_uncured_c
    )
    lam = resin.tg_lambda
    below = np.maximum(theta, 0.0)
    return np.asarray(np.where(theta >= 1.0, theta, below / (lam + (1.0 - lam) * below)))


def cure_rate(degree_of_cure: ArrayLike, temperature_c: ArrayLike, resin: Resin) -> Array:
    """Rate of cure with diffusion control, so that a cold cure stalls below full cure.

        da/dt = (k1 + k2 a^m)(1 - a)^n / (1 + exp(C (a - a_c(T))))

    degree_of_cure  0 to 1
    temperature_c   [degrees C]
    returns         [1/s]

    `a_c` is the degree whose glass temperature lies `diffusion_shift_k` above T. Arguments
    broadcast.
    Source: kamal_sourour1973, chern_poehlein1987
    """
    cure = np.clip(np.asarray(degree_of_cure, dtype=float), 0.0, 1.0)
    rate_1 = rate_constant(resin.k1_per_s, temperature_c, resin.activation_1_kj_mol)
    rate_2 = rate_constant(resin.k2_per_s, temperature_c, resin.activation_2_kj_mol)
    critical = degree_at_glass_temperature(
        np.asarray(temperature_c, dtype=float) + resin.diffusion_shift_k, resin
    )
    stop = resin.diffusion_sharpness * (cure - critical)
    diffusion = 0.5 * (1.0 - np.tanh(0.5 * stop))
    return np.asarray(
        (rate_1 + rate_2 * cure**resin.order_m) * (1.0 - cure) ** resin.order_n * diffusion
    )


def viscosity(degree_of_cure: ArrayLike, temperature_c: ArrayLike, resin: Resin) -> Array:
    """Viscosity of the thickening mix; infinite from gel on.

        mu = mu25 exp(E/R (1/T - 1/298.15)) (ag/(ag - a))^(1.5 + a)

    returns  [Pa s]

    Source: castro_macosko1982; the exponents are assumed.
    """
    cure = np.asarray(degree_of_cure, dtype=float)
    thin = (
        resin.viscosity_mpa_s
        * MPA_S
        / arrhenius_factor(temperature_c, resin.viscosity_activation_kj_mol)
    )
    left = np.maximum(resin.gel_degree - cure, 0.0)
    with np.errstate(divide="ignore"):
        return np.asarray(thin * (resin.gel_degree / left) ** (1.5 + cure))


def adiabatic_rise_k(resin: Resin) -> float:
    """Temperature rise of a mix that cures fully and loses no heat: H / cp, in K."""
    return resin.heat_of_cure_j_g * J_PER_G / resin.heat_capacity_j_kgk


def isothermal_cure(
    temperature_c: ArrayLike, step: float, resin: Resin, start: float = 0.0
) -> Array:
    """Degree of cure at each sample of a known temperature history, by classical Runge-Kutta.

    temperature_c  shape (n,), at even steps [degrees C]
    step           time between samples [s]; a tenth of an hour or less per kelvin of swing
    start          degree of cure at the first sample
    returns        shape (n,)

    Used where the piece has cooled to the room, and as a plain reference for the march.
    """
    history = np.asarray(temperature_c, dtype=float)
    cure = np.empty_like(history)
    cure[0] = start
    for index in range(len(history) - 1):
        now, later = history[index], history[index + 1]
        middle = 0.5 * (now + later)
        rate_a = cure_rate(cure[index], now, resin)
        rate_b = cure_rate(cure[index] + 0.5 * step * rate_a, middle, resin)
        rate_c = cure_rate(cure[index] + 0.5 * step * rate_b, middle, resin)
        rate_d = cure_rate(cure[index] + step * rate_c, later, resin)
        cure[index + 1] = cure[index] + step / 6.0 * (rate_a + 2 * rate_b + 2 * rate_c + rate_d)
    return cure


WINDOW_STEP_H, WINDOW_SPAN_H = 0.5, 240.0


@functools.lru_cache(maxsize=64)
def thin_window_h(resin: Resin, room_c: float) -> tuple[float, float] | None:
    """Hours after which a layer so thin that it stays at the room has gelled, and is no longer tacky.

    None if it does not get there in ten days. Source: definition
    """
    cure = isothermal_cure(np.full(round(WINDOW_SPAN_H / WINDOW_STEP_H) + 1, room_c), WINDOW_STEP_H * HOUR, resin)
    if cure[-1] < resin.tack_free_degree:
        return None
    opens, closes = np.interp([resin.gel_degree, resin.tack_free_degree], cure, WINDOW_STEP_H * np.arange(len(cure)))
    return float(opens), float(closes)
