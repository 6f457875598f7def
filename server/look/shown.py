"""What a link shows to whoever holds it: the piece, its pours, and its files; nothing can be changed here."""

from __future__ import annotations

from datetime import datetime

from django.http import HttpRequest, HttpResponse
from documents.api import sheet_of
from ninja import Query, Router, Schema
from people.ways import linked_scene
from scenes.actions import state_of
from scenes.api import file_of
from shapes.actions import meshes_for

from gondola_core.documents.card import doses_said
from gondola_core.evaluate import evaluate
from gondola_core.scene import Units
from gondola_core.views.picture import LEAST_PIXELS

from .glance import MOST_WIDE, picture_of

router = Router(tags=["shown"], auth=None)


class ShownPour(Schema):
    """One pour of the plan; `colour` is what goes into 100 g of it."""

    number: int
    resin: str
    top_depth_mm: float
    volume_ml: float
    mix_g: float
    colour: str
    starts_at: str
    peak_c: float | None


class Shown(Schema):
    """A piece as a link shows it."""

    name: str
    changed_at: datetime
    units: Units
    scale: float
    inside_mm: list[float]
    resin_ml: float
    pours: list[ShownPour]
    flags: list[str]


@router.get("/shown/{token}", response=Shown, operation_id="read_shown")
def read_shown(request: HttpRequest, token: str) -> Shown:
    """The piece: its size, its pours, and what the plan warns of."""
    kept = linked_scene(token)
    scene = state_of(kept).document
    outcome = evaluate(scene, meshes=meshes_for(owner=kept.owner, document=scene))
    tank = scene.tank
    return Shown(
        name=kept.name, changed_at=kept.changed_at, units=scene.brief.units, scale=scene.brief.scale,
        inside_mm=[tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm],
        resin_ml=outcome.whole.resin_volume_ml, flags=[one.title for one in outcome.flags],
        pours=[
            ShownPour(
                number=told.number, resin=scene.resin_of(pour).name, top_depth_mm=pour.top_depth_mm,
                volume_ml=told.fill.resin_volume_ml, mix_g=told.cup.mix.mix_g,
                colour=", ".join(doses_said(scene, pour)), starts_at=told.clock.starts_at,
                peak_c=told.heat.cure.peak_c if told.heat.cure else None,
            )
            for pour, told in zip(scene.pours, outcome.pours, strict=True)
        ],
    )


@router.get("/shown/{token}/picture", operation_id="shown_picture")
def shown_picture(
    request: HttpRequest, token: str, width: int = Query(960, ge=LEAST_PIXELS, le=MOST_WIDE)
) -> HttpResponse:
    """The piece as it will stand on its shelf, as a JPEG."""
    return picture_of(request, linked_scene(token), width)


@router.get("/shown/{token}/sheet.pdf", operation_id="shown_sheet")
def shown_sheet(request: HttpRequest, token: str) -> HttpResponse:
    """The pour sheet, to print."""
    return sheet_of(linked_scene(token))


@router.get("/shown/{token}/file", operation_id="shown_file")
def shown_file(request: HttpRequest, token: str) -> HttpResponse:
    """The scene file."""
    return file_of(linked_scene(token))
