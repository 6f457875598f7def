"""Standing on the bed by its own weight."""

from __future__ import annotations

from ...words import words
from .way import Pull, Way, way_name, way_of_holding

RESTS_MM = 0.6
"""A figure nearer to the bed than this rests on it. Source: assumed"""


@way_of_holding("on_bed", 1)
def on_bed(pull: Pull) -> Way:
    """Holds what sinks and touches the bed."""
    gap = pull.near.gap_below_mm
    rests = gap is not None and gap <= RESTS_MM
    if pull.floats:
        sentence = words("ways.on_bed.lifts", force=pull.load_gf)
    elif gap is None:
        sentence = words("ways.on_bed.beside")
    else:
        sentence = words("ways.on_bed.rests" if rests else "ways.on_bed.hangs", gap=gap)
    return Way(
        way="on_bed", name=way_name("on_bed"), holds=rests and not pull.floats,
        number=round(gap if gap is not None else 99.0, 1), limit=RESTS_MM, quantity="length", sentence=sentence,
    )
