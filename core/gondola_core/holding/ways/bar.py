"""On a round bar out of the bed: a clear stem of the resin itself, or a wire."""

from __future__ import annotations

from dataclasses import replace
from math import cos, radians, sin

from ...materials import load_library
from ...units import GPA, MM
from ...words import Words, words
from ..laws import buckling_force, cantilever_bend, least_diameter
from .way import SAFETY, Pull, Way, way_name, way_of_holding

MOST_BEND_MM = 0.5
"""Bend of a hold that nobody sees. Source: own_holding"""
MOST_TOLD_MM = 999.0
"""mm up to which a bend is told: beyond it the bar holds nothing. Source: assumed"""
RESIN_COLD_GPA = 2.5
"""Stiffness of cured clear epoxy below its glass temperature. Source: own_holding"""
RESIN_WARM_GPA = 0.03
"""The same above it. Source: own_holding"""
WIRE_GPA = 100.0
"""Stiffness of a metal of which the library says none. Source: assumed"""


@way_of_holding("stem", 3)
def stem(pull: Pull) -> Way:
    """A stem softens with the resin around it."""
    soft = pull.warm_c > pull.resin.tg_full_c
    told = _bar(pull, "stem", way_name("stem"), pull.figure.hold.stem_mm, RESIN_WARM_GPA if soft else RESIN_COLD_GPA)
    return replace(told, sentence=words("ways.bar.soft", bar=told.sentence, warm=pull.warm_c)) if soft else told


@way_of_holding("wire", 4)
def wire(pull: Pull) -> Way:
    """A wire of the metal that the figure names."""
    hold = pull.figure.hold
    stiffness = load_library().solids[hold.wire].stiffness_gpa or WIRE_GPA
    return _bar(pull, "wire", words("ways.wire.name", metal=hold.wire), hold.wire_mm, stiffness)


def _bar(pull: Pull, way: str, name: Words, diameter_mm: float, stiffness_gpa: float) -> Way:
    near, lean = pull.near, radians(pull.figure.hold.lean_deg)
    length_mm = max(near.gap_below_mm if near.gap_below_mm is not None else near.room_above_mm, 1.0)
    diameter, length, stiffness = diameter_mm * MM, length_mm * MM, stiffness_gpa * GPA
    across, along = abs(pull.force) * sin(lean), abs(pull.force) * cos(lean)
    bend_mm = cantilever_bend(across, length, diameter, stiffness) / MM
    # held up from the bed against sinking, the bar is pressed; against floating, it is pulled
    gives_way = pull.force < 0 and SAFETY * along > buckling_force(length, diameter, stiffness)
    bends_little = bend_mm <= MOST_BEND_MM
    thinnest_mm = least_diameter(across, length, stiffness, MOST_BEND_MM * MM) / MM
    said = "buckles" if gives_way else "bends" if bends_little else "bends_much"
    return Way(
        way=way, name=name, holds=bends_little and not gives_way, number=round(min(bend_mm, MOST_TOLD_MM), 2),
        limit=MOST_BEND_MM, quantity="length",
        sentence=words(f"ways.bar.{said}", thick=diameter_mm, long=length_mm, bend=bend_mm, thinnest=thinnest_mm),
    )
