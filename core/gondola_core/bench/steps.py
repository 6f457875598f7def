"""What is done for one pour, in order, as words."""

from __future__ import annotations

from ..materials.resin import LABEL_C, LABEL_G
from ..scene import Scene
from ..words import Words, words


def pour_steps(scene: Scene, number: int, joint: Words) -> list[Words]:
    """The steps of a pour, from 1, in the order of the work.

    joint  how it meets the one below
    """
    pour, last = scene.pours[number - 1], number == len(scene.pours)
    ratio = scene.resin_of(pour).ratio
    return [
        words("steps.ready") if number == 1 else words("steps.tack", below=number - 1, joint=joint),
        words("steps.warm", mix_c=pour.mix_c, a=ratio.part_a, b=ratio.part_b, by=ratio.by),
        words("steps.colour" if any(dose.dose_drops_per_100g > 0 for dose in pour.doses) else "steps.plain"),
        words("steps.stir"),
        words("steps.fill") if last else words("steps.line", line=pour.top_depth_mm),
        words("steps.cover"),
    ]


def label_words(working_min: float) -> Words:
    """What the label's working time is of."""
    return words("steps.label", working_h=working_min / 60, mass=LABEL_G, at_c=LABEL_C)
