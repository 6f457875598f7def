"""What is too hot, too deep, too much, or poured at the wrong time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..bench.mixing import Mix
from ..cure.kinetics import degree_at_glass_temperature
from ..cure.march import DEMOULD_TG_C
from ..cure.moments import PourCure, PourPlaces
from ..cure.spans import CureSpans
from ..cure.stress import CRACKS_AT, PourStress
from ..cure.tail import WARMEST_BOX_C, warm_end
from ..materials import Resin
from ..scene import Room, Scene
from .flag import Flag, Remedy, Severity
from .recoat import recoat_flags, window_middle_h
from .remedies import split_pour, warm_room

RUNAWAY_C = 100.0
"""degrees C; above this the reaction feeds itself and the number itself is uncertain. Source:
own_march"""
WATCH_STRESS = 0.6
"""Stress over strength from which it is said. Source: own_march"""
PAINT_C = 80.0
"""degrees C; acrylic paint yellows from here. Source: own_march"""
LEAST_SPLIT_MM = 8.0
"""Depth of a pour below which halves of it are not worth a day. Source: assumed"""
NEAR_LIMIT_K = 5.0
"""K below a limit from which it is said. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatLimit:
    """Something that heat spoils, where it sits, and how hot it gets there.

    pour_id    None if it stands beside every pour
    reached_c  hottest there, of the pour or of all; None where the march tells nothing
    """

    name: str
    limit_c: float
    pour_id: str | None
    words: str
    reached_c: float | None


def pour_flags(
    scene: Scene,
    cures: Sequence[PourCure | None],
    mixes: Sequence[Mix],
    starts_h: Sequence[float],
    bands_c: Sequence[tuple[float, float] | None],
    spans: Sequence[CureSpans | None],
    places: Sequence[PourPlaces],
    stresses: Sequence[PourStress | None],
    depths_mm: Sequence[float],
) -> list[Flag]:
    """Flags of heat, label limits and recoat times, pour by pour from the bottom.

    depths_mm  of each pour's liquid
    """
    found: list[Flag] = []
    for number, cure in enumerate(cures, start=1):
        if cure is None:
            found.append(_no_room_flag(scene, number))
            continue
        depth = float(depths_mm[number - 1])
        found += _label_flags(scene, number, cure, mixes[number - 1], depth)
        if not _warmed_by_hotter(number, cures, starts_h):
            found += _hot_flags(
                scene, number, cure, starts_h[number - 1], bands_c[number - 1], places[number - 1], depth
            )
        found += _stress_flags(scene, number, cure, stresses[number - 1], starts_h[number - 1], depth)
        if number < len(cures):
            found += recoat_flags(scene, number, cure, spans[number - 1], starts_h)
        found += _slow_flags(scene, number, cure, starts_h[number - 1])
    return found


def heat_limits(
    scene: Scene, cures: Sequence[PourCure | None], places: Sequence[PourPlaces]
) -> list[HeatLimit]:
    """What the dam, the bed and each pour's resin stand, and what each gets at its own place."""
    limits = [
        limit
        for number in range(1, len(scene.pours) + 1)
        for limit in limits_of_pour(scene, number, cures[number - 1], places[number - 1])
    ]
    whole: dict[str, HeatLimit] = {}
    for limit in limits:
        seen = whole.get(limit.name)
        hotter = seen is None or (limit.reached_c or -99) > (seen.reached_c or -99)
        if limit.pour_id is None and hotter:
            whole[limit.name] = limit
    return [*whole.values(), *(limit for limit in limits if limit.pour_id is not None)]


def limits_of_pour(
    scene: Scene, number: int, cure: PourCure | None, place: PourPlaces
) -> list[HeatLimit]:
    """The limits that one pour can break."""
    wall, bed, pour = scene.tank.wall.material, scene.bed.material, scene.pours[number - 1]
    resin = scene.resin_of(pour)
    limits = [
        HeatLimit(
            name=wall.name, limit_c=wall.limit_c, pour_id=None, reached_c=place.sheet_c,
            words=f"the {wall.name} of the dam softens near",
        ),
        HeatLimit(
            name=bed.name, limit_c=bed.limit_c, pour_id=None, reached_c=place.bed_c,
            words=f"the bed of {bed.name} stands",
        ),
        HeatLimit(
            name="paint", limit_c=PAINT_C, pour_id=None, reached_c=place.bed_c,
            words="the paint on the bed yellows near",
        ),
        HeatLimit(
            name=resin.name, limit_c=resin.limit_c, pour_id=pour.id,
            reached_c=cure.peak_c if cure else None,
            words=f"{resin.name} yellows near",
        ),
    ]
    if scene.tank.seal is not None:
        seal = scene.tank.seal.material
        limits.append(
            HeatLimit(
                name=seal.name, limit_c=seal.limit_c, pour_id=None, reached_c=place.joint_c,
                words=f"the {seal.name} on the dam lets go near",
            )
        )
    return limits


def _no_room_flag(scene: Scene, number: int) -> Flag:
    line = scene.pours[number - 1].top_depth_mm
    return Flag(
        code="no_room",
        severity=Severity.WATCH,
        title=f"Pour {number} has nowhere to go",
        sentence=f"Below {line:g} mm all is bed or figure: take this pour out or move its line up.",
        number=0.0,
        limit=0.0,
        unit="ml",
        depth_mm=line,
        at_h=None,
        pour_number=number,
        figure_id=None,
        remedies=[],
    )


def _warmed_by_hotter(
    number: int, cures: Sequence[PourCure | None], starts_h: Sequence[float]
) -> bool:
    """True if a pour is at its hottest only under a later pour that is hotter itself."""
    own = cures[number - 1]
    if own is None:
        return False
    at = starts_h[number - 1] + own.peak_at_h
    return any(
        later is not None and at >= start and later.peak_c >= own.peak_c
        for later, start in zip(cures[number:], starts_h[number:], strict=True)
    )


def _hot_flags(
    scene: Scene, number: int, cure: PourCure, start_h: float, band: tuple[float, float] | None,
    place: PourPlaces, depth_mm: float,
) -> list[Flag]:
    """The worst of what this pour can spoil, each at its own place."""
    mean_room = scene.brief.room.mean_c
    rise = max(cure.peak_c - mean_room, 1.0)
    spread = (band[1] - cure.peak_c) / rise if band else 0.0

    def over(limit: HeatLimit) -> tuple[float, float]:
        reached = limit.reached_c if limit.reached_c is not None else -99.0
        warm = reached + max(0.0, spread) * max(reached - mean_room, 0.0)
        return reached - limit.limit_c, warm - limit.limit_c

    limits = limits_of_pour(scene, number, cure, place)
    broken = [limit for limit in limits if over(limit)[0] >= 0]
    near = [limit for limit in limits if over(limit)[1] >= -NEAR_LIMIT_K]
    if not near and cure.peak_c < RUNAWAY_C:
        return []
    worst = max(broken or near or limits, key=lambda limit: over(limit)[0 if broken else 1])
    reached = worst.reached_c if worst.reached_c is not None else cure.peak_c
    at = cure.peak_place
    remedies: list[Remedy] = []
    if depth_mm >= LEAST_SPLIT_MM:
        remedies.append(split_pour(scene, number, depth_mm, window_middle_h(cure)))
    if cure.peak_c >= RUNAWAY_C:
        title = f"Pour {number} runs away, over {RUNAWAY_C:.0f} °C"
        lead = "The reaction feeds itself; how hot it really gets cannot be told"
    else:
        title = f"Pour {number} peaks at {cure.peak_c:.0f} °C"
        lead = f"{at.depth_mm:.0f} mm deep, {cure.peak_at_h:.0f} h after it is poured"
        if band and not broken:
            lead += f", and up to {band[1]:.0f} °C if room and resin run warm"
    others = [f"{limit.name} ({limit.limit_c:.0f} °C)" for limit in broken if limit is not worst]
    tail = f"{worst.words} {worst.limit_c:.0f} °C"
    if worst.pour_id is None and cure.peak_c < RUNAWAY_C:
        tail += f" and gets {reached:.0f} there"
    if others:
        tail += "; too hot too for " + ", ".join(others)
    return [
        Flag(
            code="too_hot",
            severity=Severity.STOP if broken or cure.peak_c >= RUNAWAY_C else Severity.WATCH,
            title=title,
            sentence=f"{lead}; {tail}.",
            number=cure.peak_c if worst.pour_id is not None else reached,
            limit=worst.limit_c,
            unit="°C",
            depth_mm=at.depth_mm,
            at_h=round(start_h + cure.peak_at_h, 2),
            pour_number=number,
            figure_id=None,
            remedies=remedies,
        )
    ]


def _stress_flags(
    scene: Scene, number: int, cure: PourCure, stress: PourStress | None, start_h: float, depth_mm: float
) -> list[Flag]:
    if stress is None or stress.stress_index < WATCH_STRESS:
        return []
    likely = stress.stress_index >= CRACKS_AT
    return [
        Flag(
            code="may_crack",
            severity=Severity.STOP if likely else Severity.WATCH,
            title=f"Pour {number} {'cracks' if likely else 'may crack'} as it cools",
            sentence=(
                f"It shrinks by {stress.after_gel_fraction:.1%} after it has set, and {stress.cause}: the stress "
                f"is {stress.stress_index:.0%} of its strength. Cooler, thinner pours leave less."
            ),
            number=stress.stress_index,
            limit=CRACKS_AT,
            unit="",
            depth_mm=cure.peak_place.depth_mm,
            at_h=round(start_h + cure.peak_at_h, 2),
            pour_number=number,
            figure_id=None,
            remedies=(
                [split_pour(scene, number, depth_mm, window_middle_h(cure))]
                if depth_mm >= LEAST_SPLIT_MM else []
            ),
        )
    ]


def _label_flags(scene: Scene, number: int, cure: PourCure, mix: Mix, depth: float) -> list[Flag]:
    pour = scene.pours[number - 1]
    resin = scene.resin_of(pour)
    found = []
    if depth > resin.most_pour_mm:
        found.append(
            Flag(
                code="too_deep",
                severity=Severity.WATCH,
                title=f"Pour {number} is {depth:.0f} mm deep",
                sentence=(
                    f"The label of the {resin.name} allows {resin.most_pour_mm:.0f} mm in one pour."
                ),
                number=round(depth, 1),
                limit=resin.most_pour_mm,
                unit="mm",
                depth_mm=round(pour.top_depth_mm + depth / 2, 1),
                at_h=None,
                pour_number=number,
                figure_id=None,
                remedies=[split_pour(scene, number, depth, window_middle_h(cure))],
            )
        )
    if mix.mix_g > resin.most_mix_g:
        found.append(
            Flag(
                code="too_much",
                severity=Severity.WATCH,
                title=f"Pour {number} takes {mix.mix_g:.0f} g",
                sentence=(
                    f"The {resin.name} may be mixed {resin.most_mix_g:.0f} g at once, so mix "
                    f"{mix.cups_count} cups in turn and keep none standing."
                ),
                number=round(mix.mix_g),
                limit=resin.most_mix_g,
                unit="g",
                depth_mm=round(pour.top_depth_mm + depth / 2, 1),
                at_h=None,
                pour_number=number,
                figure_id=None,
                remedies=(
                    [split_pour(scene, number, depth, window_middle_h(cure))] if depth >= LEAST_SPLIT_MM else []
                ),
            )
        )
    return found


def warm_words(resin: Resin, room: Room) -> str:
    """What a warm box does for a resin that stalls in a cold room."""
    end = warm_end(resin, room.mean_c, float(degree_at_glass_temperature(DEMOULD_TG_C, resin)))
    if end is None:
        return f"no warm box up to {WARMEST_BOX_C:.0f} °C brings it there: take another resin"
    return f"{end.warm_h:.0f} h in a warm box at {end.warm_c:.0f} °C bring it there"


def _slow_flags(scene: Scene, number: int, cure: PourCure, start_h: float) -> list[Flag]:
    room = scene.brief.room
    resin = scene.resin_of(scene.pours[number - 1])
    line = scene.pours[number - 1].top_depth_mm
    coldest = min(room.night_c, room.day_c) if room.warm_box_c is None else room.warm_box_c
    found = []
    if coldest < resin.least_room_c:
        found.append(
            Flag(
                code="cold_room",
                severity=Severity.WATCH if coldest < resin.least_room_c - 2 else Severity.NOTE,
                title=f"The night is {coldest:g} °C",
                sentence=(
                    f"The {resin.name} asks for a room of {resin.least_room_c:g} °C; pour {number} "
                    "cures slowly and may stay soft."
                ),
                number=coldest,
                limit=resin.least_room_c,
                unit="°C",
                depth_mm=line,
                at_h=round(start_h, 2),
                pour_number=number,
                figure_id=None,
                remedies=[warm_room(scene, resin.least_room_c)],
            )
        )
    if number == len(scene.pours) and cure.demould_h is None:
        found.append(
            Flag(
                code="never_hard",
                severity=Severity.STOP,
                title="The piece does not get hard enough to take out",
                sentence=(
                    f"In this room pour {number} stalls at {cure.degree_at_end:.0%} cure; "
                    f"once its tack is gone, {warm_words(resin, scene.brief.room)}."
                ),
                number=cure.degree_at_end,
                limit=1.0,
                unit="",
                depth_mm=line,
                at_h=round(start_h, 2),
                pour_number=number,
                figure_id=None,
                remedies=[warm_room(scene, 22.0)],
            )
        )
    return found
