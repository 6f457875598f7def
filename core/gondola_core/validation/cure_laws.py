"""The laws of the cure alone: no heat flows, the answer is known."""

from __future__ import annotations

from collections.abc import Iterator
from math import exp

import numpy as np

from ..cure.kinetics import (
    adiabatic_rise_k,
    cure_rate,
    degree_at_glass_temperature,
    glass_temperature_c,
    isothermal_cure,
)
from ..cure.march import TimedPour, Tolerance, march_pours, steady_room
from ..cure.march.chemistry import cell_rate
from ..cure.march.tables import RateTables, rate_tables
from ..materials import Resin, load_library
from ..units import HOUR
from .blocks import closed_box, tight_films
from .measured import Measured, measure

MODEL = "Cure"


@measure
def first_order() -> Iterator[Measured]:
    """A reaction of first order at one temperature is the exponential."""
    resin = load_library().resins["deep"].model_copy(update={"k1_per_s": 2e-5, "k2_per_s": 0.0, "order_n": 1.0})
    cure = isothermal_cure(np.full(501, 25.0), 60.0, resin)
    yield Measured(
        model=MODEL, quantity="degree of cure after 500 minutes, first order", against="1 - exp(-k t)",
        source="kamal_sourour1973", expected=1.0 - exp(-2e-5 * 60.0 * 500), found=float(cure[-1]), allowed=1e-4,
    )


@measure
def glass_temperature() -> Iterator[Measured]:
    """The degree that has a glass temperature gives that temperature back."""
    for key, resin in _classes():
        degree = float(degree_at_glass_temperature(30.0, resin))
        yield Measured(
            model=MODEL, quantity=f"glass temperature at the degree of demould, {key} [°C]", against="its own inverse",
            source="dibenedetto1987", expected=30.0, found=float(glass_temperature_c(degree, resin)), allowed=1e-9,
        )


@measure
def tables() -> Iterator[Measured]:
    """The march looks its rate up; the law takes powers and exponents."""
    for key, resin in _classes():
        table = rate_tables([resin])
        peak = float(np.max(cure_rate(np.linspace(0, 1, 50), 60.0, resin)))
        worst = max(
            abs(_by_table(table, degree, warm_c) - float(cure_rate(degree, warm_c, resin))) / peak
            for warm_c in (5.1, 18.03, 23.3, 61.7) for degree in (0.0, 0.013, 0.31, 0.57, 0.83, 0.95)
        )
        yield Measured(
            model=MODEL, quantity=f"rate by table, worst of 24, {key} [share of the fastest at 60 °C]",
            against="the law itself", source="chern_poehlein1987", expected=0.0, found=worst, allowed=2e-4,
        )


@measure
def adiabatic_rise() -> Iterator[Measured]:
    """A block that loses nothing warms by the heat of cure over its heat capacity, for what has cured."""
    for key, resin in _classes():
        marched = march_pours(
            closed_box(0.05), tight_films(), [resin], [TimedPour(start=0.0, mix_c=25.0, resin=0)],
            steady_room(25.0, 96 * HOUR), 96 * HOUR, Tolerance(temperature_k=0.02, degree=1e-4),
        )
        warm = float(marched.temperature_c[marched.resin].mean())
        cured = float(marched.degree_of_cure[marched.resin].mean())
        yield Measured(
            model=MODEL, quantity=f"temperature of a block that loses nothing, {key} [°C]", against="T0 + a H / cp",
            source="definition", expected=25.0 + adiabatic_rise_k(resin) * cured, found=warm, allowed=0.5,
        )


def _by_table(table: RateTables, degree: float, warm_c: float) -> float:
    return float(cell_rate(
        degree, warm_c, table.by_temperature[0], table.by_degree[0], table.sharpness[0], table.logistic
    ))


def _classes() -> Iterator[tuple[str, Resin]]:
    resins = load_library().resins
    for key in ("deep", "casting", "coating"):
        yield key, resins[key]
