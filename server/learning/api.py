"""Learning over HTTP: each view parses, calls one thing, and returns."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from bench.actions import run_asked
from django.http import HttpRequest, HttpResponse
from ninja import Router
from shapes.actions import meshes_for
from studio.said import said
from studio.schemas import Refusal
from studio.turns import in_turn

from gondola_core.learning.cup_fit import LogFit
from gondola_core.learning.drops import DropMass, DropsWeighed, drop_mass
from gondola_core.learning.swatch import SwatchFit
from gondola_core.studies.tests_ahead import TestTold, tests_ahead

from . import actions
from .schemas import (
    BottleRow,
    BottleWhole,
    CupBrought,
    DropsBrought,
    PourAsked,
    PourLearnt,
    SwatchBrought,
    TestsAsked,
)

router = Router(tags=["learning"])
fits = Router(tags=["learning"])
"""Those that compute for long: each in the turn of whoever asks."""
fits.add_decorator(in_turn, mode="operation")
WHOLE = {200: BottleWhole, 404: Refusal, 422: Refusal}
BottleKind = Literal["resin", "colourant"]


@router.get("/bottles", response=list[BottleRow], operation_id="list_bottles")
def listed(request: HttpRequest) -> list[BottleRow]:
    return actions.bottles(request.user)


@router.get("/bottles/{kind}/{key}", response={200: BottleWhole, 404: Refusal}, operation_id="read_bottle")
def read(request: HttpRequest, kind: BottleKind, key: str) -> HttpResponse:
    """A bottle with every log of it: data, fit, and what its row gained."""
    return _whole(actions.own_bottle(owner=request.user, kind=kind, key=key))


@fits.post("/learn/cup", response={200: LogFit, 404: Refusal, 422: Refusal}, operation_id="fit_cup")
def cup(request: HttpRequest, payload: CupBrought) -> HttpResponse:
    """What a cup says of its bottle; nothing is kept."""
    return said(request, actions.cup_told(owner=request.user, brought=payload)[1])


@fits.post("/bottles/cups", response=WHOLE, operation_id="keep_cup")
def keep_cup(request: HttpRequest, payload: CupBrought) -> HttpResponse:
    """Teach the bottle its cup; its row follows."""
    return _whole(actions.keep_cup(owner=request.user, brought=payload))


@fits.post("/learn/swatch", response={200: SwatchFit, 404: Refusal, 422: Refusal}, operation_id="fit_swatch")
def swatch(request: HttpRequest, payload: SwatchBrought) -> HttpResponse:
    return said(request, actions.swatch_told(owner=request.user, brought=payload)[1])


@fits.post("/bottles/swatches", response=WHOLE, operation_id="keep_swatch")
def keep_swatch(request: HttpRequest, payload: SwatchBrought) -> HttpResponse:
    return _whole(actions.keep_swatch(owner=request.user, brought=payload))


@router.post("/learn/drops", response={200: DropMass, 422: Refusal}, operation_id="weigh_drops")
def drops(request: HttpRequest, payload: DropsWeighed) -> HttpResponse:
    return said(request, drop_mass(payload))


@router.post("/bottles/drops", response=WHOLE, operation_id="keep_drops")
def keep_drops(request: HttpRequest, payload: DropsBrought) -> HttpResponse:
    return _whole(actions.keep_drops(owner=request.user, brought=payload))


@router.delete("/bottle-logs/{int:log_id}", response={200: BottleWhole, 404: Refusal}, operation_id="withdraw_log")
def withdraw(request: HttpRequest, log_id: int) -> HttpResponse:
    """Take a log back: its bottle's row is as it was without it."""
    return _whole(actions.withdraw(owner=request.user, log_id=log_id, withdrawn=True))


@router.post("/bottle-logs/{int:log_id}/restore", response={200: BottleWhole, 404: Refusal}, operation_id="restore_log")
def restore(request: HttpRequest, log_id: int) -> HttpResponse:
    return _whole(actions.withdraw(owner=request.user, log_id=log_id, withdrawn=False))


@fits.post("/learn/tests", response={200: list[TestTold], 404: Refusal, 422: Refusal}, operation_id="tests_ahead")
def tests(request: HttpRequest, payload: TestsAsked) -> HttpResponse:
    """What tests of a bottle would tell of this scene, before any is made."""
    bottle = actions.own_bottle(owner=request.user, kind="resin", key=payload.resin_id)
    meshes = meshes_for(owner=request.user, document=payload.document)
    base = actions.row_before(bottle)
    document = payload.document.model_copy(update={
        "resins": [base if one.id == base.id else one for one in payload.document.resins]
    })
    told = tests_ahead(document, base, actions.belief_of(bottle), meshes=meshes)
    return said(request, told, list[TestTold])


@fits.post("/runs/{uuid:run_id}/learn", response={200: PourLearnt, 404: Refusal, 422: Refusal},
             operation_id="learn_pour")
def learn(request: HttpRequest, run_id: UUID, payload: PourAsked) -> HttpResponse:
    """What a pour tells while it sets, and by how much it narrows what comes."""
    return said(request, actions.learn_pour(run=run_asked(request, run_id), asked=payload))


def _whole(bottle: actions.Bottle) -> HttpResponse:
    told = actions.whole(bottle)
    return HttpResponse(told.model_dump_json(serialize_as_any=True, warnings=False), content_type="application/json")
