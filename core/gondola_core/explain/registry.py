"""Causes: each says what it makes, how likely what happened makes it, and what the piece would be without it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from ..words import Words
from .case import Case
from .fault import FaultKind

UNRECORDED = 0.06
"""Chance of a cause of which nothing was recorded. Source: assumed"""
FINE, BAD = 0.015, 0.85
"""Chance of one that the record speaks against, and of one that it shows. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighed:
    """What a history says of one cause.

    chance      that it happened, by the record alone, before the faults are looked at
    with_it, without_it   the number that it drives, as it happened and without it; None where none is computed
    quantity    of that number
    speaks, against, open   sentences; `open` of what was not recorded and would decide
    """

    chance: float
    with_it: float | None = None
    without_it: float | None = None
    quantity: str = "plain"
    speaks: list[Words] = field(default_factory=list)
    against: list[Words] = field(default_factory=list)
    open: list[Words] = field(default_factory=list)
    next_time: Words | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Cause:
    """One cause: `makes` holds the share of pieces with it that show each fault."""

    id: str
    makes: dict[FaultKind, float]
    near: str
    weigh: Callable[[Case], Weighed]


CAUSES: dict[str, Cause] = {}


Weighing = Callable[[Case], Weighed]


def cause(id_: str, makes: dict[FaultKind, float], near: str = "") -> Callable[[Weighing], Weighing]:
    """Register a cause; `near`: bed, figure, line, wall or top, where its faults lie."""

    def register(weigh: Weighing) -> Weighing:
        CAUSES[id_] = Cause(id=id_, makes=makes, near=near, weigh=weigh)
        return weigh

    return register

