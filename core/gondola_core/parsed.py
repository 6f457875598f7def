"""JSON from outside, its values counted before any of them is made."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from .errors import GondolaError

MOST_VALUES = 500_000
"""Of one scene: the largest has some 60,000, the heights of its bed; an empty list takes 3 bytes of a file and 64 of
memory. Source: assumed"""
MOST_KEYS = 200
"""Of one object; none here has a quarter of them, and each that is not known costs a sentence. Source: assumed"""
OPENING = (",", "[", "{")
"""Each value of a document but the outermost stands behind one of them."""


def parsed(
    text: str | bytes, most: int = MOST_VALUES, *, constant: Callable[[str], Any] | None = None,
    real: Callable[[str], Any] | None = None,
) -> Any:
    """What a text of JSON holds.

    most      values that it may hold, as its commas and brackets tell, those within its words counted too
    constant  called with NaN or Infinity, real with each number that has a point

    GondolaError says what keeps it from being read.

    >>> parsed("[1, 2, 3]", most=2)
    Traceback (most recent call last):
    gondola_core.errors.GondolaError: This holds some 3 values; 2 at most are read: leave some out.
    """
    values = sum(text.count(one) if isinstance(text, str) else text.count(one.encode()) for one in OPENING)
    if values > most:
        raise GondolaError(f"This holds some {values:,} values; {most:,} at most are read: leave some out.")
    try:
        return json.loads(text, parse_constant=constant, parse_float=real, object_pairs_hook=_object)
    except json.JSONDecodeError as flaw:
        raise GondolaError(f"This is not sound JSON: line {flaw.lineno}, column {flaw.colno}: {flaw.msg}.") from None
    except UnicodeDecodeError:
        raise GondolaError("The text of this is not sound UTF-8.") from None
    except RecursionError:
        raise GondolaError("This JSON is nested deeper than anything here is.") from None
    except ValueError:
        raise GondolaError("A number in this has more digits than any number here.") from None


def _object(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    if len(pairs) > MOST_KEYS:
        raise GondolaError(f"An object of this has {len(pairs):,} fields; {MOST_KEYS} at most are read.")
    return dict(pairs)
