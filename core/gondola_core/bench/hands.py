"""Minutes of hands-on work from mixing to the last touch, against the resin's working time."""

from __future__ import annotations

from dataclasses import dataclass

from ..cure.kinetics import arrhenius_factor
from ..scene import Scene
from .mixing import Mix

STIR_MIN, STIR_MIN_PER_100G, MOST_STIR_MIN = 2.0, 0.7, 6.0
"""min a cup: stirring, scraping, second cup. Source: assumed"""
POUR_ML_PER_MIN = 150.0
"""A low, thin stream. Source: assumed"""
FIGURE_MIN = 1.0
"""min for each figure that the resin meets: wetted with a brush, bubbles under it let out.
Source: assumed"""
LAST_LOOK_MIN = 2.0
"""min: first pass over the bubbles, level and leaks looked at. Source: assumed"""
LATE_SHARE = 2 / 3
"""Share of the working time by which hands should be off. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class HandsOn:
    """One pour's work against its working time.

    planned_min   stirring, pouring, figures, last look; or as the person says
    working_min   the label's time at the temperature of this mix
    own           the person's own time
    """

    planned_min: float
    working_min: float
    own: bool


def stirring_min(cup_g: float) -> float:
    """Stirring, scraping and changing one cup [min]. Source: assumed"""
    return min(MOST_STIR_MIN, STIR_MIN + STIR_MIN_PER_100G * cup_g / 100)


def pouring_min(volume_ml: float) -> float:
    """A volume in a low, thin stream [min]. Source: assumed"""
    return volume_ml / POUR_ML_PER_MIN


def hands_on(
    scene: Scene, index: int, mix: Mix, volume_ml: float, figures_count: int
) -> HandsOn:
    """What pour `index` (from 0) asks of two hands.

        t = cups min(6, 2 + 0.7 m/100 g) + V/150 + 1 per figure + 2
        t_w = t_label / f(T),  f of `arrhenius_factor`

    figures_count  figures whose foot this pour covers

    Source: assumed
    """
    pour = scene.pours[index]
    resin = scene.resin_of(pour)
    cups = mix.cups_count
    stir = cups * stirring_min(mix.mix_g / cups)
    planned = stir + pouring_min(volume_ml) + FIGURE_MIN * figures_count + LAST_LOOK_MIN
    working = resin.working_min / float(arrhenius_factor(pour.mix_c, resin.activation_1_kj_mol))
    return HandsOn(
        planned_min=round(pour.hands_min if pour.hands_min is not None else planned, 1),
        working_min=round(working, 1),
        own=pour.hands_min is not None,
    )
