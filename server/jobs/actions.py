"""What can be done with jobs: ask for one, read how far it is, end it, take up what was lost."""

from __future__ import annotations

import base64
import time
import zlib
from typing import Any

from django.db import transaction
from shapes.actions import with_meshes

from gondola_core.digests import digest
from gondola_core.scene import Scene

from .models import Job
from .queue import Store, huey, work

MOST_ATTEMPTS = 3
"""A job that so many workers were lost on is not tried again."""
SILENT_FOR = 8.0
"""seconds without a beat after which a holder counts as lost"""
KEPT = 40
"""Finished jobs that an owner keeps."""


def store() -> Store:
    """What workers have told."""
    return Store(huey)


@transaction.atomic
def start(*, owner: Any, kind: str, document: Scene, parameters: dict[str, Any] | None = None) -> Job:
    """A job for a question; the one there is if the same was asked before and has not failed."""
    asked = parameters or {}
    key = digest([document, kind, asked])
    earlier = Job.objects.filter(owner=owner, kind=kind, digest=key).exclude(
        state__in=[Job.State.FAILED, Job.State.CANCELLED]
    )
    found = earlier.first()
    if found is not None:
        return found
    whole = with_meshes(owner=owner, document=document).model_dump_json()
    job = Job.objects.create(
        owner=owner, kind=kind, digest=key, document=zlib.compress(whole.encode()), parameters=asked
    )
    transaction.on_commit(lambda: enqueue(job))
    over = Job.objects.filter(owner=owner, state__in=Job.OVER).order_by("-created_at")
    Job.objects.filter(pk__in=list(over.values_list("pk", flat=True)[KEPT:])).delete()
    return job


def enqueue(job: Job) -> None:
    """Put the present attempt of a job into the queue; its payload stands alone."""
    work(str(job.pk), job.attempt, job.kind, zlib.decompress(job.document).decode(), job.parameters)


def refresh(job: Job) -> Job:
    """Take over what workers have told of a job."""
    if job.is_over:
        return job
    told, key = store(), str(job.pk)
    outcome = told.outcome(key)
    if outcome is not None:
        job.state, job.message = outcome["state"], outcome.get("message", "")[:300]
        if job.state == Job.State.DONE:
            job.result, job.progress_fraction = base64.b64decode(outcome["result"]), 1.0
        job.save(update_fields=["state", "message", "result", "progress_fraction", "changed_at"])
        told.forget(key, job.attempt)
        return job
    said = told.told(key)
    share, state = float(said.get("share", 0.0)), Job.State.WAITING
    if told.is_taken(key, job.attempt):
        state = Job.State.RUNNING
    if (state, share) != (job.state, job.progress_fraction):
        job.state, job.progress_fraction = state, share
        job.save(update_fields=["state", "progress_fraction", "changed_at"])
    return job


def cancel(job: Job) -> Job:
    """End a job: at once if nobody works on it, else at the worker's next look."""
    told, key = store(), str(job.pk)
    if not refresh(job).is_over:
        told.cancel(key)
        if not told.is_taken(key, job.attempt):
            told.finish(key, {"state": "cancelled"})
    return refresh(job)


def result_of(job: Job) -> bytes:
    """The JSON that came out of a job that is done."""
    return zlib.decompress(job.result)


class Keeping:
    """Takes over what workers tell, and takes up jobs whose worker was lost; one step at a time."""

    def __init__(self) -> None:
        self._heard: dict[tuple[str, int], tuple[Any, float]] = {}

    def step(self) -> int:
        """Look at every job that is not over; how many there are."""
        unfinished = list(Job.objects.exclude(state__in=Job.OVER))
        for job in unfinished:
            if not refresh(job).is_over and self._is_lost(job):
                take_up(job)
        known = {str(job.pk) for job in unfinished}
        self._heard = {key: heard for key, heard in self._heard.items() if key[0] in known}
        return len(unfinished)

    def _is_lost(self, job: Job) -> bool:
        """True if its holder has been silent, or nobody has it and nobody will."""
        told, key = store(), (str(job.pk), job.attempt)
        held = told.is_taken(*key)
        beat = told.last_beat(*key) if held else told.waiting_count()
        if not held and beat:
            self._heard.pop(key, None)
            return False
        before = self._heard.get(key)
        if before is None or before[0] != beat:
            self._heard[key] = (beat, time.monotonic())
            return False
        return time.monotonic() - before[1] > SILENT_FOR


def take_up(job: Job) -> None:
    """Another attempt at a job whose worker was lost."""
    told, key = store(), str(job.pk)
    if told.is_taken(key, job.attempt):
        job.attempt += 1
    if job.attempt >= MOST_ATTEMPTS:
        told.finish(key, {
            "state": "failed", "message": f"Workers were lost on this {MOST_ATTEMPTS} times; it is not tried again.",
        })
        refresh(job)
        return
    job.state, job.progress_fraction = Job.State.WAITING, 0.0
    job.save(update_fields=["attempt", "state", "progress_fraction", "changed_at"])
    enqueue(job)


def keep_for_ever(pause: float = 1.0) -> None:
    """Step until the process ends."""
    keeping = Keeping()
    while True:
        keeping.step()
        time.sleep(pause)
