"""Flags and remedies: what will go wrong, by how much, and what to try. Each file registers its checks."""

from . import air, bed, dam, figures, hands, heat, recoat, water
from .flag import Finding, Flag, Remedy, Severity, Where
from .registry import CHECKS, Check, check
from .telling import flags_answer, reader_units, told_remedy

FLAGS = flags_answer()

__all__ = [
    "CHECKS",
    "FLAGS",
    "Check",
    "Finding",
    "Flag",
    "Remedy",
    "Severity",
    "Where",
    "air",
    "bed",
    "check",
    "dam",
    "figures",
    "hands",
    "heat",
    "reader_units",
    "recoat",
    "told_remedy",
    "water",
]
