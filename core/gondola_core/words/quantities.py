"""Quantities as a person reads them: millimetres or inches on a rule, degrees, millilitres, grams, hours."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

MM_PER_INCH = 25.4
ML_PER_FLUID_OUNCE = 29.5735
G_PER_OUNCE = 28.3495
G_PER_POUND = 16 * G_PER_OUNCE
N_PER_POUND_FORCE = 4.44822
"""Source: definition"""
SIXTEENTH_FROM_MM = 6.0
"""Shorter lengths are said in decimal inches: a sixteenth is too coarse for them. Source: assumed"""


@dataclass(frozen=True, slots=True)
class ReaderUnits:
    """In which units somebody reads: "mm" or "in", "c" or "f", "ml" or "floz", "g" or "oz"."""

    length: str = "mm"
    temperature: str = "c"
    volume: str = "ml"
    mass: str = "g"


METRIC = ReaderUnits()
US = ReaderUnits("in", "f", "floz", "oz")


def trimmed(value: float, digits: int) -> str:
    """A number to so many digits, without noughts at its end."""
    text = f"{value:.{digits}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def rule_inches(length_mm: float) -> str:
    """Inches as on a rule, to a sixteenth: 39.7 mm is "1 9/16 in"."""
    sixteenths = round(abs(length_mm) / MM_PER_INCH * 16)
    whole, part = divmod(sixteenths, 16)
    sign = "-" if length_mm < 0 and sixteenths else ""
    fraction = Fraction(part, 16)
    figures = [str(whole)] if whole or not part else []
    if part:
        figures.append(f"{fraction.numerator}/{fraction.denominator}")
    return f"{sign}{' '.join(figures)} in"


def in_reader_units(value: float, name: str, units: ReaderUnits = METRIC) -> tuple[float, str]:
    """A number and its unit for a table or a file, in decimals: lengths, temperatures, volumes and masses."""
    if name == "length" and units.length == "in":
        return value / MM_PER_INCH, "in"
    if name == "temperature" and units.temperature == "f":
        return value * 9 / 5 + 32, "F"
    if name == "volume" and units.volume == "floz":
        return value / ML_PER_FLUID_OUNCE, "fl oz"
    if name == "mass" and units.mass == "oz":
        return value / G_PER_OUNCE, "oz"
    return value, {"length": "mm", "temperature": "C", "volume": "ml", "mass": "g"}[name]


def _small(value: float) -> int:
    """Digits of a number of ounces: what is small keeps one that says something."""
    return 3 if abs(value) < 0.1 else 2


def _length(value: float, units: ReaderUnits, digits: int) -> str:
    number, unit = in_reader_units(value, "length", units)
    if unit == "in":
        return f"{trimmed(number, 3)} in" if abs(value) < SIXTEENTH_FROM_MM else rule_inches(value)
    return f"{trimmed(number, digits)} mm"


def _temperature(value: float, units: ReaderUnits, digits: int) -> str:
    number, unit = in_reader_units(value, "temperature", units)
    return f"{trimmed(number, digits)} °{unit}"


def _difference(value: float, units: ReaderUnits, digits: int) -> str:
    return f"{trimmed(value * 9 / 5, digits)} °F" if units.temperature == "f" else f"{trimmed(value, digits)} K"


def _volume(value: float, units: ReaderUnits, digits: int) -> str:
    number, unit = in_reader_units(value, "volume", units)
    if unit == "fl oz":
        return f"{trimmed(number, 1 if abs(number) >= 1 else _small(number))} fl oz"
    if abs(value) < 10:
        digits = max(digits, 1 if abs(value) >= 1 else 2)
    return f"{trimmed(value, digits)} ml"


def _mass(value: float, units: ReaderUnits, digits: int) -> str:
    number, unit = in_reader_units(value, "mass", units)
    if unit == "oz":
        return f"{trimmed(number, _small(number))} oz"
    return f"{trimmed(value, max(digits, 1) if abs(value) < 100 else digits)} g"


def _heavy(value: float, units: ReaderUnits, digits: int) -> str:
    if units.mass == "oz":
        return f"{trimmed(value * 1000 / G_PER_POUND, 1)} lb"
    return f"{trimmed(value, max(digits, 1))} kg"


def _force(value: float, units: ReaderUnits, digits: int) -> str:
    digits = max(digits, 2 if abs(value) < 1 else 1 if abs(value) < 10 else 0)
    if units.mass == "oz":
        return f"{trimmed(value / G_PER_OUNCE, _small(value / G_PER_OUNCE))} ozf"
    return f"{trimmed(value, digits)} gf"


def _newton(value: float, units: ReaderUnits, digits: int) -> str:
    if units.mass == "oz":
        return f"{trimmed(value / N_PER_POUND_FORCE, 2)} lbf"
    return f"{trimmed(value, max(digits, 1))} N"


def _area(value: float, units: ReaderUnits, digits: int) -> str:
    if units.length == "in":
        return f"{trimmed(value / MM_PER_INCH**2 * 100, 1)} in²"
    return f"{trimmed(value, digits)} cm²"


def _small_area(value: float, units: ReaderUnits, digits: int) -> str:
    if units.length == "in":
        return f"{trimmed(value / MM_PER_INCH**2, 2)} in²"
    return f"{trimmed(value, digits)} mm²"


def _density(value: float, units: ReaderUnits, digits: int) -> str:
    if units.mass == "oz" and units.volume == "floz":
        return f"{trimmed(value * ML_PER_FLUID_OUNCE / G_PER_OUNCE, 3)} oz/fl oz"
    return f"{trimmed(value, max(digits, 3))} g/ml"


def _hours(value: float, units: ReaderUnits, digits: int) -> str:
    if abs(value) < 1:
        return f"{trimmed(value * 60, 0)} min"
    return f"{trimmed(value, digits)} h"


def _with(unit: str) -> Callable[[float, ReaderUnits, int], str]:
    def said(value: float, units: ReaderUnits, digits: int) -> str:
        return f"{trimmed(value, digits)}{unit}"

    return said


def _percent(value: float, units: ReaderUnits, digits: int) -> str:
    return f"{trimmed(100 * value, digits)} %"


QUANTITIES: dict[str, Callable[[float, ReaderUnits, int], str]] = {
    "length": _length, "temperature": _temperature, "difference": _difference, "volume": _volume, "mass": _mass,
    "heavy": _heavy, "force": _force, "newton": _newton, "area": _area, "small_area": _small_area,
    "density": _density, "hours": _hours, "minutes": _with(" min"), "percent": _percent, "degrees": _with("°"),
    "plain": _with(""), "de00": _with(""), "drops": _with(" drops"), "mpa": _with(" MPa"),
}
"""Each from (value in the document's own unit, units of the reader, digits)."""


def said_quantity(value: float, spec: str, units: ReaderUnits = METRIC) -> str:
    """A number by its quantity, such as "length" or, to a tenth, "length.1"."""
    name, _, digits = spec.partition(".")
    return QUANTITIES[name](float(value), units, int(digits or 0))
