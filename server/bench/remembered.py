"""Events of runs as they were read last. None is ever changed or taken away, so that only new ones are read again."""

from __future__ import annotations

import threading
from uuid import UUID

from django.db import connection

from gondola_core.bench.events import AnyEvent, kept_events

from .models import Run

MOST = 60_000
"""Events that are remembered, some 1 kB each; the runs that were asked for longest ago go first. Source: assumed"""


class Remembered:
    """Events by run, for all threads."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._runs: dict[UUID, tuple[AnyEvent, ...]] = {}

    def of(self, run: Run) -> list[AnyEvent]:
        """All its events in the order in which they were taken in; SceneError where one is no longer taken."""
        with self._lock:
            known = self._runs.get(run.pk, ())
        rows = run.events.filter(number__gt=known[-1].number if known else 0).values_list("number", "body")
        told = (*known, *kept_events([{**body, "number": number} for number, body in rows]))
        if _is_settled():
            self._keep(run.pk, told)
        return list(told)

    def _keep(self, key: UUID, told: tuple[AnyEvent, ...]) -> None:
        with self._lock:
            self._runs.pop(key, None)
            self._runs[key] = told
            held = sum(len(one) for one in self._runs.values())
            while held > MOST and len(self._runs) > 1:
                held -= len(self._runs.pop(next(iter(self._runs))))


def _is_settled() -> bool:
    """Whether what is read cannot be taken back by the end of a transaction."""
    return not connection.in_atomic_block


REMEMBERED = Remembered()
