"""How likely each trouble is: a scene drawn many times with room, bottle, ratio and person off as they may be."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm, qmc

from ..answers.bodies import BODIES
from ..answers.book import Book
from ..answers.cups import CUPS, Cup
from ..answers.flood import FLOOD, SPANS
from ..answers.grades import BAND, DRAFT
from ..answers.heat import HEAT, Heat
from ..answers.kept import Keeper
from ..answers.march import cells_of, march, room_of, timed_pours
from ..checks import CHECKS, Severity, reader_units
from ..checks.telling import found_in
from ..checks.water import LOST_DE00
from ..cure.cells import CellGeometry
from ..cure.doubt import MOMENTS, PourDoubt, doubted_places
from ..cure.moments import PourCure, pour_cures
from ..errors import GondolaError
from ..evaluate import KEEPER
from ..learning.belief import COVERS
from ..scene import Scene
from ..shape import Meshes
from ..tint import figure_sights
from ..words import words

Array = NDArray[np.float64]
Cures = list[PourCure | None]

FEWEST, MOST_DRAWS = 16, 1024
RATIO_SPREADS = {"mass": 0.01, "volume": 0.04}
"""Share by which the ratio of a cup may be off by how it is measured; what is over does not react. Source: assumed"""
DROP_SPREAD = 0.2
"""Share by which a dose of drops may be off: drops differ in size, and one is soon too many. Source: assumed"""
LATE_H = 0.5
"""Standard deviation of how late a person comes to a pour [h]; nobody comes early. Source: assumed"""
LOST = "figure_lost"
"""Check of a figure that nobody makes out: what doses alone decide, told where it is not lost as said."""
TROUBLES = ("too_hot", "too_early", "too_late", "never_hard")
"""Checks that are asked in every draw; what they stop counts, and a joint that came too late."""
BAND_SHARES = (0.05, 0.95)


@dataclass(frozen=True, slots=True, kw_only=True)
class ChancePour:
    """Nine in ten draws of a pour lie between low and high; None where a slow cure, or no resin, gets there.

    bonds_fraction  draws in which the next pour comes into its tack; None for the last
    """

    pour_number: int
    peak_low_c: float | None
    peak_high_c: float | None
    opens_low_h: float | None
    opens_high_h: float | None
    closes_low_h: float | None
    closes_high_h: float | None
    bonds_fraction: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Trouble:
    """What may go wrong in a pour, and in what share of the draws."""

    code: str
    pour_number: int | None
    words: str
    chance_fraction: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Chances:
    """Bands and troubles of a scene over its draws; trouble_fraction: draws in which anything goes wrong
    that is not planned so."""

    draws_count: int
    trouble_fraction: float
    pours: list[ChancePour]
    troubles: list[Trouble]


@dataclass(frozen=True, slots=True, kw_only=True)
class Draw:
    """One case: room [K], logarithms of rate and heat over said, how late each pour after the first begins [h], doses.

    doses  of each colourant, over what is said of it
    """

    room_k: float
    rate: float
    heat: float
    late_h: list[float]
    doses: list[float]


def ratio_spread(scene: Scene, cups: list[Cup]) -> float:
    """Share by which the ratio of the smallest cup may be off: the hand's own, and half a step of the scale.

        e = e_hand + step/(2 m_B),  by mass
    """
    habits = scene.brief.habits
    hand = RATIO_SPREADS[habits.measures]
    if habits.measures == "volume":
        return hand
    return hand + habits.scale_step_g / (2 * max(1e-3, min(cup.mix.cup_part_b_g for cup in cups)))


def draws_of(scene: Scene, count: int, seed: int, ratio: float) -> list[Draw]:
    """Draws of a scrambled Sobol sequence, the same for a seed. Source: sobol1967; the spreads as said of each."""
    later, inks = len(scene.pours) - 1, len(scene.colourants)
    even = qmc.Sobol(4 + later + inks, scramble=True, seed=seed).random(count)
    normal = norm.ppf(np.clip(even, 1e-6, 1 - 1e-6))
    resin = scene.resin_of(scene.pours[0])
    return [
        Draw(
            room_k=float(row[0]) * scene.brief.room.spread_k / COVERS,
            rate=float(row[1]) * resin.rate_spread_fraction,
            heat=float(row[2]) * resin.heat_spread_fraction - abs(float(row[3])) * ratio / COVERS,
            late_h=[abs(float(one)) * LATE_H for one in row[4 : 4 + later]],
            doses=[max(0.0, 1.0 + float(one) * DROP_SPREAD / COVERS) for one in row[4 + later :]],
        )
        for row in normal
    ]


def chances(
    scene: Scene, count: int = 128, seed: int = 1, meshes: Meshes | None = None, keeper: Keeper = KEEPER,
    told: Callable[[float], None] = lambda _: None,
) -> Chances:
    """Bands and chances over draws: each a coarse march, whose difference from the coarse one as said moves the draft.

    GondolaError for a count that is no power of two within the bounds: Sobol draws are balanced only so.
    """
    if not FEWEST <= count <= MOST_DRAWS or count & (count - 1):
        raise GondolaError(words("refusals.draws", range=(FEWEST, MOST_DRAWS)), "draws_count")
    book = Book(scene, DRAFT, keeper, meshes)
    heat = book.ask(HEAT)
    cells = cells_of(scene, BAND, book.ask(SPANS), book.ask(FLOOD))
    base = _marched(scene, cells, Draw(room_k=0.0, rate=0.0, heat=0.0, late_h=[], doses=[]))
    found: Counter[tuple[str, int | None]] = Counter()
    cures, spoilt = [], 0
    extents = [(body.least, body.most) for body in book.ask(BODIES)]
    # a pour that waits until the one below is hard is meant to come after its tack
    planned = {(one.code, finding.where.pour_number) for one, finding in found_in(book, [CHECKS["too_late"]])}
    usually = lost_figures(scene, None, extents)
    for at, draw in enumerate(draws_of(scene, count, seed, ratio_spread(scene, book.ask(CUPS)))):
        told(at / count)
        late = _late(scene, draw)
        drawn = _moved(heat, base, _marched(late, cells, draw))
        cures.append(drawn.cures)
        other = book.other(late).supposing(HEAT, drawn)
        seen = found_in(other, [CHECKS[code] for code in TROUBLES])
        wrong = {
            (one.code, finding.where.pour_number) for one, finding in seen
            if finding.severity is Severity.STOP or one.code == "too_late"
        }
        lost = lost_figures(scene, draw, extents) - usually
        found.update(wrong | {(LOST, None) for _ in lost})
        spoilt += bool(wrong - planned)
    told(1.0)
    return Chances(
        draws_count=count,
        trouble_fraction=round(spoilt / count, 3),
        pours=[_pour(number, [one[number - 1] for one in cures], found, count, len(scene.pours))
               for number in range(1, len(scene.pours) + 1)],
        troubles=_troubles(scene, found, count),
    )


def lost_figures(scene: Scene, draw: Draw | None, extents: list[tuple[Array, Array]]) -> set[str]:
    """Figures that nobody makes out with the doses of a draw; with those that are said for None."""
    if draw is not None:
        times = {ink.id: factor for ink, factor in zip(scene.colourants, draw.doses, strict=True)}
        scene = scene.model_copy(update={"pours": [
            pour.model_copy(update={"doses": [
                dose.model_copy(update={"dose_drops_per_100g": dose.dose_drops_per_100g * times[dose.colourant_id]})
                for dose in pour.doses
            ]})
            for pour in scene.pours
        ]})
    return {one.figure_id for one in figure_sights(scene, extents) if one.difference_de00 < LOST_DE00}


def _late(scene: Scene, draw: Draw) -> Scene:
    """The scene with each pour after the first begun later; the one after it is counted from there."""
    late = [0.0, *draw.late_h] if draw.late_h else [0.0] * len(scene.pours)
    pours = [
        pour.model_copy(update={"wait_h": max(0.0, pour.wait_h + late[at] - (late[at - 1] if at else 0.0))})
        for at, pour in enumerate(scene.pours)
    ]
    return scene.model_copy(update={"pours": pours})


def _marched(scene: Scene, cells: CellGeometry, draw: Draw) -> Cures:
    resins = [resin.scaled(float(np.exp(draw.rate)), float(np.exp(draw.heat))) for resin in scene.resins]
    marched = march(scene, cells, BAND, resins=resins, room_offset_k=draw.room_k)
    mean_room = float(room_of(scene).mean()) + draw.room_k
    return pour_cures(marched, cells, timed_pours(scene), resins, mean_room)


def _moved(heat: Heat, base: Cures, drawn: Cures) -> Heat:
    """The draft's heat, moved by what the coarse march of a draw differs from the coarse one as said."""
    cures: Cures = []
    places, most = [], 0.0
    for own, usual, other, place in zip(heat.cures, base, drawn, heat.places, strict=True):
        if own is None or usual is None or other is None:
            cures.append(own)
            places.append(place)
            continue
        delta = other.peak_c - usual.peak_c
        most = max(most, delta, key=abs)
        moments: dict[str, Any] = {
            name: _scaled(getattr(own, name), getattr(usual, name), getattr(other, name)) for name in MOMENTS
        }
        cures.append(replace(own, peak_c=own.peak_c + delta, **moments))
        unmoved: dict[str, Any] = dict.fromkeys(MOMENTS)
        places.append(doubted_places(place, own, PourDoubt(peak_k=delta, **unmoved), heat.mean_room_c, 1))
    peaks = [None if peak is None else peak + most for peak in heat.figure_peaks_c]
    return replace(heat, cures=cures, places=places, figure_peaks_c=peaks)


def _scaled(own_h: float | None, usual_h: float | None, other_h: float | None) -> float | None:
    if own_h is None or other_h is None:
        return None
    return own_h if not usual_h else own_h * other_h / usual_h


def _pour(
    number: int, cures: Cures, found: Counter[tuple[str, int | None]], count: int, pours_count: int
) -> ChancePour:
    reached = [cure for cure in cures if cure is not None]
    peaks, opens, closes = (
        _between([getattr(cure, moment) for cure in reached]) for moment in ("peak_c", "tack_opens_h", "tack_closes_h")
    )
    missed = found[("too_early", number + 1)] + found[("too_late", number + 1)]
    return ChancePour(
        pour_number=number, peak_low_c=peaks[0], peak_high_c=peaks[1],
        opens_low_h=opens[0], opens_high_h=opens[1], closes_low_h=closes[0], closes_high_h=closes[1],
        bonds_fraction=None if number == pours_count else round(1 - missed / count, 3),
    )


def _between(values: list[float | None]) -> tuple[float | None, float | None]:
    """Ends of nine in ten; an end that lies among draws that never get there is None."""
    if not values:
        return None, None
    known = np.array([np.inf if one is None else one for one in values])
    ends: list[float | None] = []
    for share in BAND_SHARES:
        reached = np.isfinite(np.quantile(known, share, method="higher"))
        ends.append(round(float(np.quantile(known, share, method="median_unbiased")), 2) if reached else None)
    return ends[0], ends[1]


def _troubles(scene: Scene, found: Counter[tuple[str, int | None]], count: int) -> list[Trouble]:
    units = reader_units(scene.brief.units)
    return [
        Trouble(
            code=code, pour_number=number, chance_fraction=round(times / count, 3),
            words=words(f"chances.{code}", pour=number or len(scene.pours)).said(units),
        )
        for (code, number), times in sorted(found.items(), key=lambda one: (-one[1], one[0][1] or 0))
    ]
