"""How clear each pour will be: bubbles that are seen, where they come from, what would help most."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np

from ..cure.bubbles import GAS_DENSITY, escape_diameter
from ..cure.clarity import (
    FEW,
    GUESS,
    MANY,
    PASSES_MIN,
    SEEN_IN_ML,
    Gas,
    Handling,
    Liquid,
    gas_seen,
    release,
    stirred_seen,
    surfaces_after,
    thick_after,
    veil_fraction,
)
from ..cure.kinetics import viscosity
from ..scene.schedule import pour_starts_h
from ..units import HOUR, MINUTE, MM
from ..words import Words, words
from .answer import Answer
from .bodies import BODIES, FigureBody
from .cups import CUPS, Cup
from .fills import VOLUMES, Volumes, covered_by
from .heat import HEAT, Heat
from .reading import Reading
from .setting import SEALED_LETS_THROUGH
from .sides import along_mm

FEWEST_ROWS = 2
"""Rows of history from which something is told of how a pour flows."""
WANTED_MM = 0.2
"""Bubble that a flame is to meet at the surface [mm]. Source: assumed"""
KELVIN = 273.15
SOAKED_LETS_THROUGH = 0.05
"""Share of its gas that a figure brushed full of resin beforehand still gives off. Source: assumed"""
LONG_REST_MIN = 10.0
"""Rest in the cup that is offered. Source: assumed"""
POT_BAR = 4.0
"""Gauge pressure of a pot that is offered. Source: assumed"""

LEAST_SAID = 0.05
"""Seen in 10 ml below which none is said to be. Source: assumed"""

Amount = Literal["few", "some", "many"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Help:
    """A measure against bubbles, and how many would be seen with it."""

    words: Words
    seen_count: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Flame:
    """Passes of a flame or a heat gun over the surface.

    passes_min   when, after the pour; none where it is too thick too soon
    until_min    from then on it only wrinkles; None where it stays thin as long as is told
    rises_min    when bubbles of 0.2 mm from its foot have come to the surface; None: never
    """

    passes_min: list[float]
    until_min: float | None
    rises_min: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PourClarity:
    """Bubbles that are seen in 10 ml of a pour, within what is known of them.

    veil_fraction        of the sight through it, along the side it is mostly seen from, that bubbles stand before
    smallest_mm          smallest bubble that still leaves from its foot; None where it never flowed
    stirring_fraction, bed_fraction, figures_fraction   of those that are seen
    trapped_ml           air that stays under figures and in hollows, not counted in what is seen
    undersides_cm2       flat undersides of figures that hold a film of small ones, not counted either
    helps                what would help, most first
    """

    pour_number: int
    amount: Amount
    words: Words
    seen_count: float
    seen_low_count: float
    seen_high_count: float
    veil_fraction: float
    smallest_mm: float | None
    stirring_fraction: float
    bed_fraction: float
    figures_fraction: float
    trapped_ml: float
    undersides_cm2: float
    helps: list[Help]
    flame: Flame


@dataclass(frozen=True, slots=True, kw_only=True)
class Case:
    """A pour with all that brings bubbles into it."""

    liquid: Liquid
    handling: Handling
    bed: Gas
    figures: Gas
    flame: Flame
    trapped_ml: float
    undersides_cm2: float

    def seen(self) -> tuple[float, float, float]:
        return (
            stirred_seen(self.liquid, self.handling), gas_seen(self.liquid, self.bed, self.handling),
            gas_seen(self.liquid, self.figures, self.handling),
        )

    def veil(self, path: float) -> float:
        return veil_fraction(self.liquid, (self.bed, self.figures), self.handling, path)


def _clarity(scene: Any, heat: Heat, volumes: Volumes, cups: list[Cup], bodies: list[FigureBody]) -> list[PourClarity]:
    path = along_mm(scene, scene.brief.viewing_sides[0]) * MM
    return [
        _told(number, case_of(scene, number, heat, volumes, cups, bodies), scene.bed.sealed, path)
        for number in range(1, len(scene.pours) + 1)
    ]


def _veils(scene: Any, heat: Heat, volumes: Volumes, cups: list[Cup], bodies: list[FigureBody]) -> list[float]:
    """Share of the sight through each pour that bubbles stand before."""
    path = along_mm(scene, scene.brief.viewing_sides[0]) * MM
    return [
        case_of(scene, number, heat, volumes, cups, bodies).veil(path) for number in range(1, len(scene.pours) + 1)
    ]


def case_of(
    scene: Any, number: int, heat: Heat, volumes: Volumes, cups: list[Cup], bodies: list[FigureBody]
) -> Case:
    """A pour, by its number from 1, with all that brings bubbles into it."""
    index = number - 1
    pour, marched = scene.pours[index], heat.marched
    resin = scene.resin_of(pour)
    mine = np.flatnonzero(marched.pour_of_level == index)
    mix = cups[index].mix
    habits = scene.brief.habits
    liquid = Liquid(
        height=float(volumes.depth_mm[index]) * MM, density_gap=resin.density_g_ml * 1e3 - GAS_DENSITY,
        flown=float(np.median(marched.flown[mine])) if len(mine) else 0.0,
        viscosity=float(viscosity(0.0, pour.mix_c, resin)),
        # a cup as wide as it is high
        cup=float((4 * mix.mix_ml / max(1, mix.cups_count) / np.pi) ** (1 / 3)) * 10 * MM,
        volume_ml=float(volumes.resin_ml[index]),
    )
    flows, thickness, warm = _flow(scene, index, heat, mine)
    left, shares = (np.zeros(1), np.ones(1)) if len(flows) < FEWEST_ROWS else release(flows, warm, thickness)
    through = SEALED_LETS_THROUGH if scene.bed.sealed else 1.0
    return Case(
        liquid=liquid,
        handling=Handling(
            stirs=habits.stirs, pours=habits.pours, rest_min=habits.rest_min, vacuum=habits.vacuum,
            pot_bar=habits.pot_bar,
        ),
        bed=Gas(volume_ml=through * max(0.0, float(marched.gas_ml[index])), left=left, shares=shares),
        figures=Gas(volume_ml=_figures_gas_ml(scene, index, heat, bodies), left=left, shares=shares),
        flame=_flame(liquid, flows, thickness), trapped_ml=float(volumes.trapped_ml[index]),
        undersides_cm2=sum(bodies[at].bulk.flat_underside_cm2 for at in _met_by(scene, index, bodies)),
    )


def _flame(liquid: Liquid, at_s: Any, thickness: Any) -> Flame:
    if len(at_s) < FEWEST_ROWS:
        return Flame(passes_min=[], until_min=None, rises_min=None)
    until = thick_after(at_s, thickness)
    rises = surfaces_after(WANTED_MM * MM, liquid.height, liquid.density_gap, at_s, thickness)
    return Flame(
        passes_min=[one for one in PASSES_MIN if until is None or one <= until / MINUTE],
        until_min=None if until is None else round(until / MINUTE, 1),
        rises_min=None if rises is None else round(rises / MINUTE, 1),
    )


def _flow(scene: Any, index: int, heat: Heat, mine: Any) -> tuple[Any, Any, Any]:
    """While the middle of a pour flows: moments [s], viscosity [Pa s], warmth [degrees C], each (n,)."""
    marched, resin = heat.marched, scene.resin_of(scene.pours[index])
    since = marched.history_at >= pour_starts_h(scene.pours)[index] * HOUR - 1.0
    warm, cure = (
        _middle(plane[since][:, mine]) for plane in (marched.history_plane_c, marched.history_plane_degree)
    )
    flows = np.isfinite(warm) & (cure < resin.gel_degree)
    return marched.history_at[since][flows], viscosity(cure[flows], warm[flows], resin), warm[flows]


def _middle(plane: Any) -> Any:
    """Mean over levels of the cell in their middle that holds resin, by row of history; NaN where none does."""
    across = plane.shape[2] // 2
    column = np.asarray(plane[:, :, across], dtype=float)
    held = np.isfinite(column)
    counts = held.sum(axis=1)
    sums = np.where(held, column, 0.0).sum(axis=1)
    return np.where(counts > 0, sums / np.maximum(counts, 1), np.nan)


def _met_by(scene: Any, index: int, bodies: list[FigureBody]) -> list[int]:
    """Figures whose foot a pour covers."""
    return [at for at, number in enumerate(covered_by(scene, bodies)) if number == index + 1]


def _figures_gas_ml(scene: Any, index: int, heat: Heat, bodies: list[FigureBody]) -> float:
    """Gas of the pores of figures whose foot this pour covers, as they warm to what is around them."""
    grown = 0.0
    for at in _met_by(scene, index, bodies):
        figure, peak = scene.figures[at], heat.figure_peaks_c[at]
        if peak is None:
            continue
        warming = max(0.0, (peak + KELVIN) / (heat.mean_room_c + KELVIN) - 1.0)
        soaked = SOAKED_LETS_THROUGH if figure.prefilled else 1.0
        grown += soaked * figure.material.porosity_fraction * bodies[at].bulk.volume_ml * warming
    return grown


def _told(number: int, case: Case, sealed: bool, path: float) -> PourClarity:
    stirred, bed, figures = case.seen()
    seen = stirred + bed + figures
    whole = seen or 1.0
    smallest = escape_diameter(case.liquid.height, case.liquid.density_gap, case.liquid.flown)
    amount: Amount = "few" if seen < FEW else "many" if seen >= MANY else "some"
    helps = [Help(words=label, seen_count=round(sum(other.seen()), 2)) for label, other in _others(case, sealed)]
    return PourClarity(
        pour_number=number, amount=amount,
        words=words("clarity.none") if seen * GUESS < LEAST_SAID else words(
            f"clarity.{amount}", low=_rough(seen / GUESS), high=_rough(seen * GUESS), of=SEEN_IN_ML
        ),
        seen_count=round(seen, 2), seen_low_count=round(seen / GUESS, 2), seen_high_count=round(seen * GUESS, 2),
        veil_fraction=round(case.veil(path), 4),
        smallest_mm=None if smallest is None else round(smallest / MM, 3),
        stirring_fraction=round(stirred / whole, 3), bed_fraction=round(bed / whole, 3),
        figures_fraction=round(figures / whole, 3),
        flame=case.flame, trapped_ml=round(case.trapped_ml, 2), undersides_cm2=round(case.undersides_cm2, 2),
        helps=sorted((one for one in helps if one.seen_count < 0.95 * seen), key=lambda one: one.seen_count),
    )


def _rough(count: float) -> float:
    """To two figures: more of them would say more than is known."""
    return float(f"{count:.2g}")


def _others(case: Case, sealed: bool) -> Iterator[tuple[Words, Case]]:
    """The same pour with one thing done otherwise."""
    handling, liquid = case.handling, case.liquid
    if not sealed and case.bed.volume_ml > 0:
        yield words("clarity.seal"), replace(
            case, bed=replace(case.bed, volume_ml=SEALED_LETS_THROUGH * case.bed.volume_ml)
        )
    if case.figures.volume_ml > 0:
        yield words("clarity.soak"), replace(
            case, figures=replace(case.figures, volume_ml=SOAKED_LETS_THROUGH * case.figures.volume_ml)
        )
    if handling.stirs != "slow":
        yield words("clarity.stir"), replace(case, handling=replace(handling, stirs="slow"))
    if handling.pours != "high":
        yield words("clarity.stream"), replace(case, handling=replace(handling, pours="high"))
    if handling.rest_min < LONG_REST_MIN:
        rested = replace(handling, rest_min=LONG_REST_MIN)
        yield words("clarity.rest", rest=LONG_REST_MIN), replace(case, handling=rested)
    if not handling.vacuum:
        yield words("clarity.vacuum"), replace(case, handling=replace(handling, vacuum=True))
    if handling.pot_bar < POT_BAR:
        yield words("clarity.pot", bar=POT_BAR), replace(case, handling=replace(handling, pot_bar=POT_BAR))
    half = replace(liquid, height=liquid.height / 2)
    yield words("clarity.thinner", half=half.height / MM), replace(case, liquid=half)


_NEEDS = (HEAT, VOLUMES, CUPS, BODIES)
_READS = Reading(
    "tank.fill_height_mm", "tank.inner_width_mm", "tank.inner_behind_mm", "pours.top_depth_mm", "pours.resin_id",
    "pours.mix_c", "pours.wait_h", "resins", "bed.sealed", "brief.habits", "brief.viewing_sides", "figures.material",
    "figures.prefilled",
)
CLARITY = Answer(name="clarity", needs=_NEEDS, by=_clarity, reads=_READS)
VEILS = Answer(name="veils", needs=_NEEDS, by=_veils, reads=_READS)
