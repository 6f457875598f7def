"""One comparison of a model with what is known, and the register of those that make them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """What a model gives beside what is known.

    model      heading under which it stands
    quantity   what is compared, with its unit
    against    the closed form or table in words; source: its key in `sources.toml`
    expected, found   numbers in that unit
    allowed    most that they may differ, in that unit
    """

    model: str
    quantity: str
    against: str
    source: str
    expected: float
    found: float
    allowed: float

    @property
    def error(self) -> float:
        """By how much it is off, in the unit of the quantity."""
        return abs(self.found - self.expected)

    @property
    def holds(self) -> bool:
        """False too where a number is none."""
        return self.error <= self.allowed


Measure = Callable[[], Iterator[Measured]]
MEASURES: list[Measure] = []


def measure(made: Measure) -> Measure:
    """Register a function that compares one model."""
    MEASURES.append(made)
    return made


def measure_all() -> list[Measured]:
    """Every comparison, in the order of the models' files."""
    return [one for made in MEASURES for one in made()]
