"""Whether the plan fits the person: free hours, the day it is wanted, what it may cost."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from math import ceil, floor

from ..answers.heat import HEAT, Heat
from ..answers.whole import WHOLE, Whole
from ..scene import Scene
from ..scene.edits import set_wait
from ..scene.schedule import free_moment_h, is_free, pour_starts_h
from .flag import Finding, Severity, Where
from .registry import check


@check("not_free", stage="pours", needs=(HEAT,), source="definition", remedies=(set_wait,))
def not_free(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """Pours that begin outside the free hours."""
    brief, starts = scene.brief, pour_starts_h(scene.pours)
    for number, at_h in enumerate(starts, start=1):
        if is_free(brief.first_pour_at, brief.free, at_h):
            continue
        below = heat.cures[number - 2] if number > 1 else None
        better = None
        if below is not None and below.tack_opens_h is not None and below.tack_closes_h is not None:
            opens, closes = (starts[number - 2] + edge for edge in (below.tack_opens_h, below.tack_closes_h))
            better = free_moment_h(brief.first_pour_at, brief.free, opens, closes, at_h)
        wait = None if better is None else _whole_wait_h(scene, starts[number - 2], better)
        yield Finding(
            severity=Severity.WATCH,
            where=Where(depth_mm=scene.pours[number - 1].top_depth_mm, at_h=round(at_h, 2), pour_number=number),
            number=round(at_h, 1), limit=round(at_h if better is None else better, 1), quantity="hours",
            sentence="sentence" if better is None else "sentence_free",
            values={"pour": number, "at": (brief.first_pour_at + timedelta(hours=at_h)).strftime("%a %H:%M")},
            remedies=[] if wait is None else [set_wait(scene, number, wait)],
        )


def _whole_wait_h(scene: Scene, start_h: float, at_h: float) -> float | None:
    """The whole hours of waiting, as waits are offered, that still begin in a free one; None if neither side does."""
    brief, wait = scene.brief, at_h - start_h
    tries = sorted((floor(wait), ceil(wait)), key=lambda one: abs(one - wait))
    return next((float(one) for one in tries if is_free(brief.first_pour_at, brief.free, start_h + one)), None)


@check("after_deadline", stage="pours", needs=(WHOLE,), source="definition")
def after_deadline(scene: Scene, whole: Whole) -> Iterator[Finding]:
    """A piece that comes out of its dam after the day by which it is wanted."""
    wanted = scene.brief.deadline
    if wanted is None or whole.demould_at is None:
        return
    late_d = (datetime.fromisoformat(whole.demould_at).date() - wanted).days
    if late_d > 0:
        yield Finding(
            severity=Severity.WATCH, where=Where(), number=float(late_d), limit=0.0, quantity="plain",
            values={"late": late_d, "wanted": wanted.strftime("%a %-d %b")},
        )


@check("over_budget", stage="pours", needs=(WHOLE,), source="definition")
def over_budget(scene: Scene, whole: Whole) -> Iterator[Finding]:
    """Resin that costs more than it may."""
    price, budget = scene.brief.price_per_kg, scene.brief.budget
    if price is None or budget is None:
        return
    cost = price * whole.all_pieces_mix_g / 1000
    if cost > budget:
        yield Finding(
            severity=Severity.WATCH, where=Where(), number=round(cost, 2), limit=budget, quantity="plain",
            values={"mass": whole.all_pieces_mix_g, "price": price},
        )
