"""What the march means for each pour: how hot, where, and when the next thing may happen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import cast

import numpy as np
from numpy.typing import NDArray

from ..materials import Resin
from ..units import HOUR, MM
from .cells import CellGeometry
from .losses import Surroundings
from .march import COOL_C, Marched, TimedPour
from .tail import full_cure

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class PeakPlace:
    """Where the hottest resin is, in the tank."""

    x_mm: float
    behind_mm: float
    depth_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PourCure:
    """Cure of one pour. Hours run from its own start; None where it is not reached in the march.

    Every moment is that of its least cured place, which is on its skin: mostly a corner.
    """

    peak_c: float
    peak_at_h: float
    peak_place: PeakPlace
    gel_h: float | None
    tack_opens_h: float | None
    tack_closes_h: float | None
    hard_h: float | None
    demould_h: float | None
    full_cure_d: float
    full_cure_degree: float
    degree_at_end: float


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatProfile:
    """Against depth, from the surface down: the hottest resin of each level and when.

    gel_h  of its least cured place, from the start of its own pour; peak_at_h from the first pour

    low_c and high_c spread each level's peak as its pour's band is spread, in the share that its
    rise above the room has of its pour's rise (assumed).
    """

    depth_mm: list[float]
    pour_number: list[int]
    peak_c: list[float]
    low_c: list[float]
    high_c: list[float]
    peak_at_h: list[float]
    gel_h: list[float | None]


@dataclass(frozen=True, slots=True, kw_only=True)
class CureHistory:
    """By time and level (levels as in the heat profile); None before the level is poured."""

    at_h: list[float]
    hottest_c: list[list[float | None]]
    least_degree: list[list[float | None]]


@dataclass(frozen=True, slots=True, kw_only=True)
class MarchAudit:
    """How the answer was come by: grid, steps, the balance of energy, and how far the peak is off.

    peak_error_k  of the hottest pour, from the same march on a coarser grid; None in runaway
    """

    grade: str
    cell_mm: float
    cells_count: int
    steps_count: int
    stages_count: int
    simulated_h: float
    released_j: float
    stored_j: float
    lost_j: float
    imbalance_fraction: float
    peak_error_k: float | None


def pour_cures(
    marched: Marched,
    geometry: CellGeometry,
    pours: list[TimedPour],
    resins: list[Resin],
    mean_room_c: float,
) -> list[PourCure | None]:
    """One answer a pour; None where a pour has no resin at all (all of it is bed)."""
    answers: list[PourCure | None] = []
    for number, pour in enumerate(pours):
        mine = marched.resin & (marched.pour_of_level == number)[:, None, None]
        answers.append(
            _pour_cure(marched, geometry, number, pour, mine, resins[pour.resin], mean_room_c) if mine.any() else None
        )
    return answers


def _pour_cure(
    marched: Marched, geometry: CellGeometry, number: int, pour: TimedPour, mine: NDArray[np.bool_], resin: Resin,
    mean_room_c: float,
) -> PourCure:
    """The cure of one pour, whose cells are `mine`."""
    skin = marched.pour_of_level[marched.skin_level] == number
    least = float(min(marched.degree_of_cure[mine].min(), marched.skin_degree[skin].min(initial=1.0)))
    gel, tack, hard, demould = (
        _last(np.concatenate([inside[mine], outside[skin]]), pour.start)
        for inside, outside in zip(marched.crossed_at, marched.skin_crossed_at, strict=True)
    )
    cooled = _cooled_h(marched, number, pour.start)
    if demould is not None:
        demould = None if cooled is None else round(max(demould, cooled), 2)
    days, degree = full_cure(least, marched.end, pour.start, mean_room_c, resin)
    peak = np.where(mine, marched.peak_c, -np.inf)
    hottest = np.unravel_index(int(np.argmax(peak)), peak.shape)
    return PourCure(
        peak_c=round(float(peak[hottest]), 2),
        peak_at_h=round(float(marched.peak_at[hottest] - pour.start) / HOUR, 2),
        peak_place=_peak_place(marched, geometry, *(int(at) for at in hottest)),
        gel_h=gel, tack_opens_h=gel, tack_closes_h=tack, hard_h=hard, demould_h=demould,
        full_cure_d=round(days, 1), full_cure_degree=round(degree, 4), degree_at_end=round(least, 4),
    )


def _peak_place(marched: Marched, geometry: CellGeometry, level: int, row: int, cell: int) -> PeakPlace:
    x = 0.5 * (geometry.x_faces[cell] + geometry.x_faces[cell + 1])
    y = 0.5 * (geometry.y_faces[row] + geometry.y_faces[row + 1])
    return PeakPlace(
        x_mm=round(float(x) / MM, 1), behind_mm=round(float(y) / MM, 1),
        depth_mm=round((float(geometry.z_faces[-1]) - float(marched.heights[level])) / MM, 1),
    )


def peak_around_c(
    marched: Marched, geometry: CellGeometry, least: Array, most: Array
) -> float | None:
    """Hottest resin in the cells that a body's extent touches; corners above the floor [m]."""
    base = marched.base_levels
    z = geometry.z_faces
    rows = []
    for axis, faces in enumerate((geometry.x_faces, geometry.y_faces, z)):
        first = max(0, int(np.searchsorted(faces, least[axis])) - 1)
        last = min(len(faces) - 1, int(np.searchsorted(faces, most[axis])))
        rows.append(slice(first, max(first + 1, last)))
    cells = marched.peak_c[base:][rows[2], rows[1], rows[0]]
    wet = marched.resin[base:][rows[2], rows[1], rows[0]]
    return round(float(cells[wet].max()), 1) if wet.any() else None


@dataclass(frozen=True, slots=True, kw_only=True)
class PourPlaces:
    """Hottest moments of one pour where something else than resin minds them.

    joint_c  inner face of the wall, where the seal sits; sheet_c middle of the sheet;
    bed_c    resin that shares a cell with the bed; skin_c its coolest place when it peaks
    """

    joint_c: float | None
    sheet_c: float | None
    bed_c: float | None
    skin_c: float | None


def pour_places(
    marched: Marched, geometry: CellGeometry, around: Surroundings, room_c: float, count: int
) -> list[PourPlaces]:
    """Each pour's peaks at wall, seal and bed.

        T = T_room + (T_cell - T_room) R_outside / R_whole,  R of film, sheet and half a cell

    The film and the sheet carry the same flow, so each place has its share of the drop.
    Source: own_march
    """
    base = marched.base_levels
    wet = marched.resin[base:]
    film, sheet = 1.0 / around.wall_film, around.wall_thickness / around.wall.conductivity_w_mk
    middle_of_sheet = (film + sheet / 2) / (film + sheet)
    bed = geometry.solid_fractions[:1].sum(axis=0) > 0.02 if len(geometry.solid_fractions) else ~wet
    at_walls = marched.peak_c.ravel()[marched.wall_cell]
    pour_at_walls = np.where(
        marched.resin.ravel()[marched.wall_cell],
        marched.pour_of_level[marched.wall_cell // marched.resin[0].size], -1,
    )
    faces = room_c + marched.wall_kept * (at_walls - room_c)
    peaks = marched.peak_c[base:]
    places = []
    for number in range(count):
        mine = wet & (marched.pour_of_level[base:] == number)[:, None, None]
        beside = pour_at_walls == number
        joint = float(faces[beside].max()) if beside.any() else None
        on_bed = mine & bed
        places.append(
            PourPlaces(
                joint_c=None if joint is None else round(joint, 1),
                sheet_c=_share(joint, room_c, middle_of_sheet),
                bed_c=round(float(peaks[on_bed].max()), 1) if on_bed.any() else None,
                skin_c=round(float(peaks[mine].min()), 1) if mine.any() else None,
            )
        )
    return places


def _share(hot: float | None, room_c: float, share: float) -> float | None:
    return None if hot is None else round(room_c + share * (hot - room_c), 1)


def _last(crossed: Array, start: float) -> float | None:
    """Hours after the start at which the last cell passed; None if one never did."""
    return None if np.isnan(crossed).any() else round(float(crossed.max() - start) / HOUR, 2)


def _cooled_h(marched: Marched, number: int, start: float) -> float | None:
    """Hours after the start from which the pour stays cool enough to come out."""
    mine = marched.pour_of_level == number
    hot = np.nanmax(np.nan_to_num(marched.history_hottest_c[:, mine], nan=-1e9), axis=1)
    warm = np.flatnonzero(hot >= COOL_C)
    if not len(warm):
        return 0.0
    if warm[-1] + 1 >= len(hot):
        # the march stops as soon as all is cool, which may be before the next row of history
        cool_now = float(marched.temperature_c[mine].max()) < COOL_C
        return (marched.end - start) / HOUR if cool_now else None
    return float(marched.history_at[warm[-1] + 1] - start) / HOUR


def heat_profile(
    marched: Marched,
    geometry: CellGeometry,
    cures: list[PourCure | None],
    bands_c: list[tuple[float, float] | None],
    mean_room_c: float,
    starts_h: list[float],
) -> HeatProfile:
    """Levels that hold resin, from the surface down."""
    fill = float(geometry.z_faces[-1])
    rows = _resin_levels(marched)
    peaks = np.array([np.nanmax(marched.peak_c[level]) for level in rows])
    at = [
        float(marched.peak_at[level].ravel()[int(np.nanargmax(marched.peak_c[level]))])
        for level in rows
    ]
    numbers = [int(marched.pour_of_level[level]) for level in rows]
    gel = [
        _last(
            np.concatenate([
                marched.crossed_at[0][level][marched.resin[level]],
                marched.skin_crossed_at[0][marched.skin_level == level],
            ]),
            starts_h[number] * HOUR,
        )
        for level, number in zip(rows, numbers, strict=True)
    ]
    spread = [
        _level_band(float(peak), cures[number], bands_c[number], mean_room_c)
        for peak, number in zip(peaks, numbers, strict=True)
    ]
    return HeatProfile(
        low_c=[low for low, _ in spread],
        high_c=[high for _, high in spread],
        depth_mm=[round((fill - float(marched.heights[level])) / MM, 2) for level in rows],
        pour_number=[number + 1 for number in numbers],
        peak_c=np.round(peaks, 2).tolist(),
        peak_at_h=[round(moment / HOUR, 2) for moment in at],
        gel_h=gel,
    )


def _level_band(
    peak: float, cure: PourCure | None, band: tuple[float, float] | None, room: float
) -> tuple[float, float]:
    if cure is None or band is None:
        return round(peak, 2), round(peak, 2)
    share = min(1.0, max(0.0, (peak - room) / max(cure.peak_c - room, 1.0)))
    low, high = band
    return (
        round(peak + share * (low - cure.peak_c), 2),
        round(peak + share * (high - cure.peak_c), 2),
    )


def cure_history(marched: Marched) -> CureHistory:
    """The march through time, for scrubbing."""
    rows = _resin_levels(marched)
    return CureHistory(
        at_h=np.round(marched.history_at / HOUR, 2).tolist(),
        hottest_c=_with_none(marched.history_hottest_c[:, rows], 1),
        least_degree=_with_none(marched.history_least_degree[:, rows], 3),
    )


def widest_cell(geometry: CellGeometry) -> float:
    """Across, or from front to back [m]."""
    return float(max(np.diff(geometry.x_faces).max(), np.diff(geometry.y_faces).max()))


def audit(
    marched: Marched, geometry: CellGeometry, grade: str, peak_error_k: float | None
) -> MarchAudit:
    """The march's own account of itself; the cell named is the widest across."""
    imbalance = marched.heat_released - marched.heat_stored - marched.heat_lost
    return MarchAudit(
        grade=grade,
        cell_mm=round(widest_cell(geometry) / MM, 1),
        cells_count=int(marched.resin.size),
        steps_count=marched.steps,
        stages_count=marched.stages,
        simulated_h=round(marched.end / HOUR, 2),
        released_j=round(marched.heat_released, 1),
        stored_j=round(marched.heat_stored, 1),
        lost_j=round(marched.heat_lost, 1),
        peak_error_k=peak_error_k,
        imbalance_fraction=float(f"{abs(imbalance) / max(marched.heat_released, 1e-9):.1e}"),
    )


def _resin_levels(marched: Marched) -> list[int]:
    return [
        int(level)
        for level in np.flatnonzero(marched.resin.any(axis=(1, 2)))[::-1]
    ]


def _with_none(values: Array, digits: int) -> list[list[float | None]]:
    told = np.round(values, digits).astype(object)
    told[np.isnan(values)] = None
    return cast(list[list[float | None]], told.tolist())
