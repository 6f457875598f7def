"""The march: heat and cure through time, on cells, pour after pour."""

from .blocks import Room, steady_room
from .hearing import heard_by
from .run import (
    COOL_C,
    DEMOULD_TG_C,
    Marched,
    OutOfWorkError,
    Scrubbing,
    TimedPour,
    Tolerance,
    march_pours,
    rate_chemistry,
    thresholds_of,
)

__all__ = [
    "COOL_C",
    "DEMOULD_TG_C",
    "Marched",
    "OutOfWorkError",
    "Room",
    "Scrubbing",
    "TimedPour",
    "Tolerance",
    "heard_by",
    "march_pours",
    "rate_chemistry",
    "steady_room",
    "thresholds_of",
]
