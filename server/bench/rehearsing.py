"""Rehearsals: what befalls them, what is done about it, and what it would have come to."""

from __future__ import annotations

import uuid
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from shapes.actions import meshes_for
from studio.zones import zone_of

from gondola_core.errors import GondolaError
from gondola_core.studies.rehearsal import LATE_H, Choice, Debrief, Mishap, debrief, mishaps_of

from . import actions
from .models import Run


def mishaps(run: Run) -> list[Mishap]:
    """What befalls a rehearsal; a real run has its own luck."""
    return mishaps_of(actions.document_of(run), actions.steps_of(run), run.seed) if run.rehearsal else []


def meet(*, run: Run, mishap: str, choice: str, step_id: str = "") -> None:
    """A mishap strikes, and a choice is made: its events are taken in, and the clock goes on. Twice is once."""
    found = next((one for one in mishaps(run) if one.id == mishap), None)
    chosen = next((one for one in found.choices if one.id == choice), None) if found is not None else None
    if found is None or chosen is None:
        raise GondolaError("That does not befall this rehearsal.", "mishap")
    _befall(run, mishap, chosen, _until(run, chosen))


@transaction.atomic
def _befall(run: Run, mishap: str, chosen: Choice, until: datetime) -> None:
    actions.skip(run=run, until=until)
    now = actions.now_of(run)
    bodies: list[dict[str, Any]] = [{"kind": "struck", "mishap": mishap, "choice": chosen.id, "at": now.isoformat()}]
    bodies += [
        {**fields, "at": max(run.started_at, now - timedelta(hours=hours)).isoformat()}
        for hours, fields in chosen.events
    ]
    for at, body in enumerate(bodies):
        body |= {"id": str(uuid.uuid5(run.pk, f"{mishap}:{at}")), "device": "mishap"}
    actions.take(run=run, bodies=bodies)


def _until(run: Run, choice: Choice) -> datetime:
    """The moment to which its clock goes on."""
    until = actions.now_of(run) + timedelta(minutes=choice.ahead_min)
    if choice.past_window:
        coming = actions.next_of(run, actions.events_of(run))
        if coming is not None and coming.closes_at is not None:
            late = coming.closes_at + timedelta(hours=LATE_H) - actions.local_of(run)
            until = max(until, actions.now_of(run) + late)
    return until


def told(run: Run) -> Debrief:
    """What it came to so far. GondolaError for a run that is none, or whose events contradict each other."""
    if not run.rehearsal:
        raise GondolaError("Only a rehearsal is talked over; what really happened stands beside the plan.", "")
    document, events = actions.document_of(run), actions.events_of(run)
    return debrief(
        document, mishaps(run), events, zone_of(run.zone), meshes_for(owner=run.owner, document=document)
    )
