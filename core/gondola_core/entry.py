"""Reads what a person types for a quantity: "2 1/2 in", "1 ft 3", "65mm", "8 fl oz", "75F", "1,5 cm"."""

from __future__ import annotations

import functools
import re
from fractions import Fraction
from typing import Any

from .errors import GondolaError
from .words import words

UNIT_OF = {
    "length": "mm", "temperature": "degC", "difference": "delta_degC", "volume": "ml", "mass": "g", "hours": "hour",
    "minutes": "minute", "area": "cm**2", "small_area": "mm**2",
}
"""Unit of each quantity in the document, as the units package calls it."""
NAMES = {
    "'": "ft", "′": "ft", '"': "inch", "″": "inch", "in": "inch", "inches": "inch", "ft": "ft", "feet": "ft",
    "foot": "ft", "mm": "mm", "cm": "cm", "m": "m", "c": "degC", "°c": "degC", "f": "degF", "°f": "degF",
    "k": "delta_degC", "ml": "ml", "cc": "ml", "cl": "cl", "l": "l", "fl oz": "fluid_ounce", "floz": "fluid_ounce",
    "fl. oz.": "fluid_ounce", "cup": "cup", "cups": "cup", "pt": "pint", "qt": "quart", "gal": "gallon", "g": "g",
    "gr": "g", "kg": "kg", "oz": "ounce", "lb": "pound", "lbs": "pound", "h": "hour", "hr": "hour", "hrs": "hour",
    "hours": "hour", "hour": "hour", "min": "minute", "mins": "minute", "minutes": "minute", "d": "day",
    "day": "day", "days": "day", "s": "second", "mm²": "mm**2", "mm2": "mm**2", "cm²": "cm**2", "cm2": "cm**2",
    "in²": "inch**2", "in2": "inch**2",
}
"""What people write, as the units package calls it."""
SMALLER = {"ft": "inch", "pound": "ounce", "hour": "minute", "day": "hour", "m": "cm"}
"""Unit of a bare number that follows one of these, as the 3 in "1 ft 3"."""
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_PART = re.compile(r"(\d+\s+\d+/\d+|\d+/\d+|\d+(?:\.\d+)?|\.\d+)\s*([^\d.\s][^\d]*?)?\s*(?=[\d.]|$)")
_TWO_WAYS = re.compile(r"^\d{1,3},\d{3}$")
MOST_LETTERS = 40


def read_quantity(text: str, quantity: str, unit: str) -> float:
    """A number in the document's unit of its quantity.

    quantity  such as "length" or "temperature"; unit  what a bare number is in, such as "in"

    GondolaError says what cannot be read, with an example.
    """
    if quantity not in UNIT_OF:
        raise GondolaError(words("refusals.quantity_unknown", what=quantity), "quantity")
    try:
        return _read(text, quantity, unit)
    except (ValueError, ZeroDivisionError, KeyError):
        example = words(f"refusals.examples.{quantity}")
        raise GondolaError(words("refusals.quantity", text=text[:MOST_LETTERS], example=example), "text") from None


def _read(text: str, quantity: str, unit: str) -> float:
    plain = text.strip().lower()
    for sign, fraction in _VULGAR.items():
        plain = plain.replace(sign, f" {fraction}")
    number = re.match(r"^[\d,]+", plain)
    if len(plain) > MOST_LETTERS or (number and _TWO_WAYS.match(number[0])):
        raise ValueError("too long, or a comma that can be read in two ways")
    plain = re.sub(r"(\d),(\d)", r"\1.\2", plain).replace("−", "-")
    negative, plain = plain.startswith("-"), plain.lstrip("-+ ")
    total, at, before = None, 0, None
    for part in _PART.finditer(plain):
        if part.start() != at:
            break
        name = (part[2] or "").strip()
        own = NAMES[name] if name else SMALLER[before] if before else NAMES[unit.lower()]
        value = float(sum(Fraction(one) for one in part[1].split()))
        value = -value if negative and total is None else value
        quantity_here = _registry().Quantity(value, own)
        total = quantity_here if total is None else total + (quantity_here if not negative else -quantity_here)
        at, before = part.end(), own
    if total is None or at != len(plain):
        raise ValueError("something is left over")
    return _in_document_unit(total, quantity)


def _in_document_unit(total: Any, quantity: str) -> float:
    import pint

    try:
        return round(float(total.to(UNIT_OF[quantity]).magnitude), 6)
    except pint.errors.PintError:
        raise ValueError("another quantity") from None


@functools.cache
def _registry() -> Any:
    import pint

    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)
