"""How far the answers of a march are off for the size of its cells, from the same march on cells twice as large."""

from __future__ import annotations

from dataclasses import dataclass, replace

from .moments import PourCure, PourPlaces

SAFETY = 2.0
"""The estimate of two grids times this holds in nine of ten scenes (tested). Source: own_march"""
ORDER = 2
"""Of the method in the size of its cells (tested)."""
CORNER_SHARE = 1.0
"""What two grids leave untold of each moment since the pour, for each metre of the widest cell: the last place to cure
is a corner, and what is untold of it grows as the cells do. Source: own_march, so that nine in ten moments hold, in
drafts of small tanks as of large ones (tested)"""
ROUGH_SHARES = ((0.0, 0.0), (0.02, 0.005), (0.1, 0.02), (0.25, 0.12))
"""What they leave untold besides where cells are too coarse for the order of the method: a share of the rise above the
room, and of each moment since the pour, for cells that were made rougher so many times. Source: own_march, so that
peaks and moments of nine in ten scenes hold (tested)"""
MOMENTS = ("gel_h", "tack_opens_h", "tack_closes_h", "hard_h", "demould_h")


@dataclass(frozen=True, slots=True, kw_only=True)
class PourDoubt:
    """How far peak and moments of one pour may be off; None where even reaching it is in doubt."""

    peak_k: float
    gel_h: float | None
    tack_opens_h: float | None
    tack_closes_h: float | None
    hard_h: float | None
    demould_h: float | None


def grid_doubt(close: PourCure, coarse: PourCure, step_k: float) -> PourDoubt:
    """By two grids of a method of second order.

        e = safety |close - coarse| / (2^2 - 1)

    step_k  error allowed in a step of the march, which may stay in the peak
    Source: richardson1911; the safety is own_march
    """
    share = SAFETY / (2**ORDER - 1)

    def off(moment: str) -> float | None:
        here, there = getattr(close, moment), getattr(coarse, moment)
        if here is None and there is None:
            return 0.0
        return None if here is None or there is None else share * abs(here - there)

    return PourDoubt(
        peak_k=share * abs(close.peak_c - coarse.peak_c) + step_k,
        **{moment: off(moment) for moment in MOMENTS},
    )


def with_untold(doubt: PourDoubt, cure: PourCure, room_c: float, times: int, widest_cell: float) -> PourDoubt:
    """The doubt of a march with what two grids leave untold.

    times        how often its cells were made rougher
    widest_cell  [m]
    """
    of_rise, of_time = ROUGH_SHARES[min(times, len(ROUGH_SHARES) - 1)]
    of_time += CORNER_SHARE * widest_cell

    def more(moment: str) -> float | None:
        at: float | None = getattr(cure, moment)
        off: float | None = getattr(doubt, moment)
        return off if at is None or off is None else off + of_time * at

    return PourDoubt(
        peak_k=doubt.peak_k + of_rise * max(0.0, cure.peak_c - room_c), **{moment: more(moment) for moment in MOMENTS},
    )


def doubted_cure(cure: PourCure, doubt: PourDoubt, way: int) -> PourCure:
    """The cure if the grid errs one way: 1 is hotter and earlier, -1 cooler and later."""

    def moved(moment: str) -> float | None:
        at, off = getattr(cure, moment), getattr(doubt, moment)
        if off is None:
            # whether it is reached at all is in doubt: if it is not, it is so the later way
            return at if way > 0 else None
        return None if at is None else max(0.0, at - way * off)

    return replace(
        cure, peak_c=cure.peak_c + way * doubt.peak_k, gel_h=moved("gel_h"), tack_opens_h=moved("tack_opens_h"),
        tack_closes_h=moved("tack_closes_h"), hard_h=moved("hard_h"), demould_h=moved("demould_h"),
    )


def doubted_places(places: PourPlaces, cure: PourCure, doubt: PourDoubt, room_c: float, way: int) -> PourPlaces:
    """What sits at wall and bed gets its share of the doubt, by its share of the rise above the room."""
    rise = max(cure.peak_c - room_c, 1.0)

    def moved(place_c: float | None) -> float | None:
        if place_c is None:
            return None
        return place_c + way * doubt.peak_k * min(1.0, max(0.0, (place_c - room_c) / rise))

    return PourPlaces(
        joint_c=moved(places.joint_c), sheet_c=moved(places.sheet_c), bed_c=moved(places.bed_c),
        skin_c=moved(places.skin_c),
    )
