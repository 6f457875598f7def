"""Whether the next pour comes into the tack of the one below it, and how sure that is."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ..answers.heat import HEAT, Heat
from ..cure.moments import PourCure
from ..cure.spans import CureSpan, CureSpans
from ..scene import Scene
from ..scene.edits import set_wait
from ..scene.schedule import pour_starts_h
from .flag import Finding, Severity, Where
from .registry import check

EDGE_SHARE = 0.2
"""Outer share of a tack window, at either end, in which its band is pointed out. Source: assumed"""


def window_middle_h(cure: PourCure | None) -> float | None:
    """Middle of the tack window, in hours after the pour; None if it is not reached."""
    if cure is None or cure.tack_opens_h is None or cure.tack_closes_h is None:
        return None
    return 0.5 * (cure.tack_opens_h + cure.tack_closes_h)


def _followed(scene: Scene, heat: Heat) -> Iterator[tuple[int, float, PourCure, CureSpans | None]]:
    """Pours that another follows: (number, wait of the next, cure, its bands)."""
    starts = pour_starts_h(scene.pours)
    for number in range(1, len(scene.pours)):
        cure = heat.cures[number - 1]
        if cure is not None:
            yield number, starts[number] - starts[number - 1], cure, heat.spans[number - 1]


def _finding(
    scene: Scene, number: int, wait_h: float, cure: PourCure, severity: Severity, limit_h: float, **values: Any
) -> Finding:
    middle = window_middle_h(cure)
    return Finding(
        severity=severity,
        where=Where(
            depth_mm=scene.pours[number - 1].top_depth_mm, at_h=round(pour_starts_h(scene.pours)[number], 2),
            pour_number=number + 1,
        ),
        number=round(wait_h, 1), limit=limit_h, quantity="hours",
        sentence=values.pop("sentence", "sentence"),
        values={"pour": number + 1, "below": number, "wait_h": wait_h, **values},
        remedies=[set_wait(scene, number + 1, middle)] if middle is not None else [],
    )


@check("too_early", stage="pours", needs=(HEAT,), source="own_march", remedies=(set_wait,))
def too_early(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """A pour that comes before the last corner of the one below has gelled."""
    for number, wait, cure, _ in _followed(scene, heat):
        opens = cure.tack_opens_h
        if opens is None:
            yield _finding(scene, number, wait, cure, Severity.STOP, wait, sentence="never")
        elif wait < opens:
            yield _finding(scene, number, wait, cure, Severity.STOP, opens)


@check("too_late", stage="pours", needs=(HEAT,), source="own_march", remedies=(set_wait,))
def too_late(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """A pour that comes when the one below is dry."""
    for number, wait, cure, _ in _followed(scene, heat):
        if cure.tack_opens_h is not None and cure.tack_closes_h is not None and wait > cure.tack_closes_h:
            yield _finding(scene, number, wait, cure, Severity.WATCH, cure.tack_closes_h)


@dataclass(frozen=True, slots=True)
class _Inside:
    """A pour that comes inside the window of the one below: which, its wait [h], that one's cure and bands."""

    below: int
    wait: float
    cure: PourCure
    opens: CureSpan | None
    closes: CureSpan | None
    near_opening: bool
    near_closing: bool

    @property
    def may_be_early(self) -> bool:
        """True if a slow cure has not opened the window by then."""
        if not self.near_opening or self.opens is None:
            return False
        return self.opens.late_h is None or self.wait < self.opens.late_h


def _inside(scene: Scene, heat: Heat) -> Iterator[_Inside]:
    for number, wait, cure, spans in _followed(scene, heat):
        opens, closes = cure.tack_opens_h, cure.tack_closes_h
        if opens is None or closes is None or spans is None or not opens <= wait <= closes:
            continue
        edge = EDGE_SHARE * (closes - opens)
        yield _Inside(
            number, wait, cure, spans.tack_opens, spans.tack_closes, wait < opens + edge, wait > closes - edge
        )


@check("maybe_early", stage="pours", needs=(HEAT,), source="assumed", remedies=(set_wait,))
def maybe_early(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """In the window, but near the side where a slow cure has not opened it."""
    for one in _inside(scene, heat):
        if one.may_be_early and one.opens is not None:
            late = one.opens.late_h
            yield _finding(
                scene, one.below, one.wait, one.cure, Severity.NOTE, one.wait if late is None else late,
                sentence="open_end" if late is None else "sentence",
            )


@check("maybe_late", stage="pours", needs=(HEAT,), source="assumed", remedies=(set_wait,))
def maybe_late(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """In the window, but near the side where a quick cure has closed it."""
    for one in _inside(scene, heat):
        if one.closes is None or not one.near_closing or one.may_be_early:
            continue
        if one.wait > one.closes.early_h:
            yield _finding(scene, one.below, one.wait, one.cure, Severity.NOTE, one.closes.early_h)
