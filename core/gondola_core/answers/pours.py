"""What is told of each pour, in parts by subject, and of the piece as a whole."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from ..bench.batches import Binds
from ..bench.doses import MeasuredPour
from ..bench.hands import HandsOn
from ..bench.mixing import Mix
from ..bench.steps import label_words
from ..cure.bubbles import Settling
from ..cure.light import LightAnswer
from ..cure.moments import PourCure
from ..cure.spans import CureSpan, CureSpans
from ..cure.stress import PourStress
from ..scene.schedule import pour_starts_h
from ..shape.pockets import PourPlace
from ..words import Words
from .answer import Answer
from .cups import CUPS, DOSES, HANDS, Cup
from .fills import VOLUMES, Volumes
from .flood import PLACES
from .heat import HEAT, Heat
from .joints import JOINTS, PourJoint
from .reading import Reading
from .setting import GAS, GRAINS, LIGHT, STRESSES


@dataclass(frozen=True, slots=True, kw_only=True)
class PeakBand:
    """Peak if room and resin run cool, and if they run warm."""

    low_c: float
    high_c: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PourFill:
    """What a pour takes up.

    depth_mm          of its liquid, from its line down to bed or layer below
    free_volume_ml    not solid between its lines
    resin_volume_ml   what it takes up there: what is reached, less the air that stays; a hollow
                      whose rim it passes counts whole
    gas_ml            what the pores of the bed give off while it is liquid
    places            where it has to be poured, if not all in one place
    """

    depth_mm: float
    free_volume_ml: float
    resin_volume_ml: float
    trapped_ml: float
    gas_ml: float
    free_surface_cm2: float
    places: list[PourPlace]


@dataclass(frozen=True, slots=True, kw_only=True)
class PourCup:
    """What its cups hold.

    allowance_ml  on top, for the films in the cups and the climb at the walls; in `mix`
    binds         what asks for more than one cup: label, cup, scale or heat; "" where one is enough
    """

    allowance_ml: float
    mix: Mix
    binds: Binds
    measured: MeasuredPour


@dataclass(frozen=True, slots=True, kw_only=True)
class PourClock:
    """When it is poured and what comes after, on the clock.

    label_words   what the label's working time is of
    working_early_min, working_late_min   the label's time over what its rate may be off
    opens_early_at, opens_late_at   when the tack opens for fast and for slow resin
    """

    start_h: float
    starts_at: str
    working_min: float
    label_words: Words
    working_early_min: float
    working_late_min: float
    tack_opens_at: str | None
    tack_closes_at: str | None
    opens_early_at: str | None
    opens_late_at: str | None
    hard_at: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PourHeat:
    """How warm it gets and how it cures; None where the bed leaves it no room.

    spans  how early and late each moment of its cure may come
    """

    cure: PourCure | None
    peak_band: PeakBand | None
    spans: CureSpans | None
    stress: PourStress | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PourOutcome:
    """One pour, numbered from the bottom; bottom_depth_mm is where the line below it lies, or the floor."""

    number: int
    id: str
    resin_id: str
    top_depth_mm: float
    bottom_depth_mm: float
    fill: PourFill
    cup: PourCup
    clock: PourClock
    heat: PourHeat
    joint: PourJoint
    hands: HandsOn
    light: LightAnswer | None
    grains: list[Settling]


def clock(scene: Any, hours: float) -> str:
    """A moment so many hours after the first pour, to the minute."""
    moment = scene.brief.first_pour_at + timedelta(hours=hours)
    return str(moment.replace(second=0, microsecond=0).isoformat(timespec="minutes"))


def _fills(_: Any, volumes: Volumes, gas_ml: list[float], places: list[list[PourPlace]]) -> list[PourFill]:
    return [
        PourFill(
            depth_mm=round(float(volumes.depth_mm[index]), 2),
            free_volume_ml=round(float(volumes.free_ml[index]), 2),
            resin_volume_ml=round(float(volumes.resin_ml[index]), 2),
            trapped_ml=round(float(volumes.trapped_ml[index]), 3),
            gas_ml=round(gas, 2),
            free_surface_cm2=round(float(volumes.surface_cm2[index]), 1),
            places=places[index],
        )
        for index, gas in enumerate(gas_ml)
    ]


def _clocks(scene: Any, heat: Heat) -> list[PourClock]:
    found = []
    for pour, start, cure, spans in zip(
        scene.pours, pour_starts_h(scene.pours), heat.cures, heat.spans, strict=True
    ):
        resin = scene.resin_of(pour)
        opens = spans.tack_opens if spans else None

        def at(after_h: float | None, start: float = start) -> str | None:
            return None if after_h is None else clock(scene, start + after_h)

        found.append(
            PourClock(
                start_h=start,
                starts_at=clock(scene, start),
                working_min=resin.working_min,
                label_words=label_words(resin.working_min),
                working_early_min=round(resin.working_min / (1 + resin.rate_spread_fraction), 1),
                working_late_min=round(resin.working_min / max(0.05, 1 - resin.rate_spread_fraction), 1),
                tack_opens_at=at(cure.tack_opens_h if cure else None),
                tack_closes_at=at(cure.tack_closes_h if cure else None),
                opens_early_at=at(opens.early_h if opens else None),
                opens_late_at=at(opens.late_h if opens else None),
                hard_at=at(cure.hard_h if cure else None),
            )
        )
    return found


def _heats(_: Any, heat: Heat, stresses: list[PourStress | None]) -> list[PourHeat]:
    return [
        PourHeat(
            cure=cure, peak_band=PeakBand(low_c=band[0], high_c=band[1]) if band else None, spans=spans,
            stress=stress,
        )
        for cure, band, spans, stress in zip(heat.cures, heat.bands_c, heat.spans, stresses, strict=True)
    ]


def _pours(
    scene: Any, fills: list[PourFill], cups: list[Cup], doses: list[MeasuredPour], clocks: list[PourClock],
    heats: list[PourHeat], joints: list[PourJoint], hands: list[HandsOn],
    light: list[LightAnswer | None], grains: list[list[Settling]],
) -> list[PourOutcome]:
    bottoms = [scene.tank.fill_height_mm, *(pour.top_depth_mm for pour in scene.pours)]
    return [
        PourOutcome(
            number=index + 1,
            id=pour.id,
            resin_id=pour.resin_id,
            top_depth_mm=pour.top_depth_mm,
            bottom_depth_mm=round(bottoms[index], 2),
            fill=fills[index],
            cup=PourCup(
                allowance_ml=round(cups[index].allowance_ml, 2), mix=cups[index].mix, binds=cups[index].binds,
                measured=doses[index],
            ),
            clock=clocks[index],
            heat=heats[index],
            joint=joints[index],
            hands=hands[index],
            light=light[index],
            grains=grains[index],
        )
        for index, pour in enumerate(scene.pours)
    ]


FILLS = Answer(name="fills", reads=Reading(), needs=(VOLUMES, GAS, PLACES), by=_fills)
CLOCKS = Answer(
    name="clocks", needs=(HEAT,), by=_clocks,
    reads=Reading("brief.first_pour_at", "pours.wait_h", "pours.resin_id", "resins"),
)
HEATS = Answer(name="heats", reads=Reading(), needs=(HEAT, STRESSES), by=_heats)
POURS = Answer(
    name="pours", needs=(FILLS, CUPS, DOSES, CLOCKS, HEATS, JOINTS, HANDS, LIGHT, GRAINS), by=_pours,
    reads=Reading("tank.fill_height_mm", "pours.id", "pours.resin_id", "pours.top_depth_mm"),
)


def latest_span(moments: list[tuple[float, CureSpan | None]]) -> CureSpan | None:
    """The band of the last of some moments, each from the start of its pour; from the first pour."""
    known = [(start, span) for start, span in moments if span is not None]
    if not known or len(known) < len(moments):
        return None
    late = [start + span.late_h for start, span in known if span.late_h is not None]
    return CureSpan(
        early_h=round(max(start + span.early_h for start, span in known), 2),
        late_h=round(max(late), 2) if len(late) == len(known) else None,
    )
