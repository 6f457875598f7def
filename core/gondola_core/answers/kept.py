"""Keeps answers by their keys; two who ask for the same at once compute it once."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Any, TypeVar, cast

T = TypeVar("T")


class Keeper:
    """A small memory of answers, oldest forgotten first; safe to share between threads."""

    def __init__(self, most: int = 256) -> None:
        self._most = most
        self._answers: OrderedDict[str, Any] = OrderedDict()
        self._lock = threading.Lock()
        self._under_way: dict[str, threading.Lock] = {}
        self.computed: dict[str, int] = {}

    def keep(self, subject: str, key: str, compute: Callable[[], T], most: int | None = None) -> T:
        """The answer kept under a key of a subject, else computed and kept.

        most  how many answers of this subject are kept at a time; None: as many as there is room for
        """
        whole = f"{subject}:{key}"
        with self._lock:
            if whole in self._answers:
                return cast(T, self._found(whole))
            turn = self._under_way.setdefault(whole, threading.Lock())
        with turn:
            with self._lock:
                if whole in self._answers:
                    return cast(T, self._found(whole))
            try:
                answer = compute()
                with self._lock:
                    self._store(subject, whole, answer, most)
            finally:
                with self._lock:
                    self._under_way.pop(whole, None)
        return answer

    def has(self, subject: str, key: str) -> bool:
        """True if an answer is kept."""
        with self._lock:
            return f"{subject}:{key}" in self._answers

    def _found(self, whole: str) -> Any:
        self._answers.move_to_end(whole)
        return self._answers[whole]

    def _store(self, subject: str, whole: str, answer: Any, most: int | None) -> None:
        self._answers[whole] = answer
        self.computed[subject] = self.computed.get(subject, 0) + 1
        mine = [one for one in self._answers if one.startswith(f"{subject}:")] if most else []
        for old in mine[: max(0, len(mine) - (most or 0))]:
            del self._answers[old]
        while len(self._answers) > self._most:
            self._answers.popitem(last=False)
