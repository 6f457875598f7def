"""A run as server-sent events: each time something was told of it, or a device shows something else."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db.models import OuterRef, Subquery
from studio.stream import Watches

from .instruments.recording import HUB
from .models import Run, RunEvent

Key = tuple[UUID, int]
"""A run, and who listens to it."""


def _read(keys: list[Key]) -> dict[Key, dict[str, Any]]:
    last = RunEvent.objects.filter(run=OuterRef("pk")).order_by("-number").values("number")[:1]
    rows = Run.objects.filter(pk__in=[key for key, _ in keys]).annotate(last=Subquery(last))
    runs = {row.pk: row for row in rows.defer("packed")}
    devices = {one: HUB.told(one) for one in {one for _, one in keys}}
    return {
        (run_id, listener): {
            "number": runs[run_id].last or 0, "ended": runs[run_id].ended_at is not None,
            "ahead_s": runs[run_id].ahead_s, "instruments": devices[listener],
        }
        for run_id, listener in keys if run_id in runs
    }


WATCHES = Watches(_read, lambda _: False)
events = WATCHES.events
