"""The line protocol of scale and thermometer: one reading a line, in plain words; docs/devices.md has it all."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

LONGEST_LINE = 120
"""bytes; what is longer is no reading"""
CHANNELS = (1, 2)
"""of a thermometer: in the resin, in the room"""

_MASS = re.compile(r"^mass (-?\d{1,6}(?:\.\d{1,4})?) g (steady|moving)$")
_TEMP = re.compile(r"^temp ([12]) (-?\d{1,3}(?:\.\d{1,3})?) C$")
_OPEN = re.compile(r"^temp ([12]) open$")


@dataclass(frozen=True, slots=True)
class Mass:
    """What a scale shows; `mass_g` is None where it is overloaded."""

    mass_g: float | None
    steady: bool


@dataclass(frozen=True, slots=True)
class Temperature:
    """What a channel of a thermometer shows; None where its probe is not plugged in."""

    channel: int
    measured_c: float | None


Kind = Literal["scale", "thermometer"]


def parse(line: str) -> Mass | Temperature | None:
    """A reading; None for a line that is none, which is passed over."""
    text = line.strip()
    if len(text) > LONGEST_LINE:
        return None
    if text == "mass over":
        return Mass(None, False)
    if found := _MASS.match(text):
        return Mass(float(found[1]), found[2] == "steady")
    if found := _TEMP.match(text):
        return Temperature(int(found[1]), float(found[2]))
    if found := _OPEN.match(text):
        return Temperature(int(found[1]), None)
    return None


def written(reading: Mass | Temperature) -> str:
    """The line of a reading."""
    if isinstance(reading, Mass):
        if reading.mass_g is None:
            return "mass over"
        return f"mass {reading.mass_g:.4f}".rstrip("0").rstrip(".") + f" g {'steady' if reading.steady else 'moving'}"
    if reading.measured_c is None:
        return f"temp {reading.channel} open"
    return f"temp {reading.channel} {reading.measured_c:.2f} C"
