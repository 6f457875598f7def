"""The materials to choose from, and one's own rows."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from ninja import Router
from studio.schemas import Refusal

from gondola_core.studies.begin import Usual

from . import actions
from .schemas import Kind, RowWrite, Shelf

router = Router(tags=["library"])


@router.get("/library", response=Shelf, operation_id="read_library")
def read_library(request: HttpRequest) -> Shelf:
    return actions.shelf_of(owner=request.user)


@router.put("/library/{kind}", response={200: Shelf, 422: Refusal}, operation_id="keep_row")
def keep_row(request: HttpRequest, kind: Kind, payload: RowWrite) -> Shelf:
    actions.keep_row(owner=request.user, kind=kind, body=payload.body, source=payload.source)
    return actions.shelf_of(owner=request.user)


@router.delete("/library/{kind}/{key}", response={200: Shelf, 404: Refusal}, operation_id="drop_row")
def drop_row(request: HttpRequest, kind: Kind, key: str) -> Shelf:
    if not actions.drop_row(owner=request.user, kind=kind, key=key):
        raise Http404
    return actions.shelf_of(owner=request.user)


@router.get("/usual", response=Usual, operation_id="read_usual")
def read_usual(request: HttpRequest) -> Usual:
    return actions.usual_of(owner=request.user)


@router.put("/usual", response={200: Usual, 422: Refusal}, operation_id="keep_usual")
def keep_usual(request: HttpRequest, payload: Usual) -> Usual:
    """What a new piece begins with; scenes that are there keep their own."""
    actions.keep_usual(owner=request.user, usual=payload)
    return actions.usual_of(owner=request.user)
