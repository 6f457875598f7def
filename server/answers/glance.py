"""A scene at a glance, for the first page: its picture, and what decides about it."""

from __future__ import annotations

import hashlib

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Schema
from scenes.actions import head_of, own_scene, state_of
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.checks import Severity
from gondola_core.evaluate import KEEPER, evaluate
from gondola_core.scene import Units
from gondola_core.views.picture import LEAST_PIXELS, MOST_PIXELS, picture, png_of

router = Router(tags=["glance"])
KEPT = "private, max-age=0, must-revalidate"
"""How a browser keeps a picture: it asks each time whether it is still the same."""


class Glance(Schema):
    """What the first page says of a scene. `worst` is its first flag and how grave it is, if it has any."""

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


@router.get("/scenes/{int:scene_id}/glance", response={200: Glance, 404: Refusal}, operation_id="glance")
def glance(request: HttpRequest, scene_id: int) -> Glance:
    """Size, pours, days, and the worst flag."""
    scene = state_of(own_scene(owner=request.user, scene_id=scene_id)).document
    outcome = evaluate(scene, meshes=meshes_for(owner=request.user, document=scene))
    tank, first = scene.tank, outcome.flags[0] if outcome.flags else None
    return Glance(
        scale=scene.brief.scale, inside_mm=[tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm],
        pours_count=len(scene.pours), resin_ml=outcome.whole.resin_volume_ml, mix_g=outcome.whole.mix_g,
        first_pour_at=scene.brief.first_pour_at.isoformat(timespec="minutes"), demould_at=outcome.whole.demould_at,
        counts={one.value: sum(flag.severity is one for flag in outcome.flags) for one in Severity},
        worst=first.title if first else None, worst_grade=first.severity.value if first else None,
        units=scene.brief.units,
    )


@router.get("/scenes/{int:scene_id}/picture", operation_id="scene_picture")
def scene_picture(
    request: HttpRequest, scene_id: int, width: int = Query(480, ge=LEAST_PIXELS, le=MOST_PIXELS)
) -> HttpResponse:
    """The piece from the side that it is mostly seen from, as a PNG; the same until the scene changes."""
    scene = own_scene(owner=request.user, scene_id=scene_id)
    tag = hashlib.sha256(f"{scene_id}:{head_of(scene).pk}:{width}".encode()).hexdigest()[:20]
    if request.headers.get("If-None-Match") == f'"{tag}"':
        return HttpResponse(status=304, headers={"ETag": f'"{tag}"', "Cache-Control": KEPT})
    document = state_of(scene).document
    meshes = meshes_for(owner=request.user, document=document)
    image = picture(document, document.brief.first_view, width, meshes, KEEPER)
    return HttpResponse(
        png_of(image), content_type="image/png", headers={"ETag": f'"{tag}"', "Cache-Control": KEPT}
    )
