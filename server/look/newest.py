"""Who asks anew no longer waits for what was asked before: its drawing ends between two strips."""

from __future__ import annotations

import threading
from collections import OrderedDict

MOST_ASKERS = 200


class Overtaken(Exception):
    """A newer question of the same asker came in."""

    message = "Another look was asked for meanwhile."


class Newest:
    """The newest question of each asker, by numbers that grow; safe to share between threads."""

    def __init__(self) -> None:
        self._numbers: OrderedDict[str, int] = OrderedDict()
        self._lock = threading.Lock()

    def ask(self, asker: str, number: int) -> None:
        """Tell of a question; Overtaken where a newer one is known."""
        with self._lock:
            if self._numbers.get(asker, -1) > number:
                raise Overtaken
            self._numbers[asker] = number
            self._numbers.move_to_end(asker)
            while len(self._numbers) > MOST_ASKERS:
                self._numbers.popitem(last=False)

    def check(self, asker: str, number: int) -> None:
        """Overtaken where a newer question is known; an asker of whom nothing is known still waits."""
        if self._numbers.get(asker, number) > number:
            raise Overtaken


NEWEST = Newest()
