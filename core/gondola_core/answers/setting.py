"""What becomes of each pour as it sets: stress, bubbles, grains, light, gas out of the bed."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..cure.bubbles import BubbleProfile, Settling, bubble_profile, settling
from ..cure.light import LightAnswer, light_answer
from ..cure.stress import PourStress, pour_stress
from ..shape.columns import FIRST_FIGURE, ColumnSpans
from ..units import MM
from .answer import Answer
from .fills import VOLUMES, Volumes, lines_mm
from .flood import SPANS
from .heat import HEAT, Heat
from .reading import Reading

SEALED_LETS_THROUGH = 0.05
"""Share of a bed's gas that passes a brushed seal coat, at its pinholes. Source: assumed"""
HARD_G_ML = 1.0
"""Density from which a solid counts as hard, and hardly shrinks with the resin. Source: assumed"""
SHADE_MM = 0.5
"""A figure this far above the floor of a layer shades what is under it. Source: assumed"""


def stresses_of(scene: Any, heat: Heat, volumes: Volumes) -> list[PourStress | None]:
    """Shrinkage and stress of each pour."""
    solids = [scene.bed.material, *(figure.material for figure in scene.figures)]
    hard = any(solid.density_g_ml >= HARD_G_ML for solid in solids)
    return [
        None if cure is None or cooling is None else pour_stress(
            scene.resin_of(pour), cure.peak_c, cooling, heat.mean_room_c, cure.degree_at_end,
            scene.tank.inner_width_mm, float(depth), on_hard=hard,
        )
        for pour, cure, cooling, depth in zip(scene.pours, heat.cures, heat.coolings, volumes.depth_mm, strict=True)
    ]


def _gas_ml(scene: Any, heat: Heat) -> list[float]:
    """Gas that the warming pores of the bed give off while each pour is liquid.

    By the bed's own temperature in the march; a seal coat keeps most of it in.
    """
    through = SEALED_LETS_THROUGH if scene.bed.sealed else 1.0
    return [through * max(0.0, float(grown)) for grown in heat.marched.gas_ml]


def _bubbles(scene: Any, heat: Heat) -> BubbleProfile:
    """Escape size at every level that holds resin, from the surface down."""
    marched = heat.marched
    levels = np.flatnonzero(marched.resin.any(axis=(1, 2)))[::-1]
    pours = [scene.pours[int(marched.pour_of_level[level])] for level in levels]
    fill = scene.tank.fill_height_mm
    return bubble_profile(
        [round(fill - float(marched.heights[level]) / MM, 2) for level in levels],
        [pour.top_depth_mm for pour in pours],
        [scene.resin_of(pour).density_g_ml for pour in pours],
        marched.flown[levels],
    )


def _grains(scene: Any, heat: Heat, volumes: Volumes) -> list[list[Settling]]:
    """How far the grains of each pour sink before it gels."""
    found = []
    for index, pour in enumerate(scene.pours):
        mine = np.flatnonzero(heat.marched.pour_of_level == index)
        fluidity = float(np.median(heat.marched.flown[mine])) if len(mine) else 0.0
        density = scene.resin_of(pour).density_g_ml
        depth = float(volumes.depth_mm[index])
        found.append(
            [settling(one.kind, one.diameter_mm, density, fluidity, depth) for one in pour.inclusions]
        )
    return found


def _light(scene: Any, spans: ColumnSpans, volumes: Volumes) -> list[LightAnswer | None]:
    """How light-cured layers set; figures above the floor of one shade what is under them."""
    column = np.repeat(np.arange(len(spans.first) - 1), np.diff(spans.first))
    found: list[LightAnswer | None] = []
    for pour, line, depth in zip(scene.pours, lines_mm(scene)[1:], volumes.depth_mm, strict=True):
        light = scene.resin_of(pour).light
        if light is None:
            found.append(None)
            continue
        shades = (spans.what >= FIRST_FIGURE) & (spans.low > line - depth + SHADE_MM)
        shaded = len(np.unique(column[shades])) / (len(spans.first) - 1)
        found.append(light_answer(light, float(depth), shaded))
    return found


STRESSES = Answer(
    name="stresses", needs=(HEAT, VOLUMES), by=stresses_of,
    reads=Reading("bed.material", "figures.material", "pours.resin_id", "resins", "tank.inner_width_mm"),
)
GAS = Answer(name="gas", reads=Reading("bed.sealed"), needs=(HEAT,), by=_gas_ml)
BUBBLES = Answer(
    name="bubbles", needs=(HEAT,), by=_bubbles,
    reads=Reading("tank.fill_height_mm", "pours.top_depth_mm", "pours.resin_id", "resins"),
)
GRAINS = Answer(
    name="grains", reads=Reading("pours.resin_id", "pours.inclusions", "resins"), needs=(HEAT, VOLUMES), by=_grains,
)
LIGHT = Answer(
    name="light", needs=(SPANS, VOLUMES), by=_light,
    reads=Reading("tank.fill_height_mm", "pours.top_depth_mm", "pours.resin_id", "resins"),
)
