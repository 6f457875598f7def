"""Progress of jobs as server-sent events."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from studio.stream import Watches

from . import actions
from .models import Job


def told_state(job: Job) -> dict[str, Any]:
    """A job as the page reads it."""
    return {
        "id": str(job.pk), "kind": job.kind, "state": job.state, "progress_fraction": job.progress_fraction,
        "message": job.message,
    }


def _read(job_ids: list[UUID]) -> dict[UUID, dict[str, Any]]:
    jobs = Job.objects.filter(pk__in=job_ids).defer("document", "result")
    return {job.pk: told_state(actions.refresh(job)) for job in jobs}


WATCHES = Watches(_read, lambda state: state["state"] in Job.OVER)
events = WATCHES.events
