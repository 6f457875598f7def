"""What each pour's cups hold, and what hands have to do for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..bench.doses import MeasuredPour, measured_pour
from ..bench.hands import HandsOn, hands_on
from ..bench.mixing import Mix, allowance_ml, mix_for
from ..dam import DamFacts
from .answer import Answer
from .bodies import BODIES, FigureBody
from .dam import DAM
from .fills import VOLUMES, Volumes, covered_by
from .reading import Reading


@dataclass(frozen=True, slots=True, kw_only=True)
class Cup:
    """All cups of one pour.

    allowance_ml  on top of what it takes up: films in the cups, and with the last pour the climb at the walls
    """

    allowance_ml: float
    mix: Mix


def _cups(scene: Any, volumes: Volumes, dam: DamFacts) -> list[Cup]:
    more = [
        allowance_ml(float(volume), scene.resin_of(pour))
        for volume, pour in zip(volumes.resin_ml, scene.pours, strict=True)
    ]
    more[-1] += dam.climb_ml
    return [
        Cup(allowance_ml=extra, mix=mix_for(float(volume + extra), scene.resin_of(pour)))
        for volume, extra, pour in zip(volumes.resin_ml, more, scene.pours, strict=True)
    ]


def _doses(scene: Any, cups: list[Cup]) -> list[MeasuredPour]:
    return [
        measured_pour(scene, number, cup.mix.mix_g, cup.mix.part_a_g) for number, cup in enumerate(cups, start=1)
    ]


def _hands(scene: Any, cups: list[Cup], volumes: Volumes, bodies: list[FigureBody]) -> list[HandsOn]:
    """A figure counts with the pour that covers its foot."""
    last = len(scene.pours)
    met = [(number or last) - 1 for number in covered_by(scene, bodies)]
    return [
        hands_on(scene, index, cup.mix, float(volumes.resin_ml[index]), met.count(index))
        for index, cup in enumerate(cups)
    ]


CUPS = Answer(name="cups", reads=Reading("pours.resin_id", "resins"), needs=(VOLUMES, DAM), by=_cups)
DOSES = Answer(
    name="doses", needs=(CUPS,), by=_doses,
    reads=Reading("pours.doses", "pours.resin_id", "resins", "colourants", "tank.fill_height_mm"),
)
HANDS = Answer(
    name="hands", needs=(CUPS, VOLUMES, BODIES), by=_hands,
    reads=Reading("tank.fill_height_mm", "pours.top_depth_mm", "pours.resin_id", "pours.mix_c", "pours.hands_min",
                  "resins"),
)
