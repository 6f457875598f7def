"""The top: gel for ripples in patches that stay wet, white water, and how long they dry."""

from __future__ import annotations

from dataclasses import dataclass

WHITE_MM = 2.0
"""Thickness of white water. Source: assumed"""
OPEN_MIN, OPEN_AT_C, PER_DECADE = 6.0, 20.0, 2.0
"""Gel stays wet so long at 20 °C, and half as long ten degrees warmer. Source: assumed"""
HANDS_CM2_MIN = 12.0
"""Area that a hand ripples in a minute. Source: assumed"""
CLEAR_H_MM2 = 24.0
"""Hours until a millimetre of gel is clear at 20 °C; thicker layers take the square of it. Source: crank1975"""
WHITE_SHARE = 0.1
"""Of the top that white water usually takes. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class TopWork:
    """Ripples and white water over a top."""

    area_cm2: float
    ripple_ml: float
    open_min: float
    patch_cm2: float
    patches_count: int
    clear_h: float
    white_ml: float
    white_clear_h: float


def top_work(area_cm2: float, room_c: float, ripple_mm: float, white_fraction: float = WHITE_SHARE) -> TopWork:
    """Gel over an area at a thickness, in patches that stay wet while they are worked; white water on a share of it.

        t_open = 6 min 2^((20 - T)/10),  t_clear = 24 h d^2 2^((20 - T)/10)

    Source: crank1975 for the square of the thickness; the numbers are assumed

    >>> top_work(240.0, 20.0, 1.2).patches_count
    4
    """
    slower = PER_DECADE ** ((OPEN_AT_C - room_c) / 10.0)
    open_min = OPEN_MIN * slower
    patch = HANDS_CM2_MIN * open_min
    return TopWork(
        area_cm2=round(area_cm2, 1), ripple_ml=round(area_cm2 * ripple_mm / 10, 1), open_min=round(open_min, 1),
        patch_cm2=round(patch), patches_count=max(1, -int(-area_cm2 // patch)),
        clear_h=round(CLEAR_H_MM2 * ripple_mm**2 * slower, 1),
        white_ml=round(white_fraction * area_cm2 * WHITE_MM / 10, 1),
        white_clear_h=round(CLEAR_H_MM2 * WHITE_MM**2 * slower, 1),
    )
