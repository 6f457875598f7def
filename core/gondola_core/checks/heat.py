"""What is too hot, too deep, too much, too cold to get hard, or cracks as it cools."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil
from typing import Any

from ..answers.cups import CUPS, Cup
from ..answers.fills import VOLUMES, Volumes
from ..answers.grades import DRAFT
from ..answers.heat import HEAT, RUNAWAY_C, Cures, Heat
from ..answers.limits import HeatLimit, limits_of_pour
from ..answers.setting import STRESSES
from ..cure.kinetics import degree_at_glass_temperature, thin_window_h
from ..cure.march import DEMOULD_TG_C
from ..cure.moments import PourCure
from ..cure.stress import CRACKS_AT, PourStress
from ..cure.tail import WARMEST_BOX_C, warm_end
from ..materials import Resin
from ..scene import Room, Scene
from ..scene.edits import Edit, split_pour, warm_room
from ..scene.schedule import pour_starts_h
from ..words import Words, words
from .flag import Finding, Severity, Where
from .recoat import window_middle_h
from .registry import check

WATCH_STRESS = 0.6
"""Stress over strength from which it is said. Source: own_march"""
LEAST_SPLIT_MM = 8.0
"""Depth of a pour below which halves of it are not worth a day. Source: assumed"""
THIN_SHARE = 0.25
"""Of the window of a thin layer, which opens later than that of a layer that warms itself. Source: assumed"""
MOST_PARTS = 12
"""Parts of one pour that are still a remedy. Source: assumed"""
NEAR_LIMIT_K = 5.0
"""K below a limit from which it is said. Source: assumed"""
COLD_WATCH_K = 2.0
"""K below a label's least room from which it is watched, not noted. Source: assumed"""
WARM_NIGHT_C = 22.0
"""degrees C of a room in which every class gets hard. Source: own_march"""


@check("no_room", stage="pours", needs=(HEAT,), source="definition")
def no_room(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """A pour that is all bed or figure."""
    for number, (pour, cure) in enumerate(zip(scene.pours, heat.cures, strict=True), start=1):
        if cure is None:
            yield Finding(
                severity=Severity.WATCH, where=Where(depth_mm=pour.top_depth_mm, pour_number=number), number=0.0,
                limit=0.0, quantity="volume", values={"pour": number, "line": pour.top_depth_mm},
            )


@check("rough_draft", stage="pours", needs=(HEAT,), source="own_march", by_grid=False)
def rough_draft(_: Scene, heat: Heat) -> Iterator[Finding]:
    """A plan so large or so quick that a draft had to take rougher cells."""
    if heat.rough_mm is not None:
        yield Finding(
            severity=Severity.WATCH, where=Where(), number=heat.rough_mm, limit=DRAFT.cell_mm, quantity="length"
        )


@check("too_deep", stage="pours", needs=(HEAT, VOLUMES), source="own_resin_classes", remedies=(split_pour,))
def too_deep(scene: Scene, heat: Heat, volumes: Volumes) -> Iterator[Finding]:
    """Deeper than the label allows, by the liquid's own depth."""
    for number, pour, cure, depth in _poured(scene, heat, volumes):
        resin = scene.resin_of(pour)
        if depth > resin.most_pour_mm:
            yield Finding(
                severity=Severity.WATCH,
                where=Where(depth_mm=round(pour.top_depth_mm + depth / 2, 1), pour_number=number),
                number=round(depth, 1), limit=resin.most_pour_mm, quantity="length",
                values={"pour": number, "resin": resin.name},
                remedies=_parted(scene, number, depth, cure),
            )


@check("too_much", stage="pours", needs=(HEAT, VOLUMES, CUPS), source="own_resin_classes", remedies=(split_pour,))
def too_much(scene: Scene, heat: Heat, volumes: Volumes, cups: list[Cup]) -> Iterator[Finding]:
    """More than may be mixed at once."""
    for number, pour, cure, depth in _poured(scene, heat, volumes):
        resin, mix = scene.resin_of(pour), cups[number - 1].mix
        if mix.mix_g > resin.most_mix_g:
            yield Finding(
                severity=Severity.WATCH,
                where=Where(depth_mm=round(pour.top_depth_mm + depth / 2, 1), pour_number=number),
                number=round(mix.mix_g), limit=resin.most_mix_g, quantity="mass",
                values={"pour": number, "resin": resin.name, "cups": mix.cups_count},
                remedies=_parted(scene, number, depth, cure),
            )


def _poured(scene: Scene, heat: Heat, volumes: Volumes) -> Iterator[tuple[int, Any, PourCure, float]]:
    """Pours that have room: (number, pour, cure, depth of its liquid)."""
    for number, (pour, cure, depth) in enumerate(
        zip(scene.pours, heat.cures, volumes.depth_mm.tolist(), strict=True), start=1
    ):
        if cure is not None:
            yield number, pour, cure, depth


def _parted(scene: Scene, number: int, depth_mm: float, cure: PourCure) -> list[Edit]:
    """The fewest equal pours, two at least, that are no deeper than the label allows."""
    if depth_mm < LEAST_SPLIT_MM:
        return []
    resin = scene.resin_of(scene.pours[number - 1])
    parts = max(2, min(MOST_PARTS, ceil(depth_mm / resin.most_pour_mm - 1e-9)))
    wait = window_middle_h(cure)
    if parts > 2 or cure.peak_c >= RUNAWAY_C:
        # what cures that much cooler has another window: that of a thin layer, at its opening side
        window = thin_window_h(resin, round(scene.brief.room.mean_c, 1))
        wait = None if window is None else window[0] + THIN_SHARE * (window[1] - window[0])
    return [split_pour(scene, number, depth_mm, wait, parts)]


@check("too_hot", stage="pours", needs=(HEAT, VOLUMES), source="own_march", remedies=(split_pour,))
def too_hot(scene: Scene, heat: Heat, volumes: Volumes) -> Iterator[Finding]:
    """The worst of what each pour can spoil, each at its own place."""
    starts = pour_starts_h(scene.pours)
    for number, _, cure, depth in _poured(scene, heat, volumes):
        if _warmed_by_hotter(number, heat.cures, starts):
            continue
        limits = limits_of_pour(scene, number, cure, heat.places[number - 1])
        worst = _worst_limit(limits, cure, heat.bands_c[number - 1], scene.brief.room.mean_c)
        if worst is not None:
            yield _hot(scene, number, cure, heat, depth, *worst)


def _warmed_by_hotter(number: int, cures: Cures, starts_h: list[float]) -> bool:
    """True if a pour is at its hottest only under a later pour that is hotter itself."""
    own = cures[number - 1]
    if own is None:
        return False
    at = starts_h[number - 1] + own.peak_at_h
    return any(
        later is not None and at >= start and later.peak_c >= own.peak_c
        for later, start in zip(cures[number:], starts_h[number:], strict=True)
    )


def _worst_limit(
    limits: list[HeatLimit], cure: PourCure, band: tuple[float, float] | None, room_c: float
) -> tuple[HeatLimit, list[HeatLimit]] | None:
    """The limit that is broken most, or comes nearest if it runs warm, and all that are broken."""
    spread = (band[1] - cure.peak_c) / max(cure.peak_c - room_c, 1.0) if band else 0.0

    def over(limit: HeatLimit) -> tuple[float, float]:
        warm = limit.reached + max(0.0, spread) * max(limit.reached - room_c, 0.0)
        return limit.reached - limit.limit_c, warm - limit.limit_c

    broken = [limit for limit in limits if over(limit)[0] >= 0]
    near = [limit for limit in limits if over(limit)[1] >= -NEAR_LIMIT_K]
    if not near and cure.peak_c < RUNAWAY_C:
        return None
    return max(broken or near or limits, key=lambda limit: over(limit)[0 if broken else 1]), broken


def _hot(
    scene: Scene, number: int, cure: PourCure, heat: Heat, depth_mm: float, worst: HeatLimit,
    broken: list[HeatLimit],
) -> Finding:
    runs_away, band = cure.peak_c >= RUNAWAY_C, heat.bands_c[number - 1]
    reached = worst.reached_c if worst.reached_c is not None else cure.peak_c
    others = [
        words("flags.too_hot.other", name=limit.name, limit_c=limit.limit_c) for limit in broken if limit is not worst
    ]
    told_there = worst.pour_id is None and not runs_away
    return Finding(
        severity=Severity.STOP if broken or runs_away else Severity.WATCH,
        where=Where(
            depth_mm=cure.peak_place.depth_mm, pour_number=number,
            at_h=round(pour_starts_h(scene.pours)[number - 1] + cure.peak_at_h, 2),
        ),
        number=cure.peak_c if worst.pour_id is not None else reached, limit=worst.limit_c, quantity="temperature",
        title="title_runs_away" if runs_away else "title",
        values={
            "pour": number, "peak_c": cure.peak_c, "runaway_c": RUNAWAY_C,
            "lead": _lead(cure, band, bool(broken), runs_away),
            "what": words(f"flags.too_hot.{worst.what}", name=worst.name),
            "there": words("flags.too_hot.there", reached_c=reached) if told_there else "",
            "others": words("flags.too_hot.others", others=others) if others else "",
        },
        remedies=_parted(scene, number, depth_mm, cure),
    )


def _lead(cure: PourCure, band: tuple[float, float] | None, broken: bool, runs_away: bool) -> Words:
    if runs_away:
        return words("flags.too_hot.lead_runs_away")
    place = {"deep": cure.peak_place.depth_mm, "at_h": cure.peak_at_h}
    if band and not broken:
        return words("flags.too_hot.lead_band", up_to_c=band[1], **place)
    return words("flags.too_hot.lead", **place)


@check("may_crack", stage="pours", needs=(HEAT, VOLUMES, STRESSES), source="own_march", remedies=(split_pour,))
def may_crack(
    scene: Scene, heat: Heat, volumes: Volumes, stresses: list[PourStress | None]
) -> Iterator[Finding]:
    """Stress near strength as a pour cools."""
    starts = pour_starts_h(scene.pours)
    for number, _, cure, depth in _poured(scene, heat, volumes):
        stress = stresses[number - 1]
        if stress is None or stress.stress_index < WATCH_STRESS:
            continue
        likely = stress.stress_index >= CRACKS_AT
        yield Finding(
            severity=Severity.STOP if likely else Severity.WATCH,
            where=Where(
                depth_mm=cure.peak_place.depth_mm, at_h=round(starts[number - 1] + cure.peak_at_h, 2),
                pour_number=number,
            ),
            number=stress.stress_index, limit=CRACKS_AT, quantity="plain",
            title="title_likely" if likely else "title",
            values={
                "pour": number, "shrinks": stress.after_gel_fraction,
                "cause": stress.words,
            },
            remedies=_parted(scene, number, depth, cure),
        )


@check("cold_room", stage="pours", needs=(HEAT,), source="own_resin_classes", remedies=(warm_room,))
def cold_room(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """A room colder than the label asks for."""
    room = scene.brief.room
    coldest = min(room.night_c, room.day_c) if room.warm_box_c is None else room.warm_box_c
    for number, (pour, start, cure) in enumerate(
        zip(scene.pours, pour_starts_h(scene.pours), heat.cures, strict=True), start=1
    ):
        resin = scene.resin_of(pour)
        if cure is not None and coldest < resin.least_room_c:
            yield Finding(
                severity=Severity.WATCH if coldest < resin.least_room_c - COLD_WATCH_K else Severity.NOTE,
                where=Where(depth_mm=pour.top_depth_mm, at_h=round(start, 2), pour_number=number),
                number=coldest, limit=resin.least_room_c, quantity="temperature",
                values={"pour": number, "resin": resin.name},
                remedies=[warm_room(scene, resin.least_room_c)],
            )


@check("never_hard", stage="pours", needs=(HEAT,), source="own_march", remedies=(warm_room,))
def never_hard(scene: Scene, heat: Heat) -> Iterator[Finding]:
    """A piece that stalls before it can come out."""
    number, cure, pour = len(scene.pours), heat.cures[-1], scene.pours[-1]
    if cure is None or cure.demould_h is not None:
        return
    yield Finding(
        severity=Severity.STOP,
        where=Where(
            depth_mm=pour.top_depth_mm, at_h=round(pour_starts_h(scene.pours)[-1], 2), pour_number=number
        ),
        number=cure.degree_at_end, limit=1.0, quantity="plain",
        values={"pour": number, "warm": warm_words(scene.resin_of(pour), scene.brief.room)},
        remedies=[warm_room(scene, WARM_NIGHT_C)],
    )


def warm_words(resin: Resin, room: Room) -> Words:
    """What a warm box does for a resin that stalls in a cold room."""
    end = warm_end(resin, room.mean_c, float(degree_at_glass_temperature(DEMOULD_TG_C, resin)))
    if end is None:
        return words("flags.never_hard.no_box", most_c=WARMEST_BOX_C)
    return words("flags.never_hard.box", warm_h=end.warm_h, warm_c=end.warm_c)
