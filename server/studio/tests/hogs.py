"""Work that asks for too much, for processes that are to be ended."""

from __future__ import annotations

import os
import time

import numpy as np

from gondola_core.errors import GondolaError


def double(number: int) -> int:
    return 2 * number


def refuse(word: str) -> None:
    raise GondolaError(f"No {word} here.", "word")


def sleep() -> None:
    time.sleep(60)


def die() -> None:
    os._exit(3)


def swell() -> int:
    return int(np.ones(600_000_000).sum())


def stumble() -> None:
    raise ZeroDivisionError("by hand")
