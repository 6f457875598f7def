"""The steps of the pour days, joined from what the answers say of each pour."""

from __future__ import annotations

from typing import Any

from ..bench.batches import batches
from ..bench.doses import measured_pour
from ..bench.mixing import Mix, mix_for
from ..bench.steps import BenchStep, PourWork, bench_steps
from ..bench.stocks import Stock, stocks_for
from ..cure.light import LightAnswer
from ..shape.pockets import PourPlace
from ..words import Words, words
from .answer import Answer
from .bodies import BODIES, FigureBody
from .clarity import CLARITY, PourClarity
from .cups import CUPS, MEASURING, STOCKS, Cup
from .fills import covered_by
from .joints import JOINTS, Meets, PourJoint
from .pours import FILLS, PourFill
from .reading import Reading
from .setting import LIGHT


def _steps(
    scene: Any, cups: list[Cup], stocks: list[Stock], joints: list[PourJoint], clarity: list[PourClarity],
    fills: list[PourFill], light: list[LightAnswer | None], bodies: list[FigureBody],
) -> list[BenchStep]:
    pieces = scene.brief.pieces_count
    if pieces > 1:
        stocks = stocks_for(scene, [(pieces * cup.mix.mix_g, pieces * cup.mix.part_a_g) for cup in cups])
    factors = {one.colourant_id: one.factor for one in stocks}
    covers = covered_by(scene, bodies)
    work = [
        _work(scene, index, factors, covers, told)
        for index, told in enumerate(zip(cups, joints, clarity, fills, light, strict=True))
    ]
    return bench_steps(scene, stocks, work)


Told = tuple[Cup, PourJoint, PourClarity, PourFill, LightAnswer | None]


def _work(scene: Any, index: int, factors: dict[str, int], covers: list[int | None], told: Told) -> PourWork:
    """What is told of one pour, for all its pieces together."""
    cup, joint, clear, fill, light = told
    pour, resin = scene.pours[index], scene.resin_of(scene.pours[index])
    mix = _of_all(scene, pour, cup)
    measured = measured_pour(scene, index + 1, mix.mix_g, mix.part_a_g, factors)
    return PourWork(
        number=index + 1, pour=pour, resin=resin, cups_count=mix.cups_count, mix_g=mix.mix_g,
        part_a_g=mix.part_a_g, plain_part_a_g=measured.plain_part_a_g, doses=measured.doses,
        figures=[
            one for one, met in zip(scene.figures, covers, strict=True) if met == index + 1 and not one.cut_at_fill
        ],
        places=[_place(one) for one in fill.places], surface_cm2=fill.free_surface_cm2, joint=joint.words,
        abrade=joint.meets is Meets.TOO_LATE,
        trapped_ml=clear.trapped_ml, undersides_cm2=clear.undersides_cm2, passes_min=clear.flame.passes_min,
        lamp_min=None if light is None else light.lamp_min,
    )


def _of_all(scene: Any, pour: Any, cup: Cup) -> Mix:
    """The mix of all pieces, in the cups that it takes."""
    pieces, resin = scene.brief.pieces_count, scene.resin_of(pour)
    if pieces == 1:
        return cup.mix
    volume = pieces * cup.mix.mix_ml
    return mix_for(volume, resin, batches(volume, resin, scene.brief.habits, pour.mix_c).cups_count)


def _place(place: PourPlace) -> Words:
    return words("steps.pour_place", volume=place.volume_ml, name=place.name)


STEPS = Answer(
    name="steps", needs=(CUPS, STOCKS, JOINTS, CLARITY, FILLS, LIGHT, BODIES), by=_steps,
    reads=Reading(
        *MEASURING, "pours.id", "pours.mix_c", "pours.top_depth_mm", "brief.pieces_count", "brief.room",
        "bed.sealed", "figures.id", "figures.name", "figures.holding", "figures.lamp",
        "figures.cut_at_fill",
    ),
)
