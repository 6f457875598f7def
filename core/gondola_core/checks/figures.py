"""What will go wrong with figures: floating, heat, lamps, liners, their place."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ..answers.bodies import BODIES, FigureBody
from ..answers.figure_facts import FIGURE_FACTS
from ..answers.limits import PAINT_C
from ..holding.facts import FigureFacts
from ..scene import Figure, Scene
from ..scene.edits import Edit, draft_liner, drop_to_bed, hold_figure, lamp_tested
from ..words import Words, words
from .flag import Finding, Severity, Where
from .registry import check

FLAT_TOLD_CM2 = 1.0
"""Flat underside from which it is said. Source: own_geometry"""
OFF_THE_BED_MM = 1.0
"""A flat underside nearer to the bed than this lies on it. Source: assumed"""
COVERED_LIMIT = 0.02
"""Share of a removable figure that resin may lie over. Source: own_holding"""
LEAST_DRAFT_DEG, GOOD_DRAFT_DEG = 1.0, 2.0
"""Draft by which a cavity lets go. Source: own_holding"""
LIGHT_LIFT_GF = 0.05
"""Lift below which a figure that is laid down stays by its own wetting. Source: own_holding"""
SLACK_MM = 0.5
"""What a figure may reach past wall or fill line before it is said. Source: assumed"""
MOST_WAYS = 2
"""Other ways of holding that are offered."""


def _at(scene: Scene, figure: Figure) -> Where:
    fill = scene.tank.fill_height_mm
    return Where(
        depth_mm=float(np.clip(round(fill - figure.place.height_mm, 1), 0, fill)), figure_id=figure.id
    )


@check("not_held", stage="figures", needs=(FIGURE_FACTS,), source="own_holding", remedies=(hold_figure, drop_to_bed))
def not_held(scene: Scene, facts: list[FigureFacts]) -> Iterator[Finding]:
    """Figures that their way of holding does not hold."""
    for figure, fact in zip(scene.figures, facts, strict=True):
        chosen = next(way for way in fact.ways if way.way == figure.holding)
        laid = figure.holding in ("on_bed", "staged") and fact.behaves != "sinks"
        if chosen.holds or (laid and abs(fact.lift_gf) < LIGHT_LIFT_GF):
            continue
        floats = fact.lift_gf > 0
        yield Finding(
            severity=Severity.STOP if floats else Severity.WATCH, where=_at(scene, figure), number=chosen.number,
            limit=chosen.limit, quantity=chosen.quantity, title="title_floats" if floats else "title_sinks",
            values={
                "name": figure.name, "force": abs(fact.lift_gf), "way": chosen.name,
                "why": chosen.sentence,
            },
            remedies=_other_ways(scene, figure, fact, floats),
        )


def _other_ways(scene: Scene, figure: Figure, fact: FigureFacts, floats: bool) -> list[Edit]:
    found = [hold_figure(scene, figure.id, way.way, way.name) for way in fact.ways if way.holds][:MOST_WAYS]
    if figure.holding == "on_bed" and fact.rests_mm is not None and not floats:
        return [drop_to_bed(scene, figure.id, fact.rests_mm), *found]
    return found


@check("may_float", stage="figures", needs=(FIGURE_FACTS,), source="own_geometry")
def may_float(scene: Scene, facts: list[FigureFacts]) -> Iterator[Finding]:
    """A figure whose solid is a guess, and which floats if it is larger than it was taken to be."""
    for figure, fact in zip(scene.figures, facts, strict=True):
        most = fact.lift_gf + fact.lift_spread_gf
        if fact.lift_gf <= 0 < most:
            yield Finding(
                severity=Severity.WATCH, where=_at(scene, figure), number=most, limit=0.0, quantity="force",
                values={
                    "name": figure.name, "volume": fact.volume_ml, "spread": fact.volume_spread_ml,
                    "sinks": -fact.lift_gf,
                },
            )


@check("figure_hot", stage="figures", needs=(FIGURE_FACTS,), source="own_march")
def figure_hot(scene: Scene, facts: list[FigureFacts]) -> Iterator[Finding]:
    """Figures, their paint or their lamps in resin that is too hot for them."""
    for figure, fact in zip(scene.figures, facts, strict=True):
        limit, what = hottest_of(figure)
        if fact.peak_c is not None and fact.peak_c >= limit:
            yield Finding(
                severity=Severity.STOP, where=_at(scene, figure), number=fact.peak_c, limit=limit,
                quantity="temperature", values={"name": figure.name, "what": what},
            )


def hottest_of(figure: Figure) -> tuple[float, str | Words]:
    """The hottest resin that a figure stands [degrees C], and what of it stands no more."""
    limits: list[tuple[float, str | Words]] = [
        (figure.material.limit_c, figure.material.name), (PAINT_C, words("flags.figure_hot.paint")),
    ]
    if figure.lamp is not None:
        limits.append((figure.lamp.limit_c, words("flags.figure_hot.lamp")))
    return min(limits, key=lambda one: one[0])


@check("lamp_untested", stage="figures", source="assumed", remedies=(lamp_tested,))
def lamp_untested(scene: Scene) -> Iterator[Finding]:
    """Lamps that nobody has tried."""
    for figure in scene.figures:
        if figure.lamp is not None and not figure.lamp.tested:
            yield Finding(
                severity=Severity.WATCH, where=_at(scene, figure), number=0.0, limit=0.0, quantity="plain",
                values={"name": figure.name, "wire": figure.lamp.wire_to},
                remedies=[lamp_tested(scene, figure.id)],
            )


@check("liner_locked", stage="figures", needs=(BODIES,), source="own_holding")
def liner_locked(scene: Scene, bodies: list[FigureBody]) -> Iterator[Finding]:
    """Removable figures that resin lies over."""
    for figure, body in zip(scene.figures, bodies, strict=True):
        if figure.liner is not None and body.covered_fraction > COVERED_LIMIT:
            yield Finding(
                severity=Severity.STOP, where=_at(scene, figure), number=round(body.covered_fraction, 3),
                limit=COVERED_LIMIT, quantity="plain", values={"name": figure.name},
            )


@check("liner_draft", stage="figures", needs=(BODIES,), source="own_holding", remedies=(draft_liner,))
def liner_draft(scene: Scene, bodies: list[FigureBody]) -> Iterator[Finding]:
    """Cavities whose sides are too upright to let go."""
    for figure, body in zip(scene.figures, bodies, strict=True):
        if figure.liner is None or body.covered_fraction > COVERED_LIMIT:
            continue
        if figure.liner.draft_deg < LEAST_DRAFT_DEG:
            yield Finding(
                severity=Severity.WATCH, where=_at(scene, figure), number=figure.liner.draft_deg,
                limit=LEAST_DRAFT_DEG, quantity="degrees", values={"name": figure.name, "good": GOOD_DRAFT_DEG},
                remedies=[draft_liner(scene, figure.id, GOOD_DRAFT_DEG)],
            )


@check("flat_underside", stage="figures", needs=(FIGURE_FACTS,), source="own_geometry")
def flat_underside(scene: Scene, facts: list[FigureFacts]) -> Iterator[Finding]:
    """Flat undersides that hold a sheet of small bubbles."""
    for figure, fact in zip(scene.figures, facts, strict=True):
        off = fact.gap_below_mm is None or fact.gap_below_mm > OFF_THE_BED_MM
        if fact.flat_underside_cm2 >= FLAT_TOLD_CM2 and off:
            yield Finding(
                severity=Severity.NOTE, where=_at(scene, figure), number=fact.flat_underside_cm2,
                limit=FLAT_TOLD_CM2, quantity="area", values={"name": figure.name},
            )


def _past(scene: Scene, body: FigureBody) -> tuple[float, float]:
    """How far a figure reaches through the walls, and above the fill line [mm]."""
    room = np.array([scene.tank.inner_width_mm, scene.tank.inner_behind_mm])
    through = float(max(-body.least[:2].min(), (body.most[:2] - room).max()))
    return through, float(body.most[2] - scene.tank.fill_height_mm)


def _top(scene: Scene, figure: Figure, body: FigureBody) -> Where:
    fill = scene.tank.fill_height_mm
    return Where(depth_mm=round(float(np.clip(fill - body.most[2], 0, fill)), 1), figure_id=figure.id)


@check("figure_outside", stage="figures", needs=(BODIES,), source="definition")
def figure_outside(scene: Scene, bodies: list[FigureBody]) -> Iterator[Finding]:
    """Figures through the wall."""
    for figure, body in zip(scene.figures, bodies, strict=True):
        through, _ = _past(scene, body)
        if through > SLACK_MM:
            yield Finding(
                severity=Severity.STOP, where=_top(scene, figure, body), number=round(through, 1), limit=0.0,
                quantity="length", values={"name": figure.name},
            )


@check("figure_above", stage="figures", needs=(BODIES,), source="definition")
def figure_above(scene: Scene, bodies: list[FigureBody]) -> Iterator[Finding]:
    """Figures that stand out of the water."""
    for figure, body in zip(scene.figures, bodies, strict=True):
        through, out = _past(scene, body)
        if out > SLACK_MM and through <= SLACK_MM:
            yield Finding(
                severity=Severity.NOTE, where=_top(scene, figure, body), number=round(out, 1), limit=0.0,
                quantity="length", values={"name": figure.name},
            )
