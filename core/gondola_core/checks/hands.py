"""Whether all that is to be done fits into the resin's working time."""

from __future__ import annotations

from collections.abc import Iterator

from ..answers.cups import HANDS
from ..bench.hands import LATE_SHARE, HandsOn
from ..scene import Scene
from ..scene.edits import cooler_mix
from ..words import words
from .flag import Finding, Severity, Where
from .registry import check

COOLER_C = 20.0
"""degrees C of a mix that is still easy to stir. Source: assumed"""


@check("hands_late", stage="pours", needs=(HANDS,), source="assumed", remedies=(cooler_mix,))
def hands_late(scene: Scene, hands: list[HandsOn]) -> Iterator[Finding]:
    """Pours whose work is longer than their resin waits."""
    for number, one in enumerate(hands, start=1):
        if one.planned_min <= LATE_SHARE * one.working_min:
            continue
        over, pour = one.planned_min > one.working_min, scene.pours[number - 1]
        yield Finding(
            severity=Severity.STOP if over else Severity.WATCH,
            where=Where(depth_mm=pour.top_depth_mm, pour_number=number),
            number=one.planned_min, limit=one.working_min, quantity="minutes",
            title="title_over" if over else "title",
            values={
                "pour": number,
                "by": words("flags.hands_late.by_own" if one.own else "flags.hands_late.by_sum"),
                "end": words("flags.hands_late.end_over" if over else "flags.hands_late.end_near"),
            },
            remedies=[cooler_mix(scene, number, COOLER_C)] if pour.mix_c > COOLER_C else [],
        )
