"""Heat that flows and does not react: series, lumped cooling, two half spaces; and the balance of a whole scene."""

from __future__ import annotations

from collections.abc import Iterator
from math import erf, exp, pi, sin, sqrt

from ..answers.book import Book
from ..answers.curves import AUDIT
from ..answers.kept import Keeper
from ..cure.cells import CellGeometry, whole_box
from ..cure.losses import Surroundings
from ..cure.march import Marched, TimedPour, Tolerance, march_pours, steady_room
from ..samples import SAMPLES
from ..units import G_PER_ML
from .blocks import TIGHT, diffusivity, inert, tight_films
from .measured import Measured, measure

MODEL = "Heat"
CLOSE = Tolerance(temperature_k=0.002, degree=1e-4)


def _cooled(geometry: CellGeometry, around: Surroundings, moment: float) -> Marched:
    """From 20 degrees, in a room of 0."""
    pour = TimedPour(start=0.0, mix_c=20.0, resin=0)
    return march_pours(geometry, around, [inert()], [pour], steady_room(0.0, moment), moment, CLOSE)


@measure
def square_bar() -> Iterator[Measured]:
    """A bar whose four sides are held at zero: the product of two slabs' series."""
    side, cells, moment = 0.04, 20, 900.0
    marched = _cooled(whole_box((side, side), [0.03], side / cells, 3), tight_films(wall=TIGHT), moment)
    x = 0.5 + 0.5 / cells
    slab = sum(
        4 / ((2 * n + 1) * pi) * sin((2 * n + 1) * pi * x)
        * exp(-(((2 * n + 1) * pi / side) ** 2) * diffusivity(inert()) * moment)
        for n in range(30)
    )
    yield Measured(
        model=MODEL, quantity="middle of a square bar of 40 mm after 15 min, sides held at 0 [°C]",
        against="series of Fourier, product of two slabs", source="crank1975", expected=20 * slab**2,
        found=float(marched.temperature_c[-1, 9:11, 9:11].mean()), allowed=0.012 * 20 * slab**2,
    )


@measure
def thin_plate() -> Iterator[Measured]:
    """A plate so thin that it is at one temperature cools by Newton's law."""
    depth, film, moment = 0.004, 0.4, 3600.0
    marched = _cooled(whole_box((0.2, 0.2), [depth], 0.05, 2), tight_films(top=film), moment)
    resin = inert()
    capacity = resin.density_g_ml * G_PER_ML * resin.heat_capacity_j_kgk * depth
    expected = 20 * exp(-film * moment / capacity)
    yield Measured(
        model=MODEL, quantity="plate of 4 mm after an hour, film on top alone [°C]",
        against="T0 exp(-h t / (rho cp L))", source="crank1975", expected=expected,
        found=float(marched.temperature_c[marched.resin].mean()), allowed=0.01 * expected,
    )


@measure
def fresh_on_set() -> Iterator[Measured]:
    """A warm pour on one that is set: two half spaces that meet."""
    half, moment, resin = 0.04, 300.0, inert()
    pours = [TimedPour(start=0.0, mix_c=20.0, resin=0), TimedPour(start=60.0, mix_c=40.0, resin=0)]
    marched = march_pours(
        whole_box((0.02, 0.02), [half, 2 * half], half / 40, 40), tight_films(), [resin], pours,
        steady_room(20.0, 60.0 + moment), 60.0 + moment, CLOSE,
    )
    reach = 2 * sqrt(diffusivity(resin) * moment)
    heights = marched.heights[marched.base_levels:]
    column = marched.temperature_c[marched.base_levels:].mean(axis=(1, 2))
    worst = max(
        abs(float(found) - (30 + 10 * erf((height - half) / reach)))
        for height, found in zip(heights, column, strict=True)
    )
    yield Measured(
        model=MODEL, quantity="40 °C poured on 20 °C, worst of 80 heights after 5 min [K]",
        against="30 + 10 erf(x / 2 sqrt(D t))", source="crank1975", expected=0.0, found=worst, allowed=0.12,
    )


@measure
def balance() -> Iterator[Measured]:
    """What reacts is stored or lost: nothing else may be."""
    for name, made in sorted(SAMPLES.items()):
        audit = Book(made(), keeper=Keeper(most=60)).ask(AUDIT)
        yield Measured(
            model=MODEL, quantity=f"energy not accounted for in a draft of {name} [share of what is released]",
            against="released = stored + lost", source="definition", expected=0.0,
            found=audit.imbalance_fraction, allowed=1e-4,
        )
