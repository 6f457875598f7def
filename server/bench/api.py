"""Runs over HTTP: each view parses, calls one thing, and returns."""

from __future__ import annotations

from uuid import UUID

from django.db.models import Count
from django.http import HttpRequest, HttpResponse
from ninja import Router
from people.ways import scene_asked
from shapes.actions import meshes_for
from studio.said import said
from studio.schemas import Refusal
from studio.turns import in_turn_of
from studio.units import reader_of

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.bench.steps import BenchStep
from gondola_core.scene import Scene as SceneDocument
from gondola_core.studies.rehearsal import Debrief, Mishap

from . import actions, rehearsing
from .models import Run, RunEvent
from .schemas import (
    Ahead,
    Happened,
    MishapMet,
    Next,
    RunBegun,
    RunNow,
    RunRow,
    RunWhole,
    Told,
    ToldChoice,
    ToldMishap,
    Watch,
    WayTaken,
)

router = Router(tags=["bench"])
router.add_decorator(in_turn_of("run"), mode="operation")
lengthy = Router(tags=["bench"])
"""What looks ahead, or back over the whole, computes for long: nothing that is told of a run waits for it."""
lengthy.add_decorator(in_turn_of("lengthy"), mode="operation")
ONE = "/runs/{uuid:run_id}"
ANSWERS = {200: RunNow, 404: Refusal, 422: Refusal}


@router.post("/bench/steps", response={200: list[BenchStep], 422: Refusal}, operation_id="bench_steps")
def steps_of(request: HttpRequest, scene: SceneDocument) -> HttpResponse:
    """The steps of the pour days, as the run follows them and the sheet prints them."""
    steps = Book(scene, meshes=meshes_for(owner=request.user, document=scene)).ask(STEPS)
    return said(request, steps, list[BenchStep])


@router.get("/scenes/{int:scene_id}/runs", response=list[RunRow], operation_id="list_runs")
def listed(request: HttpRequest, scene_id: int) -> list[RunRow]:
    scene = scene_asked(request, scene_id)
    # counted apart: joined to the runs they would be grouped by whole plans, and the runs in any order
    counts = dict(RunEvent.objects.filter(run__scene=scene).order_by().values_list("run").annotate(Count("pk")))
    return [
        RunRow(
            id=one.pk, rehearsal=one.rehearsal, started_at=one.started_at, ended_at=one.ended_at,
            events_count=counts.get(one.pk, 0), refused=actions.refused_of(one),
        )
        for one in scene.runs.all()
    ]


@router.post(
    "/scenes/{int:scene_id}/runs", response={200: RunWhole, 404: Refusal, 422: Refusal}, operation_id="begin_run"
)
def begin(request: HttpRequest, scene_id: int, payload: RunBegun) -> HttpResponse:
    """A run of the scene as it stands, or a rehearsal of it."""
    scene = scene_asked(request, scene_id)
    run = actions.begin(scene=scene, zone=payload.zone, rehearsal=payload.rehearsal, seed=payload.seed)
    return said(request, _whole(request, run))


@router.get(ONE, response={200: RunWhole, 404: Refusal}, operation_id="read_run")
def read(request: HttpRequest, run_id: UUID) -> HttpResponse:
    return said(request, _whole(request, _run(request, run_id)))


@router.post(f"{ONE}/events", response=ANSWERS, operation_id="tell_events")
def tell(request: HttpRequest, run_id: UUID, payload: Told) -> HttpResponse:
    """Events of a device; those that are known already are not taken twice."""
    run = _run(request, run_id)
    actions.take(run=run, bodies=payload.events)
    return said(request, _now(request, run))


@router.get(f"{ONE}/now", response={200: RunNow, 404: Refusal}, operation_id="run_now")
def now(request: HttpRequest, run_id: UUID) -> HttpResponse:
    return said(request, _now(request, _run(request, run_id)))


@router.get(f"{ONE}/happened", response={200: Happened, 404: Refusal, 422: Refusal}, operation_id="run_happened")
def happened(request: HttpRequest, run_id: UUID) -> Happened:
    """The scene as planned and as it happened; every answer can be asked of both."""
    run = _run(request, run_id)
    return Happened(planned=actions.document_of(run), happened=actions.happened_of(run, actions.events_of(run)))


@lengthy.get(f"{ONE}/next", response={200: Next, 404: Refusal, 422: Refusal}, operation_id="run_next")
def coming(request: HttpRequest, run_id: UUID) -> HttpResponse:
    """The next pour, planned anew from what happened."""
    run = _run(request, run_id)
    return said(request, Next(replan=actions.next_of(run, actions.events_of(run))))


@lengthy.post(f"{ONE}/next", response={200: Next, 404: Refusal, 422: Refusal}, operation_id="take_way")
def take_way(request: HttpRequest, run_id: UUID, payload: WayTaken) -> HttpResponse:
    """The plan follows this way from now on."""
    return said(request, Next(replan=actions.take_way(run=_run(request, run_id), way=payload.way)))


@lengthy.get(f"{ONE}/watch", response={200: Watch, 404: Refusal, 422: Refusal}, operation_id="watch_pour")
def watch(request: HttpRequest, run_id: UUID, pour_number: int) -> HttpResponse:
    """A pour under its thermometer: band, readings, and what they mean."""
    run = _run(request, run_id)
    return said(request, actions.watch_of(run, actions.events_of(run), pour_number))


@router.post(f"{ONE}/ahead", response=ANSWERS, operation_id="skip_ahead")
def skip(request: HttpRequest, run_id: UUID, payload: Ahead) -> HttpResponse:
    """Move the clock of a rehearsal on."""
    run = _run(request, run_id)
    actions.skip(run=run, until=payload.until)
    return said(request, _now(request, run))


@router.post(f"{ONE}/mishap", response=ANSWERS, operation_id="meet_mishap")
def meet(request: HttpRequest, run_id: UUID, payload: MishapMet) -> HttpResponse:
    """A mishap of a rehearsal strikes, and something is done about it."""
    run = _run(request, run_id)
    rehearsing.meet(run=run, mishap=payload.mishap, choice=payload.choice)
    return said(request, _now(request, run))


@lengthy.get(f"{ONE}/debrief", response={200: Debrief, 404: Refusal, 422: Refusal}, operation_id="debrief")
def debriefed(request: HttpRequest, run_id: UUID) -> HttpResponse:
    """What a rehearsal came to."""
    return said(request, rehearsing.told(_run(request, run_id)))


@router.post(f"{ONE}/end", response=ANSWERS, operation_id="end_run")
def end(request: HttpRequest, run_id: UUID) -> HttpResponse:
    run = _run(request, run_id)
    actions.end(run=run)
    return said(request, _now(request, run))


@router.post(f"{ONE}/reopen", response=ANSWERS, operation_id="reopen_run")
def reopen(request: HttpRequest, run_id: UUID) -> HttpResponse:
    run = _run(request, run_id)
    actions.reopen(run=run)
    return said(request, _now(request, run))


def _run(request: HttpRequest, run_id: UUID) -> Run:
    return actions.run_asked(request, run_id)


def _now(request: HttpRequest, run: Run) -> RunNow:
    events = actions.events_of(run)
    flaw = actions.trouble_of(run, events)
    return RunNow(
        id=run.pk, scene_id=run.scene_id, rehearsal=run.rehearsal, started_at=run.started_at, ended_at=run.ended_at,
        now=actions.now_of(run), local_now=actions.local_of(run), speed=run.speed,
        number=max((one.number for one in events), default=0),
        trouble="" if flaw is None else flaw.said(reader_of(request)), state=actions.state_of(run, events),
        events=actions.told_of(events),
    )


def _whole(request: HttpRequest, run: Run) -> RunWhole:
    document = actions.document_of(run)
    return RunWhole(
        name=run.scene.name, zone=run.zone, document=document, steps=actions.steps_of(run),
        mishaps=[_told(one) for one in rehearsing.mishaps(run)], run=_now(request, run),
    )


def _told(mishap: Mishap) -> ToldMishap:
    choices = [ToldChoice(id=one.id, words=one.words) for one in mishap.choices]
    return ToldMishap(id=mishap.id, step_id=mishap.step_id, words=mishap.words, choices=choices)
