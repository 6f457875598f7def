"""Scenes over HTTP: each view parses, calls one thing, and returns."""

from __future__ import annotations

import re

from django.db.models import F
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router
from people.accounts import GRACE
from people.ways import may_of, scene_asked, scene_for, scenes_for
from shapes.schemas import Heights
from studio.apart import apart
from studio.bodies import read_body
from studio.schemas import Refusal

from gondola_core.scene import LARGEST_FILE, read_scene
from gondola_core.shape.bedform import LARGEST_MAP_FILE, map_heights

from . import actions
from .models import Scene
from .schemas import (
    GoneRow,
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
SMALL_FILE = 2**20
"""bytes; a larger scene file is read apart. Source: assumed"""


@router.get("/scenes", response=list[SceneRow], operation_id="list_scenes")
def list_scenes(request: HttpRequest) -> list[SceneRow]:
    scenes = scenes_for(request.user).filter(variants__name=actions.PLAN).annotate(number=F("variants__head__number"))
    return [
        SceneRow(
            id=one.pk, name=one.name, revision=one.number, changed_at=one.changed_at, owner=one.owner.get_username(),
            may=may_of(request.user, one),
        )
        for one in scenes.select_related("owner")
    ]


@router.get("/scenes/gone", response=list[GoneRow], operation_id="list_gone")
def list_gone(request: HttpRequest) -> list[GoneRow]:
    """What was deleted and can still be brought back."""
    return [
        GoneRow(id=one.pk, name=one.name, until=one.gone_at + GRACE) for one in actions.gone_scenes(request.user)
    ]


@router.delete("/scenes/{int:scene_id}", response={204: None}, operation_id="delete_scene")
def delete(request: HttpRequest, scene_id: int) -> tuple[int, None]:
    """It is gone at once, and deleted with all that hangs on it after a day."""
    actions.delete(scene_for(request.user, scene_id, "own"))
    return 204, None


@router.post("/scenes/gone/{int:scene_id}/back", response={200: SceneState}, operation_id="bring_scene_back")
def bring_back(request: HttpRequest, scene_id: int) -> SceneState:
    scene = next((one for one in actions.gone_scenes(request.user) if one.pk == scene_id), None)
    if scene is None:
        raise Http404
    actions.bring_back(scene)
    return actions.state_of(scene, request.user)


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
    body = read_body(request, LARGEST_FILE, "a scene file")
    document = read_scene(body) if len(body) <= SMALL_FILE else apart(read_scene, body, what="the scene file")
    scene = actions.create_scene(owner=request.user, document=document, note="brought in")
    return 201, actions.state_of(scene, request.user)


@router.get("/scenes/{int:scene_id}", response=SceneState, operation_id="read_scene")
def read_one(request: HttpRequest, scene_id: int) -> SceneState:
    return actions.state_of(scene_asked(request, scene_id), request.user)


@router.put("/scenes/{int:scene_id}", response=WRITE, operation_id="save_scene")
def save(request: HttpRequest, scene_id: int, payload: SceneWrite) -> SceneState:
    scene = scene_asked(request, scene_id)
    actions.save_scene(
        scene=scene, base_revision=payload.base_revision, document=payload.document,
        note=payload.note, by=request.user,
    )
    return actions.state_of(scene, request.user)


@router.post("/scenes/{int:scene_id}/undo", response=WRITE, operation_id="undo_scene")
def undo(request: HttpRequest, scene_id: int, payload: Step) -> SceneState:
    scene = scene_asked(request, scene_id)
    actions.undo(scene=scene, base_revision=payload.base_revision)
    return actions.state_of(scene, request.user)


@router.post("/scenes/{int:scene_id}/redo", response=WRITE, operation_id="redo_scene")
def redo(request: HttpRequest, scene_id: int, payload: Step) -> SceneState:
    scene = scene_asked(request, scene_id)
    actions.redo(scene=scene, base_revision=payload.base_revision)
    return actions.state_of(scene, request.user)


@router.post("/scenes/{int:scene_id}/restore", response=WRITE, operation_id="restore_scene")
def restore(request: HttpRequest, scene_id: int, payload: Restore) -> SceneState:
    scene = scene_asked(request, scene_id)
    get_object_or_404(scene.revisions, number=payload.number)
    actions.restore(
        scene=scene, base_revision=payload.base_revision, number=payload.number
    )
    return actions.state_of(scene, request.user)


@router.get(
    "/scenes/{int:scene_id}/revisions", response=list[RevisionRow], operation_id="list_revisions"
)
def revisions(request: HttpRequest, scene_id: int) -> list[RevisionRow]:
    scene = scene_asked(request, scene_id)
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
    return file_of(scene_asked(request, scene_id))


def file_of(scene: Scene) -> HttpResponse:
    """A scene's file, with its shapes in it."""
    name = re.sub(r"[^a-z0-9]+", "-", scene.name.lower()).strip("-") or "scene"
    return HttpResponse(
        actions.file_text(scene),
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
    tank = actions.state_of(scene_asked(request, scene_id)).document.tank
    content = read_body(request, LARGEST_MAP_FILE, "a height map")
    called = f"the height map '{name[:60]}'"
    return Heights(heights_mm=apart(map_heights, content, name, low_mm, high_mm, tank, what=called))
