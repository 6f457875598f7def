"""Whether the next pour comes into the tack of the one below it, and how sure that is."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ..answers.heat import HEAT, Heat
from ..cure.moments import PourCure
from ..cure.spans import CureSpans
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


def _within(
    wait_h: float, cure: PourCure, spans: CureSpans | None
) -> tuple[CureSpans, float, float, float] | None:
    """(bands, opens, closes, width of an edge) of a wait inside its window."""
    opens, closes = cure.tack_opens_h, cure.tack_closes_h
    if opens is None or closes is None or spans is None or not opens <= wait_h <= closes:
        return None
    return spans, opens, closes, EDGE_SHARE * (closes - opens)


@check("maybe_early", stage="pours", needs=(HEAT,), source="assumed", remedies=(set_wait,))
def maybe_early(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """In the window, but near the side where a slow cure has not opened it."""
    for number, wait, cure, bands in _followed(scene, heat):
        inside = _within(wait, cure, bands)
        if inside is None or inside[0].tack_opens is None:
            continue
        spans, opens, _, edge = inside
        late = spans.tack_opens.late_h if spans.tack_opens else None
        if wait < opens + edge and late is None:
            yield _finding(scene, number, wait, cure, Severity.NOTE, wait, sentence="open_end")
        elif wait < opens + edge and late is not None and wait < late:
            yield _finding(scene, number, wait, cure, Severity.NOTE, late)


@check("maybe_late", stage="pours", needs=(HEAT,), source="assumed", remedies=(set_wait,))
def maybe_late(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """In the window, but near the side where a quick cure has closed it."""
    for number, wait, cure, bands in _followed(scene, heat):
        inside = _within(wait, cure, bands)
        if inside is None or inside[0].tack_closes is None:
            continue
        spans, opens, closes, edge = inside
        if wait < opens + edge and spans.tack_opens and (
            spans.tack_opens.late_h is None or wait < spans.tack_opens.late_h
        ):
            continue
        if wait > closes - edge and spans.tack_closes and wait > spans.tack_closes.early_h:
            yield _finding(scene, number, wait, cure, Severity.NOTE, spans.tack_closes.early_h)
