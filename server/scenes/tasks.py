"""Long computations, worked off by the queue."""

from __future__ import annotations

import logging
import time
import zlib

from huey.contrib.djhuey import db_task, on_startup
from shapes.actions import meshes_for

from gondola_core.errors import GondolaError
from gondola_core.evaluate import FINE, evaluate, outcome_json

from .actions import unpack
from .models import FineRun

log = logging.getLogger(__name__)

TELL_EVERY = 0.3
"""seconds between notes of progress"""


@db_task()
def march_fine(run_id: str) -> None:
    """March one revision on the fine grid; a run that somebody else has taken is left alone."""
    taken = FineRun.objects.filter(pk=run_id, state=FineRun.State.WAITING).update(
        state=FineRun.State.RUNNING, progress_fraction=0.0, message=""
    )
    if not taken:
        return
    run = FineRun.objects.select_related("revision__scene__owner").get(pk=run_id)
    told = time.monotonic()

    def progress(fraction: float) -> None:
        nonlocal told
        if time.monotonic() - told >= TELL_EVERY:
            told = time.monotonic()
            FineRun.objects.filter(pk=run_id).update(progress_fraction=round(fraction, 3))

    try:
        document = unpack(run.revision)
        meshes = meshes_for(owner=run.revision.scene.owner, document=document)
        outcome = evaluate(document, FINE, progress=progress, meshes=meshes)
    except GondolaError as flaw:
        run.state, run.message = FineRun.State.FAILED, flaw.message[:300]
    except Exception:
        log.exception("fine run %s failed", run_id)
        run.state = FineRun.State.FAILED
        run.message = "The fine march stopped with a fault of Gondola's own; the draft stands."
    else:
        run.state, run.progress_fraction = FineRun.State.DONE, 1.0
        run.packed = zlib.compress(outcome_json(outcome))
    run.save()


@on_startup()
def take_up_again() -> None:
    """After a restart, what was waiting or half done is queued again."""
    resume_runs()


def resume_runs() -> int:
    """Queue every unfinished run; how many there were."""
    unfinished = FineRun.objects.filter(
        state__in=[FineRun.State.WAITING, FineRun.State.RUNNING]
    )
    unfinished.update(state=FineRun.State.WAITING, progress_fraction=0.0)
    runs = list(FineRun.objects.filter(state=FineRun.State.WAITING).order_by("created_at"))
    for run in runs:
        march_fine(str(run.pk))
    return len(runs)
