"""Progress of jobs as server-sent events: one task looks for all who listen, and no thread waits."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Any
from uuid import UUID

from asgiref.sync import sync_to_async

from . import actions
from .models import Job

LOOK_EVERY = 0.25
"""seconds between two looks"""
ALIVE_EVERY = 15.0
"""seconds after which a quiet stream sends a comment, so that nobody between closes it"""


def told_state(job: Job) -> dict[str, Any]:
    """A job as the page reads it."""
    return {
        "id": str(job.pk), "kind": job.kind, "state": job.state, "progress_fraction": job.progress_fraction,
        "message": job.message,
    }


class Watch:
    """Jobs that somebody listens to, read together."""

    def __init__(self) -> None:
        self._listening: dict[UUID, int] = {}
        self._states: dict[UUID, dict[str, Any]] = {}
        self._changed = asyncio.Condition()
        self._task: asyncio.Task[None] | None = None

    async def follow(self, job_id: UUID) -> AsyncIterator[dict[str, Any] | None]:
        """States of a job as they change, until it is over; None where nothing was said for long."""
        self._listening[job_id] = self._listening.get(job_id, 0) + 1
        last: dict[str, Any] | None = None
        try:
            while last is None or last["state"] not in Job.OVER:
                now = self._states.get(job_id)
                if now is not None and now != last:
                    last = now
                    yield now
                    continue
                if self._task is None or self._task.done():  # nobody looks yet, or its look has failed
                    self._task = asyncio.create_task(self._look())
                try:
                    async with self._changed:
                        await asyncio.wait_for(self._changed.wait(), ALIVE_EVERY)
                except TimeoutError:
                    yield None
        finally:
            self._listening[job_id] -= 1
            if not self._listening[job_id]:
                del self._listening[job_id]
                self._states.pop(job_id, None)

    async def _look(self) -> None:
        while self._listening:
            self._states |= await sync_to_async(_read)(list(self._listening))
            async with self._changed:
                self._changed.notify_all()
            await asyncio.sleep(LOOK_EVERY)


def _read(job_ids: list[UUID]) -> dict[UUID, dict[str, Any]]:
    jobs = Job.objects.filter(pk__in=job_ids).defer("document", "result")
    return {job.pk: told_state(actions.refresh(job)) for job in jobs}


_watches: dict[int, Watch] = {}


def watch() -> Watch:
    """The watch of the running event loop."""
    return _watches.setdefault(id(asyncio.get_running_loop()), Watch())


async def events(job_id: UUID) -> AsyncIterator[str]:
    """Server-sent events of a job."""
    async for state in watch().follow(job_id):
        yield ": alive\n\n" if state is None else f"data: {json.dumps(state)}\n\n"
