"""Whether all that is to be done fits into the resin's working time."""

from __future__ import annotations

from collections.abc import Sequence

from ..bench.hands import LATE_SHARE, HandsOn
from ..scene import Scene
from .flag import Flag, Severity
from .remedies import cooler_mix

COOLER_C = 20.0
"""degrees C of a mix that is still easy to stir. Source: assumed"""


def hands_flags(scene: Scene, hands: Sequence[HandsOn]) -> list[Flag]:
    """Pours whose work is longer than their resin waits."""
    found = []
    for number, one in enumerate(hands, start=1):
        if one.planned_min <= LATE_SHARE * one.working_min:
            continue
        over = one.planned_min > one.working_min
        pour = scene.pours[number - 1]
        by = "as you say" if one.own else "stirring, pouring, figures and a last look"
        end = "it thickens in your hands" if over else "that leaves nothing to spare"
        found.append(
            Flag(
                code="hands_late",
                severity=Severity.STOP if over else Severity.WATCH,
                title=f"Pour {number} takes longer than it waits" if over else f"Pour {number} is a hurry",
                sentence=(
                    f"Some {one.planned_min:.0f} min of work ({by}) in the label's working time "
                    f"of {one.working_min:.0f} min at this temperature: {end}. Pour less at once, or "
                    "with a helper."
                ),
                number=one.planned_min, limit=one.working_min, unit="min",
                depth_mm=pour.top_depth_mm, at_h=None, pour_number=number, figure_id=None,
                remedies=[cooler_mix(scene, number, COOLER_C)] if pour.mix_c > COOLER_C else [],
            )
        )
    return found
