"""Scenes over HTTP: each view parses, calls one thing, and returns."""

from __future__ import annotations

import re

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from shapes.actions import with_meshes
from shapes.schemas import Heights
from studio.bodies import read_body
from studio.schemas import Refusal

from gondola_core.scene import LARGEST_FILE, read_scene
from gondola_core.shape.bedform import LARGEST_MAP_FILE, map_heights

from . import actions
from .models import Scene
from .schemas import (
    Restore,
    RevisionRow,
    SceneRow,
    SceneState,
    SceneWrite,
    Stale,
    Step,
)

router = Router(tags=["scenes"])
WRITE = {200: SceneState, 409: Stale, 422: Refusal}


def _own(request: HttpRequest, scene_id: int) -> Scene:
    return actions.own_scene(owner=request.user, scene_id=scene_id)


@router.get("/scenes", response=list[SceneRow], operation_id="list_scenes")
def list_scenes(request: HttpRequest) -> list[SceneRow]:
    scenes = Scene.objects.filter(owner=request.user, variants__name=actions.PLAN)
    rows = scenes.values_list("pk", "name", "variants__head__number", "changed_at")
    return [
        SceneRow(id=pk, name=name, revision=number, changed_at=changed_at)
        for pk, name, number, changed_at in rows
    ]


@router.post(
    "/scenes", response={201: SceneState, 413: Refusal, 422: Refusal}, operation_id="create_scene",
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {"application/json": {"schema": {"type": "object"}}},
        }
    },
)
def create_scene(request: HttpRequest) -> tuple[int, SceneState]:
    """From a scene file of any version."""
    document = read_scene(read_body(request, LARGEST_FILE, "a scene file"))
    scene = actions.create_scene(owner=request.user, document=document, note="brought in")
    return 201, actions.state_of(scene)


@router.get("/scenes/{int:scene_id}", response=SceneState, operation_id="read_scene")
def read_one(request: HttpRequest, scene_id: int) -> SceneState:
    return actions.state_of(_own(request, scene_id))


@router.put("/scenes/{int:scene_id}", response=WRITE, operation_id="save_scene")
def save(request: HttpRequest, scene_id: int, payload: SceneWrite) -> SceneState:
    scene = _own(request, scene_id)
    actions.save_scene(
        scene=scene, base_revision=payload.base_revision, document=payload.document,
        note=payload.note,
    )
    return actions.state_of(scene)


@router.post("/scenes/{int:scene_id}/undo", response=WRITE, operation_id="undo_scene")
def undo(request: HttpRequest, scene_id: int, payload: Step) -> SceneState:
    scene = _own(request, scene_id)
    actions.undo(scene=scene, base_revision=payload.base_revision)
    return actions.state_of(scene)


@router.post("/scenes/{int:scene_id}/redo", response=WRITE, operation_id="redo_scene")
def redo(request: HttpRequest, scene_id: int, payload: Step) -> SceneState:
    scene = _own(request, scene_id)
    actions.redo(scene=scene, base_revision=payload.base_revision)
    return actions.state_of(scene)


@router.post("/scenes/{int:scene_id}/restore", response=WRITE, operation_id="restore_scene")
def restore(request: HttpRequest, scene_id: int, payload: Restore) -> SceneState:
    scene = _own(request, scene_id)
    get_object_or_404(scene.revisions, number=payload.number)
    actions.restore(
        scene=scene, base_revision=payload.base_revision, number=payload.number
    )
    return actions.state_of(scene)


@router.get(
    "/scenes/{int:scene_id}/revisions", response=list[RevisionRow], operation_id="list_revisions"
)
def revisions(request: HttpRequest, scene_id: int) -> list[RevisionRow]:
    scene = _own(request, scene_id)
    shown = actions.head_of(scene).pk
    rows = scene.revisions.select_related("parent").defer("packed", "parent__packed")[:200]
    return [
        RevisionRow(
            number=row.number, parent=row.parent.number if row.parent else None, note=row.note,
            kept_aside=row.kept_aside, shown=row.pk == shown, created_at=row.created_at,
        )
        for row in rows
    ]


@router.get("/scenes/{int:scene_id}/file", operation_id="export_scene")
def export(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The scene file: the document alone, readable by `gondola evaluate`."""
    document = with_meshes(
        owner=request.user, document=actions.state_of(_own(request, scene_id)).document
    )
    name = re.sub(r"[^a-z0-9]+", "-", document.name.lower()).strip("-") or "scene"
    return HttpResponse(
        document.model_dump_json(indent=1),
        content_type="application/json",
        headers={"Content-Disposition": f'attachment; filename="{name}.gondola.json"'},
    )


@router.post(
    "/scenes/{int:scene_id}/bed-map", response={200: Heights, 413: Refusal, 422: Refusal},
    operation_id="map_bed",
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {
                "application/octet-stream": {"schema": {"type": "string", "format": "binary"}}
            },
        }
    },
)
def map_bed(
    request: HttpRequest, scene_id: int, name: str, low_mm: float = 0.0, high_mm: float = 60.0
) -> Heights:
    """Heights from a grey PNG or a CSV; nothing is stored until the scene is saved."""
    tank = actions.state_of(_own(request, scene_id)).document.tank
    content = read_body(request, LARGEST_MAP_FILE, "a height map")
    return Heights(heights_mm=map_heights(content, name, low_mm, high_mm, tank))
