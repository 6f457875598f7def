"""Flags and remedies: what will go wrong, by how much, and what to try. Each file registers its checks."""

from ..discover import import_all
from .flag import Finding, Flag, Remedy, Severity, Where
from .registry import CHECKS, Check, check
from .telling import flags_answer, reader_units, told_remedy

import_all(__name__, __path__)
FLAGS = flags_answer()

__all__ = [
    "CHECKS", "FLAGS", "Check", "Finding", "Flag", "Remedy", "Severity", "Where", "check", "reader_units",
    "told_remedy",
]
