"""Flags and remedies: what will go wrong, by how much, and what to try."""

from .build import dam_flags
from .close import with_close_calls
from .figures import figure_flags
from .flag import Edit, Flag, Remedy, Severity
from .hands import hands_flags
from .heat import HeatLimit, heat_limits, pour_flags
from .scene import scene_flags
from .water import water_flags

_ORDER = {Severity.STOP: 0, Severity.WATCH: 1, Severity.NOTE: 2}


def in_order(flags: list[Flag]) -> list[Flag]:
    """Worst first; within a grade as they were found."""
    return sorted(flags, key=lambda flag: _ORDER[flag.severity])


__all__ = [
    "Edit",
    "Flag",
    "HeatLimit",
    "Remedy",
    "Severity",
    "dam_flags",
    "figure_flags",
    "hands_flags",
    "heat_limits",
    "in_order",
    "pour_flags",
    "scene_flags",
    "water_flags",
    "with_close_calls",
]
