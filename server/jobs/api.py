"""Jobs over HTTP: asked for by kind, followed as events, ended, read."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import Field, create_model
from studio.schemas import Refusal

from gondola_core.scene import Scene

from . import actions, stream
from .kinds import KINDS, Kind
from .models import Job

router = Router(tags=["jobs"])


class JobState(Schema):
    """How far a job is."""

    id: UUID
    kind: Annotated[str, Field(json_schema_extra={"enum": list(KINDS)})]
    state: Literal["waiting", "running", "done", "failed", "cancelled"]
    progress_fraction: float
    message: str


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


def _routes_of(kind: str, of: Kind) -> None:
    """Two addresses for a kind: it is asked for with a scene and its parameters, and its result is read."""
    title = kind.title().replace("_", "")
    asked = create_model(f"{title}Job", __base__=of.parameters, scene=(Scene, ...))
    path = kind.replace("_", "-")

    def start(request: HttpRequest, payload: Any) -> JobState:
        parameters = payload.model_dump(exclude={"scene"})
        return _state(actions.start(owner=request.user, kind=kind, document=payload.scene, parameters=parameters))

    def result(request: HttpRequest, job_id: UUID) -> HttpResponse:
        actions.refresh(_own(request, job_id))
        job = get_object_or_404(Job, pk=job_id, owner=request.user, kind=kind, state=Job.State.DONE)
        return HttpResponse(actions.result_of(job), content_type="application/json")

    start.__annotations__ = {"request": HttpRequest, "payload": asked, "return": JobState}
    result.__annotations__ = {"request": HttpRequest, "job_id": UUID, "return": HttpResponse}
    router.post(
        f"/jobs/{path}", response={200: JobState, 422: Refusal}, operation_id=f"start_{kind}", description=of.about
    )(start)
    router.get(
        f"/jobs/{{uuid:job_id}}/{path}", response={200: of.result, 404: Refusal}, operation_id=f"read_{kind}",
        description=of.about,
    )(result)


for _kind, _of in KINDS.items():
    _routes_of(_kind, _of)


def _own(request: HttpRequest, job_id: UUID) -> Job:
    return get_object_or_404(Job, pk=job_id, owner=request.user)


def _state(job: Job) -> JobState:
    return JobState(**stream.told_state(job))
