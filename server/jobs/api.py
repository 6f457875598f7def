"""Jobs over HTTP: asked for by kind, followed as events, ended, read."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import Field
from studio.schemas import Refusal

from gondola_core.outcome import Outcome
from gondola_core.scene import Scene
from gondola_core.studies.stager import Staging

from . import actions, stream
from .models import Job

router = Router(tags=["jobs"])


class JobState(Schema):
    """How far a job is."""

    id: UUID
    kind: Literal["fine_march", "stagings"]
    state: Literal["waiting", "running", "done", "failed", "cancelled"]
    progress_fraction: float
    message: str


class StagingAsked(Schema):
    """The resin to stage with, and the rooms."""

    scene: Scene
    resin_id: str
    rooms_c: Annotated[list[float], Field(min_length=1, max_length=4)]


@router.post("/jobs/fine-march", response={200: JobState, 422: Refusal}, operation_id="start_fine_march")
def start_fine_march(request: HttpRequest, scene: Scene) -> JobState:
    """The outcome on fine cells, computed by the queue."""
    return _state(actions.start(owner=request.user, kind="fine_march", document=scene))


@router.post("/jobs/stagings", response={200: JobState, 422: Refusal}, operation_id="start_stagings")
def start_stagings(request: HttpRequest, payload: StagingAsked) -> JobState:
    """The fewest pours that stop nothing, by room, and on twice the footprint."""
    return _state(actions.start(
        owner=request.user, kind="stagings", document=payload.scene,
        parameters={"resin_id": payload.resin_id, "rooms_c": payload.rooms_c},
    ))


@router.get("/jobs/{uuid:job_id}", response={200: JobState, 404: Refusal}, operation_id="read_job")
def read_job(request: HttpRequest, job_id: UUID) -> JobState:
    return _state(actions.refresh(_own(request, job_id)))


@router.post("/jobs/{uuid:job_id}/cancel", response={200: JobState, 404: Refusal}, operation_id="cancel_job")
def cancel_job(request: HttpRequest, job_id: UUID) -> JobState:
    return _state(actions.cancel(_own(request, job_id)))


@router.get("/jobs/{uuid:job_id}/events", operation_id="job_events")
def job_events(request: HttpRequest, job_id: UUID) -> StreamingHttpResponse:
    """Its states as server-sent events, until it is over."""
    job = _own(request, job_id)
    return StreamingHttpResponse(
        stream.events(job.pk), content_type="text/event-stream",
        headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"},
    )


@router.get("/jobs/{uuid:job_id}/outcome", response={200: Outcome, 404: Refusal}, operation_id="read_job_outcome")
def read_outcome(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """What a fine march came to."""
    return _result(request, job_id, "fine_march")


@router.get(
    "/jobs/{uuid:job_id}/stagings", response={200: list[Staging], 404: Refusal}, operation_id="read_job_stagings"
)
def read_stagings(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """The stagings that were found."""
    return _result(request, job_id, "stagings")


def _own(request: HttpRequest, job_id: UUID) -> Job:
    return get_object_or_404(Job, pk=job_id, owner=request.user)


def _result(request: HttpRequest, job_id: UUID, kind: str) -> HttpResponse:
    actions.refresh(_own(request, job_id))
    job = get_object_or_404(Job, pk=job_id, owner=request.user, kind=kind, state=Job.State.DONE)
    return HttpResponse(actions.result_of(job), content_type="application/json")


def _state(job: Job) -> JobState:
    return JobState(**stream.told_state(job))
