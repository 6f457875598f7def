"""Reads an archive, without the database: within limits, so that it may be done in a process of its own."""

from __future__ import annotations

import base64
import json
import zipfile
import zlib
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from scenes.packed import damaged_bytes, pack_text

from gondola_core.bench.events import kept_events
from gondola_core.errors import GondolaError
from gondola_core.parsed import parsed
from gondola_core.scene import MeshSolid
from gondola_core.scene.reading import read_as
from gondola_core.shape.bodies.mesh import mesh_id_of, pack_mesh, unpack_mesh

from . import rows

MOST_FILES = 200_000
LARGEST_PART = 256 * 2**20
"""bytes of one file in an archive, unpacked"""
LARGEST_WHOLE = 2 * 2**30
"""bytes of all of it, unpacked"""
MOST_VALUES = 40_000_000
"""Of one file of JSON: what bottles have learnt holds every log that taught them, whose commas count; a process that
reads apart has its memory for a limit besides. Source: assumed"""
NOT_OURS = "This is no archive of Gondola: bring the ZIP file that `export` or the account page made."
UNREADABLE = (zipfile.BadZipFile, zlib.error, RuntimeError)
"""What `zipfile` raises of a file in it: damaged, packed in a way that it does not know, or locked by a password."""
CHANGED = "The archive is not whole, or was changed by hand: {}. Nothing was taken in."
CHANGED_BY = (ValueError, TypeError, AttributeError, OverflowError, zlib.error)
"""What is raised by a value that no archive of ours holds at its place."""


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
        """A file of JSON, counted before it is read."""
        try:
            return parsed(self.bytes(name), MOST_VALUES)
        except GondolaError as error:
            raise GondolaError(CHANGED.format(f"{name}: {error.message.rstrip('.')}"), "file") from None


@dataclass(frozen=True, slots=True)
class Ready:
    """An archive that was read whole, but for its pictures, so that nothing is computed while others wait to write."""

    shapes: list[dict[str, Any]]
    shelf: dict[str, Any]
    scenes: list[dict[str, Any]]


def read_archive(file: Path) -> Ready:
    """What an archive holds. GondolaError where it is none of ours, or was changed."""
    try:
        with zipfile.ZipFile(file) as opened:
            return _read(Parts(opened))
    except zipfile.BadZipFile:
        raise GondolaError(NOT_OURS, "file") from None
    except KeyError as error:
        missing = str(error)
        raise GondolaError(NOT_OURS if "archive.json" in missing else CHANGED.format(missing[:120]), "file") from None
    except CHANGED_BY as error:
        raise GondolaError(CHANGED.format(str(error)[:120] or "a part cannot be read"), "file") from None


def _read(parts: Parts) -> Ready:
    if parts.json("archive.json")["form"] != rows.FORM:
        raise GondolaError("This archive was made by another Gondola: bring it in there.", "file")
    shapes = [_read_shape(one) for one in parts.json("shapes.json")]
    scenes = []
    while f"scenes/{len(scenes) + 1}/scene.json" in parts.names:
        scenes.append(_read_scene(parts, f"scenes/{len(scenes) + 1}"))
    return Ready(shapes, parts.json("shelf.json"), scenes)


def _read_shape(told: dict[str, Any]) -> dict[str, Any]:
    mesh = unpack_mesh(base64.b64decode(told["packed_base64"]))
    if told["triangles_count"] != len(mesh.faces):
        raise ValueError("a shape has other triangles than it says")
    packed = pack_mesh(mesh)
    # figures say the spread of their shapes: one that they could not say is refused here
    read_as(MeshSolid, {"kind": "mesh", "mesh_id": mesh_id_of(packed), "spread_ml": told["spread_ml"]})
    return {**told, "packed": packed}


def _read_scene(parts: Parts, where: str) -> dict[str, Any]:
    told = parts.json(f"{where}/scene.json")
    for one in told["revisions"]:
        one["row"] = rows.read(one, rows.REVISION)
        one["packed"] = _state(parts, f"{where}/revisions/{int(one['number'])}", damaged=one.get("damaged") is True)
    told["days"] = _days(told)
    for one in told["entries"]:
        one["row"] = rows.read(one, rows.ENTRY)
    for one in told["runs"]:
        one["row"], one["packed"] = rows.read(one, rows.RUN), _plan(one)
        one["bodies"] = kept_events([event["body"] for event in one["events"]])
    for one in told["stills"]:
        one["row"] = rows.read(one, rows.STILL)
    return dict(told)


def _days(told: dict[str, Any]) -> dict[str, Any]:
    """When a piece was begun and last changed; by its states where an older archive does not say."""
    if "changed_at" in told:
        return rows.read(told, rows.SCENE)
    moments = [one["row"]["created_at"] for one in told["revisions"]]
    if not moments:
        raise ValueError("a piece has no state")
    return {"created_at": min(moments), "changed_at": max(moments)}


def _state(parts: Parts, where: str, *, damaged: bool) -> bytes:
    return damaged_bytes(parts.bytes(f"{where}.damaged")) if damaged else pack_text(parts.bytes(f"{where}.json"))


def _plan(run: dict[str, Any]) -> bytes:
    plan = run.pop("plan")
    return pack_text(json.dumps(plan).encode()) if plan else damaged_bytes(base64.b64decode(run["damaged_base64"]))
