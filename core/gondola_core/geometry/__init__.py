"""Shapes: what a vertical line meets, how a view shows it, and the surface of the bed."""

from .bed import bed_area_cm2, bed_heights
from .chords import figure_chords, solid_volume
from .outline import VIEWS, Outline, extent_mm, outlines

__all__ = [
    "VIEWS",
    "Outline",
    "bed_area_cm2",
    "bed_heights",
    "extent_mm",
    "figure_chords",
    "outlines",
    "solid_volume",
]
