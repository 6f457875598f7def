"""On a spot of hot glue."""

from __future__ import annotations

from ...materials import load_library
from ...words import words
from .way import SAFETY, SAFETY_WARM, Pull, Way, way_name, way_of_holding

GLUE_MM2_PER_GF = 10.0
"""Least hot-glue area for each gram-force. Source: own_holding"""
GLUE_CREEPS_C = 45.0
"""Hot glue under load creeps from here. Source: own_holding"""
NEAR_SOFT_K = 10.0
"""So near to its softening more is asked of it. Source: own_holding"""


@way_of_holding("glue_spot", 6)
def glue_spot(pull: Pull) -> Way:
    """By its area, as long as it stays cool."""
    warm, has = pull.warm_c, pull.figure.hold.glue_mm2
    near_soft = warm > load_library().solids["hot-glue"].limit_c - NEAR_SOFT_K
    needs = GLUE_MM2_PER_GF * pull.load_gf * (SAFETY_WARM / SAFETY if near_soft else 1.0)
    creeps = warm >= GLUE_CREEPS_C
    return Way(
        way="glue_spot", name=way_name("glue_spot"), holds=has >= needs and not creeps, number=round(needs, 1),
        limit=has, quantity="small_area",
        sentence=words(
            f"ways.glue_spot.{'creeps' if creeps else 'needs'}", needs=needs, has=has, warm=warm, creeps=GLUE_CREEPS_C
        ),
    )
