"""A way of holding, and what it is checked against."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ...materials import Resin
from ...scene import Figure
from ...units import GRAVITY, G
from ...words import Words, words

SAFETY = 3.0
"""How many times a hold has to carry its load. Source: own_holding"""
SAFETY_WARM = 5.0
"""The same within 10 K of what holds it softening. Source: own_holding"""
ROOM_C = 25.0
"""degrees C around a figure that no resin touches. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Nearby:
    """What is near a figure in the plan.

    gap_below_mm    from its lowest point down to the bed under it; None where there is none
    line_below_mm   from its lowest point down to the layer line it would be laid on; None: none
    contact_cm2     of its underside near its lowest point
    layer_is_stiff  True if that layer has gelled when the next pour comes
    room_above_mm   from its highest point up to a bridge on the rim
    peak_c          hottest resin around it; None where it touches none
    """

    gap_below_mm: float | None
    line_below_mm: float | None
    contact_cm2: float
    layer_is_stiff: bool
    room_above_mm: float
    peak_c: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Pull:
    """A figure, the net force on it, upward if above 0 [N], in which resin, and what is near it."""

    figure: Figure
    resin: Resin
    force: float
    near: Nearby

    @property
    def floats(self) -> bool:
        """True if it is lifted."""
        return self.force > 0

    @property
    def load_gf(self) -> float:
        """The force whichever way it goes [gf]."""
        return abs(self.force) / (G * GRAVITY)

    @property
    def needs(self) -> float:
        """What a hold has to carry [N]."""
        return SAFETY * abs(self.force)

    @property
    def warm_c(self) -> float:
        """How warm it gets around the figure."""
        return ROOM_C if self.near.peak_c is None else self.near.peak_c


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """One way of holding a figure, checked: `number` against `limit`, both of `quantity`."""

    way: str
    name: Words
    holds: bool
    number: float
    limit: float
    quantity: str
    sentence: Words


HoldingCheck = Callable[[Pull], Way]
WAYS: dict[str, tuple[int, HoldingCheck]] = {}
"""The register of ways by their code, each with its place among those that are told."""


def way_of_holding(code: str, place: int) -> Callable[[HoldingCheck], HoldingCheck]:
    """Register a way under its code, as a scene names it."""

    def registered(check: HoldingCheck) -> HoldingCheck:
        WAYS[code] = (place, check)
        return check

    return registered


def ways_in_order() -> dict[str, HoldingCheck]:
    """The ways as they are told."""
    return {code: check for code, (_, check) in sorted(WAYS.items(), key=lambda one: one[1][0])}


def way_name(code: str) -> Words:
    """What a way is called."""
    return words(f"ways.{code}.name")
