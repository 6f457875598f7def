"""The look of the water over HTTP: pictures, doses for a wish, paint."""

from __future__ import annotations

from typing import Annotated, Literal

from django.http import HttpRequest, HttpResponse
from library.actions import keep_row, key_of
from ninja import Query, Router, Schema
from pydantic import Field
from shapes.actions import meshes_for
from studio.apart import apart
from studio.said import said
from studio.schemas import Refusal

from gondola_core.answers.book import Book
from gondola_core.answers.water import SIGHTS
from gondola_core.checks import Remedy, reader_units, told_remedy
from gondola_core.evaluate import KEEPER
from gondola_core.materials import Colourant
from gondola_core.scene import Scene
from gondola_core.scene.edits import dose_water
from gondola_core.tint.measured_spectrum import MeasuredSpectrum, colourant_of_spectrum
from gondola_core.tint.paint import PaintAnswer, paint_answer
from gondola_core.tint.solver import Solved, solve_water
from gondola_core.views.bubbles import SeenBubbles, seen_bubbles
from gondola_core.views.picture import LEAST_PIXELS, MOST_PIXELS, jpeg_of, picture, png_of

router = Router(tags=["water"])


class PaintAsked(Schema):
    """How a figure is wished to read."""

    scene: Scene
    figure_id: str
    wished_srgb: Annotated[str, Field(title="wished colour", pattern=r"^#[0-9a-f]{6}$")]


class SolvedWater(Schema):
    """The doses found, and the edit that takes them."""

    solved: Solved
    remedy: Remedy


class SpectrumBrought(Schema):
    """A measured spectrum."""

    measured: MeasuredSpectrum


@router.post("/bubbles", response={200: SeenBubbles, 422: Refusal}, operation_id="seen_bubbles")
def bubbles(request: HttpRequest, scene: Scene) -> HttpResponse:
    """Bubbles that an eye would make out, where they hang; the same every time."""
    return said(request, seen_bubbles(Book(scene, meshes=meshes_for(owner=request.user, document=scene))))


@router.post("/picture", operation_id="picture")
def show(
    request: HttpRequest, scene: Scene, view: Literal["front", "side", "above"] = "front",
    width: int = Query(480, ge=LEAST_PIXELS, le=MOST_PIXELS), file: Literal["png", "jpeg"] = "png",
) -> HttpResponse:
    """The piece as it will look, exactly as a PNG, or sooner as a JPEG; nothing is stored."""
    meshes = meshes_for(owner=request.user, document=scene)
    image = picture(scene, view, width, meshes, KEEPER)
    made = png_of(image) if file == "png" else jpeg_of(image)
    return HttpResponse(made, content_type=f"image/{file}")


@router.post("/water/solve", response={200: SolvedWater, 422: Refusal}, operation_id="solve_water")
def solve(request: HttpRequest, scene: Scene) -> SolvedWater:
    """Doses for the scene's wish, from the colourants that are owned."""
    book = Book(scene, meshes=meshes_for(owner=request.user, document=scene))
    solved = solve_water(scene, book.ask(SIGHTS))
    doses = [[(one.colourant_id, one.dose_drops_per_100g) for one in pour] for pour in solved.pours]
    edit = dose_water(scene, solved.colourants, doses)
    return SolvedWater(solved=solved, remedy=told_remedy(edit, reader_units(scene.brief.units)))


@router.post("/water/paint", response={200: PaintAnswer, 422: Refusal}, operation_id="find_paint")
def paint(request: HttpRequest, payload: PaintAsked) -> HttpResponse:
    """The paint that reads as wished, or the nearest."""
    return said(request, paint_answer(payload.scene, payload.figure_id, payload.wished_srgb))


@router.post("/water/spectrum", response={200: Colourant, 422: Refusal}, operation_id="bring_spectrum")
def spectrum(request: HttpRequest, payload: SpectrumBrought) -> Colourant:
    """A colourant from its measured spectrum, kept with the owner's own."""
    measured = payload.measured
    ink = apart(colourant_of_spectrum, measured, key_of(measured.name), what="the spectrum")
    keep_row(
        owner=request.user, kind="colourant", body=ink.model_dump(mode="json"),
        source=f"measured: {measured.drops_per_100g:g} drops per 100 g, cell of {measured.path_mm:g} mm",
    )
    return ink
