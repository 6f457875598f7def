"""Whether the next pour comes into the tack of the one below it, and how sure that is."""

from __future__ import annotations

from collections.abc import Sequence

from ..cure.moments import PourCure
from ..cure.spans import CureSpans
from ..scene import Scene
from .flag import Flag, Severity
from .remedies import set_wait

EDGE_SHARE = 0.2
"""Outer share of a tack window, at either end, in which its band is pointed out. Source: assumed"""


def window_middle_h(cure: PourCure | None) -> float | None:
    """Middle of the tack window, in hours after the pour; None if it is not reached."""
    if cure is None or cure.tack_opens_h is None or cure.tack_closes_h is None:
        return None
    return 0.5 * (cure.tack_opens_h + cure.tack_closes_h)


def recoat_flags(
    scene: Scene, number: int, cure: PourCure, spans: CureSpans | None, starts_h: Sequence[float]
) -> list[Flag]:
    """Of the pour that follows pour `number`: too early, after the tack, or near either."""
    wait = starts_h[number] - starts_h[number - 1]
    opens, closes = cure.tack_opens_h, cure.tack_closes_h
    middle = window_middle_h(cure)
    remedies = [set_wait(scene, number + 1, middle)] if middle is not None else []

    def flag(
        code: str, severity: Severity, title: str, sentence: str, limit: float
    ) -> list[Flag]:
        return [
            Flag(
                code=code, severity=severity, title=title, sentence=sentence,
                number=round(wait, 1), limit=limit, unit="h",
                depth_mm=scene.pours[number - 1].top_depth_mm, at_h=round(starts_h[number], 2),
                pour_number=number + 1, figure_id=None, remedies=remedies,
            )
        ]

    if opens is None or wait < opens:
        if opens is None:
            tail = f"pour {number} does not gel at all in this room"
        else:
            tail = f"its last corner gels only after {opens:.0f} h, so the two may run together"
        return flag(
            "too_early", Severity.STOP, f"Pour {number + 1} comes too early",
            f"It follows pour {number} after {wait:.0f} h; {tail}.",
            opens if opens is not None else wait,
        )
    if closes is not None and wait > closes:
        return flag(
            "too_late", Severity.WATCH, f"Pour {number + 1} comes after the tack",
            f"Pour {number} is no longer tacky after {closes:.0f} h, and this is "
            f"{wait:.0f} h: abrade and wipe it first, or the layers part.",
            closes,
        )
    if spans is None or spans.tack_opens is None or spans.tack_closes is None or closes is None:
        return []
    edge = EDGE_SHARE * (closes - opens)
    late, early = spans.tack_opens.late_h, spans.tack_closes.early_h
    if wait < opens + edge and (late is None or wait < late):
        slow = f"only after {late:.0f} h" if late is not None else "not in this march"
        return flag(
            "maybe_early", Severity.NOTE, f"Pour {number + 1} is near the early side",
            f"It follows pour {number} after {wait:.0f} h; in a cool room or with slow resin that "
            f"gels {slow}. Feel its edge with a gloved finger before you pour.",
            late if late is not None else wait,
        )
    if wait > closes - edge and wait > early:
        return flag(
            "maybe_late", Severity.NOTE, f"Pour {number + 1} is near the late side",
            f"It follows pour {number} after {wait:.0f} h; in a warm room or with quick resin that has "
            f"lost its tack after {early:.0f} h. Feel it; if it is dry, abrade and wipe it.",
            early,
        )
    return []
