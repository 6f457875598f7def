"""Hanging by a line from a bridge over the rim."""

from __future__ import annotations

from ...words import words
from .way import Pull, Way, way_name, way_of_holding

LINE_MM = 0.2
LINE_STRENGTH_N = 8.0
"""Nylon line of 0.2 mm. Source: own_holding"""


@way_of_holding("line", 5)
def line(pull: Pull) -> Way:
    """Carries what sinks; what floats needs an anchor below."""
    holds = not pull.floats and pull.needs <= LINE_STRENGTH_N
    said = "floats" if pull.floats else "carries" if holds else "heavy"
    return Way(
        way="line", name=way_name("line"), holds=holds, number=round(pull.needs, 2), limit=LINE_STRENGTH_N,
        quantity="newton", sentence=words(f"ways.line.{said}", room=pull.near.room_above_mm, thick=LINE_MM),
    )
