"""The look over HTTP: drawn while something is dragged, clearer once it rests, kept as stills, printed on a card."""

from __future__ import annotations

import io
from datetime import datetime
from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Schema
from people.ways import scene_asked
from PIL import Image
from shapes.actions import meshes_for
from studio.bodies import download
from studio.said import said
from studio.schemas import Refusal
from studio.turns import turn_of
from studio.units import reader_of

from gondola_core.answers.book import Book
from gondola_core.documents.card import PICTURE_PX, card_pdf, card_png, card_text
from gondola_core.errors import SceneError
from gondola_core.evaluate import KEEPER, evaluate
from gondola_core.scene import Scene, read_as
from gondola_core.views.bubbles import seen_bubbles
from gondola_core.views.look.fooled import Fooled, fooled
from gondola_core.views.look.look import CARES, CLEARER, Asked, look
from gondola_core.views.look.stand import PRESETS, Stand, usual_stand
from gondola_core.views.picture import jpeg_of

from . import actions
from .models import Still
from .newest import NEWEST

router = Router(tags=["look"])
PIXELS = Query(640, ge=80, le=1280)
Care = Literal["moving", "draft", "clearer"]


class LookAsked(Schema):
    """A scene, and the eye and the light that it is looked at in."""

    scene: Scene
    stand: Stand


class StillJobDone(Schema):
    """The job that drew a still."""

    job_id: UUID


class StillRow(Schema):
    """A still that is kept: of which revision, when, and the eye that saw it; none that is no longer taken."""

    id: int
    revision: int
    made_at: datetime
    width_px: int
    height_px: int
    stand: Stand | None


class PresetStand(Schema):
    """A place to look from, by its word."""

    word: str
    stand: Stand


@router.post("/look", operation_id="look", response={409: Refusal, 422: Refusal})
def show(
    request: HttpRequest, payload: LookAsked, care: Care = "draft", width: int = PIXELS, height: int = PIXELS,
    asker: str = Query("", max_length=40), number: int = Query(0, ge=0),
) -> HttpResponse:
    """The finished block from an eye, as a JPEG; 409 where the same asker has asked anew meanwhile."""
    scene = payload.scene
    meshes = meshes_for(owner=request.user, document=scene)
    asker = asker and f"{request.user.pk} {asker}"
    if asker:
        NEWEST.ask(asker, number)

    def newest(_: float) -> None:
        if asker:
            NEWEST.check(asker, number)

    with turn_of(request, "look", newest) as wanted:
        wanted(0.0)
        # bubbles once a picture rests: they need the whole march
        bubbles = seen_bubbles(Book(scene, meshes=meshes)) if care == "clearer" and payload.stand.bubbles else None
        drawn = look(scene, Asked(payload.stand, width, height, CARES[care], wanted, bubbles), meshes, KEEPER)
    return HttpResponse(jpeg_of(drawn), content_type="image/jpeg")


@router.post("/look/presets", response={200: list[PresetStand], 422: Refusal}, operation_id="look_presets")
def presets(request: HttpRequest, scene: Scene) -> list[PresetStand]:
    """Where to look from: as one comes up to it, and four more; by the size of the piece."""
    named = [PresetStand(word="usual", stand=usual_stand(scene))]
    return named + [PresetStand(word=word, stand=usual_stand(scene, *angles)) for word, angles in PRESETS.items()]


@router.post("/look/fooled", response={200: Fooled, 422: Refusal}, operation_id="look_fooled")
def what_fools(request: HttpRequest, payload: LookAsked) -> HttpResponse:
    """What an eye there would miss or be fooled by."""
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return said(request, fooled(Book(payload.scene, meshes=meshes), payload.stand))


@router.post("/look/card", operation_id="look_card", response={422: Refusal})
def card(request: HttpRequest, payload: LookAsked, file: Literal["png", "pdf"] = "png") -> HttpResponse:
    """A card to hand on: picture, title, size, layers, recipe."""
    scene, units = payload.scene, reader_of(request)
    meshes = meshes_for(owner=request.user, document=scene)
    with turn_of(request, "look") as there:
        picture = Image.fromarray(look(scene, Asked(payload.stand, *PICTURE_PX, CLEARER, there), meshes, KEEPER))
        text = card_text(scene, evaluate(scene, meshes=meshes), units)
    if file == "pdf":
        return download(card_pdf(text, picture, units), "application/pdf", "card.pdf")
    return download(card_png(text, picture), "image/png", "card.png")


@router.get("/scenes/{int:scene_id}/stills", response={200: list[StillRow], 404: Refusal}, operation_id="list_stills")
def stills(request: HttpRequest, scene_id: int) -> list[StillRow]:
    """Stills that are kept with a scene, the newest first."""
    return [_row(one) for one in actions.stills_of(scene_asked(request, scene_id))]


@router.post("/scenes/{int:scene_id}/stills", response={201: StillRow, 404: Refusal}, operation_id="keep_still")
def keep(request: HttpRequest, scene_id: int, payload: StillJobDone) -> tuple[int, StillRow]:
    """Keep what a job drew."""
    scene = scene_asked(request, scene_id)
    return 201, _row(actions.keep(owner=request.user, scene=scene, job_id=payload.job_id))


@router.get("/stills/{int:still_id}/picture", operation_id="still_picture", response={404: Refusal})
def picture(request: HttpRequest, still_id: int, small: bool = False) -> HttpResponse:
    """A still as a PNG file, or a small JPEG of it."""
    content = bytes(actions.still_asked(request, still_id).png)
    kept = {"Cache-Control": "private, max-age=31536000, immutable"}
    if not small:
        return HttpResponse(content, content_type="image/png", headers=kept)
    image = Image.open(io.BytesIO(content))
    image.thumbnail((320, 320))
    out = io.BytesIO()
    image.save(out, format="JPEG", quality=88)
    return HttpResponse(out.getvalue(), content_type="image/jpeg", headers=kept)


@router.delete("/stills/{int:still_id}", response={204: None, 404: Refusal}, operation_id="drop_still")
def drop(request: HttpRequest, still_id: int) -> tuple[int, None]:
    """Take a still away."""
    actions.still_asked(request, still_id).delete()
    return 204, None


def _row(still: Still) -> StillRow:
    try:
        stand = read_as(Stand, still.stand)
    except SceneError:
        stand = None
    return StillRow(
        id=still.pk, revision=still.revision, made_at=still.made_at, width_px=still.width_px,
        height_px=still.height_px, stand=stand,
    )
