"""The log over HTTP."""

from __future__ import annotations

from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from ninja import Router
from people.ways import scene_asked, scene_for
from scenes.actions import state_of
from studio.bodies import BINARY_BODY, download, read_body
from studio.said import said
from studio.schemas import Refusal
from studio.turns import turn_of
from studio.units import reader_of

from gondola_core.explain.ranking import Explanation

from . import actions, explaining, handing
from .models import Entry
from .pictures import LARGEST_PHOTOGRAPH
from .schemas import (
    CausesStruck,
    EntryKind,
    EntryMoved,
    EntryPlace,
    EntryState,
    EntryWrite,
    FoundEntry,
    Mm,
    PhotographKept,
)

router = Router(tags=["log"])
OF_SCENE = "/scenes/{int:scene_id}"
ONE = "/entries/{int:entry_id}"


@router.get(f"{OF_SCENE}/entries", response={200: list[EntryState], 404: Refusal}, operation_id="read_story")
def story(request: HttpRequest, scene_id: int) -> list[EntryState]:
    """The story of a scene: its newest 500 entries, in the order in which they happened."""
    return actions.story(scene_asked(request, scene_id))


@router.post(f"{OF_SCENE}/entries", response={201: EntryState, 404: Refusal, 422: Refusal}, operation_id="enter")
def enter(request: HttpRequest, scene_id: int, payload: EntryWrite) -> tuple[int, EntryState]:
    scene = scene_asked(request, scene_id)
    return 201, actions.state_of(actions.enter(scene=scene, written=payload))


@router.post(
    f"{OF_SCENE}/photographs", response={201: PhotographKept, 404: Refusal, 413: Refusal, 422: Refusal},
    operation_id="bring_photograph", openapi_extra=BINARY_BODY,
)
def bring(
    request: HttpRequest, scene_id: int, name: str = "photograph", x_mm: Mm | None = None,
    depth_mm: Mm | None = None,
) -> tuple[int, PhotographKept]:
    """A photograph; its moment from the camera, its place in the world left out, the original kept."""
    scene = scene_asked(request, scene_id)
    content = read_body(request, LARGEST_PHOTOGRAPH, "a photograph")
    place = None if x_mm is None or depth_mm is None else EntryPlace(x_mm=x_mm, depth_mm=depth_mm)
    entry, words = actions.bring_photograph(scene=scene, name=name, content=content, place=place)
    return 201, PhotographKept(entry=actions.state_of(entry), words=words)


@router.patch(ONE, response={200: EntryState, 404: Refusal, 422: Refusal}, operation_id="move_entry")
def move(request: HttpRequest, entry_id: int, payload: EntryMoved) -> EntryState:
    entry = actions.entry_asked(request, entry_id)
    return actions.state_of(actions.move(entry=entry, moved=payload))


@router.delete(ONE, response={200: EntryState, 404: Refusal}, operation_id="take_back_entry")
def take_back(request: HttpRequest, entry_id: int) -> EntryState:
    """It is not shown any more; it can be put back."""
    entry = actions.entry_asked(request, entry_id)
    return actions.state_of(actions.take_back(entry=entry, back=True))


@router.post(f"{ONE}/restore", response={200: EntryState, 404: Refusal}, operation_id="restore_entry")
def restore(request: HttpRequest, entry_id: int) -> EntryState:
    entry = actions.entry_asked(request, entry_id)
    return actions.state_of(actions.take_back(entry=entry, back=False))


@router.get(f"{ONE}/small", response={404: Refusal}, operation_id="small_photograph")
def small(request: HttpRequest, entry_id: int) -> HttpResponse:
    """The photograph made small, always a JPEG."""
    return HttpResponse(_photograph(request, entry_id).photograph.small, content_type="image/jpeg")


@router.get(f"{ONE}/original", response={404: Refusal}, operation_id="original_photograph")
def original(request: HttpRequest, entry_id: int) -> FileResponse:
    """The original, to download and not to be shown: its bytes are the person's own."""
    kept = _photograph(request, entry_id).photograph
    path = actions.file_of(kept.digest)
    if not path.is_file():
        raise Http404
    plain = "application/octet-stream"
    return FileResponse(path.open("rb"), as_attachment=True, filename=kept.name, content_type=plain)


def _photograph(request: HttpRequest, entry_id: int) -> Entry:
    entry = actions.entry_asked(request, entry_id)
    if entry.kind != Entry.Kind.PHOTOGRAPH:
        raise Http404
    return entry


@router.get("/log/search", response={200: list[FoundEntry], 422: Refusal}, operation_id="search_log")
def search(request: HttpRequest, asked: str = "", kind: EntryKind | None = None) -> list[FoundEntry]:
    """Entries of all scenes by their words and kind, the best first."""
    return actions.search(user=request.user, asked=asked[:200], kinds=[kind] if kind else [])


@router.get(f"{OF_SCENE}/lessons", response={200: list[FoundEntry], 404: Refusal}, operation_id="lessons_of_scene")
def lessons_of_scene(request: HttpRequest, scene_id: int) -> list[FoundEntry]:
    scene = scene_asked(request, scene_id)
    return actions.met_again(user=request.user, scene=scene, document=state_of(scene).document)


@router.post(f"{OF_SCENE}/explain", response={200: Explanation, 404: Refusal, 422: Refusal}, operation_id="explain")
def explain(request: HttpRequest, scene_id: int, payload: CausesStruck) -> HttpResponse:
    """Causes of the marked faults, by re-running what happened with and without each."""
    scene = scene_for(request.user, scene_id, "look")
    with turn_of(request, "log"):
        return said(request, explaining.explained(scene=scene, struck=payload.struck))


@router.get(f"{OF_SCENE}/story.zip", response={404: Refusal}, operation_id="story_folder")
def folder(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The story as a folder of one page and its pictures, to hand on."""
    scene = scene_asked(request, scene_id)
    with turn_of(request, "log"):
        content = handing.folder_of(scene=scene, units=reader_of(request))
    return download(content, "application/zip", "story.zip")
