"""Both schools of suspension side by side: staged layers, or one pour with everything held."""

from __future__ import annotations

from dataclasses import dataclass

from ..answers.kept import Keeper
from ..checks import Severity
from ..evaluate import DRAFT, KEEPER, evaluate
from ..holding.facts import FigureFacts
from ..outcome import Outcome
from ..scene import Scene
from ..shape import Meshes
from ..words import Words, words


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """What one way of working costs in this scene.

    seams_count   layer lines that may show
    held_count    figures that need a support, of them unheld_count that nothing tried here holds
    """

    name: str
    pours_count: int
    hottest_c: float | None
    runs_away: bool
    days_d: float | None
    seams_count: int
    held_count: int
    unheld_count: int
    stops: list[str]


def schools(
    scene: Scene, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> list[School]:
    """The scene as planned, and as one pour of its first resin with figures held."""
    planned = evaluate(scene, DRAFT, keeper, meshes=meshes)
    single = scene.model_copy(
        update={"pours": [scene.pours[-1].model_copy(update={"wait_h": 0.0})]}
    )
    one = evaluate(single, DRAFT, keeper, meshes=meshes)
    return [_school(words("schools.staged"), planned), _school(words("schools.held"), one)]


def _school(name: Words, outcome: Outcome) -> School:
    hung = [fact for fact in outcome.figures if not fact.ways[0].holds]
    staged = outcome.whole
    held = [fact for fact in hung if not _laid(fact)] if len(outcome.pours) > 1 else hung
    return School(
        name=name.said(),
        pours_count=len(outcome.pours),
        hottest_c=staged.hottest_c,
        runs_away=staged.runs_away,
        days_d=None if staged.demould_h is None else round(staged.demould_h / 24, 1),
        seams_count=sum(1 for line in outcome.lines if line.worst != "invisible"),
        held_count=len(held),
        unheld_count=sum(1 for fact in held if not _supported(fact)),
        stops=[flag.title for flag in outcome.flags if flag.severity is Severity.STOP],
    )


def _laid(fact: FigureFacts) -> bool:
    return next(way for way in fact.ways if way.way == "staged").holds


def _supported(fact: FigureFacts) -> bool:
    return any(
        way.holds for way in fact.ways if way.way in ("stem", "wire", "line", "glue_spot", "pin")
    )
