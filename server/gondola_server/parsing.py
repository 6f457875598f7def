"""Reads the body of a question: JSON as its standard has it, without endless numbers and halves of signs."""

from __future__ import annotations

import json
import math
import re
from typing import Any

from django.http import HttpRequest
from ninja.parser import Parser

from gondola_core.errors import GondolaError
from gondola_core.parsed import parsed

MAY_BE_ENDLESS = re.compile(rb"[eE]\+?\d{3}|\d{300}")
"""Numbers that a double may not hold; looked for first, for the check of each costs time."""
MOST_VALUES = 2_000_000
"""Of one question: the longest log of a thermometer has 400,000 rows, whose commas count. Source: assumed"""
MAY_BE_HALF = re.compile(rb"\\u[dD][89a-fA-F]")


class SoundParser(Parser):
    """GondolaError says what is not sound, in place of an answer that would not be sound either."""

    def parse_body(self, request: HttpRequest) -> Any:
        body = request.body
        read = parsed(body, MOST_VALUES, constant=_refuse, real=_finite if MAY_BE_ENDLESS.search(body) else None)
        if MAY_BE_HALF.search(body):
            try:
                json.dumps(read, ensure_ascii=False).encode()
            except UnicodeEncodeError:
                raise GondolaError("The text of this is not sound UTF-8, or holds half of a sign.") from None
        return read


def _refuse(name: str) -> None:
    raise GondolaError(f"{name} is no number of JSON: leave the field out, or give a number.")


def _finite(text: str) -> float:
    value = float(text)
    if not math.isfinite(value):
        raise GondolaError(f"{text[:20]} is too large for a number here.")
    return value
