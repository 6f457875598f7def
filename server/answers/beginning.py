"""From a few answers to a scene over HTTP, and the starts; nothing is stored."""

from __future__ import annotations

import functools
from datetime import datetime
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from library.actions import library_of
from ninja import Router, Schema
from pydantic import Field
from studio.schemas import Refusal

from gondola_core.evaluate import KEEPER
from gondola_core.studies.begin import Beginning, Begun, begin, begun_json
from gondola_core.studies.starts import STARTS, begin_like
from gondola_core.views.picture import picture, png_of

router = Router(tags=["begin"])


ANY_DAY = datetime(2027, 3, 6, 9, 0)
"""On which its picture is made: no day changes how a piece looks."""
PIXELS = 520
"""Width of a start's picture."""


class Asked(Schema):
    """The answers so far, and what the clock in the room says."""

    beginning: Beginning
    now: Annotated[datetime, Field(title="time in the room")]


class StartRow(Schema):
    """A piece to start from."""

    key: str
    name: str
    about: str


class StartAsked(Schema):
    """When its first pour may be."""

    first_pour_at: Annotated[datetime, Field(title="start of the first pour")]


@router.post("/begin", response={200: Begun, 422: Refusal}, operation_id="begin")
def begin_piece(request: HttpRequest, payload: Asked) -> HttpResponse:
    """A whole plan from a few answers."""
    shelf = library_of(owner=request.user)
    return _said(begin(payload.beginning, payload.now.replace(tzinfo=None), shelf))


@router.get("/starts", response=list[StartRow], operation_id="list_starts")
def list_starts(request: HttpRequest) -> list[StartRow]:
    """Pieces to start from."""
    return [StartRow(key=one.key, name=one.name, about=one.about) for one in STARTS.values()]


@router.post("/starts/{key}", response={200: Begun, 422: Refusal}, operation_id="begin_like")
def start(request: HttpRequest, key: str, payload: StartAsked) -> HttpResponse:
    """The plan of a start, from a day on."""
    at = payload.first_pour_at.replace(second=0, microsecond=0, tzinfo=None)
    return _said(begin_like(key, at))


@router.get("/starts/{key}/picture", operation_id="start_picture")
def start_picture(request: HttpRequest, key: str) -> HttpResponse:
    """A start as it will look, as a PNG; the same every day."""
    kept = {"Cache-Control": "private, max-age=3600"}
    return HttpResponse(_start_picture(key), content_type="image/png", headers=kept)


@functools.lru_cache(maxsize=16)
def _start_picture(key: str) -> bytes:
    scene = begin_like(key, ANY_DAY).scene
    return png_of(picture(scene, scene.brief.first_view, PIXELS, {}, KEEPER))


def _said(begun: Begun) -> HttpResponse:
    return HttpResponse(begun_json(begun), content_type="application/json")
