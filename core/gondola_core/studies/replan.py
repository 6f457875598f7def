"""What comes next, planned anew from what happened: the window of the next pour, and what is left if it is missed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from ..answers.kept import Keeper
from ..answers.pours import PourOutcome
from ..bench.correcting import NOTICED
from ..checks.recoat import EDGE_SHARE
from ..cure.moments import PourCure
from ..cure.spans import CureSpans
from ..evaluate import DRAFT, KEEPER, evaluate
from ..scene import Scene
from ..scene.schedule import free_moment_h, next_free_h, pour_starts_h
from ..shape import Meshes
from ..words import Words, words
from .laying import waits_for

Way = Literal["planned", "in_tack", "after_hard"]
NEAR_H = 0.5
"""A window that has moved by less is told to be where it was. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class NextWay:
    """A moment at which the next pour can be made.

    abrade  True where the layer below is hard by then
    """

    way: Way
    start_at: datetime
    wait_h: float
    abrade: bool
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class Replan:
    """The next pour after what happened. Moments are by the person's own clock.

    opens_early_at, opens_late_at   for fast and for slow resin
    moved_h     by how much the window opens later than was planned, both counted from the first pour
    ways        the best first
    waits_h     of all pours, as the first way and what follows from it has them
    warning     of a pour below that was mixed in a wrong ratio; None where it was not
    """

    pour_number: int
    opens_at: datetime | None
    closes_at: datetime | None
    opens_early_at: datetime | None
    opens_late_at: datetime | None
    hard_at: datetime | None
    moved_h: float | None
    missed: bool
    words: Words
    ways: list[NextWay]
    waits_h: list[float]
    warning: Words | None


def replan(
    planned: Scene, happened: Scene, poured_count: int, now: datetime, meshes: Meshes | None = None,
    keeper: Keeper = KEEPER,
) -> Replan | None:
    """The next pour, given what happened; None before the first and after the last.

    planned, happened  the scene as meant, and as it was up to now
    poured_count       pours that are in
    now                by the person's own clock
    Source: assumed
    """
    if not 0 < poured_count < len(happened.pours):
        return None
    outcome = evaluate(happened, DRAFT, keeper, None, meshes)
    meant = evaluate(planned, DRAFT, keeper, None, meshes)
    below, spans = outcome.pours[poured_count - 1].heat.cure, outcome.pours[poured_count - 1].heat.spans
    start = pour_starts_h(happened.pours)[poured_count - 1]
    now_h = (now - happened.brief.first_pour_at).total_seconds() / 3600 - start
    ways = _ways(happened, poured_count, below, start, now_h)
    opens, closes = (None, None) if below is None else (below.tack_opens_h, below.tack_closes_h)
    was = meant.pours[poured_count - 1].heat.cure
    moved = _moved_h(planned, happened, poured_count, was, below)
    missed = closes is not None and now_h > closes

    def clock(hours: float | None) -> datetime | None:
        return None if hours is None else _clock(happened, start + hours)

    return Replan(
        pour_number=poured_count + 1, opens_at=clock(opens), closes_at=clock(closes),
        opens_early_at=clock(_early(spans)), opens_late_at=clock(_late(spans)),
        hard_at=clock(None if below is None else below.hard_h), moved_h=moved, missed=missed,
        words=_words(poured_count, opens, moved, missed), ways=ways,
        waits_h=_waits(happened, poured_count, ways, outcome.pours), warning=_warning(happened, poured_count),
    )


def _warning(scene: Scene, count: int) -> Words | None:
    error = scene.resin_of(scene.pours[count - 1]).mixed_error_fraction
    if abs(error) < NOTICED:
        return None
    return words("replan.off", pour=count, by=abs(error), which="A" if error < 0 else "B")


def with_waits(scene: Scene, waits_h: Sequence[float]) -> Scene:
    """The scene with other waits."""
    pours = [pour.model_copy(update={"wait_h": wait}) for pour, wait in zip(scene.pours, waits_h, strict=True)]
    return scene.model_copy(update={"pours": pours})


def _clock(scene: Scene, hours: float) -> datetime:
    return (scene.brief.first_pour_at + timedelta(hours=hours)).replace(second=0, microsecond=0)


def _early(spans: CureSpans | None) -> float | None:
    return spans.tack_opens.early_h if spans is not None and spans.tack_opens is not None else None


def _late(spans: CureSpans | None) -> float | None:
    return spans.tack_opens.late_h if spans is not None and spans.tack_opens is not None else None


def _moved_h(
    planned: Scene, happened: Scene, count: int, was: PourCure | None, now: PourCure | None
) -> float | None:
    """From the first pour on: later start and slower cure together."""
    if was is None or now is None or was.tack_opens_h is None or now.tack_opens_h is None:
        return None
    opened = pour_starts_h(planned.pours)[count - 1] + was.tack_opens_h
    opens = pour_starts_h(happened.pours)[count - 1] + now.tack_opens_h
    return round(opens - opened, 2)


def _ways(scene: Scene, count: int, below: PourCure | None, start: float, now_h: float) -> list[NextWay]:
    """Moments for the next pour, in hours from the start of the one below; the best first."""
    if below is None or below.tack_opens_h is None or below.tack_closes_h is None:
        return []
    brief, wait = scene.brief, scene.pours[count].wait_h
    opens, closes = below.tack_opens_h, below.tack_closes_h
    edge = EDGE_SHARE * (closes - opens)
    found: list[NextWay] = []
    if max(opens, now_h) <= wait <= closes:
        found.append(_way(scene, "planned", start, wait))
    else:
        # well inside the tack where that is still to come and free, else anywhere in it
        spans = [(max(opens + edge, now_h), closes - edge), (max(opens, now_h), closes)]
        moments = (
            free_moment_h(brief.first_pour_at, brief.free, start + low, start + high, start + min(max(wait, low), high))
            for low, high in spans if low <= high
        )
        at = next((one for one in moments if one is not None), None)
        found += [] if at is None else [_way(scene, "in_tack", start, at - start)]
    hard = max(below.hard_h if below.hard_h is not None else closes, closes, now_h)
    then = next_free_h(brief.first_pour_at, brief.free, start + hard)
    found.append(_way(scene, "after_hard", start, then - start))
    return found


def _way(scene: Scene, way: Way, start: float, wait_h: float) -> NextWay:
    moment = _clock(scene, start + wait_h)
    return NextWay(
        way=way, start_at=moment, wait_h=round(wait_h, 2), abrade=way == "after_hard",
        words=words(f"replan.{way}", wait_h=wait_h),
    )


def _waits(scene: Scene, count: int, ways: list[NextWay], pours: Sequence[PourOutcome]) -> list[float]:
    """Waits that are past stay; the next is that of the best way; those after it follow the windows."""
    kept = [pour.wait_h for pour in scene.pours]
    if ways:
        kept[count] = ways[0].wait_h
    moved = with_waits(scene, kept)
    cures = [one.heat.cure for one in pours][:-1]
    laid = waits_for(moved.brief, cures, kept)
    return [*kept[: count + 1], *laid[count + 1:]]


def _words(count: int, opens: float | None, moved: float | None, missed: bool) -> Words:
    if opens is None:
        return words("replan.never", pour=count)
    if missed:
        return words("replan.missed", pour=count)
    if moved is None or abs(moved) < NEAR_H:
        return words("replan.stays", pour=count)
    return words("replan.later" if moved > 0 else "replan.sooner", pour=count, by=abs(moved))
