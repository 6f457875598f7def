"""Long questions of one person wait for each other, not for others: nobody's many questions starve the rest."""

from __future__ import annotations

import functools
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from django.http import HttpRequest

LONGEST_WAIT_S = 60.0


class Busy(Exception):
    """One's earlier questions are still computed; `message` says so."""

    message = "Your earlier questions are still being computed: wait a moment, then ask again. Nothing was lost."


class Turns:
    """One lock a person, as long as somebody holds it or waits for it."""

    def __init__(self) -> None:
        self._locks: dict[object, tuple[threading.Lock, int]] = {}
        self._guard = threading.Lock()

    @contextmanager
    def of(self, person: object, longest_s: float = LONGEST_WAIT_S) -> Iterator[None]:
        """Within it, no other question of the same person is computed; Busy after too long a wait."""
        with self._guard:
            lock, count = self._locks.get(person, (threading.Lock(), 0))
            self._locks[person] = (lock, count + 1)
        try:
            if not lock.acquire(timeout=longest_s):
                raise Busy
            try:
                yield
            finally:
                lock.release()
        finally:
            with self._guard:
                lock, count = self._locks[person]
                if count == 1:
                    del self._locks[person]
                else:
                    self._locks[person] = (lock, count - 1)


TURNS = Turns()


def in_turn(view: Callable[..., Any]) -> Callable[..., Any]:
    """A view that computes, in the turn of whoever asks; strangers with a link share one."""

    @functools.wraps(view)
    def waiting(request: HttpRequest, *given: Any, **named: Any) -> Any:
        with TURNS.of(request.user.pk):
            return view(request, *given, **named)

    return waiting
