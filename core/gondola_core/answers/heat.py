"""The heat of a scene: the march, the marches beside it for bands and doubts, and what they say."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace
from math import inf, prod
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..cure.cells import CellGeometry
from ..cure.cooling import PourCooling, pour_cooling
from ..cure.doubt import PourDoubt, doubted_cure, doubted_places, grid_doubt, with_untold
from ..cure.march import Marched, OutOfWorkError
from ..cure.moments import PourCure, PourPlaces, peak_around_c, pour_cures, pour_places, widest_cell
from ..cure.spans import CureSpans, cure_spans
from ..materials import Resin
from ..shape.columns import ColumnSpans
from ..shape.floods import FreeSpans
from ..units import MM
from .answer import Answer
from .bodies import BODIES, FigureBody
from .book import Book
from .flood import FLOOD, SPANS
from .grades import BAND, DRAFT, Grade, least_work, rungs
from .march import WARMTH, Told, cells_of, march, room_of, surroundings, timed_pours
from .reading import Reading, SceneExtract

Array = NDArray[np.float64]
Cures = list[PourCure | None]

MOST_MARCHES = 12
"""Marches kept at a time, for steps back and forth and what is tried."""
RUNAWAY_C = 100.0
"""Above this the peak of a march does not converge. Source: own_march"""


@dataclass(frozen=True, slots=True, kw_only=True)
class OneMarch:
    """A march, its cells, the cure of each pour, and the grade at which it was made."""

    marched: Marched
    cells: CellGeometry
    cures: Cures
    grade: Grade


@dataclass(frozen=True, slots=True, kw_only=True)
class Heat:
    """The march and what it says of pours, figures and walls.

    bands_c          peak of each pour if room and resin run cool, and warm
    spans            how early and late each pour's moments may come
    doubts           how far each pour's peak and moments may be off for the size of the cells
    room_c           the room at even steps from the first pour [degrees C]
    figure_peaks_c   hottest resin around each figure
    coolings         how each pour cools through its glass temperature
    rough_mm         size of the cells of a draft whose usual ones were too much work
    """

    marched: Marched
    cells: CellGeometry
    cures: Cures
    bands_c: list[tuple[float, float] | None]
    spans: list[CureSpans | None]
    doubts: list[PourDoubt | None]
    room_c: Array
    figure_peaks_c: list[float | None]
    places: list[PourPlaces]
    coolings: list[PourCooling | None]
    rough_mm: float | None = None

    @property
    def mean_room_c(self) -> float:
        """The room's mean over the march."""
        return float(self.room_c.mean())

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

    def doubted(self, way: int) -> Heat:
        """The same if the grid errs one way: 1 is hotter and earlier, -1 cooler and later."""
        most = max((doubt.peak_k for doubt in self.doubts if doubt is not None), default=0.0)
        each = list(zip(self.cures, self.doubts, self.places, strict=True))
        return replace(
            self,
            cures=[
                cure if cure is None or doubt is None else doubted_cure(cure, doubt, way)
                for cure, doubt, _ in each
            ],
            places=[
                place if cure is None or doubt is None
                else doubted_places(place, cure, doubt, self.mean_room_c, way)
                for cure, doubt, place in each
            ],
            figure_peaks_c=[None if peak is None else peak + way * most for peak in self.figure_peaks_c],
        )


def marched_at(scene: Any, grade: Grade, cells: CellGeometry, way: float = 0.0, told: Told = None) -> OneMarch:
    """One march; `way` moves room, rate and heat by their spreads, -1 all low, 1 all high."""
    resins = [_shifted(resin, way) for resin in scene.resins] if way else scene.resins
    offset = way * scene.brief.room.spread_k
    made = march(scene, cells, grade, resins=resins, room_offset_k=offset, told=told)
    mean_room = float(room_of(scene).mean()) + offset
    cures = pour_cures(made, cells, timed_pours(scene), resins, mean_room)
    return OneMarch(marched=made, cells=cells, cures=cures, grade=grade)


def _first_within(
    scene: SceneExtract, spans: ColumnSpans, free: FreeSpans, grade: Grade, ways: list[float], told: Told
) -> list[OneMarch]:
    """Marches on the finest cells on which none of them takes more work than a draft may."""
    for rung in rungs(grade):
        cells = cells_of(scene, rung, spans, free)
        if least_work(prod(cells.shape), len(scene.pours)) > (rung.tolerance.most_work or inf):
            continue
        with suppress(OutOfWorkError):
            return [marched_at(scene, rung, cells, way, told) for way in ways]
    raise OutOfWorkError  # never: the last rung is not bounded


def _own(scene: SceneExtract, spans: ColumnSpans, free: FreeSpans, grade: Grade, told: Told) -> OneMarch:
    return _first_within(scene, spans, free, grade, [0.0], told)[0]


def _band(scene: SceneExtract, spans: ColumnSpans, free: FreeSpans, told: Told) -> list[Cures]:
    """Cool, as said, and warm; the warm one first, since it takes the most work."""
    high, middle, low = _first_within(scene, spans, free, BAND, [1.0, 0.0, -1.0], told)
    return [low.cures, middle.cures, high.cures]


def _coarse(scene: SceneExtract, spans: ColumnSpans, free: FreeSpans, own: OneMarch, told: Told) -> Cures | None:
    """On cells of twice the size; None for a draft on its usual cells, whose band is that already.

    Its own where there are no coarser cells, as of one a pour: what two grids do not tell, its roughness does.
    """
    if own.grade.cell_mm == DRAFT.cell_mm:
        return None
    coarser = own.grade.coarser("coarse")
    cells = cells_of(scene, coarser, spans, free)
    if cells.shape == own.cells.shape:
        return own.cures
    return marched_at(scene, coarser, cells, told=told).cures


def _heat(
    scene: SceneExtract, own: OneMarch, band: list[Cures], coarse: Cures | None, bodies: list[FigureBody]
) -> Heat:
    low, middle, high = band
    each = list(zip(own.cures, low, middle, high, strict=True))
    room_c = room_of(scene)
    return Heat(
        marched=own.marched, cells=own.cells, cures=own.cures, room_c=room_c,
        bands_c=[_peak_band(*one) for one in each],
        spans=[
            None if cure is None or slow is None or usual is None or fast is None
            else cure_spans(cure, slow, usual, fast)
            for cure, slow, usual, fast in each
        ],
        doubts=[
            None if cure is None or rough is None else _doubt(own, cure, rough, float(room_c.mean()))
            for cure, rough in zip(own.cures, coarse or middle, strict=True)
        ],
        figure_peaks_c=[
            peak_around_c(own.marched, own.cells, body.least * MM, body.most * MM) for body in bodies
        ],
        places=pour_places(
            own.marched, own.cells, surroundings(scene), float(room_c.mean()), len(own.cures)
        ),
        coolings=_coolings(scene, own.marched),
        rough_mm=round(widest_cell(own.cells) / MM, 1) if own.grade.cell_mm > DRAFT.cell_mm else None,
    )


def _doubt(own: OneMarch, cure: PourCure, rough: PourCure, room_c: float) -> PourDoubt:
    told = grid_doubt(cure, rough, own.grade.tolerance.temperature_k)
    return with_untold(told, cure, room_c, own.grade.roughened, widest_cell(own.cells))


def _peak_band(
    cure: PourCure | None, slow: PourCure | None, usual: PourCure | None, fast: PourCure | None
) -> tuple[float, float] | None:
    """The march's own peak, moved by what the coarse marches differ."""
    if cure is None or slow is None or usual is None or fast is None:
        return None
    return (
        round(cure.peak_c + min(0.0, slow.peak_c - usual.peak_c), 1),
        round(cure.peak_c + max(0.0, fast.peak_c - usual.peak_c), 1),
    )


def _coolings(scene: Any, marched: Marched) -> list[PourCooling | None]:
    return [pour_cooling(marched, number, scene.resin_of(pour)) for number, pour in enumerate(scene.pours)]


def _shifted(resin: Resin, way: float) -> Resin:
    return resin.scaled(1.0 + way * resin.rate_spread_fraction, 1.0 + way * resin.heat_spread_fraction)


MARCH = Answer(
    name="march", reads=Reading(*WARMTH), needs=(SPANS, FLOOD), by=_own, graded=True, told="share", most=MOST_MARCHES,
)
BAND_CURES = Answer(name="band", reads=Reading(*WARMTH), needs=(SPANS, FLOOD), by=_band, beside=True, told="check")
COARSE = Answer(name="coarse", reads=Reading(*WARMTH), needs=(SPANS, FLOOD, MARCH), by=_coarse, told="check")
HEAT = Answer(
    name="heat", reads=Reading(*WARMTH), needs=(MARCH, BAND_CURES, COARSE, BODIES), by=_heat, most=MOST_MARCHES,
)


def coarse_cells(book: Book) -> CellGeometry:
    """The cells of the bands for a scene: they follow from its shape and its lines alone."""
    return cells_of(book.scene, BAND, book.ask(SPANS), book.ask(FLOOD))


def coarse_heat(book: Book, cells: CellGeometry) -> Heat:
    """The heat of a scene on such cells, without bands and doubts: for many plans in a row."""
    scene: Any = book.scene
    room_c, count = room_of(scene), len(scene.pours)
    mean_room = float(room_c.mean())
    marched = march(scene, cells, BAND)
    return Heat(
        marched=marched, cells=cells, cures=pour_cures(marched, cells, timed_pours(scene), scene.resins, mean_room),
        room_c=room_c, bands_c=[None] * count, spans=[None] * count, doubts=[None] * count,
        figure_peaks_c=[
            peak_around_c(marched, cells, body.least * MM, body.most * MM) for body in book.ask(BODIES)
        ],
        places=pour_places(marched, cells, surroundings(scene), mean_room, count),
        coolings=_coolings(scene, marched),
    )
