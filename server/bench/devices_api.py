"""Scale and thermometer over HTTP, and the stream of a run with what they read."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from django.core.handlers.asgi import ASGIRequest
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router
from studio.schemas import Refusal

from gondola_core.errors import GondolaError

from . import actions, devices, stream
from .instruments.recording import HUB
from .schemas import InstrumentAt, InstrumentState, InstrumentTold

router = Router(tags=["bench"])
Kind = Literal["scale", "thermometer"]


@router.get("/instruments", response=list[InstrumentState], operation_id="list_instruments")
def listed(request: HttpRequest) -> list[InstrumentState]:
    return devices.states(request.user)


@router.put(
    "/instruments/{kind}", response={200: list[InstrumentState], 404: Refusal, 422: Refusal},
    operation_id="connect_instrument",
)
def connect(request: HttpRequest, kind: Kind, payload: InstrumentAt) -> list[InstrumentState]:
    """Listen to a device on loopback, or to a simulated one where no port is given."""
    run = None if payload.run_id is None else actions.run_asked(request, payload.run_id)
    devices.connect(owner=request.user, kind=kind, port=payload.port, run=run)
    return devices.states(request.user)


@router.delete("/instruments/{kind}", response=list[InstrumentState], operation_id="let_instrument_go")
def let_go(request: HttpRequest, kind: Kind) -> list[InstrumentState]:
    HUB.let_go(request.user.pk, kind)
    return devices.states(request.user)


@router.post(
    "/instruments/{kind}/say", response={200: list[InstrumentState], 422: Refusal}, operation_id="tell_instrument"
)
def say(request: HttpRequest, kind: Kind, payload: InstrumentTold) -> list[InstrumentState]:
    if not HUB.say(request.user.pk, kind, payload.line):
        raise GondolaError(f"No {kind} hears: plug it in, or connect it again.", "line")
    return devices.states(request.user)


@router.get("/runs/{uuid:run_id}/stream", operation_id="run_stream")
def run_stream(request: HttpRequest, run_id: UUID) -> HttpResponse:
    """A run's changes and the readings of one's own devices, as server-sent events; 204 where nobody can stream."""
    run = actions.run_asked(request, run_id)
    if not isinstance(request, ASGIRequest):
        return HttpResponse(status=204)
    return StreamingHttpResponse(
        stream.events((run.pk, request.user.pk)), content_type="text/event-stream",
        headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"},
    )
