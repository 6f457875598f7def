"""What can be done with the log: enter, move, take back, search, meet a lesson again. Each is one transaction."""

from __future__ import annotations

import hashlib
import json
import os
import re
from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import connection, transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from people.ways import scene_asked, scenes_for
from scenes.models import Scene
from studio import originals
from studio.apart import apart

from gondola_core.errors import GondolaError
from gondola_core.explain.fault import FAULT_NAMES
from gondola_core.scene import Scene as SceneDocument
from gondola_core.scene.brief import FIRST_YEAR, LAST_YEAR

from .models import Entry, Photograph
from .pictures import Picture, read_picture, safe_name
from .schemas import EntryMoved, EntryPlace, EntryState, EntryWrite, FaultFound, FoundEntry, PhotographState, Pin

CAMERA_TOLD = "Taken at the moment that the camera wrote."
CAMERA_SILENT = "The camera wrote no moment: taken as now."
MOST_ENTRIES = 20_000
"""Entries that a scene keeps."""
MOST_FOUND = 60
"""Entries that a search tells."""


def story(scene: Scene, last: int = 500) -> list[EntryState]:
    """The newest entries of a scene that stand, in the order in which they happened."""
    rows = scene.entries.filter(taken_back_at=None).select_related("photograph").defer("photograph__small")
    return [state_of(one) for one in reversed(rows.order_by("-at", "-pk")[:last])]


def state_of(entry: Entry) -> EntryState:
    """An entry as it is told."""
    photograph = getattr(entry, "photograph", None)
    return EntryState(
        id=entry.pk, kind=entry.kind, at=entry.at, text=entry.text,
        place=None if entry.x_mm is None or entry.depth_mm is None
        else EntryPlace(x_mm=entry.x_mm, depth_mm=entry.depth_mm, behind_mm=entry.behind_mm),
        fault=FaultFound(**entry.body["fault"]) if entry.kind == Entry.Kind.FAULT else None,
        pins=[Pin(**one) for one in entry.body.get("pins", [])],
        photograph=None if photograph is None else PhotographState(
            name=photograph.name, form=photograph.form, width_px=photograph.width_px, height_px=photograph.height_px,
            bytes_count=photograph.bytes_count, corners=entry.body.get("corners"),
        ),
    )


def entry_asked(request: HttpRequest, entry_id: int) -> Entry:
    """The entry that a request is about, by the way to its scene; Http404 where that is not seen."""
    found = get_object_or_404(Entry.objects.select_related("scene"), pk=entry_id)
    scene_asked(request, found.scene_id)
    return found


@transaction.atomic
def enter(*, scene: Scene, written: EntryWrite) -> Entry:
    """Put an entry down; GondolaError for one that says nothing."""
    if written.kind == "fault" and written.fault is None:
        raise GondolaError("Say what is wrong: bubbles, a void, a leak and so on.", "fault")
    if written.kind != "fault" and not written.text.strip():
        raise GondolaError("Write some words.", "text")
    if written.kind == "lesson" and not written.pins:
        raise GondolaError("Pin the lesson to a resin, a dam, a colourant or a habit, so that it is met again.", "pins")
    _room_for_one(scene)
    body: dict[str, Any] = {}
    if written.fault is not None and written.kind == "fault":
        body["fault"] = written.fault.dict()
    if written.kind == "lesson":
        body["pins"] = [one.dict() for one in written.pins]
    place = written.place
    entry = Entry.objects.create(
        owner=scene.owner, scene=scene, kind=written.kind, at=_moment(written.at), text=written.text.strip(), body=body,
        x_mm=place.x_mm if place else None, depth_mm=place.depth_mm if place else None,
        behind_mm=place.behind_mm if place else None,
    )
    index(entry)
    return entry


def _moment(at: datetime | None) -> datetime:
    """Now, or as said; GondolaError for a moment without its zone or of no year that is lived in."""
    if at is None:
        return datetime.now(UTC)
    if at.tzinfo is None or not FIRST_YEAR <= at.year <= LAST_YEAR:
        raise GondolaError("Give the moment with its zone, in a year that is lived in.", "at")
    return at


def _room_for_one(scene: Scene) -> None:
    if scene.entries.count() >= MOST_ENTRIES:
        raise GondolaError(f"The log of a scene keeps {MOST_ENTRIES} entries; this one is full.", "")


def bring_photograph(
    *, scene: Scene, name: str, content: bytes, place: EntryPlace | None = None
) -> tuple[Entry, list[str]]:
    """Keep a photograph; what was done with it is said."""
    picture = apart(read_picture, content, what=f"the photograph '{safe_name(name)}'")
    return _keep(scene, safe_name(name), picture, place)


@transaction.atomic
def _keep(scene: Scene, name: str, picture: Picture, place: EntryPlace | None) -> tuple[Entry, list[str]]:
    _room_for_one(scene)
    digest = hashlib.sha256(picture.original).hexdigest()
    entry = Entry.objects.create(
        owner=scene.owner, scene=scene, kind=Entry.Kind.PHOTOGRAPH, at=picture.taken_at or datetime.now(UTC), text="",
        x_mm=place.x_mm if place else None, depth_mm=place.depth_mm if place else None,
        behind_mm=place.behind_mm if place else None,
    )
    Photograph.objects.create(
        entry=entry, name=name, form=picture.form, digest=digest, bytes_count=len(picture.original),
        width_px=picture.width_px, height_px=picture.height_px, small=picture.small,
    )
    write_original(digest, picture.original)
    index(entry)
    said = [CAMERA_TOLD if picture.taken_at is not None else CAMERA_SILENT]
    if picture.located:
        said.append("Where it was taken is left out.")
    return entry, said


def file_of(digest: str) -> Path:
    """Where an original lies."""
    return originals.place_of(Path(settings.DATA), digest)


def write_original(digest: str, content: bytes) -> None:
    """Whole or not at all, and readable by nobody else."""
    path = file_of(digest)
    if path.exists():
        return
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    partly = path.with_suffix(f".{os.getpid()}.part")
    with os.fdopen(os.open(partly, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
        out.write(content)
        out.flush()
        os.fsync(out.fileno())
    partly.replace(path)


@transaction.atomic
def move(*, entry: Entry, moved: EntryMoved) -> Entry:
    """Another place, moment, text, or the corners of a photograph."""
    if moved.text is not None:
        entry.text = moved.text.strip()
    if moved.at is not None:
        entry.at = _moment(moved.at)
    if moved.place is not None:
        entry.x_mm, entry.depth_mm, entry.behind_mm = moved.place.x_mm, moved.place.depth_mm, moved.place.behind_mm
    if moved.corners is not None:
        if any(not -0.5 <= one <= 1.5 for corner in moved.corners for one in corner):
            raise GondolaError("A corner lies far outside the photograph: click the four of the piece.", "corners")
        entry.body = {**entry.body, "corners": moved.corners}
    entry.save()
    index(entry)
    return entry


@transaction.atomic
def take_back(*, entry: Entry, back: bool) -> Entry:
    """Not shown and not found any more, or shown again; nothing is deleted."""
    entry.taken_back_at = datetime.now(UTC) if back else None
    entry.save(update_fields=["taken_back_at"])
    index(entry)
    return entry


def words_of(entry: Entry) -> str:
    """All words that an entry is found by."""
    fault = entry.body.get("fault", {}).get("kind", "")
    pins = " ".join(str(one["key"]) for one in entry.body.get("pins", []))
    name = entry.photograph.name if entry.kind == Entry.Kind.PHOTOGRAPH and hasattr(entry, "photograph") else ""
    return " ".join([entry.text, FAULT_NAMES.get(fault, ""), pins, name])


def index(entry: Entry) -> None:
    """Bring the search up to date with one entry."""
    with connection.cursor() as cursor:
        cursor.execute("DELETE FROM log_search WHERE rowid = %s", [entry.pk])
        if entry.taken_back_at is None:
            cursor.execute("INSERT INTO log_search(rowid, words) VALUES (%s, %s)", [entry.pk, words_of(entry)])


def search(*, user: Any, asked: str, kinds: Sequence[str] = ()) -> list[FoundEntry]:
    """Entries of all scenes that one sees by words that are in them or begin so, the best first; else the newest."""
    # each term is quoted: nothing of what was typed is a command of the search
    match = " ".join(f'"{term}"*' for term in re.findall(r"\w+", asked)[:12])
    seen = list(scenes_for(user).values_list("pk", flat=True))
    which, values = "e.scene_id IN (SELECT value FROM json_each(%s)) AND e.taken_back_at IS NULL", [json.dumps(seen)]
    if kinds:
        which += f" AND e.kind IN ({', '.join(['%s'] * len(kinds))})"
        values += list(kinds)
    sql = f"SELECT e.id, '' FROM log_entry e WHERE {which} ORDER BY e.at DESC LIMIT {MOST_FOUND}"
    if match:
        sql = (
            "SELECT e.id, snippet(log_search, 0, '', '', '...', 14) "
            "FROM log_search s JOIN log_entry e ON e.id = s.rowid "
            f"WHERE log_search MATCH %s AND {which} ORDER BY rank LIMIT {MOST_FOUND}"
        )
        values = [match, *values]
    with connection.cursor() as cursor:
        cursor.execute(sql, values)
        found = cursor.fetchall()
    told = Entry.objects.select_related("scene", "photograph").defer("photograph__small")
    rows = told.in_bulk([one for one, _ in found])
    return [
        FoundEntry(**state_of(rows[key]).dict(), scene_id=rows[key].scene_id, scene_name=rows[key].scene.name,
                   snippet=snippet)
        for key, snippet in found if key in rows
    ]


def met_again(*, user: Any, scene: Scene | None, document: SceneDocument) -> list[FoundEntry]:
    """Lessons of the other scenes that one sees that are pinned to what this plan uses."""
    used = uses_of(document)
    lessons = Entry.objects.filter(kind=Entry.Kind.LESSON, taken_back_at=None)
    rows = lessons.filter(scene__in=scenes_for(user)).select_related("scene")
    if scene is not None:
        rows = rows.exclude(scene=scene)
    return [
        FoundEntry(**state_of(one).dict(), scene_id=one.scene_id, scene_name=one.scene.name, snippet="")
        for one in rows.order_by("-at")[:500]
        if any((pin["kind"], pin["key"]) in used for pin in one.body.get("pins", []))
    ]


def uses_of(document: SceneDocument) -> set[tuple[str, str]]:
    """What a plan uses that a lesson may be pinned to."""
    poured = {pour.resin_id for pour in document.pours}
    tints = {dose.colourant_id for pour in document.pours for dose in pour.doses}
    holds = {("figure", figure.holding) for figure in document.figures}
    return {
        *(("resin", one) for one in poured), *(("colourant", one) for one in tints),
        ("dam", document.tank.wall.material.id), ("habit", document.brief.habits.measures), *holds,
    }
