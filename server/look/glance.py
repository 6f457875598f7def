"""A scene at a glance, for the first page: its own look, where it stands, and what decides about it."""

from __future__ import annotations

import hashlib
from typing import Any, Literal

from bench.actions import document_of, events_of, next_of, poured_count
from bench.models import Run
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Schema
from people.ways import scene_asked
from scenes.actions import head_of, state_of
from scenes.models import Scene
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.bench.events import Demoulded
from gondola_core.checks import Severity
from gondola_core.errors import GondolaError, SceneError
from gondola_core.evaluate import KEEPER, evaluate
from gondola_core.scene import Scene as SceneDocument
from gondola_core.scene import Units
from gondola_core.views.look.look import GLANCE, Asked, look
from gondola_core.views.look.stand import PRESETS, usual_stand
from gondola_core.views.picture import LEAST_PIXELS, jpeg_of

router = Router(tags=["glance"])
MOST_WIDE, MOST_KEPT, ASPECT = 960, 40, 1.5
KEPT = "private, max-age=0, must-revalidate"
"""How a browser keeps a picture: it asks each time whether it is still the same."""


class Glance(Schema):
    """What the first page says of a scene.

    worst      its first flag and how grave it is, if it has any
    state      how far its work is; next_pour and opens_at while it is poured
    """

    scale: float
    inside_mm: list[float]
    pours_count: int
    resin_ml: float
    mix_g: float
    first_pour_at: str
    demould_at: str | None
    counts: dict[str, int]
    worst: str | None
    worst_grade: str | None
    units: Units
    state: Literal["planning", "pouring", "waiting", "finished"]
    next_pour: int | None
    opens_at: str | None


@router.get("/scenes/{int:scene_id}/glance", response={200: Glance, 404: Refusal}, operation_id="glance")
def glance(request: HttpRequest, scene_id: int) -> Glance:
    """Size, pours, days, and the worst flag."""
    kept = scene_asked(request, scene_id)
    scene = state_of(kept).document
    outcome = evaluate(scene, meshes=meshes_for(owner=request.user, document=scene))
    tank, first = scene.tank, outcome.flags[0] if outcome.flags else None
    return Glance(
        scale=scene.brief.scale, inside_mm=[tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm],
        pours_count=len(scene.pours), resin_ml=outcome.whole.resin_volume_ml, mix_g=outcome.whole.mix_g,
        first_pour_at=scene.brief.first_pour_at.isoformat(timespec="minutes"), demould_at=outcome.whole.demould_at,
        counts={one.value: sum(flag.severity is one for flag in outcome.flags) for one in Severity},
        worst=first.title if first else None, worst_grade=first.severity.value if first else None,
        units=scene.brief.units, **_work(kept.pk),
    )


def _work(scene_id: int) -> dict[str, Any]:
    """How far the work is, by the newest run that was no rehearsal."""
    run = Run.objects.filter(scene_id=scene_id, rehearsal=False).first()
    planning = {"state": "planning", "next_pour": None, "opens_at": None}
    if run is None:
        return planning
    try:
        events, planned = events_of(run), document_of(run)
    except SceneError:
        return planning
    poured = poured_count(planned, events)
    if poured == len(planned.pours):
        out = run.ended_at is not None or any(isinstance(one, Demoulded) for one in events)
        return {**planning, "state": "finished" if out else "waiting"}
    if not events or (run.ended_at is not None and not poured):
        return planning
    try:
        ahead = next_of(run, events)
    except GondolaError:
        ahead = None
    opens = ahead.opens_at.isoformat(timespec="minutes") if ahead is not None and ahead.opens_at else None
    return {"state": "pouring", "next_pour": poured + 1, "opens_at": opens}


@router.get("/scenes/{int:scene_id}/picture", operation_id="scene_picture")
def scene_picture(
    request: HttpRequest, scene_id: int, width: int = Query(480, ge=LEAST_PIXELS, le=MOST_WIDE)
) -> HttpResponse:
    """The piece as it will stand on its shelf, as a JPEG; the same until the scene changes."""
    return picture_of(request, scene_asked(request, scene_id), width)


def picture_of(request: HttpRequest, scene: Scene, width: int) -> HttpResponse:
    """The picture of a scene, or 304 where whoever asks has it already."""
    tag = hashlib.sha256(f"{scene.pk}:{head_of(scene).pk}:{width}".encode()).hexdigest()[:20]
    if request.headers.get("If-None-Match") == f'"{tag}"':
        return HttpResponse(status=304, headers={"ETag": f'"{tag}"', "Cache-Control": KEPT})
    document = state_of(scene).document
    meshes = meshes_for(owner=scene.owner, document=document)
    content = KEEPER.keep("glance-picture", tag, lambda: jpeg_of(_own_look(document, width, meshes)), most=MOST_KEPT)
    return HttpResponse(
        content, content_type="image/jpeg", headers={"ETag": f'"{tag}"', "Cache-Control": KEPT}
    )


def _own_look(document: SceneDocument, width: int, meshes: Any) -> Any:
    """A piece from where it is mostly seen, without a rule."""
    stand = usual_stand(document, *(PRESETS["above"] if document.brief.first_view == "above" else ()))
    asked = Asked(stand.model_copy(update={"rule": False}), width, round(width / ASPECT), GLANCE)
    return look(document, asked, meshes, KEEPER)
