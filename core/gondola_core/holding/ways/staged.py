"""Laid on a layer that has gelled, whose tack holds it."""

from __future__ import annotations

from ...units import CM2, GRAVITY, G
from ...words import Words, words
from ..load import TACK_KPA
from .way import SAFETY, Pull, Way, way_name, way_of_holding

OFF_THE_LINE_MM = 2.0
"""A figure further from the line than this does not lie on it. Source: assumed"""


@way_of_holding("staged", 2)
def staged(pull: Pull) -> Way:
    """Holds what lies on a gelled layer: by weight, or by tack over its underside."""
    carries = TACK_KPA * 1e3 * pull.near.contact_cm2 * CM2
    carries_gf, needs_gf = carries / (G * GRAVITY), pull.needs / (G * GRAVITY)
    sentence = _missing(pull)
    holds = sentence is None and (not pull.floats or carries >= pull.needs)
    return Way(
        way="staged", name=way_name("staged"), holds=holds, number=round(carries_gf, 1), limit=round(needs_gf, 1),
        quantity="force",
        sentence=sentence or words("ways.staged.tack", carries=carries_gf, needs=needs_gf, safety=SAFETY),
    )


def _missing(pull: Pull) -> Words | None:
    """What is missing before a figure could be laid down."""
    off = pull.near.line_below_mm
    if off is None:
        return words("ways.staged.no_line")
    if abs(off) > OFF_THE_LINE_MM:
        return words("ways.staged.off", off=abs(off))
    return None if pull.near.layer_is_stiff else words("ways.staged.liquid")
