"""Writes the archive."""

from __future__ import annotations

import base64
import json
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.db import connection
from library.models import UsualAnswers
from log.actions import file_of
from log.models import Entry
from scenes.actions import file_text
from scenes.models import Scene
from scenes.packed import text_of
from shapes.models import Mesh
from stock.models import StockBook

from gondola_core.errors import SceneError

from . import rows

README = """This is all that one person keeps in Gondola.

scenes/N/scene.gondola.json   the piece as it stands, with its shapes: `gondola evaluate` reads it alone
scenes/N/revisions/           every state of it that is kept, each a scene document; one that is damaged as it is kept
scenes/N/scene.json           which revision is shown, the plans kept beside it, its log, its runs, its stills
photographs/                  originals, by the SHA-256 of their bytes
shapes.json                   meshes, packed as docs/scene-format.md says
shelf.json                    own resins, colourants, solids; stock; what bottles have learnt
"""


DAMAGED = "{what} of '{name}' is damaged: it is in the archive as it is kept here, and nobody can open it."


@contextmanager
def one_moment() -> Iterator[None]:
    """What is read within it is of one moment; others write on meanwhile, which an atomic block here would not let."""
    if connection.in_atomic_block:
        yield
        return
    with connection.cursor() as cursor:
        cursor.execute("BEGIN DEFERRED")
        try:
            yield
        finally:
            cursor.execute("COMMIT")


def write_archive(owner: User, to: Path) -> list[str]:
    """All of it, as of one moment, as a ZIP; what of it is damaged and goes along as it is kept, in sentences."""
    words: list[str] = []
    with one_moment(), zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("README.txt", README)
        _json(out, "shelf.json", _shelf(owner))
        _json(out, "shapes.json", [
            {"key": one.key, "name": one.name, "spread_ml": one.spread_ml, "triangles_count": one.triangles_count,
             "packed_base64": base64.b64encode(one.packed).decode()}
            for one in Mesh.objects.filter(owner=owner)
        ])
        written: set[str] = set()
        for at, scene in enumerate(Scene.objects.filter(owner=owner, gone_at=None).order_by("pk"), start=1):
            words += _scene(out, f"scenes/{at}", scene, written)
        _json(out, "archive.json", {
            "form": rows.FORM, "name": owner.get_username(), "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
            "damaged": words,
        })
    return words


def _json(out: zipfile.ZipFile, name: str, body: Any) -> None:
    out.writestr(name, json.dumps(body, indent=1))


def _shelf(owner: User) -> dict[str, Any]:
    usual = UsualAnswers.objects.filter(owner=owner).first()
    stock = StockBook.objects.filter(owner=owner).first()
    bottles = owner.bottles.prefetch_related("logs")
    return {
        "rows": [rows.told(one, rows.SHELF) for one in owner.library_rows.all()],
        "usual": usual.body if usual else None,
        "stock": rows.told(stock, rows.STOCK) if stock else None,
        "bottles": [
            {**rows.told(one, rows.BOTTLE), "logs": [rows.told(log, rows.BOTTLE_LOG) for log in one.logs.all()]}
            for one in bottles
        ],
    }


def _scene(out: zipfile.ZipFile, where: str, scene: Scene, written: set[str]) -> list[str]:
    variants = list(scene.variants.select_related("head", "tip"))
    with suppress(SceneError):
        out.writestr(f"{where}/scene.gondola.json", file_text(scene))
    damaged = _revisions(out, where, scene)
    runs = [_run(one) for one in scene.runs.prefetch_related("events")]
    parents = dict(scene.revisions.values_list("number", "parent__number"))
    _json(out, f"{where}/scene.json", {
        "name": scene.name,
        **rows.told(scene, rows.SCENE),
        "revisions": [
            {**rows.told(one, rows.REVISION), "parent": parents[one.number], "damaged": one.number in damaged}
            for one in scene.revisions.defer("packed").order_by("number")
        ],
        "variants": [{"name": one.name, "head": one.head.number, "tip": one.tip.number} for one in variants],
        "entries": [_entry(out, one, written) for one in scene.entries.select_related("photograph")],
        "runs": runs,
        "stills": [_still(out, where, one) for one in scene.stills.all()],
    })
    words = [DAMAGED.format(what=f"State {number}", name=scene.name) for number in damaged]
    words += [DAMAGED.format(what="The plan of a run", name=scene.name) for one in runs if one["plan"] is None]
    return words


def _revisions(out: zipfile.ZipFile, where: str, scene: Scene) -> list[int]:
    """Every state that is kept; which of them are damaged."""
    damaged = []
    for one in scene.revisions.order_by("number").iterator(chunk_size=50):
        try:
            out.writestr(f"{where}/revisions/{one.number}.json", text_of(one.packed))
        except SceneError:
            out.writestr(f"{where}/revisions/{one.number}.damaged", one.packed)
            damaged.append(one.number)
    return damaged


def _entry(out: zipfile.ZipFile, entry: Entry, written: set[str]) -> dict[str, Any]:
    kept = getattr(entry, "photograph", None)
    if kept is not None and kept.digest not in written and file_of(kept.digest).is_file():
        out.write(file_of(kept.digest), f"photographs/{kept.digest}", zipfile.ZIP_STORED)
        written.add(kept.digest)
    picture = None if kept is None else {"name": kept.name, "digest": kept.digest}
    return {**rows.told(entry, rows.ENTRY), "photograph": picture}


def _run(run: Any) -> dict[str, Any]:
    try:
        plan = {"plan": json.loads(text_of(run.packed))}
    except SceneError:
        plan = {"plan": None, "damaged_base64": base64.b64encode(run.packed).decode()}
    return {
        **rows.told(run, rows.RUN), **plan, "id": str(run.pk),
        "events": [{"number": one.number, "body": one.body} for one in run.events.all()],
    }


def _still(out: zipfile.ZipFile, where: str, still: Any) -> dict[str, Any]:
    name = f"{where}/stills/{still.pk}.png"
    out.writestr(name, still.png, zipfile.ZIP_STORED)
    return {**rows.told(still, rows.STILL), "file": name}
