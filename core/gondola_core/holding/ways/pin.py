"""On a pin of wire into the bed."""

from __future__ import annotations

from math import pi

from ...units import MM, MPA
from ...words import words
from .way import Pull, Way, way_name, way_of_holding

PIN_SHEAR_MPA = 0.5
"""Hold of a wire glued into plaster or wood, over its skin. Source: own_holding"""
REACH_MM = 3.0
"""A pin is seen beyond this. Source: assumed"""


@way_of_holding("pin", 7)
def pin(pull: Pull) -> Way:
    """By the skin of the wire in the bed, which has to be near."""
    hold, gap = pull.figure.hold, pull.near.gap_below_mm
    carries = PIN_SHEAR_MPA * MPA * pi * hold.wire_mm * MM * hold.pin_depth_mm * MM
    near = gap is not None and gap <= REACH_MM
    said = "beside" if gap is None else "carries" if near else "far"
    return Way(
        way="pin", name=way_name("pin"), holds=near and carries >= pull.needs, number=round(pull.needs, 2),
        limit=round(carries, 2), quantity="newton",
        sentence=words(
            f"ways.pin.{said}", thick=hold.wire_mm, deep=hold.pin_depth_mm, carries=carries, gap=gap, reach=REACH_MM
        ),
    )
