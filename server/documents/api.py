"""What is carried away from a scene: the pour sheet to print, its steps as a table, its days for a calendar."""

from __future__ import annotations

import re
from datetime import UTC, datetime

from django.http import HttpRequest, HttpResponse
from ninja import Router
from people.ways import scene_asked
from scenes.actions import state_of
from scenes.models import Scene
from shapes.actions import meshes_for
from studio.schemas import Refusal
from studio.turns import in_turn_of
from studio.units import reader_of
from studio.zones import zone_of

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.checks import reader_units
from gondola_core.documents.bench_sheet import sheet_csv, sheet_pdf
from gondola_core.documents.calendar import Almanac, calendar_of
from gondola_core.evaluate import evaluate
from gondola_core.studies.chances import chances

router = Router(tags=["documents"])
router.add_decorator(in_turn_of("documents"), mode="operation")
DRAWS = 64
"""Draws for the chances in a calendar."""
ANSWERS = {404: Refusal, 422: Refusal}


def _file(content: bytes | str, name: str, more: str, kind: str) -> HttpResponse:
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "scene"
    return HttpResponse(
        content, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{plain}{more}"'}
    )


@router.get("/scenes/{int:scene_id}/sheet.pdf", response=ANSWERS, operation_id="sheet_pdf")
def pdf(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The pour sheet, A4 or Letter."""
    return sheet_of(scene_asked(request, scene_id))


def sheet_of(kept: Scene) -> HttpResponse:
    """The pour sheet of a scene as it stands, in the units of its brief."""
    state = state_of(kept)
    scene, units = state.document, reader_units(state.document.brief.units)
    meshes = meshes_for(owner=kept.owner, document=scene)
    content = sheet_pdf(
        scene, evaluate(scene, meshes=meshes), Book(scene, meshes=meshes).ask(STEPS), units, state.revision
    )
    return _file(content, scene.name, "-pour-sheet.pdf", "application/pdf")


@router.get("/scenes/{int:scene_id}/sheet.csv", response=ANSWERS, operation_id="sheet_csv")
def table(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The steps as a table."""
    scene = state_of(scene_asked(request, scene_id)).document
    steps = Book(scene, meshes=meshes_for(owner=request.user, document=scene)).ask(STEPS)
    return _file(sheet_csv(steps, reader_units(scene.brief.units)), scene.name, "-steps.csv", "text/csv")


@router.get("/scenes/{int:scene_id}/calendar.ics", response=ANSWERS, operation_id="calendar")
def calendar(request: HttpRequest, scene_id: int, zone: str = "UTC") -> HttpResponse:
    """The plan's days with their alarms, in a time zone."""
    kept = scene_asked(request, scene_id)
    scene = state_of(kept).document
    meshes = meshes_for(owner=request.user, document=scene)
    almanac = Almanac(
        zone=zone_of(zone), stamped=datetime.now(UTC).replace(microsecond=0), key=f"scene-{kept.pk}",
        units=reader_of(request),
    )
    drawn = [one.bonds_fraction for one in chances(scene, DRAWS, 1, meshes=meshes).pours]
    return _file(
        calendar_of(scene, evaluate(scene, meshes=meshes), almanac, drawn), scene.name, ".ics", "text/calendar"
    )
