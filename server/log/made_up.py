"""Brings the made-up history of the demo's failed piece: its run, its entries, its photograph."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from bench.models import Run, RunEvent
from django.db import transaction
from scenes.actions import state_of
from scenes.models import Scene
from scenes.packed import pack

from gondola_core.bench.events import read_events
from gondola_core.evaluate import KEEPER
from gondola_core.samples.ferry_history import TOLD, ferry_events, ferry_photograph

from .actions import bring_photograph, enter, move
from .schemas import EntryMoved, EntryPlace, EntryWrite

AGO = timedelta(days=40)
CORNERS = [[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]]


@transaction.atomic
def bring_history(*, owner: Any, scene: Scene, today: datetime | None = None) -> None:
    """The history of a scene, some weeks ago; nothing where it has a story already."""
    if scene.entries.exists() or scene.runs.exists():
        return
    document = state_of(scene).document
    first = ((today or datetime.now(UTC)) - AGO).replace(hour=10, minute=0, second=0, microsecond=0)
    run = Run.objects.create(
        owner=owner, scene=scene, packed=pack(document), zone="UTC", started_at=first - timedelta(days=1),
        ended_at=first + timedelta(days=6),
    )
    events = read_events(ferry_events(document, first))
    numbered = [one.model_copy(update={"number": at}) for at, one in enumerate(events, start=1)]
    RunEvent.objects.bulk_create([
        RunEvent(run=run, number=one.number, event_id=one.id, body=one.model_dump(mode="json")) for one in numbered
    ])
    for one in TOLD:
        place = None if one.x_mm is None or one.depth_mm is None else EntryPlace(x_mm=one.x_mm, depth_mm=one.depth_mm)
        enter(scene=scene, written=EntryWrite.model_validate({
            "kind": one.kind, "text": one.text, "at": first + timedelta(hours=one.at_h), "fault": one.fault,
            "place": place, "pins": list(one.pins),
        }))
    entry, _ = bring_photograph(
        scene=scene, name="out of the dam.jpg", content=ferry_photograph(document, KEEPER)
    )
    moved = EntryMoved(text="Out of the dam.", at=first + timedelta(hours=99), corners=CORNERS)
    move(entry=entry, moved=moved)
