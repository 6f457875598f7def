"""What is repeated in full by `make soak`, and for a few by `make test`."""

import os
from collections.abc import Sequence
from typing import Any

SOAK = os.environ.get("GONDOLA_SOAK") == "1"


def some_of(every: Sequence[Any], few: int) -> Sequence[Any]:
    """All of them in a soak; else so many, spread over the whole."""
    return every if SOAK else every[:: max(1, -(-len(every) // few))]


def as_many(full: int, few: int) -> int:
    """How often: in full in a soak, else a few times."""
    return full if SOAK else few
