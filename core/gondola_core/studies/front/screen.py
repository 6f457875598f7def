"""Screens a way on coarse cells: its waits, and the five numbers by which ways are held against each other."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import hypot, prod

import numpy as np
from scipy.stats import norm

from ...answers.bodies import BODIES, FigureBody
from ...answers.book import Book
from ...answers.clarity import VEILS
from ...answers.cups import CUPS, HANDS
from ...answers.dam import DAM
from ...answers.fills import VOLUMES
from ...answers.heat import HEAT, RUNAWAY_C, Heat, coarse_cells, coarse_heat
from ...answers.joints import JOINTS, Meets
from ...answers.limits import LIMITS
from ...answers.lines import LINES
from ...answers.setting import STRESSES
from ...checks.figures import hottest_of
from ...cure.cells import CellGeometry
from ...cure.moments import PourCure
from ...cure.stress import CRACKS_AT
from ...learning.belief import COVERS
from ...scene import Scene
from ...scene.schedule import pour_starts_h
from ...tint.lines import DE00_OF_STEP, together
from ..chances import LATE_H
from ..laying import waits_for
from .way import Way, laid

SETTLE, SETTLED_H = 1, 2.5
"""Further marches in which waits settle, and what they may still be off."""
MEAN_LATE = 0.8
"""Mean of how late a person comes, over its standard deviation: half a normal. Source: definition"""
LEAST_SPREAD_K = 0.5
"""No peak is known better. Source: own_march"""
JUST_H = 1e-3
"""What is planned inside a window is inside by this at least, however late its maker is on the mean."""
SESSION_H = 3.0
"""Pours begun within this of each other are one session at the bench. Source: assumed"""
NEVER_D = 60.0
"""Days that stand for a piece that never comes out of its dam. Source: assumed"""
PEAK_OF_RATE = 0.3
"""Share of a rate's error that shows in the rise of the peak. Source: assumed, from pairs of marches"""
FACE_DE00 = 1.0
"""What a line across the middle of a figure adds to how it shows. Source: assumed"""
FACE_FROM, FACE_TO = 0.2, 0.8
"""Shares of a figure's height between which its eyes and face are. Source: assumed"""
TALL_SHARE = 0.6
"""A figure this tall, over the water, is met by some line whatever is done. Source: assumed"""
STRESS_SPREAD = 0.15
"""Standard deviation of a stress over its strength. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Screened:
    """A way with its settled scene, the cures of its pours, and what it costs; less is better in all five.

    days_d          until the dam comes off
    sessions_count  times at the bench, a seal coat of its own included
    stop_fraction   chance that something stops it, by the spreads that are told of room, resin and person
    clarity_de00    how far bubbles and lines disturb the view
    cost            of the mixed resin, or its kilograms where no price is told
    stops           codes of the checks that stop it on coarse cells, the label's depth and mass among them
    """

    way: Way
    scene: Scene
    cures: Sequence[PourCure | None]
    days_d: float
    sessions_count: int
    stop_fraction: float
    clarity_de00: float
    cost: float
    stops: tuple[str, ...]

    @property
    def five(self) -> tuple[float, float, float, float, float]:
        """What is held against that of others."""
        return self.days_d, float(self.sessions_count), self.stop_fraction, self.clarity_de00, self.cost


class Screen:
    """Screens ways of one scene on coarse cells; `base` is the book of the scene as it was."""

    def __init__(self, base: Book) -> None:
        self.base = base
        self._dam = base.ask(DAM)
        self._cells: dict[tuple[float, ...], CellGeometry] = {}

    def __call__(
        self, way: Way, like: Sequence[PourCure | None] = (), waits_h: list[float] | None = None
    ) -> Screened:
        """A way, its waits settled.

        like   cures of pours like those of the way, by which its first waits are guessed; else waits_h are
        """
        scene = laid(self.base.scene, way, waits_h)
        if len(like) == len(scene.pours) and all(like[:-1]):
            scene = laid(self.base.scene, way, waits_for(scene.brief, like[:-1], [0.0] * len(like), way.aim))
        book = self.base.other(scene)
        heat = self._heat(book, way)
        for _ in range(SETTLE):
            planned = [pour.wait_h for pour in scene.pours]
            waits = waits_for(scene.brief, heat.cures[:-1], planned, way.aim)
            if max(abs(one - other) for one, other in zip(waits, planned, strict=True)) < SETTLED_H:
                break
            scene = laid(self.base.scene, way, waits)
            book = self.base.other(scene)
            heat = self._heat(book, way)
        # of the dam only its girth and whether resin holds on to it are read: no way of pouring changes them
        supposed = book.supposing(HEAT, heat).supposing(DAM, self._dam)
        return weighed(self.base, way, supposed, heat)

    def _heat(self, book: Book, way: Way) -> Heat:
        if way.tops_mm not in self._cells:
            self._cells[way.tops_mm] = coarse_cells(book)
        return coarse_heat(book, self._cells[way.tops_mm])


def weighed(base: Book, way: Way, book: Book, heat: Heat) -> Screened:
    """What a way costs, by the heat that was marched of it."""
    scene = book.scene
    starts = pour_starts_h(scene.pours)
    ready = [
        start + cure.demould_h for start, cure in zip(starts, heat.cures, strict=True)
        if cure is not None and cure.demould_h is not None
    ]
    whole = len(ready) == len(starts)
    margins, certain = margins_of(book, heat), stops_of_way(book, heat)
    stops = tuple(sorted({*certain, *(one.code for one in margins if one.over >= 0)}))
    mix_kg = sum(cup.mix.mix_g for cup in book.ask(CUPS)) * scene.brief.pieces_count / 1000
    return Screened(
        way=way, scene=scene, cures=heat.cures, days_d=max(ready) / 24 if whole else NEVER_D,
        sessions_count=sessions(starts) + int(way.sealed and not base.scene.bed.sealed),
        stop_fraction=1.0 if stops else float(1.0 - prod(norm.cdf(-one.over / one.spread) for one in margins)),
        clarity_de00=disturbance_de00(book), cost=mix_kg * (scene.brief.price_per_kg or 1.0), stops=stops,
    )


def sessions(starts_h: list[float]) -> int:
    """Times at the bench for pours begun then."""
    return 1 + sum(later - before > SESSION_H for before, later in pairwise(starts_h))


@dataclass(frozen=True, slots=True, kw_only=True)
class Margin:
    """By how much something is over its limit, and the standard deviation of that; code of the check it would raise."""

    code: str
    over: float
    spread: float


def margins_of(book: Book, heat: Heat) -> list[Margin]:
    """Limits of heat, stress, and pours that may come too early.

    The spreads are those of the draws of `chances`, their effect taken as linear. Source: assumed
    """
    scene = book.scene
    found = [
        Margin(code="too_hot", over=one.reached_c - one.limit_c, spread=_spread_k(scene, heat, one.reached_c))
        for one in book.ask(LIMITS) if one.reached_c is not None
    ]
    for figure, peak in zip(scene.figures, heat.figure_peaks_c, strict=True):
        if peak is not None:
            found.append(Margin(code="figure_hot", over=peak - hottest_of(figure)[0],
                                spread=_spread_k(scene, heat, peak)))
    for stress in book.ask(STRESSES):
        if stress is not None:
            found.append(Margin(code="may_crack", over=stress.stress_index - CRACKS_AT, spread=STRESS_SPREAD))
    return found + joint_margins(scene, heat)


def joint_margins(scene: Scene, heat: Heat) -> list[Margin]:
    """Pours that may come before the tack of the one below, or slip out of it; not those that wait until it is hard."""
    found = []
    for below, pour, cure in zip(scene.pours, scene.pours[1:], heat.cures, strict=False):
        if cure is None or cure.tack_opens_h is None:
            continue
        rate = scene.resin_of(below).rate_spread_fraction
        comes = pour.wait_h + MEAN_LATE * LATE_H
        found.append(Margin(code="too_early", over=cure.tack_opens_h - comes,
                            spread=max(LATE_H / 2, cure.tack_opens_h * rate)))
        if cure.tack_closes_h is not None and pour.wait_h <= cure.tack_closes_h:
            # what is planned inside the window and may slip out of it
            over = min(comes - cure.tack_closes_h, -JUST_H)
            found.append(Margin(code="too_late", over=over, spread=max(LATE_H / 2, cure.tack_closes_h * rate)))
    return found


def _spread_k(scene: Scene, heat: Heat, reached_c: float) -> float:
    """Standard deviation of a peak [K]."""
    resin = scene.resin_of(scene.pours[0])
    rise = max(0.0, reached_c - heat.mean_room_c)
    of_resin = rise * hypot(resin.heat_spread_fraction, PEAK_OF_RATE * resin.rate_spread_fraction)
    return max(LEAST_SPREAD_K, hypot(scene.brief.room.spread_k / COVERS, of_resin))


def stops_of_way(book: Book, heat: Heat) -> set[str]:
    """Codes of what stops a way whatever is drawn: run away, never hard, over its label, hands too slow."""
    scene = book.scene
    codes = set()
    if any(cure is not None and cure.peak_c >= RUNAWAY_C for cure in heat.cures):
        codes.add("too_hot")
    if heat.cures[-1] is not None and heat.cures[-1].demould_h is None:
        codes.add("never_hard")
    depths, cups, hands_on = book.ask(VOLUMES).depth_mm, book.ask(CUPS), book.ask(HANDS)
    for pour, depth, cup, hands in zip(scene.pours, depths, cups, hands_on, strict=True):
        resin = scene.resin_of(pour)
        if depth > resin.most_pour_mm:
            codes.add("too_deep")
        if cup.mix.mix_g > resin.most_mix_g:
            codes.add("too_much")
        if hands.planned_min > hands.working_min:
            codes.add("hands_late")
    return codes


def disturbance_de00(book: Book) -> float:
    """How far bubbles and lines disturb the view from the side it is mostly seen from.

    Bubbles as the share of the sight that they stand before, mean over the depth; each line as it is seen there,
    less where figures hide it, more where it crosses their middles.
    """
    scene = book.scene
    side, tank = scene.brief.viewing_sides[0], scene.tank
    veils, depths = np.array(book.ask(VEILS)), book.ask(VOLUMES).depth_mm
    bubbles = DE00_OF_STEP * float((veils * depths).sum() / max(depths.sum(), 1e-9))
    lines = []
    for line in book.ask(LINES):
        seen = next(one for one in line.sides if one.side == side)
        height = tank.fill_height_mm - line.depth_mm
        crossed = FACE_DE00 * crosses(book.ask(BODIES), height, tank.fill_height_mm) if side != "above" else 0.0
        late = book.ask(JOINTS)[line.pour_number].meets is Meets.TOO_LATE
        lines.append(together([seen.de00 * (1 - seen.hidden_fraction), crossed, FACE_DE00 * late]))
    return together([bubbles, *lines])


def crosses(bodies: list[FigureBody], height_mm: float, fill_mm: float) -> int:
    """Figures whose middle a line at a height crosses: where eyes and faces are."""
    count = 0
    for body in bodies:
        tall = float(body.most[2] - body.least[2])
        if tall < TALL_SHARE * fill_mm:
            count += FACE_FROM < (height_mm - float(body.least[2])) / max(tall, 1e-9) < FACE_TO
    return count
