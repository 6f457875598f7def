"""Takes an archive in: all of it or nothing, beside what is there already, and while others work on."""

from __future__ import annotations

import hashlib
import uuid
import zipfile
from collections.abc import Callable, Iterable
from datetime import UTC, datetime
from itertools import islice
from pathlib import Path
from typing import Any, TypeVar

from bench.actions import check_clock
from bench.models import Run, RunEvent
from django.contrib.auth.models import User
from django.core.exceptions import ObjectDoesNotExist
from django.db import IntegrityError, transaction
from learning.actions import check_kept, check_log
from learning.models import Bottle, BottleLog
from library.actions import keep_row, keep_usual, usual_from
from library.models import OwnRow, UsualAnswers
from log.actions import index, state_of, write_original
from log.models import Entry, Photograph
from log.pictures import read_picture, safe_name
from look.models import Still
from scenes.models import Revision, Scene, Variant
from shapes.actions import keep_packed
from shapes.models import Mesh
from stock.models import StockBook
from studio.apart import apart

from gondola_core.errors import GondolaError, SceneError

from ..tidying import delete_scene
from . import rows
from .reading import CHANGED, CHANGED_BY, Parts, Ready, read_archive

T = TypeVar("T")
MANY, FEW = 100, 2
"""Rows, and shapes or pictures, that are stored in one transaction: some tenth of a second. Source: assumed"""
MOST_PICTURES = 512 * 2**20
"""bytes of all stills of an archive: they are stored as they are. Source: assumed"""


def bring_archive(owner: User, file: Path, read: Callable[[Path], Ready] = read_archive) -> list[str]:
    """Read an archive, then take it in; what was done, in sentences. GondolaError: nothing was.

    read  `read_archive`, here or in a process of its own
    """
    ready = read(file)
    try:
        with zipfile.ZipFile(file) as opened:
            _with_pictures(Parts(opened), ready)
        return _store(owner, ready)
    except KeyError as error:
        raise GondolaError(CHANGED.format(str(error)[:120]), "file") from None
    except IntegrityError:
        raise GondolaError(CHANGED.format("something stands in it twice"), "file") from None
    except (*CHANGED_BY, ObjectDoesNotExist) as error:
        raise GondolaError(CHANGED.format(str(error)[:120] or "a part cannot be read"), "file") from None


def _with_pictures(parts: Parts, ready: Ready) -> None:
    """Photographs and stills, which are read one at a time."""
    left = MOST_PICTURES
    for told in ready.scenes:
        for one in told["entries"]:
            one["picture"] = _read_photograph(parts, one["photograph"])
        for one in told["stills"]:
            one["png"] = parts.bytes(one["file"])
            left -= len(one["png"])
            if left < 0:
                raise GondolaError("The stills of this archive are more than is taken in: export fewer.", "file")


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
    """In steps, so that others write between them: pieces are hidden, as deleted ones are, until all of it is there."""
    hidden, shapes = list[Scene](), list[str]()
    known = set(Mesh.objects.filter(owner=owner).values_list("key", flat=True))
    try:
        _in_steps(ready.shapes, lambda one: shapes.append(keep_packed(
            owner=owner, packed=one["packed"], name=str(one["name"]), triangles=int(one["triangles_count"]),
            spread_ml=float(one["spread_ml"]),
        )), FEW)
        for told in ready.scenes:
            hidden.append(Scene.objects.create(
                owner=owner, name=str(told["name"])[:80], gone_at=datetime.now(UTC), coming=True,
            ))
            _fill(hidden[-1], told)
        with transaction.atomic():
            words = _shelf(owner, ready.shelf)
            Scene.objects.filter(pk__in=[one.pk for one in hidden]).update(gone_at=None, coming=False)
    except BaseException:
        for scene in hidden:
            delete_scene(scene)
        Mesh.objects.filter(owner=owner, key__in=set(shapes) - known).delete()
        raise
    words += [
        f"State {one['number']} of '{told['name']}' is damaged: it is kept as it came, and nobody can open it."
        for told in ready.scenes for one in told["revisions"] if one.get("damaged")
    ]
    return [f"{len(ready.scenes)} pieces were taken in, each with its revisions, log and runs.", *words]


def _in_steps(rows: Iterable[T], store: Callable[[T], object], count: int = MANY) -> None:
    """Store each of them, so many in a transaction."""
    left = iter(rows)
    while some := list(islice(left, count)):
        with transaction.atomic():
            for one in some:
                store(one)


def _shelf(owner: User, told: dict[str, Any]) -> list[str]:
    """Rows of one's own; those that are here already under the same key stay as they are here."""
    there = set(OwnRow.objects.filter(owner=owner).values_list("kind", "key"))
    words = []
    for one in told["rows"]:
        if (one["kind"], one["key"]) in there:
            words.append(f"Your own row '{one['key']}' was here already and stays as it is here.")
            continue
        try:
            keep_row(owner=owner, kind=one["kind"], body=one["body"], source=one["source"])
        except SceneError as flaw:
            words.append(f"Your own row '{one['key']}' is no longer taken, and was left out: {flaw.message}")
    if told["usual"] is not None and not UsualAnswers.objects.filter(owner=owner).exists():
        keep_usual(owner=owner, usual=usual_from(told["usual"]))
    if told["stock"] is not None and not StockBook.objects.filter(owner=owner).exists():
        rows.made(StockBook, owner=owner, **rows.read(told["stock"], rows.STOCK)).save()
    for one in told["bottles"]:
        bottle = rows.made(Bottle, owner=owner, **rows.read(one, rows.BOTTLE))
        if not Bottle.objects.filter(owner=owner, kind=bottle.kind, key=bottle.key).exists():
            check_kept(bottle)
            bottle.save()
            BottleLog.objects.bulk_create([_bottle_log(bottle, log) for log in one["logs"]])
    return words


def _bottle_log(bottle: Bottle, told: dict[str, Any]) -> BottleLog:
    log = rows.made(BottleLog, bottle=bottle, **rows.read(told, rows.BOTTLE_LOG))
    check_log(log)
    return log


def _fill(scene: Scene, told: dict[str, Any]) -> None:
    numbers: dict[int, Revision] = {}
    _in_steps(told["revisions"], lambda one: _revision(scene, numbers, one))
    _in_steps(told["entries"], lambda one: _entry(scene, one))
    for one in told["runs"]:
        _run(scene, one)
    _in_steps(told["stills"], lambda one: _still(scene, one), FEW)
    _in_steps(told["variants"], lambda one: rows.made(
        Variant, scene=scene, name=one["name"], head=numbers[one["head"]], tip=numbers[one["tip"]],
    ).save())
    scene.variants.get(name="plan")
    # its days are those that it has had, so that what was worked on last stands first
    Scene.objects.filter(pk=scene.pk).update(**told["days"])


def _revision(scene: Scene, numbers: dict[int, Revision], told: dict[str, Any]) -> None:
    row = told["row"]
    made = rows.made(
        Revision, scene=scene, number=row["number"], note=row["note"], kept_aside=row["kept_aside"],
        parent=numbers.get(told["parent"]), packed=told["packed"],
    )
    made.save()
    Revision.objects.filter(pk=made.pk).update(created_at=row["created_at"])
    numbers[made.number] = made


def _still(scene: Scene, told: dict[str, Any]) -> None:
    still = rows.made(Still, scene=scene, job_id=uuid.uuid4(), png=told["png"], **_without(told["row"]))
    still.save()
    Still.objects.filter(pk=still.pk).update(made_at=told["row"]["made_at"])


def _without(row: dict[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in row.items() if key != "made_at"}


def _entry(scene: Scene, told: dict[str, Any]) -> None:
    row = told["row"]
    entry = rows.made(Entry, owner=scene.owner, scene=scene, **_without(row))
    entry.save()
    Entry.objects.filter(pk=entry.pk).update(made_at=row["made_at"])
    if told["picture"] is not None:
        rows.made(Photograph, entry=entry, **told["picture"]).save()
    try:
        state_of(entry)
    except (*CHANGED_BY, KeyError) as error:
        raise ValueError(f"an entry could not be shown: {str(error).partition(chr(10))[0]}") from None
    index(entry)


def _run(scene: Scene, told: dict[str, Any]) -> None:
    run = rows.made(Run, id=_free(told["id"]), owner=scene.owner, scene=scene, packed=told["packed"], **told["row"])
    check_clock(run)
    run.save()
    events = zip(told["events"], told["bodies"], strict=True)
    while some := list(islice(events, 10 * MANY)):
        with transaction.atomic():
            RunEvent.objects.bulk_create([
                rows.made(
                    RunEvent, run=run, number=one["number"], event_id=event.id, body=event.model_dump(mode="json")
                ) for one, event in some
            ])


def _free(told: str) -> uuid.UUID:
    """The id that a run had, unless it is here already."""
    wanted = uuid.UUID(told)
    return uuid.uuid4() if Run.objects.filter(pk=wanted).exists() else wanted
