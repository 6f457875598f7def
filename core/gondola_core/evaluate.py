"""The composer: joins the subjects into one outcome. Page, command and queue all call it."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import timedelta

import numpy as np
from numpy.typing import NDArray
from pydantic import TypeAdapter

from .checks import heat_limits, in_order, pour_depth_mm, pour_flags, scene_flags
from .cure.answer import PourCure, audit, cure_history, heat_profile, pour_cures, pour_peaks
from .cure.box import CellGeometry, Surroundings, faces
from .cure.plan import Marched, TimedPour, Tolerance, layered_faces, march_plan
from .drawing import section
from .fill import ColumnSpans, column_spans, free_surface_cm2, free_volume_ml, solid_fractions
from .geometry import bed_area_cm2, extent_mm
from .kept import Keeper, digest
from .materials import Resin, SolidMaterial
from .mixing import Mix, mix_for
from .outcome import DoseDrops, Outcome, PeakBand, PourOutcome, RoomTrace, Whole
from .scene import Scene
from .schedule import ROOM_STEP_H, nights, pour_starts_h, room_samples_c
from .tint import Seam, figure_sights, seams, water_profile
from .units import DAY, HOUR, MM

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Grade:
    """How finely the march is computed; in a large tank cells grow until `most_cells` do."""

    name: str
    cell_mm: float
    most_cells: int
    least_levels: int
    tolerance: Tolerance


DRAFT = Grade(
    name="draft", cell_mm=10.0, most_cells=8_000, least_levels=4,
    tolerance=Tolerance(temperature_k=0.2, degree=2e-3),
)
FINE = Grade(
    name="fine", cell_mm=4.0, most_cells=400_000, least_levels=4,
    tolerance=Tolerance(temperature_k=0.05, degree=5e-4),
)
_BAND = Grade(
    name="band", cell_mm=16.0, most_cells=2_500, least_levels=2,
    tolerance=Tolerance(temperature_k=0.4, degree=4e-3),
)
AFTER_LAST_POUR = 14 * DAY
"""Longest march after the last pour [s]; what is not hard by then is said so."""
AFTER_LAST_POUR_BAND = 1.5 * DAY
RATE_SPREAD = 0.10
HEAT_SPREAD = 0.05
"""Share by which a data sheet's rate and heat may be off. Source: assumed"""

KEEPER = Keeper()
"""The keeper of this process."""


def evaluate(
    scene: Scene,
    grade: Grade = DRAFT,
    keeper: Keeper = KEEPER,
    progress: Callable[[float], None] | None = None,
) -> Outcome:
    """The whole outcome of a scene.

    progress  called with the share that is done, for grades that take long
    """
    spans = keeper.keep(
        "spans", [scene.tank, scene.bed, scene.figures],
        lambda: column_spans(scene.tank, scene.bed, scene.figures),
    )
    extents = keeper.keep(
        "extents", scene.figures, lambda: [extent_mm(figure) for figure in scene.figures]
    )
    sights = keeper.keep(
        "sights", _water_inputs(scene), lambda: figure_sights(scene, extents)
    )
    water = keeper.keep("water", _water_inputs(scene), lambda: water_profile(scene))
    steps = keeper.keep("seams", _water_inputs(scene), lambda: seams(scene))
    room = _room_c(scene, AFTER_LAST_POUR)
    cured = _cure(scene, grade, spans, float(room.mean()), keeper, progress)
    marched, geometry, cures, bands = cured
    starts = pour_starts_h(scene.pours)
    fill = scene.tank.fill_height_mm
    tops = np.array([0.0, *(fill - pour.top_depth_mm for pour in scene.pours)])
    volumes = np.diff(free_volume_ml(spans, tops))
    surfaces = free_surface_cm2(spans, tops - 1e-6)[1:]
    mixes = [
        mix_for(float(volume), scene.resin_of(pour))
        for volume, pour in zip(volumes, scene.pours, strict=True)
    ]
    flags = in_order(
        pour_flags(scene, cures, mixes, starts, bands)
        + scene_flags(scene, sights, steps, extents)
    )
    pours = [
        _pour_outcome(
            scene, index, float(surfaces[index]), mixes[index], cures, bands[index], steps
        )
        for index in range(len(scene.pours))
    ]
    room_at = np.arange(len(room)) * ROOM_STEP_H
    span_h = marched.end / HOUR
    shown = room_at <= span_h + 1
    return Outcome(
        scene_digest=digest(scene),
        grade=grade.name,
        whole=_whole(scene, spans, pours, starts),
        pours=pours,
        heat=heat_profile(marched, geometry, cures, bands, float(room.mean())),
        limits=heat_limits(scene),
        history=cure_history(marched),
        water=water,
        sights=sights,
        section=section(scene, sights, keeper),
        room=RoomTrace(
            at_h=room_at[shown][::4].tolist(),
            room_c=np.round(room[shown][::4], 2).tolist(),
            nights=nights(scene.brief.first_pour_at, span_h),
        ),
        flags=flags,
        march=audit(marched, geometry, grade.name),
    )


def outcome_json(outcome: Outcome) -> bytes:
    """The outcome document as JSON; the same bytes for page, command and queue."""
    return _OUTCOME.dump_json(outcome)


_OUTCOME = TypeAdapter(Outcome)


def _water_inputs(scene: Scene) -> list[object]:
    return [
        scene.brief.light, scene.brief.backdrop_srgb, scene.colourants, scene.figures,
        [(pour.top_depth_mm, pour.doses) for pour in scene.pours],
        scene.tank.inner_behind_mm, scene.tank.fill_height_mm,
    ]


def _heat_inputs(scene: Scene) -> list[object]:
    return [
        scene.tank, scene.bed.heights_mm, scene.bed.material,
        [(one.solids, one.place, one.turn_deg, one.material) for one in scene.figures],
        scene.resins, scene.brief.room, scene.brief.first_pour_at.isoformat(),
        [(pour.top_depth_mm, pour.resin_id, pour.mix_c, pour.wait_h) for pour in scene.pours],
    ]


def _timed(scene: Scene) -> list[TimedPour]:
    index = {resin.id: number for number, resin in enumerate(scene.resins)}
    return [
        TimedPour(start=start * HOUR, mix_c=pour.mix_c, resin=index[pour.resin_id])
        for start, pour in zip(pour_starts_h(scene.pours), scene.pours, strict=True)
    ]


def _room_c(scene: Scene, after: float) -> Array:
    span_h = pour_starts_h(scene.pours)[-1] + after / HOUR
    return room_samples_c(scene.brief.first_pour_at, scene.brief.room, span_h)


def _cells(scene: Scene, grade: Grade, spans: ColumnSpans) -> CellGeometry:
    """The box of cells for a scene: even across, with a face at every layer line."""
    tank = scene.tank
    size = tank.inner_width_mm * tank.inner_behind_mm * tank.fill_height_mm
    cell_mm = max(grade.cell_mm, (size / grade.most_cells) ** (1 / 3))
    tops = [(tank.fill_height_mm - pour.top_depth_mm) * MM for pour in scene.pours]
    z, pour_of_level = layered_faces(tops, cell_mm * MM, grade.least_levels)
    floor_mm2 = tank.inner_width_mm * tank.inner_behind_mm
    across_mm = max(cell_mm, (floor_mm2 * len(pour_of_level) / (2 * grade.most_cells)) ** 0.5)
    x = faces(tank.inner_width_mm * MM, across_mm * MM, 4)
    y = faces(tank.inner_behind_mm * MM, across_mm * MM, 4)
    solids: list[SolidMaterial] = []
    group_of: list[int] = []
    for material in [scene.bed.material, *(figure.material for figure in scene.figures)]:
        if material not in solids:
            solids.append(material)
        group_of.append(solids.index(material))
    return CellGeometry(
        x_faces=x, y_faces=y, z_faces=z, pour_of_level=pour_of_level,
        solid_fractions=solid_fractions(spans, group_of, x / MM, y / MM, z / MM),
        solids=tuple(solids),
    )


def _cure(
    scene: Scene, grade: Grade, spans: ColumnSpans, mean_room_c: float, keeper: Keeper,
    progress: Callable[[float], None] | None,
) -> tuple[Marched, CellGeometry, list[PourCure | None], list[tuple[float, float] | None]]:
    """The march, its cells, each pour's cure, and its peak band from three coarse marches.

    The band is the march's own peak, moved by what the coarse marches differ when room, rate and
    heat all run low or all run high.
    """

    def whole() -> tuple[Marched, CellGeometry, list[PourCure | None]]:
        cells = _cells(scene, grade, spans)
        marched = _march(scene, scene.resins, cells, grade, 0.0, AFTER_LAST_POUR, progress)
        return marched, cells, pour_cures(marched, cells, _timed(scene), scene.resins, mean_room_c)

    def spread() -> list[list[float | None]]:
        cells = _cells(scene, _BAND, spans)
        peaks = []
        for way in (-1.0, 0.0, 1.0):
            resins = [_shifted(resin, way) for resin in scene.resins]
            offset = way * scene.brief.room.spread_k
            marched = _march(scene, resins, cells, _BAND, offset, AFTER_LAST_POUR_BAND, None)
            peaks.append(pour_peaks(marched, len(scene.pours)))
        return peaks

    inputs = _heat_inputs(scene)
    with ThreadPoolExecutor(max_workers=1) as pool:
        beside = pool.submit(keeper.keep, "band", inputs, spread)
        marched, cells, cures = keeper.keep(f"march-{grade.name}", inputs, whole)
        low, mid, high = beside.result()
    bands: list[tuple[float, float] | None] = []
    for cure, lower, middle, upper in zip(cures, low, mid, high, strict=True):
        if cure is None or lower is None or middle is None or upper is None:
            bands.append(None)
            continue
        bands.append(
            (
                round(cure.peak_c + min(0.0, lower - middle), 1),
                round(cure.peak_c + max(0.0, upper - middle), 1),
            )
        )
    return marched, cells, cures, bands


def _shifted(resin: Resin, way: float) -> Resin:
    rate = 1.0 + way * RATE_SPREAD
    return resin.model_copy(
        update={
            "k1_per_s": resin.k1_per_s * rate,
            "k2_per_s": resin.k2_per_s * rate,
            "heat_of_cure_j_g": resin.heat_of_cure_j_g * (1.0 + way * HEAT_SPREAD),
        }
    )


def _march(
    scene: Scene, resins: list[Resin], cells: CellGeometry, grade: Grade, room_offset_k: float,
    after: float, progress: Callable[[float], None] | None,
) -> Marched:
    tank = scene.tank
    timed = _timed(scene)
    return march_plan(
        cells,
        Surroundings(
            wall=tank.wall.material,
            wall_thickness=tank.wall.thickness_mm * MM,
            base=tank.base.material,
            base_thickness=tank.base.thickness_mm * MM,
        ),
        resins,
        timed,
        _room_c(scene, after) + room_offset_k,
        ROOM_STEP_H * HOUR,
        timed[-1].start + after,
        grade.tolerance,
        progress,
    )


def _clock(scene: Scene, hours: float) -> str:
    moment = scene.brief.first_pour_at + timedelta(hours=hours)
    return moment.replace(second=0, microsecond=0).isoformat(timespec="minutes")


def _moment(scene: Scene, start_h: float, after_h: float | None) -> str | None:
    return None if after_h is None else _clock(scene, start_h + after_h)


def _joint(scene: Scene, index: int, cures: list[PourCure | None]) -> str:
    """How a pour meets the one below it."""
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
    scene: Scene, index: int, surface_cm2: float, mix: Mix, cures: list[PourCure | None],
    band: tuple[float, float] | None, steps: list[Seam],
) -> PourOutcome:
    pour = scene.pours[index]
    resin = scene.resin_of(pour)
    depth = pour_depth_mm(scene, index + 1)
    names = {colourant.id: colourant for colourant in scene.colourants}
    start = pour_starts_h(scene.pours)[index]
    cure = cures[index]
    return PourOutcome(
        number=index + 1,
        id=pour.id,
        resin_name=resin.name,
        ratio_words=f"{resin.ratio.part_a:g}:{resin.ratio.part_b:g} by {resin.ratio.by}",
        top_depth_mm=pour.top_depth_mm,
        bottom_depth_mm=round(pour.top_depth_mm + depth, 2),
        depth_mm=round(depth, 2),
        free_volume_ml=round(mix.mix_ml, 2),
        free_surface_cm2=round(surface_cm2, 1),
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
        start_h=start,
        starts_at=_clock(scene, start),
        working_min=resin.working_min,
        tack_opens_at=_moment(scene, start, cure.tack_opens_h if cure else None),
        tack_closes_at=_moment(scene, start, cure.tack_closes_h if cure else None),
        hard_at=_moment(scene, start, cure.hard_h if cure else None),
        cure=cure,
        peak_band=PeakBand(low_c=band[0], high_c=band[1]) if band else None,
        joint=_joint(scene, index, cures),
        seam=steps[index - 1] if index else None,
    )


def _whole(
    scene: Scene, spans: ColumnSpans, pours: list[PourOutcome], starts: list[float]
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
    whole_ml = scene.tank.inner_width_mm * scene.tank.inner_behind_mm * fill / 1000
    free = sum(pour.free_volume_ml for pour in pours)
    solid_g = (whole_ml - free) * scene.bed.material.density_g_ml
    return Whole(
        free_volume_ml=round(free, 1),
        mix_g=round(mix_g, 1),
        piece_kg=round((mix_g + solid_g) / 1000, 2),
        bed_area_cm2=round(bed_area_cm2(scene.bed, scene.tank), 1),
        bed_top_depth_mm=round(fill - max(map(max, scene.bed.heights_mm)), 1),
        headroom_mm=round(scene.tank.wall_height_mm - fill, 1),
        demould_h=demould,
        demould_at=_clock(scene, demould) if demould is not None else None,
        full_cure_d=round(starts[-1] / 24 + last.full_cure_d, 1) if last else None,
        hottest_c=max((cure.peak_c for cure in cures), default=None),
    )
