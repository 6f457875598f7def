"""The faces: sanded through their grits, or coated; both costed."""

from __future__ import annotations

from dataclasses import dataclass

from ..scene.pour import GRITS

PRINT_GRIT = {
    "glass": 1000, "acrylic": 800, "polypropylene": 400, "silicone-mould": 600, "tape-on-frame": 400, "pvc-foam": 240,
    "plywood": 120,
}
"""By the wall: the grit that takes its print away. Source: assumed"""
MIN_PER_CM2 = {120: 0.10, 180: 0.09, 240: 0.08, 320: 0.075, 400: 0.07}
FINE_MIN_PER_CM2 = 0.06
"""Minutes a square centimetre, wet and by hand. Source: assumed"""
SHEET_CM2 = 400.0
"""That one sheet of paper sands before it is dull. Source: assumed"""
COATS, COAT_MIN_PER_CM2 = 2, 0.02
MATTED_GRIT = 400
DUST_FREE_H = 24.0
"""Of an edge coat. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """One grit of the ladder."""

    grit: int
    minutes: float
    sheets: float


@dataclass(frozen=True, slots=True, kw_only=True)
class FaceSchools:
    """Both ways of finishing faces of so much area.

    from_grit   that takes the print of the wall away
    rungs       of sanding up to the wished grit
    """

    area_cm2: float
    from_grit: int
    rungs: list[Rung]
    sanding_min: float
    coat_ml: float
    coat_min: float
    coat_waits_h: float


def rung(grit: int, area_cm2: float) -> Rung:
    """One grit over an area. Source: assumed"""
    minutes = MIN_PER_CM2.get(grit, FINE_MIN_PER_CM2) * area_cm2
    return Rung(grit=grit, minutes=round(minutes, 1), sheets=round(area_cm2 / SHEET_CM2, 1))


def face_schools(area_cm2: float, wall_id: str, to_grit: int, coat_mm: float) -> FaceSchools:
    """The sanding ladder against two edge coats of a thickness, brushed on what grit 400 has matted."""
    first = PRINT_GRIT.get(wall_id, 400)
    rungs = [rung(grit, area_cm2) for grit in GRITS if first <= grit <= to_grit]
    matting = [rung(grit, area_cm2).minutes for grit in GRITS if min(first, MATTED_GRIT) <= grit <= MATTED_GRIT]
    return FaceSchools(
        area_cm2=round(area_cm2, 1), from_grit=first, rungs=rungs, sanding_min=round(sum(one.minutes for one in rungs)),
        coat_ml=round(area_cm2 * coat_mm / 10 * COATS, 1), coat_waits_h=DUST_FREE_H * COATS,
        coat_min=round(sum(matting) + COATS * COAT_MIN_PER_CM2 * area_cm2),
    )
