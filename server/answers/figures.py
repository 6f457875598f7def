"""Figures over HTTP: what empties a pocket, both schools of holding, the piece in the round."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.checks import Remedy
from gondola_core.scene import Scene
from gondola_core.studies.schools import School, schools
from gondola_core.studies.tilts import air_remedies
from gondola_core.views.looks import scene_looks
from gondola_core.views.model import scene_glb
from gondola_core.views.pockets import scene_pockets

router = Router(tags=["figures"])


class AirUnder(Schema):
    """The figure whose air is to go."""

    scene: Scene
    figure_id: str


@router.post(
    "/air-remedies", response={200: list[Remedy], 422: Refusal}, operation_id="air_remedies"
)
def help_air(request: HttpRequest, payload: AirUnder) -> list[Remedy]:
    """What empties the pockets under a figure, found by trying."""
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return air_remedies(payload.scene, payload.figure_id, meshes)


@router.post("/schools", response={200: list[School], 422: Refusal}, operation_id="schools")
def both_schools(request: HttpRequest, scene: Scene) -> list[School]:
    """Staged as planned, and held in one pour."""
    return schools(scene, meshes_for(owner=request.user, document=scene))


@router.post("/model", operation_id="model")
def model(request: HttpRequest, scene: Scene) -> HttpResponse:
    """The scene in 3-D, as a GLB file; nothing is stored."""
    meshes = meshes_for(owner=request.user, document=scene)
    pockets = scene_pockets(scene, meshes)
    body = scene_glb(scene, meshes, scene_looks(scene, meshes), pockets)
    return HttpResponse(body, content_type="model/gltf-binary")
