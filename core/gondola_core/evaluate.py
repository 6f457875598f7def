"""The composer: joins the subjects into one outcome. Page, command and queue all call it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta

import numpy as np
from numpy.typing import NDArray
from pydantic import TypeAdapter

from .answers.kept import Keeper, digest
from .answers.scene_facts import (
    Volumes,
    allowances,
    bubbles_of,
    facts_of_figures,
    filling_of,
    gas_of_pour_ml,
    hands_of,
    light_of,
    pours_on_dam,
    settling_of,
    stresses,
    volumes_of,
)
from .answers.scene_heat import DRAFT, FINE, Grade, SceneHeat, scene_heat
from .answers.scene_shape import SceneShape, body_inputs, scene_shape
from .bench.doses import measured_pour
from .bench.hands import HandsOn
from .bench.mixing import Mix, mix_for
from .checks import (
    Flag,
    dam_flags,
    figure_flags,
    hands_flags,
    heat_limits,
    in_order,
    pour_flags,
    scene_flags,
    water_flags,
    with_close_calls,
)
from .cure.bond import bond_below
from .cure.moments import PourCure, audit, cure_history, heat_profile
from .cure.spans import CureSpan
from .cure.stress import PourStress
from .dam import DamFacts, dam_facts
from .outcome import DoseDrops, Outcome, PeakBand, PourOutcome, RoomTrace, Whole
from .scene import Scene
from .scene.schedule import ROOM_STEP_H, nights, pour_starts_h
from .shape import Meshes, bed_area_cm2, meshes_held
from .shape.pockets import PourPlace, pour_places
from .tint import Seam, figure_sights, seams, water_profile
from .units import HOUR
from .views.section import section

Array = NDArray[np.float64]

__all__ = ["DRAFT", "FINE", "KEEPER", "Grade", "evaluate", "outcome_json"]

KEEPER = Keeper(most=256)
"""The keeper of this process."""


def evaluate(
    scene: Scene,
    grade: Grade = DRAFT,
    keeper: Keeper = KEEPER,
    progress: Callable[[float], None] | None = None,
    meshes: Meshes | None = None,
) -> Outcome:
    """The whole outcome of a scene.

    progress  called with the share that is done, for grades that take long
    meshes    those that the scene points at and does not bring along itself
    """
    held = meshes_held(scene, meshes)
    shape = scene_shape(scene, held, keeper)
    extents = [(body.least, body.most) for body in shape.figures]
    water_inputs = _water_inputs(scene)
    sights = keeper.keep("sights", water_inputs, lambda: figure_sights(scene, extents))
    water = keeper.keep("water", water_inputs, lambda: water_profile(scene))
    steps = keeper.keep("seams", water_inputs, lambda: seams(scene))
    heat = scene_heat(scene, grade, shape, keeper, progress)
    starts = pour_starts_h(scene.pours)
    volumes = volumes_of(scene, shape)
    depths = volumes.depth_mm.tolist()
    on_dam = pours_on_dam(scene, heat)
    dam = keeper.keep("dam", [scene.tank, on_dam], lambda: dam_facts(scene.tank, on_dam))
    strained = stresses(scene, heat, volumes)
    more_ml = allowances(scene, volumes, dam)
    mixes = [
        mix_for(float(volume + more), scene.resin_of(pour))
        for volume, more, pour in zip(volumes.resin_ml, more_ml, scene.pours, strict=True)
    ]
    hands = hands_of(scene, mixes, volumes, shape)
    facts = facts_of_figures(scene, shape, heat)

    def warm_flags(heat: SceneHeat, dam: DamFacts) -> list[Flag]:
        """Flags that follow from the heat."""
        strained = stresses(scene, heat, volumes)
        return (
            pour_flags(
                scene, heat.cures, mixes, starts, heat.bands_c, heat.spans, heat.places, strained, depths
            )
            + dam_flags(scene, dam, depths)
            + figure_flags(
                scene, facts_of_figures(scene, shape, heat), shape.traps, shape.basins,
                [body.covered_fraction for body in shape.figures],
            )
        )

    warm = warm_flags(heat, dam)
    if grade.name == DRAFT.name:
        sides = [heat.doubted(way) for way in (1, -1)]
        warm = with_close_calls(
            warm, *(warm_flags(side, dam_facts(scene.tank, pours_on_dam(scene, side))) for side in sides)
        )
    flags = in_order(
        warm
        + hands_flags(scene, hands)
        + scene_flags(scene, extents)
        + water_flags(scene, sights, steps, lambda changed: figure_sights(changed, extents))
    )
    tops = [scene.tank.fill_height_mm - pour.top_depth_mm for pour in scene.pours]
    places = keeper.keep(
        "places", [_fill_inputs(scene), tops], lambda: pour_places(scene, shape.spans, shape.free, tops)
    )
    pours = [
        _pour_outcome(
            scene, index, volumes, more_ml[index], mixes[index], heat, steps, strained[index],
            hands[index], shape, keeper, grade.name == DRAFT.name, places[index],
        )
        for index in range(len(scene.pours))
    ]
    filling = keeper.keep(
        "filling", [_fill_inputs(scene), [(one.id, one.name) for one in scene.figures], scene.resins[0]],
        lambda: filling_of(scene, shape),
    )
    room_at = np.arange(len(heat.room_c)) * ROOM_STEP_H
    span_h = heat.marched.end / HOUR
    shown = room_at <= span_h + 1
    mean_room_c = float(heat.room_c.mean())
    return Outcome(
        scene_digest=digest(scene),
        grade=grade.name,
        whole=_whole(scene, volumes, pours, starts, dam),
        pours=pours,
        heat=heat_profile(
            heat.marched, heat.cells, heat.cures, heat.bands_c, mean_room_c, starts
        ),
        limits=heat_limits(scene, heat.cures, heat.places),
        history=cure_history(heat.marched),
        bubbles=bubbles_of(scene, heat),
        water=water,
        sights=sights,
        section=section(scene, sights, [body.bulk for body in shape.figures], keeper, held),
        filling=replace(filling, gas_ml=round(sum(pour.gas_ml for pour in pours), 2)),
        figures=facts,
        dam=dam,
        room=RoomTrace(
            at_h=room_at[shown][::4].tolist(),
            room_c=np.round(heat.room_c[shown][::4], 2).tolist(),
            nights=nights(scene.brief.first_pour_at, span_h),
        ),
        flags=flags,
        march=audit(heat.marched, heat.cells, grade.name, heat.peak_error_k),
    )


def outcome_json(outcome: Outcome) -> bytes:
    """The outcome document as JSON; the same bytes for page, command and queue."""
    return _OUTCOME.dump_json(outcome)


_OUTCOME = TypeAdapter(Outcome)


def _water_inputs(scene: Scene) -> list[object]:
    return [
        scene.brief.light, scene.brief.backdrop_srgb, scene.brief.sides, scene.brief.viewing_mm,
        scene.brief.feather_mm, scene.brief.scale, scene.brief.display_years,
        scene.bed.paint_srgb, scene.colourants,
        [[one.id, one.yellow_per_cm, one.yellowing_per_cm_year] for one in scene.resins],
        [[body_inputs(one), one.worn_srgb, one.id, one.name] for one in scene.figures],
        [(pour.top_depth_mm, pour.resin_id, pour.doses) for pour in scene.pours],
        scene.tank.inner_width_mm, scene.tank.inner_behind_mm, scene.tank.fill_height_mm,
    ]


def _fill_inputs(scene: Scene) -> list[object]:
    return [scene.tank, scene.bed, [(body_inputs(one), one.prefilled) for one in scene.figures]]


def _clock(scene: Scene, hours: float) -> str:
    moment = scene.brief.first_pour_at + timedelta(hours=hours)
    return moment.replace(second=0, microsecond=0).isoformat(timespec="minutes")


def _moment(scene: Scene, start_h: float, after_h: float | None) -> str | None:
    return None if after_h is None else _clock(scene, start_h + after_h)


def _joint(scene: Scene, index: int, heat: SceneHeat, draft: bool) -> str:
    """How a pour meets the one below it; a draft says so where its cells cannot decide."""
    told = _joint_by(scene, index, heat.cures)
    if draft and any(_joint_by(scene, index, heat.doubted(way).cures) != told for way in (1, -1)):
        return "too close to call"
    return told


def _joint_by(scene: Scene, index: int, cures: list[PourCure | None]) -> str:
    below = cures[index - 1] if index else None
    if index == 0 or below is None:
        return "on the bed"
    wait = scene.pours[index].wait_h
    if below.tack_opens_h is None or wait < below.tack_opens_h:
        return "too early: runs together"
    if below.tack_closes_h is not None and wait > below.tack_closes_h:
        return "after the tack: abrade first"
    return "in the window: bonds"


def _pour_outcome(
    scene: Scene, index: int, volumes: Volumes, more_ml: float, mix: Mix, heat: SceneHeat,
    steps: list[Seam], stress: PourStress | None, hands: HandsOn, shape: SceneShape, keeper: Keeper,
    draft: bool, places: list[PourPlace],
) -> PourOutcome:
    pour = scene.pours[index]
    resin = scene.resin_of(pour)
    depth = float(volumes.depth_mm[index])
    below = scene.pours[index - 1].top_depth_mm if index else scene.tank.fill_height_mm
    names = {colourant.id: colourant for colourant in scene.colourants}
    start = pour_starts_h(scene.pours)[index]
    cure, band, spans = heat.cures[index], heat.bands_c[index], heat.spans[index]
    opens = spans.tack_opens if spans else None
    return PourOutcome(
        number=index + 1,
        id=pour.id,
        resin_name=resin.name,
        ratio_words=f"{resin.ratio.part_a:g}:{resin.ratio.part_b:g} by {resin.ratio.by}",
        top_depth_mm=pour.top_depth_mm,
        bottom_depth_mm=round(below, 2),
        depth_mm=round(depth, 2),
        free_volume_ml=round(float(volumes.free_ml[index]), 2),
        resin_volume_ml=round(float(volumes.resin_ml[index]), 2),
        trapped_ml=round(float(volumes.trapped_ml[index]), 3),
        gas_ml=round(gas_of_pour_ml(scene, index, heat), 2),
        places=places,
        allowance_ml=round(more_ml, 2),
        free_surface_cm2=round(float(volumes.surface_cm2[index]), 1),
        mix=mix,
        doses=[
            DoseDrops(
                colourant_id=dose.colourant_id,
                name=names[dose.colourant_id].name,
                drops=round(dose.dose_drops_per_100g * mix.mix_g / 100, 2),
                mass_g=round(
                    dose.dose_drops_per_100g * mix.mix_g / 100 * names[dose.colourant_id].drop_g, 3
                ),
            )
            for dose in pour.doses
        ],
        measured=keeper.keep(
            "measured",
            [pour.doses, mix, scene.colourants, scene.tank.fill_height_mm, scene.resins[0].id, index],
            lambda: measured_pour(scene, index + 1, mix.mix_g, mix.part_a_g),
        ),
        start_h=start,
        starts_at=_clock(scene, start),
        working_min=resin.working_min,
        working_early_min=round(resin.working_min / (1 + resin.rate_spread_fraction), 1),
        working_late_min=round(resin.working_min / max(0.05, 1 - resin.rate_spread_fraction), 1),
        tack_opens_at=_moment(scene, start, cure.tack_opens_h if cure else None),
        tack_closes_at=_moment(scene, start, cure.tack_closes_h if cure else None),
        opens_early_at=_moment(scene, start, opens.early_h if opens else None),
        opens_late_at=_moment(scene, start, opens.late_h if opens else None),
        hard_at=_moment(scene, start, cure.hard_h if cure else None),
        cure=cure,
        peak_band=PeakBand(low_c=band[0], high_c=band[1]) if band else None,
        spans=spans,
        stress=stress,
        light=light_of(scene, index, depth, shape),
        settling=settling_of(scene, index, depth, heat),
        joint=_joint(scene, index, heat, draft),
        bond=bond_below(
            heat.marched, index, scene.resin_of(scene.pours[max(0, index - 1)])
        ),
        hands=hands,
        seam=steps[index - 1] if index else None,
    )


def _latest(moments: list[tuple[float, CureSpan | None]]) -> CureSpan | None:
    """The band of the last of some moments, each from the start of its pour; from the first pour."""
    known = [(start, span) for start, span in moments if span is not None]
    if not known or len(known) < len(moments):
        return None
    late = [start + span.late_h for start, span in known if span.late_h is not None]
    return CureSpan(
        early_h=round(max(start + span.early_h for start, span in known), 2),
        late_h=round(max(late), 2) if len(late) == len(known) else None,
    )


def _whole(
    scene: Scene, volumes: Volumes, pours: list[PourOutcome], starts: list[float], dam: DamFacts
) -> Whole:
    cures = [pour.cure for pour in pours if pour.cure is not None]
    last = pours[-1].cure
    demould = None
    ready = [
        pour.start_h + pour.cure.demould_h
        for pour in pours
        if pour.cure is not None and pour.cure.demould_h is not None
    ]
    if cures and len(ready) == len(cures):
        demould = round(max(ready), 2)
    fill = scene.tank.fill_height_mm
    mix_g = sum(pour.mix.mix_g for pour in pours)
    whole_ml = dam.floor_cm2 * fill / 10
    free = float(volumes.free_ml.sum())
    count = scene.brief.pieces_count
    solid_g = max(whole_ml - free, 0.0) * scene.bed.material.density_g_ml
    return Whole(
        free_volume_ml=round(free, 1),
        resin_volume_ml=round(float(volumes.resin_ml.sum()), 1),
        mix_g=round(mix_g, 1),
        pieces_count=count,
        all_pieces_mix_g=round(count * mix_g, 1),
        all_pieces_ml=round(count * sum(pour.mix.mix_ml for pour in pours), 1),
        outer_width_mm=dam.cuts.outer_width_mm,
        outer_behind_mm=dam.cuts.outer_behind_mm,
        piece_kg=round((mix_g + solid_g) / 1000, 2),
        bed_area_cm2=round(bed_area_cm2(scene.bed, scene.tank), 1),
        bed_top_depth_mm=round(fill - max(map(max, scene.bed.heights_mm)), 1),
        headroom_mm=round(scene.tank.wall_height_mm - fill, 1),
        demould_h=demould,
        demould_at=_clock(scene, demould) if demould is not None else None,
        demould_span=_latest([
            (pour.start_h, pour.spans.demould if pour.spans else None) for pour in pours if pour.cure
        ]),
        full_cure_d=round(starts[-1] / 24 + last.full_cure_d, 1) if last else None,
        full_cure_span=_latest([
            (pour.start_h, pour.spans.full_cure if pour.spans else None) for pour in pours[-1:]
        ]),
        hottest_c=max((cure.peak_c for cure in cures), default=None),
    )
