"""What can be done with library rows. Each is one transaction."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from django.db import transaction
from django.utils.text import slugify
from pydantic import BaseModel, ValidationError

from gondola_core.errors import SceneError
from gondola_core.materials import Colourant, Library, Resin, SolidMaterial, load_library
from gondola_core.materials.library import read_rows, read_sources
from gondola_core.scene import read_as
from gondola_core.studies.begin import Usual

from .models import OwnRow, UsualAnswers
from .schemas import Shelf, ShelfNote

MODELS: dict[str, type[BaseModel]] = {
    "resin": Resin, "colourant": Colourant, "solid": SolidMaterial,
}
_TABLES = {"resin": "resins", "colourant": "colourants", "solid": "solids"}


def shelf_of(*, owner: Any) -> Shelf:
    """All materials: the generic ones, the owner's own in their place or beside them.

    A row of one's own that was taken when it was kept and no longer is stays out, and is told with the reason.
    """
    library = load_library()
    rows: dict[str, dict[str, Any]] = {
        "resin": dict(library.resins), "colourant": dict(library.colourants),
        "solid": dict(library.solids),
    }
    sources = read_sources()
    notes = {
        (kind, row["id"]): ShelfNote(
            kind=kind, id=row["id"], own=False, source=sources[row["source"]]["title"]
        )
        for kind, table in _TABLES.items() for row in read_rows(table)
    }
    for own in OwnRow.objects.filter(owner=owner):
        refused = ""
        try:
            rows[own.kind][own.key] = row_from(own.kind, own.body)
        except SceneError as flaw:
            refused = flaw.message
        notes[(own.kind, own.key)] = ShelfNote(
            kind=own.kind, id=own.key, own=True, source=own.source, refused=refused
        )
    return Shelf(
        resins=list(rows["resin"].values()), colourants=list(rows["colourant"].values()),
        solids=list(rows["solid"].values()), notes=list(notes.values()),
        uses=library.uses,
    )


def row_from(kind: str, body: Any) -> Any:
    """A row from its fields. SceneError names one that is out of its range."""
    return read_as(MODELS[kind], body)


def key_of(name: str) -> str:
    """A key for a row of a name: its letters where they are plain ones, else with a hash, so that no two are one."""
    plain = slugify(name)[:40].strip("-")
    if plain and name.isascii():
        return plain
    told = hashlib.sha256(name.encode("utf-8", "surrogatepass")).hexdigest()[:8]
    return f"{plain[:31].strip('-') or 'own'}-{told}"


@transaction.atomic
def keep_row(*, owner: Any, kind: str, body: dict[str, Any], source: str) -> str:
    """Keep a row of one's own; SceneError names a field that is out of its range."""
    dumped = row_from(kind, body).model_dump(mode="json")
    OwnRow.objects.update_or_create(
        owner=owner, kind=kind, key=dumped["id"], defaults={"body": dumped, "source": source[:300]}
    )
    return str(dumped["id"])


@transaction.atomic
def drop_row(*, owner: Any, kind: str, key: str) -> bool:
    """Back to the generic row; False if there was none of one's own."""
    return OwnRow.objects.filter(owner=owner, kind=kind, key=key).delete()[0] > 0


def library_of(*, owner: Any) -> Library:
    """The rows that the owner chooses from, by id."""
    shelf = shelf_of(owner=owner)
    return Library(
        resins={one.id: one for one in shelf.resins}, colourants={one.id: one for one in shelf.colourants},
        solids={one.id: one for one in shelf.solids}, uses=shelf.uses,
    )


def usual_of(*, owner: Any) -> Usual:
    """What the owner has and does in every piece; the core's own answers until it was said."""
    kept = UsualAnswers.objects.filter(owner=owner).first()
    return Usual() if kept is None else usual_from(kept.body)


def usual_from(body: Any) -> Usual:
    """Such answers as they were kept; the core's own for what is no longer taken, which the page asks for anew.

    SceneError where they are no such answers at all.
    """
    try:
        return Usual.model_validate_json(json.dumps(body))
    except ValidationError as flaws:
        told = flaws.errors()
    left = {name: value for name, value in body.items() if name not in {flaw["loc"][0] for flaw in told if flaw["loc"]}}
    return read_as(Usual, left)


@transaction.atomic
def keep_usual(*, owner: Any, usual: Usual) -> None:
    """Remember it for the next piece."""
    UsualAnswers.objects.update_or_create(owner=owner, defaults={"body": usual.model_dump(mode="json")})
