"""The outcome of a scene over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.checks import reader_units
from gondola_core.evaluate import evaluate, outcome_json
from gondola_core.outcome import Outcome
from gondola_core.scene import Scene

router = Router(tags=["outcome"])


@router.post("/evaluate", response={200: Outcome, 422: Refusal}, operation_id="evaluate")
def evaluate_draft(request: HttpRequest, scene: Scene) -> HttpResponse:
    """What will happen to a scene, on the draft grid; nothing is stored."""
    outcome = evaluate(scene, meshes=meshes_for(owner=request.user, document=scene))
    return HttpResponse(outcome_json(outcome, reader_units(scene.brief.units)), content_type="application/json")
