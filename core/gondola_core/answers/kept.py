"""Keeps each subject's answer by a hash of just the inputs that it depends on."""

from __future__ import annotations

import hashlib
import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Any, TypeVar

from pydantic_core import to_json

Answer = TypeVar("Answer")


class Keeper:
    """A small memory of answers, oldest forgotten first; safe to share between threads."""

    def __init__(self, most: int = 256) -> None:
        self._most = most
        self._answers: OrderedDict[str, Any] = OrderedDict()
        self._lock = threading.Lock()
        self.computed: dict[str, int] = {}

    def keep(
        self, subject: str, inputs: object, compute: Callable[[], Answer], most: int | None = None
    ) -> Answer:
        """The answer kept for these inputs, else computed and kept.

        most  how many answers of this subject are kept at a time; None: as many as there is room for
        """
        key = f"{subject}:{digest(inputs)}"
        with self._lock:
            if key in self._answers:
                self._answers.move_to_end(key)
                found: Answer = self._answers[key]
                return found
        answer = compute()
        with self._lock:
            self._answers[key] = answer
            self.computed[subject] = self.computed.get(subject, 0) + 1
            mine = [one for one in self._answers if one.startswith(f"{subject}:")] if most else []
            for old in mine[: max(0, len(mine) - (most or 0))]:
                del self._answers[old]
            while len(self._answers) > self._most:
                self._answers.popitem(last=False)
        return answer


def digest(inputs: object) -> str:
    """Hash of document parts, plain values, and lists and tuples of them; others are refused."""
    return hashlib.blake2b(to_json(inputs), digest_size=16).hexdigest()
