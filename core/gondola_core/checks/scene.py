"""What can be told from the scene alone: bed, rim, figures in their place."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ..scene import Scene
from .flag import Flag, Severity
from .remedies import seal_bed

Array = NDArray[np.float64]

SLACK_MM = 0.5
"""What a figure may reach past wall or fill line before it is said. Source: assumed"""
LEAST_HEADROOM_MM = 6.0
"""Wall above the fill line that the climb of the resin and a tilt use up. Source: assumed"""


def scene_flags(
    scene: Scene, extents_mm: Sequence[tuple[Array, Array]]
) -> list[Flag]:
    """Flags that need no march.

    extents_mm  lowest and highest corner of each figure, above the floor
    """
    return [
        *_place_flags(scene, extents_mm),
        *_bed_flags(scene),
        *_rim_flags(scene),
    ]


def _place_flags(scene: Scene, extents_mm: Sequence[tuple[Array, Array]]) -> list[Flag]:
    tank = scene.tank
    room = np.array([tank.inner_width_mm, tank.inner_behind_mm])
    found = []
    for figure, (least, most) in zip(scene.figures, extents_mm, strict=True):
        through = float(max(-least[:2].min(), (most[:2] - room).max()))
        out = float(most[2] - tank.fill_height_mm)
        if through > SLACK_MM:
            words = (
                Severity.STOP,
                f"The {figure.name} reaches {through:.0f} mm through the wall",
                "Only the part inside counts in the volumes: move it in, or turn it.",
            )
        elif out > SLACK_MM:
            words = (
                Severity.NOTE,
                f"The {figure.name} stands {out:.0f} mm out of the water",
                "Cut it at the fill line and add that part after the pour.",
            )
        else:
            continue
        found.append(
            Flag(
                code="figure_outside" if through > SLACK_MM else "figure_above",
                severity=words[0],
                title=words[1],
                sentence=words[2],
                number=round(max(through, out), 1),
                limit=0.0,
                unit="mm",
                depth_mm=round(
                    float(np.clip(tank.fill_height_mm - most[2], 0, tank.fill_height_mm)), 1
                ),
                at_h=None,
                pour_number=None,
                figure_id=figure.id,
                remedies=[],
            )
        )
    return found


def _bed_flags(scene: Scene) -> list[Flag]:
    bed = scene.bed
    if bed.sealed or bed.material.porosity_fraction < 0.05:
        return []
    return [
        Flag(
            code="bed_not_sealed",
            severity=Severity.WATCH,
            title="The bed is not sealed",
            sentence=(
                f"{bed.material.name[:1].upper()}{bed.material.name[1:]} is "
                f"{bed.material.porosity_fraction:.0%} pores; the air in them feeds bubbles as "
                "it warms."
            ),
            number=bed.material.porosity_fraction,
            limit=0.05,
            unit="",
            depth_mm=round(scene.tank.fill_height_mm - max(map(max, bed.heights_mm)), 1),
            at_h=None,
            pour_number=None,
            figure_id=None,
            remedies=[seal_bed()],
        )
    ]


def _rim_flags(scene: Scene) -> list[Flag]:
    headroom = scene.tank.wall_height_mm - scene.tank.fill_height_mm
    if headroom >= LEAST_HEADROOM_MM:
        return []
    return [
        Flag(
            code="near_rim",
            severity=Severity.WATCH,
            title=f"Only {headroom:g} mm of wall above the fill line",
            sentence=(
                f"Resin climbs the wall and a table is never level: keep {LEAST_HEADROOM_MM:g} mm."
            ),
            number=headroom,
            limit=LEAST_HEADROOM_MM,
            unit="mm",
            depth_mm=0.0,
            at_h=None,
            pour_number=None,
            figure_id=None,
            remedies=[],
        )
    ]
