"""What can be done with runs: begin, take events in, say where it stands, plan the rest anew, end."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from people.ways import scene_asked
from scenes import actions as scenes
from scenes.models import Scene
from scenes.packed import pack, unpacked
from shapes.actions import meshes_for
from studio.zones import zone_of

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.bench.events import MOST_EVENTS, AnyEvent, TemperatureRead, read_events, standing
from gondola_core.bench.happened import as_happened, pour_logs
from gondola_core.bench.run import RunState, fold
from gondola_core.bench.steps import BenchStep
from gondola_core.errors import GondolaError, SceneError
from gondola_core.scene import Scene as SceneDocument
from gondola_core.studies.replan import Replan, replan, with_waits
from gondola_core.studies.watching import Reading, judged, watched

from .models import Run, RunEvent
from .remembered import REMEMBERED
from .schemas import Watch

REHEARSED = 30.0
"""seconds of a rehearsal's clock in one of ours"""
SLACK_S = 5.0
"""seconds by which a device's clock may run ahead of the server's; what is later than that is refused"""
LONGEST = timedelta(days=60)
"""No event is of longer before its run began, and no rehearsal is moved on by more at once. Source: assumed"""
THERMOMETER = "thermometer"
"""Device of the readings that are taken without anybody's hands."""
DAMAGED = (
    "The plan that this run follows is damaged: begin another, or ask whoever keeps this studio to restore a backup."
)
NOT_OPEN = "That way is not open any more: look again at what comes next."
MOST_WATCHED = 1500
"""Readings that are drawn; more are thinned."""


@transaction.atomic
def begin(*, scene: Scene, zone: str, rehearsal: bool = False, seed: int = 1) -> Run:
    """A run of the scene as it stands; GondolaError for a zone that is none."""
    zone_of(zone)
    document = scenes.state_of(scene).document
    now = datetime.now(UTC)
    return Run.objects.create(
        owner=scene.owner, scene=scene, packed=pack(document), zone=zone, rehearsal=rehearsal,
        seed=seed if rehearsal else 0, speed=REHEARSED if rehearsal else 1.0, started_at=now,
    )


def run_asked(request: HttpRequest, run_id: Any) -> Run:
    """The run that a request is about, by the way to its scene; Http404 where that is not seen."""
    run = get_object_or_404(Run.objects.select_related("scene"), pk=run_id)
    scene_asked(request, run.scene_id)
    return run


def now_of(run: Run) -> datetime:
    """Its own clock: the server's, quickened in a rehearsal; it stands still once the run is over."""
    return _clock(run, run.ended_at or datetime.now(UTC))


def _clock(run: Run, real: datetime) -> datetime:
    return run.started_at + (real - run.started_at) * run.speed + timedelta(seconds=run.ahead_s)


def check_clock(run: Run) -> None:
    """ValueError for a clock that no run of ours has; OverflowError for one that has left the calendar."""
    now_of(run)
    if not 0.0 < run.speed <= REHEARSED or run.ahead_s < 0.0:
        raise ValueError("the clock of a run goes as no clock does")


def local_of(run: Run) -> datetime:
    """The same by the clock of the person."""
    return now_of(run).astimezone(zone_of(run.zone)).replace(tzinfo=None)


def document_of(run: Run) -> SceneDocument:
    """The plan that it follows. SceneError where it is damaged, or no longer taken."""
    return unpacked(run.packed, DAMAGED)


def refused_of(run: Run) -> str | None:
    """Why a run that is not over cannot be gone on with; None where it can."""
    if run.ended_at is not None:
        return None
    try:
        document_of(run)
        events_of(run)
    except SceneError as flaw:
        return flaw.message
    return None


def events_of(run: Run) -> list[AnyEvent]:
    """All its events, those undone too, in the order in which they were taken in. SceneError where one is no longer
    taken."""
    return REMEMBERED.of(run)


@transaction.atomic
def take(*, run: Run, bodies: Sequence[dict[str, Any]]) -> int:
    """Take events in, each id once; the number of the last. SceneError for one that cannot be read: none is taken then.

    Events of the future and of long ago are refused; those a moment ahead are taken as of now. What a device entered
    without knowing that the run was ended is taken in as well.
    """
    Run.objects.select_for_update().get(pk=run.pk)
    now = _clock(run, datetime.now(UTC))
    events = read_events(bodies)
    last = run.events.aggregate(last=Max("number"))["last"] or 0
    known = set(run.events.filter(event_id__in=[one.id for one in events]).values_list("event_id", flat=True))
    fresh = [one for one in {one.id: one for one in events}.values() if one.id not in known]
    if last + len(fresh) > MOST_EVENTS:
        raise GondolaError(f"A run holds {MOST_EVENTS} events; this one is full. End it and begin another.", "events")
    rows = []
    for number, one in enumerate(sorted(fresh, key=lambda one: one.at), start=last + 1):
        if one.at > now + timedelta(seconds=SLACK_S * run.speed):
            raise GondolaError("This device's clock is ahead of the server's: set it, or reload the page.", "at")
        if one.at < run.started_at - LONGEST:
            raise GondolaError("This event is told to be of long before the run: set the device's clock.", "at")
        dated = one.model_copy(update={"at": min(one.at, now), "number": number})
        rows.append(RunEvent(run=run, number=number, event_id=one.id, body=dated.model_dump(mode="json")))
    RunEvent.objects.bulk_create(rows)
    return last + len(rows)


def told_of(events: Sequence[AnyEvent]) -> list[AnyEvent]:
    """Those that a page is told of: all but what a thermometer said by itself."""
    return [one for one in events if not (isinstance(one, TemperatureRead) and one.device == THERMOMETER)]


def steps_of(run: Run) -> list[BenchStep]:
    """The steps of its plan."""
    document = document_of(run)
    return Book(document, meshes=meshes_for(owner=run.owner, document=document)).ask(STEPS)


def state_of(run: Run, events: Sequence[AnyEvent]) -> RunState:
    """Where it stands."""
    return fold(document_of(run), steps_of(run), events, now_of(run))


def happened_of(run: Run, events: Sequence[AnyEvent]) -> SceneDocument:
    """The scene as it happened; GondolaError where events contradict each other."""
    return as_happened(document_of(run), events, zone_of(run.zone))


def trouble_of(run: Run, events: Sequence[AnyEvent]) -> GondolaError | None:
    """What contradicts itself among the events."""
    try:
        happened_of(run, events)
    except GondolaError as flaw:
        return flaw
    return None


def next_of(run: Run, events: Sequence[AnyEvent]) -> Replan | None:
    """The next pour, planned anew."""
    planned, happened = document_of(run), happened_of(run, events)
    poured = poured_count(planned, events)
    return replan(planned, happened, poured, local_of(run), meshes_for(owner=run.owner, document=happened))


def poured_count(scene: SceneDocument, events: Sequence[AnyEvent]) -> int:
    """Pours that are in, from the bottom up to the last that was told of."""
    logs = pour_logs(scene, events)
    return max((number for number, log in enumerate(logs, start=1) if log.ended is not None), default=0)


def take_way(*, run: Run, way: str) -> Replan | None:
    """The plan follows one of the ways from now on: waits of what is not yet poured, in the run and in its scene.

    GondolaError for a way that is not open, or no more: where something was told since it was computed.
    """
    events = events_of(run)
    found = next_of(run, events)
    chosen = next((one for one in found.ways if one.way == way), None) if found is not None else None
    if found is None or chosen is None:
        raise GondolaError(NOT_OPEN, "way")
    document = document_of(run)
    waits = [pour.wait_h for pour in document.pours]
    start = found.pour_number - 1
    waits[start:] = [chosen.wait_h, *found.waits_h[start + 1:]]
    _follow(run, len(events), with_waits(document, waits), waits)
    return found


@transaction.atomic
def _follow(run: Run, events_count: int, planned: SceneDocument, waits: list[float]) -> None:
    held = Run.objects.select_for_update().get(pk=run.pk)
    if held.packed != run.packed or held.events.count() != events_count:
        raise GondolaError(NOT_OPEN, "way")
    run.packed = pack(planned)
    run.save(update_fields=["packed"])
    head = scenes.head_of(run.scene)
    shown = scenes.unpack(head)
    if not run.rehearsal and [pour.id for pour in shown.pours] == [pour.id for pour in planned.pours]:
        scenes.save_scene(
            scene=run.scene, base_revision=head.number, document=with_waits(shown, waits),
            note="planned anew from what happened",
        )


def readings_of(document: SceneDocument, events: Sequence[AnyEvent], number: int) -> list[Reading]:
    """What the thermometer in a pour read, in hours from its start; none before it was poured."""
    start = pour_logs(document, events)[number - 1].start
    return [] if start is None else [
        Reading(at_h=(one.at - start).total_seconds() / 3600, measured_c=one.measured_c)
        for one in standing(events)
        if isinstance(one, TemperatureRead) and one.what == "resin" and one.pour_id == document.pours[number - 1].id
        and one.at >= start
    ]


def watch_of(run: Run, events: Sequence[AnyEvent], number: int) -> Watch:
    """A pour under its thermometer."""
    happened = happened_of(run, events)
    band = watched(happened, number, meshes_for(owner=run.owner, document=happened))
    read = readings_of(document_of(run), events, number)
    drawn = read[:: max(1, len(read) // MOST_WATCHED)]
    return Watch(
        band=band, at_h=[round(one.at_h, 4) for one in drawn], measured_c=[one.measured_c for one in drawn],
        verdict=judged(band, read),
    )


@transaction.atomic
def skip(*, run: Run, until: datetime) -> None:
    """Move the clock of a rehearsal on; GondolaError for a real run, whose time is its own."""
    if not run.rehearsal:
        raise GondolaError("Only the clock of a rehearsal can be moved on.", "until")
    held = Run.objects.select_for_update().get(pk=run.pk)
    more = (until - now_of(held)).total_seconds()
    if more > LONGEST.total_seconds():
        raise GondolaError(f"A rehearsal's clock is moved on by {LONGEST.days} days at most.", "until")
    if more > 0:
        held.ahead_s += more
        held.save(update_fields=["ahead_s"])
    run.ahead_s = held.ahead_s


@transaction.atomic
def end(*, run: Run) -> None:
    """It is over; its events stay."""
    if run.ended_at is None:
        run.ended_at = datetime.now(UTC)
        run.save(update_fields=["ended_at"])


@transaction.atomic
def reopen(*, run: Run) -> None:
    """It goes on."""
    run.ended_at = None
    run.save(update_fields=["ended_at"])
