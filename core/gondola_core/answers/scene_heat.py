"""The heat of a scene, joined: cells from its shape, the march on them, and the peak's band."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ..cure.cells import CellGeometry, cut_cells, faces, layered_faces
from ..cure.doubt import PourDoubt, doubted_cure, doubted_places, grid_doubt
from ..cure.losses import FAN_FILM, TOP_FILM, WALL_FILM, Surroundings
from ..cure.march import Marched, Room, TimedPour, Tolerance, march_pours
from ..cure.moments import PourCure, PourPlaces, peak_around_c, pour_cures, pour_places
from ..cure.spans import CureSpans, cure_spans
from ..materials import Resin, SolidMaterial
from ..scene import Scene
from ..scene.schedule import ROOM_STEP_H, pour_starts_h, room_samples_c
from ..shape import tank_plan
from ..shape.columns import solid_fractions
from ..shape.floods import air_shares
from ..units import DAY, HOUR, MM
from .kept import Keeper
from .scene_shape import SceneShape, body_inputs

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Grade:
    """How finely the march is computed; in a large tank cells grow until `most_cells` do.

    least_across, least_levels   cells across a narrow tank, and in the height of a thin pour
    base_mm                      tallest cell of the base
    """

    name: str
    cell_mm: float
    most_cells: int
    least_across: int
    least_levels: int
    base_mm: float
    tolerance: Tolerance

    def coarser(self, name: str) -> Grade:
        """Cells of twice the size everywhere."""
        return Grade(
            name=name, cell_mm=2 * self.cell_mm, most_cells=max(1, self.most_cells // 8),
            least_across=max(2, self.least_across // 2), least_levels=max(1, self.least_levels // 2),
            base_mm=2 * self.base_mm, tolerance=self.tolerance,
        )


DRAFT = Grade(
    name="draft", cell_mm=10.0, most_cells=8_000, least_across=6, least_levels=4, base_mm=9.0,
    tolerance=Tolerance(temperature_k=0.2, degree=2e-3),
)
FINE = Grade(
    name="fine", cell_mm=4.0, most_cells=400_000, least_across=12, least_levels=6, base_mm=4.5,
    tolerance=Tolerance(temperature_k=0.05, degree=5e-4),
)
_BAND = DRAFT.coarser("band")
AFTER_LAST_POUR = 14 * DAY
"""Longest march after the last pour [s]; what is not hard by then is said so."""


MOST_MARCHES = 12
"""Marches kept at a time, for steps back and forth and what is tried."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SceneHeat:
    """The march and what it says of pours, figures and walls.

    spans            how early and late each pour's moments may come
    doubts           how far each pour's peak and moments may be off for the size of the cells
    room_c           the room at even steps from the first pour [degrees C]
    figure_peaks_c   hottest resin around each figure
    """

    marched: Marched
    cells: CellGeometry
    cures: list[PourCure | None]
    bands_c: list[tuple[float, float] | None]
    spans: list[CureSpans | None]
    doubts: list[PourDoubt | None]
    room_c: Array
    figure_peaks_c: list[float | None]
    places: list[PourPlaces]

    @property
    def sheet_peak_c(self) -> float | None:
        """Hottest that the sheet of the dam gets."""
        return max((one.sheet_c for one in self.places if one.sheet_c is not None), default=None)

    @property
    def peak_error_k(self) -> float | None:
        """How far the peaks may be off; None where all run away."""
        told = [
            doubt.peak_k for doubt, cure in zip(self.doubts, self.cures, strict=True)
            if doubt is not None and cure is not None and cure.peak_c < RUNAWAY_C
        ]
        return round(max(told), 2) if told else None

    def doubted(self, way: int) -> SceneHeat:
        """The same if the grid errs one way: 1 is hotter and earlier, -1 cooler and later."""
        room = float(self.room_c.mean())
        most = max((doubt.peak_k for doubt in self.doubts if doubt is not None), default=0.0)
        each = list(zip(self.cures, self.doubts, self.places, strict=True))
        return replace(
            self,
            cures=[
                cure if cure is None or doubt is None else doubted_cure(cure, doubt, way)
                for cure, doubt, _ in each
            ],
            places=[
                place if cure is None or doubt is None else doubted_places(place, cure, doubt, room, way)
                for cure, doubt, place in each
            ],
            figure_peaks_c=[None if peak is None else peak + way * most for peak in self.figure_peaks_c],
        )


def scene_heat(
    scene: Scene, grade: Grade, shape: SceneShape, keeper: Keeper,
    progress: Callable[[float], None] | None = None,
) -> SceneHeat:
    """March a scene on one grade; the band comes from three coarse marches beside it.

    The band is the march's own peak, moved by what the coarse marches differ when room, rate and
    heat all run low or all run high; the times' bands likewise, in their ratio.
    """
    room_c = room_of(scene, AFTER_LAST_POUR)
    mean_room_c = float(room_c.mean())

    def cures_on(one: Grade, way: float = 0.0) -> tuple[Marched, CellGeometry, list[PourCure | None]]:
        cells = cells_of(scene, one, shape)
        resins = [_shifted(resin, way) for resin in scene.resins] if way else scene.resins
        offset = way * scene.brief.room.spread_k
        told = progress if one is grade else None
        marched = march(scene, resins, cells, one, offset, AFTER_LAST_POUR, told)
        return marched, cells, pour_cures(marched, cells, timed_pours(scene), resins, mean_room_c + offset)

    inputs = _heat_inputs(scene)
    with ThreadPoolExecutor(max_workers=1) as pool:
        beside = pool.submit(
            keeper.keep, "band", inputs, lambda: [cures_on(_BAND, way)[2] for way in (-1.0, 0.0, 1.0)]
        )
        marched, cells, cures = keeper.keep(
            f"march-{grade.name}", inputs, lambda: cures_on(grade), most=MOST_MARCHES
        )
        low, mid, high = beside.result()
    coarse = mid
    if grade.name != DRAFT.name:
        coarse = keeper.keep(f"coarse-{grade.name}", inputs, lambda: cures_on(grade.coarser("coarse"))[2])
    bands: list[tuple[float, float] | None] = []
    spans: list[CureSpans | None] = []
    for cure, slow, middle, fast in zip(cures, low, mid, high, strict=True):
        if cure is None or slow is None or middle is None or fast is None:
            bands.append(None)
            spans.append(None)
            continue
        bands.append(
            (
                round(cure.peak_c + min(0.0, slow.peak_c - middle.peak_c), 1),
                round(cure.peak_c + max(0.0, fast.peak_c - middle.peak_c), 1),
            )
        )
        spans.append(cure_spans(cure, slow, middle, fast))
    return SceneHeat(
        marched=marched, cells=cells, cures=cures, bands_c=bands, spans=spans, room_c=room_c,
        doubts=[
            None if cure is None or rough is None else grid_doubt(cure, rough, grade.tolerance.temperature_k)
            for cure, rough in zip(cures, coarse, strict=True)
        ],
        figure_peaks_c=[
            peak_around_c(marched, cells, body.least * MM, body.most * MM)
            for body in shape.figures
        ],
        places=pour_places(
            marched, cells, surroundings(scene), mean_room_c, len(scene.pours)
        ),
    )


RUNAWAY_C = 100.0
"""Above this the peak of a march does not converge. Source: own_march"""


def cells_of(scene: Scene, grade: Grade, shape: SceneShape) -> CellGeometry:
    """The cells for a scene: even across, with a face at every layer line, cut by the walls.

    How many there are across follows from the floor, so that they grow evenly with walls that lean.
    """
    tank = scene.tank

    def outline(height: float) -> Array:
        return tank_plan(tank, height / MM) * MM

    floor, widest = outline(0.0), outline(tank.fill_height_mm * MM)
    width, behind = (float(size) for size in floor.max(axis=0) - floor.min(axis=0))
    cell = max(grade.cell_mm * MM, (width * behind * tank.fill_height_mm * MM / grade.most_cells) ** (1 / 3))
    tops = [(tank.fill_height_mm - pour.top_depth_mm) * MM for pour in scene.pours]
    z, pour_of_level = layered_faces(tops, cell, grade.least_levels)
    across = max(cell, (width * behind * len(pour_of_level) / (2 * grade.most_cells)) ** 0.5)
    x, y = (
        np.linspace(low, high, len(faces(size, across, grade.least_across)))
        for low, high, size in zip(widest.min(axis=0), widest.max(axis=0), (width, behind), strict=True)
    )
    solids: list[SolidMaterial] = []
    group_of = [0]
    for material in [scene.bed.material, *(figure.material for figure in scene.figures)]:
        if material not in solids:
            solids.append(material)
        group_of.append(1 + solids.index(material))
    shares = solid_fractions(shape.spans, group_of, x / MM, y / MM, z / MM)
    air = air_shares(shape.spans, shape.free, tank.fill_height_mm, (x / MM, y / MM, z / MM))
    inside = np.maximum(1.0 - shares[0], 1e-9)
    return CellGeometry(
        x_faces=x, y_faces=y, z_faces=z, pour_of_level=pour_of_level,
        solid_fractions=np.where(shares[0] >= 1.0, 0.0, np.minimum(shares[1:] / inside, 1.0)),
        solids=tuple(solids), cut=cut_cells(outline, x, y, z, tank.taper_deg),
        base_cell=grade.base_mm * MM, air=np.minimum(air / inside, 1.0),
    )


def surroundings(scene: Scene) -> Surroundings:
    """The sheet and the base as the march sees them."""
    tank = scene.tank
    return Surroundings(
        wall=tank.wall.material, wall_thickness=tank.wall.thickness_mm * MM,
        base=tank.base.material, base_thickness=tank.base.thickness_mm * MM,
        top_film=FAN_FILM if scene.brief.room.fan else TOP_FILM,
        wall_film=FAN_FILM if scene.brief.room.fan else WALL_FILM,
    )


def timed_pours(scene: Scene) -> list[TimedPour]:
    """The pours as the march sees them."""
    index = {resin.id: number for number, resin in enumerate(scene.resins)}
    return [
        TimedPour(start=start * HOUR, mix_c=pour.mix_c, resin=index[pour.resin_id])
        for start, pour in zip(pour_starts_h(scene.pours), scene.pours, strict=True)
    ]


def room_of(scene: Scene, after: float) -> Array:
    """The room at even steps from the first pour until so long after the last [degrees C]."""
    span_h = pour_starts_h(scene.pours)[-1] + after / HOUR
    return room_samples_c(scene.brief.first_pour_at, scene.brief.room, span_h)


def march(
    scene: Scene, resins: list[Resin], cells: CellGeometry, grade: Grade, room_offset_k: float,
    after: float, progress: Callable[[float], None] | None,
) -> Marched:
    """The march of a scene on given cells."""
    timed = timed_pours(scene)
    room = Room(room_of(scene, after) + room_offset_k, ROOM_STEP_H * HOUR)
    return march_pours(
        cells, surroundings(scene), resins, timed, room, timed[-1].start + after, grade.tolerance,
        progress=progress,
    )


def _heat_inputs(scene: Scene) -> list[object]:
    tank = scene.tank
    return [
        tank.shape, tank.taper_deg, tank.inner_width_mm, tank.inner_behind_mm,
        tank.fill_height_mm, tank.wall, tank.base, scene.bed.heights_mm, scene.bed.mesh,
        scene.bed.material,
        [[body_inputs(figure), figure.material, figure.prefilled] for figure in scene.figures],
        scene.resins, scene.brief.room, scene.brief.first_pour_at.isoformat(),
        [(pour.top_depth_mm, pour.resin_id, pour.mix_c, pour.wait_h) for pour in scene.pours],
    ]


def _shifted(resin: Resin, way: float) -> Resin:
    rate = 1.0 + way * resin.rate_spread_fraction
    return resin.model_copy(
        update={
            "k1_per_s": resin.k1_per_s * rate,
            "k2_per_s": resin.k2_per_s * rate,
            "heat_of_cure_j_g": resin.heat_of_cure_j_g * (1.0 + way * resin.heat_spread_fraction),
        }
    )
