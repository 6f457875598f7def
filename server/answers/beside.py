"""Two plans of one piece beside each other over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from shapes.actions import meshes_for
from studio.said import said
from studio.schemas import Refusal

from gondola_core.scene import Scene
from gondola_core.studies.beside import Beside, beside

router = Router(tags=["plans"])


class TwoPlans(Schema):
    """A piece as it is planned, and as it might be."""

    before: Scene
    after: Scene


@router.post("/beside", response={200: Beside, 422: Refusal}, operation_id="lay_beside")
def lay_beside(request: HttpRequest, payload: TwoPlans) -> HttpResponse:
    """What the second plan has over the first, in words; nothing is stored."""
    meshes = meshes_for(owner=request.user, document=payload.before)
    return said(request, beside(payload.before, payload.after, meshes))
