"""What each pour's cups hold, and what hands have to do for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..bench.batches import Binds, batches
from ..bench.doses import MeasuredPour, measured_pour
from ..bench.hands import HandsOn, hands_on
from ..bench.mixing import Mix, allowance_ml, mix_for
from ..bench.stocks import Stock, stocks_for
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
    binds         what asks for more than one cup; "" where one is enough
    """

    allowance_ml: float
    mix: Mix
    binds: Binds


def _cups(scene: Any, volumes: Volumes, dam: DamFacts) -> list[Cup]:
    last = len(scene.pours) - 1
    return [
        _cup(scene, pour, float(volume), dam.climb_ml if index == last else 0.0)
        for index, (volume, pour) in enumerate(zip(volumes.resin_ml, scene.pours, strict=True))
    ]


def _cup(scene: Any, pour: Any, volume_ml: float, climb_ml: float) -> Cup:
    """A film can bring the mix over a limit: it is counted again with the cups that it then takes."""
    resin, habits = scene.resin_of(pour), scene.brief.habits
    found = batches(volume_ml, resin, habits, pour.mix_c)
    for _ in range(2):
        extra = climb_ml + allowance_ml(volume_ml, resin, found.cups_count)
        found = batches(volume_ml + extra, resin, habits, pour.mix_c)
    return Cup(
        allowance_ml=extra, mix=mix_for(volume_ml + extra, resin, found.cups_count), binds=found.binds,
    )


def _stocks(scene: Any, cups: list[Cup]) -> list[Stock]:
    return stocks_for(scene, [(cup.mix.mix_g, cup.mix.part_a_g) for cup in cups])


def _doses(scene: Any, cups: list[Cup], stocks: list[Stock]) -> list[MeasuredPour]:
    factors = {one.colourant_id: one.factor for one in stocks}
    return [
        measured_pour(scene, number, cup.mix.mix_g, cup.mix.part_a_g, factors)
        for number, cup in enumerate(cups, start=1)
    ]


def _hands(scene: Any, cups: list[Cup], volumes: Volumes, bodies: list[FigureBody]) -> list[HandsOn]:
    """A figure counts with the pour that covers its foot."""
    last = len(scene.pours)
    met = [(number or last) - 1 for number in covered_by(scene, bodies)]
    return [
        hands_on(scene, index, cup.mix, float(volumes.resin_ml[index]), met.count(index))
        for index, cup in enumerate(cups)
    ]


CUPS = Answer(
    name="cups", reads=Reading("pours.resin_id", "pours.mix_c", "resins", "brief.habits"), needs=(VOLUMES, DAM),
    by=_cups,
)
MEASURING = ("pours.doses", "pours.resin_id", "resins", "colourants", "tank.fill_height_mm", "brief.habits")
"""What counting drops reads of a scene."""
STOCKS = Answer(name="stocks", needs=(CUPS,), by=_stocks, reads=Reading(*MEASURING))
DOSES = Answer(name="doses", needs=(CUPS, STOCKS), by=_doses, reads=Reading(*MEASURING))
HANDS = Answer(
    name="hands", needs=(CUPS, VOLUMES, BODIES), by=_hands,
    reads=Reading("tank.fill_height_mm", "pours.top_depth_mm", "pours.resin_id", "pours.mix_c", "pours.hands_min",
                  "resins"),
)
