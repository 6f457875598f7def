"""Reads an archive back: all of it or nothing, beside what is there already."""

from __future__ import annotations

import base64
import hashlib
import json
import uuid
import zipfile
import zlib
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from bench.models import Run, RunEvent
from django.contrib.auth.models import User
from django.core.exceptions import ObjectDoesNotExist
from django.db import transaction
from learning.models import Bottle, BottleLog
from library.actions import keep_row, keep_usual
from library.models import OwnRow, UsualAnswers
from log.actions import index, write_original
from log.models import Entry, Photograph
from log.pictures import read_picture, safe_name
from look.models import Still
from scenes.actions import pack
from scenes.models import Revision, Scene, Variant
from shapes.actions import keep_packed
from stock.models import StockBook
from studio.apart import apart

from gondola_core.bench.events import read_events
from gondola_core.errors import GondolaError
from gondola_core.scene import read_scene
from gondola_core.shape.bodies.mesh import pack_mesh, unpack_mesh
from gondola_core.studies.begin import Usual

from . import rows

MOST_FILES = 200_000
LARGEST_PART = 256 * 2**20
"""bytes of one file in an archive, unpacked"""
LARGEST_WHOLE = 2 * 2**30
"""bytes of all of it, unpacked"""
NOT_OURS = "This is no archive of Gondola: bring the ZIP file that `export` or the account page made."
UNREADABLE = (zipfile.BadZipFile, zlib.error, RuntimeError)
"""What `zipfile` raises of a file in it: damaged, packed in a way that it does not know, or locked by a password."""
CHANGED = "The archive is not whole, or was changed by hand: {}. Nothing was taken in."


class Parts:
    """The files of an archive, read within limits; nothing is ever unpacked to a path that it names."""

    def __init__(self, opened: zipfile.ZipFile) -> None:
        files = opened.infolist()
        if len(files) > MOST_FILES or sum(one.file_size for one in files) > LARGEST_WHOLE:
            raise GondolaError("This archive holds more than is taken in at once: export fewer scenes.", "file")
        self._opened, self.names = opened, {one.filename for one in files}

    def bytes(self, name: str) -> bytes:
        """A file; what a ZIP says of its size is not believed."""
        try:
            with self._opened.open(name) as part:
                content = part.read(LARGEST_PART + 1)
        except UNREADABLE:
            raise GondolaError(NOT_OURS, "file") from None
        if len(content) > LARGEST_PART:
            raise GondolaError(f"{name} in this archive is over {LARGEST_PART // 2**20} MB.", "file")
        return content

    def json(self, name: str) -> Any:
        """A file of JSON."""
        return json.loads(self.bytes(name))


def bring_archive(owner: User, file: Path) -> list[str]:
    """Read an archive, then take it in at one stroke; what was done, in sentences. GondolaError: nothing was."""
    try:
        with zipfile.ZipFile(file) as opened:
            parts = Parts(opened)
            told = parts.json("archive.json")
            if told["form"] != rows.FORM:
                raise GondolaError("This archive was made by another Gondola: bring it in there.", "file")
            ready = _read(parts)
        with transaction.atomic():
            return _store(owner, ready)
    except zipfile.BadZipFile:
        raise GondolaError(NOT_OURS, "file") from None
    except KeyError as error:
        missing = str(error)
        raise GondolaError(NOT_OURS if "archive.json" in missing else CHANGED.format(missing[:120]), "file") from None
    except (ValueError, TypeError, AttributeError, zlib.error, ObjectDoesNotExist) as error:
        raise GondolaError(CHANGED.format(str(error)[:120] or "a part cannot be read"), "file") from None


@dataclass
class Ready:
    """An archive that was read whole, so that nothing is computed while others wait to write."""

    shapes: list[dict[str, Any]]
    shelf: dict[str, Any]
    scenes: list[dict[str, Any]]


def _read(parts: Parts) -> Ready:
    shapes = [
        {**one, "packed": pack_mesh(unpack_mesh(base64.b64decode(one["packed_base64"])))}
        for one in parts.json("shapes.json")
    ]
    scenes = []
    while f"scenes/{len(scenes) + 1}/scene.json" in parts.names:
        scenes.append(_read_scene(parts, f"scenes/{len(scenes) + 1}"))
    return Ready(shapes, parts.json("shelf.json"), scenes)


def _read_scene(parts: Parts, where: str) -> dict[str, Any]:
    told = parts.json(f"{where}/scene.json")
    for one in told["revisions"]:
        document = read_scene(parts.bytes(f"{where}/revisions/{int(one['number'])}.json"))
        one["row"], one["packed"] = rows.read(one, rows.REVISION), pack(document)
    for one in told["entries"]:
        one["row"], one["picture"] = rows.read(one, rows.ENTRY), _read_photograph(parts, one["photograph"])
    for one in told["runs"]:
        one["row"], one["packed"] = rows.read(one, rows.RUN), pack(read_scene(json.dumps(one["plan"])))
        one["bodies"] = read_events([event["body"] for event in one["events"]])
    for one in told["stills"]:
        one["row"], one["png"] = rows.read(one, rows.STILL), parts.bytes(one["file"])
    return dict(told)


def _read_photograph(parts: Parts, told: dict[str, Any] | None) -> dict[str, Any] | None:
    """The original is written at once: what no entry names is taken away later."""
    if told is None or f"photographs/{told['digest']}" not in parts.names:
        return None
    content = parts.bytes(f"photographs/{told['digest']}")
    if hashlib.sha256(content).hexdigest() != told["digest"]:
        raise ValueError(f"the photograph {told['name']} is not as it was written")
    picture = apart(read_picture, content, what=f"the photograph '{safe_name(told['name'])}'")
    write_original(told["digest"], content)
    return {
        "name": safe_name(told["name"]), "form": picture.form, "digest": told["digest"], "bytes_count": len(content),
        "width_px": picture.width_px, "height_px": picture.height_px, "small": picture.small,
    }


def _store(owner: User, ready: Ready) -> list[str]:
    for one in ready.shapes:
        keep_packed(
            owner=owner, packed=one["packed"], name=str(one["name"]), triangles=int(one["triangles_count"]),
            spread_ml=float(one["spread_ml"]),
        )
    words = _shelf(owner, ready.shelf)
    for told in ready.scenes:
        _scene(owner, told)
    return [f"{len(ready.scenes)} pieces were taken in, each with its revisions, log and runs.", *words]


def _shelf(owner: User, told: dict[str, Any]) -> list[str]:
    """Rows of one's own; those that are here already under the same key stay as they are here."""
    there = set(OwnRow.objects.filter(owner=owner).values_list("kind", "key"))
    kept_back = [one["key"] for one in told["rows"] if (one["kind"], one["key"]) in there]
    for one in told["rows"]:
        if (one["kind"], one["key"]) not in there:
            keep_row(owner=owner, kind=one["kind"], body=one["body"], source=one["source"])
    if told["usual"] is not None and not UsualAnswers.objects.filter(owner=owner).exists():
        keep_usual(owner=owner, usual=Usual.model_validate(told["usual"]))
    if told["stock"] is not None and not StockBook.objects.filter(owner=owner).exists():
        StockBook.objects.create(owner=owner, **rows.read(told["stock"], rows.STOCK))
    for one in told["bottles"]:
        bottle, made = Bottle.objects.get_or_create(
            owner=owner, kind=one["kind"], key=one["key"], defaults=rows.read(one, rows.BOTTLE)
        )
        if made:
            BottleLog.objects.bulk_create(
                BottleLog(bottle=bottle, **rows.read(log, rows.BOTTLE_LOG)) for log in one["logs"]
            )
    return [f"Your own row '{key}' was here already and stays as it is here." for key in kept_back]


def _scene(owner: User, told: dict[str, Any]) -> None:
    scene = Scene.objects.create(owner=owner, name=str(told["name"])[:80])
    numbers: dict[int, Revision] = {}
    for one in told["revisions"]:
        row = one["row"]
        made = Revision.objects.create(
            scene=scene, number=row["number"], note=str(row["note"])[:120], kept_aside=bool(row["kept_aside"]),
            parent=numbers.get(one["parent"]), packed=one["packed"],
        )
        Revision.objects.filter(pk=made.pk).update(created_at=row["created_at"])
        numbers[made.number] = made
    for one in told["variants"]:
        Variant.objects.create(scene=scene, name=one["name"], head=numbers[one["head"]], tip=numbers[one["tip"]])
    scene.variants.get(name="plan")
    for one in told["entries"]:
        _entry(owner, scene, one)
    for one in told["runs"]:
        _run(owner, scene, one)
    for one in told["stills"]:
        still = Still.objects.create(scene=scene, job_id=uuid.uuid4(), png=one["png"], **_without(one["row"]))
        Still.objects.filter(pk=still.pk).update(made_at=one["row"]["made_at"])


def _without(row: dict[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in row.items() if key != "made_at"}


def _entry(owner: User, scene: Scene, told: dict[str, Any]) -> None:
    row = told["row"]
    if row["kind"] not in Entry.Kind.values:
        raise ValueError(f"'{row['kind']}' is no kind of entry")
    entry = Entry.objects.create(owner=owner, scene=scene, **_without(row))
    Entry.objects.filter(pk=entry.pk).update(made_at=row["made_at"])
    if told["picture"] is not None:
        Photograph.objects.create(entry=entry, **told["picture"])
    index(entry)


def _run(owner: User, scene: Scene, told: dict[str, Any]) -> None:
    run = Run.objects.create(id=_free(told["id"]), owner=owner, scene=scene, packed=told["packed"], **told["row"])
    RunEvent.objects.bulk_create(
        RunEvent(run=run, number=one["number"], event_id=event.id, body=event.model_dump(mode="json"))
        for one, event in zip(told["events"], told["bodies"], strict=True)
    )


def _free(told: str) -> uuid.UUID:
    """The id that a run had, unless it is here already."""
    wanted = uuid.UUID(told)
    return uuid.uuid4() if Run.objects.filter(pk=wanted).exists() else wanted
