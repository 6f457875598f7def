"""Long questions of one person wait for each other, not for others: nobody's many questions starve the rest."""

from __future__ import annotations

import functools
import os
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from typing import Any

from django.conf import settings
from django.http import HttpRequest

from gondola_core.cure.march import heard_by

from .aside import ask_aside
from .gone import still_there

LONGEST_WAIT_S, LOOK_EVERY_S = 60.0, 0.25
"""How long a question waits for one's earlier ones, and between two looks whether its asker is still there. Source:
assumed"""
LONG_S, REMEMBERED_S = 1.5, 60.0
"""A question that takes longer is a long one, and lets those of others go first for so long. Source: assumed"""
BEHIND = 19
"""Niceness of a thread that lets others go first."""


class Busy(Exception):
    """One's earlier questions are still computed; `message` says so."""

    message = "Your earlier questions are still being computed: wait a moment, then ask again. Nothing was lost."


class Turns:
    """One lock a person, as long as somebody holds it or waits for it."""

    def __init__(self) -> None:
        self._locks: dict[object, tuple[threading.Lock, int]] = {}
        self._guard = threading.Lock()
        self._long_until: dict[object, float] = {}

    @contextmanager
    def of(
        self, person: object, longest_s: float = LONGEST_WAIT_S, told: Callable[[float], None] | None = None
    ) -> Iterator[None]:
        """Within it, no other question of the same person is computed; Busy after too long a wait.

        told  called now and then while it waits, with 0; what it raises ends the wait
        """
        with self._guard:
            lock, count = self._locks.get(person, (threading.Lock(), 0))
            self._locks[person] = (lock, count + 1)
        try:
            until = time.monotonic() + longest_s
            while not lock.acquire(timeout=max(0.0, min(LOOK_EVERY_S, until - time.monotonic()))):
                if time.monotonic() >= until:
                    raise Busy
                if told is not None:
                    told(0.0)
            began = time.monotonic()
            try:
                yield
            finally:
                lock.release()
                self._remember(person, began)
        finally:
            with self._guard:
                lock, count = self._locks[person]
                if count == 1:
                    del self._locks[person]
                else:
                    self._locks[person] = (lock, count - 1)

    def asks_long(self, person: object) -> bool:
        """True if one of their questions took long a short while ago."""
        with self._guard:
            return self._long_until.get(person, 0.0) > time.monotonic()

    def _remember(self, person: object, began: float) -> None:
        now = time.monotonic()
        with self._guard:
            self._long_until = {one: until for one, until in self._long_until.items() if until > now}
            if now - began > LONG_S:
                self._long_until[person] = now + REMEMBERED_S


TURNS = Turns()


def let_others_first() -> None:
    """Lower this thread, and those it begins, below the others: for one that ends with its question."""
    with suppress(OSError):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), BEHIND)


@contextmanager
def turn_of(
    request: HttpRequest, kind: str = "", wanted: Callable[[float], None] | None = None
) -> Iterator[Callable[[float], None]]:
    """Within it whoever asks is computed for, as long as they are there; strangers with a link share one turn.

    kind    questions of one kind wait for each other alone
    wanted  called now and then besides; what it raises ends the question

    Yields what is to be called while something is computed: it raises Gone when nobody waits for it. Who asked for
    something long a short while ago is answered aside, which raises Answered with the answer.
    """
    gone, whose = still_there(request), (request.user.pk, kind)

    def there(share: float) -> None:
        gone(share)
        if wanted is not None:
            wanted(share)

    with TURNS.of(whose, told=there), heard_by(there):
        if TURNS.asks_long(whose):
            if settings.ASIDE:
                ask_aside(request, settings.ASIDE, there)
            # an ASGI server gives each question a thread of its own; others keep theirs, and could not raise it again
            if hasattr(request, "scope"):
                let_others_first()
        yield there


def in_turn_of(kind: str) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Makes a view that computes one in the turn of whoever asks; see `turn_of`."""

    def in_turn(view: Callable[..., Any]) -> Callable[..., Any]:
        @functools.wraps(view)
        def waiting(request: HttpRequest, *given: Any, **named: Any) -> Any:
            with turn_of(request, kind):
                return view(request, *given, **named)

        return waiting

    return in_turn


in_turn = in_turn_of("")
