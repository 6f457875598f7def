"""Kept plans over HTTP."""

from __future__ import annotations

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router
from people.ways import scene_asked
from studio.schemas import Refusal

from gondola_core.scene import Scene as SceneDocument

from . import actions, variants
from .models import Scene, Variant
from .schemas import SceneState, Stale, Step, VariantKept, VariantName, VariantRow

router = Router(tags=["scenes"])
ONE = "/scenes/{int:scene_id}/variants/{str:name}"


@router.get("/scenes/{int:scene_id}/variants", response=list[VariantRow], operation_id="list_variants")
def listed(request: HttpRequest, scene_id: int) -> list[VariantRow]:
    return variants.rows(_scene(request, scene_id))


@router.post(
    "/scenes/{int:scene_id}/variants", response={201: list[VariantRow], 422: Refusal}, operation_id="keep_variant"
)
def keep(request: HttpRequest, scene_id: int, payload: VariantKept) -> tuple[int, list[VariantRow]]:
    """Keep a plan beside the one that is worked on; one of the same name gets a new state."""
    scene = _scene(request, scene_id)
    variants.keep(scene=scene, name=payload.name, document=payload.document)
    return 201, variants.rows(scene)


@router.get(ONE, response={200: SceneDocument, 404: Refusal}, operation_id="read_variant")
def read(request: HttpRequest, scene_id: int, name: str) -> SceneDocument:
    return variants.document_of(_variant(_scene(request, scene_id), name))


@router.post(f"{ONE}/name", response={200: list[VariantRow], 404: Refusal, 422: Refusal}, operation_id="name_variant")
def rename(request: HttpRequest, scene_id: int, name: str, payload: VariantName) -> list[VariantRow]:
    scene = _scene(request, scene_id)
    variants.rename(scene=scene, variant=_variant(scene, name), name=payload.name)
    return variants.rows(scene)


@router.post(f"{ONE}/take", response={200: SceneState, 404: Refusal, 409: Stale}, operation_id="take_variant")
def take(request: HttpRequest, scene_id: int, name: str, payload: Step) -> SceneState:
    """It becomes what is worked on; undo goes back."""
    scene = _scene(request, scene_id)
    variants.take(scene=scene, variant=_variant(scene, name), base_revision=payload.base_revision)
    return actions.state_of(scene, request.user)


@router.delete(ONE, response={200: list[VariantRow], 404: Refusal}, operation_id="let_variant_go")
def let_go(request: HttpRequest, scene_id: int, name: str) -> list[VariantRow]:
    scene = _scene(request, scene_id)
    variants.let_go(_variant(scene, name))
    return variants.rows(scene)


def _scene(request: HttpRequest, scene_id: int) -> Scene:
    return scene_asked(request, scene_id)


def _variant(scene: Scene, name: str) -> Variant:
    """One that is kept; the plan itself is none of them."""
    return get_object_or_404(scene.variants.exclude(name=actions.PLAN).select_related("head"), name=name)
