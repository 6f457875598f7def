"""What can be done with library rows. Each is one transaction."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from pydantic import BaseModel, ValidationError

from gondola_core.errors import SceneError
from gondola_core.materials import Colourant, Resin, SolidMaterial, load_library
from gondola_core.materials.library import read_rows, read_sources
from gondola_core.scene import problems_of

from .models import OwnRow
from .schemas import Shelf, ShelfNote

MODELS: dict[str, type[BaseModel]] = {
    "resin": Resin, "colourant": Colourant, "solid": SolidMaterial,
}
_TABLES = {"resin": "resins", "colourant": "colourants", "solid": "solids"}


def shelf_of(*, owner: Any) -> Shelf:
    """All materials: the generic ones, the owner's own in their place or beside them."""
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
        rows[own.kind][own.key] = MODELS[own.kind].model_validate(own.body)
        notes[(own.kind, own.key)] = ShelfNote(
            kind=own.kind, id=own.key, own=True, source=own.source
        )
    return Shelf(
        resins=list(rows["resin"].values()), colourants=list(rows["colourant"].values()),
        solids=list(rows["solid"].values()), notes=list(notes.values()),
        uses=library.uses,
    )


@transaction.atomic
def keep_row(*, owner: Any, kind: str, body: dict[str, Any], source: str) -> str:
    """Keep a row of one's own; SceneError names a field that is out of its range."""
    model = MODELS[kind]
    try:
        row = model.model_validate(body)
    except ValidationError as flaws:
        raise SceneError(problems_of(flaws.errors(), model)) from None
    dumped = row.model_dump(mode="json")
    OwnRow.objects.update_or_create(
        owner=owner, kind=kind, key=dumped["id"], defaults={"body": dumped, "source": source[:300]}
    )
    return str(dumped["id"])


@transaction.atomic
def drop_row(*, owner: Any, kind: str, key: str) -> bool:
    """Back to the generic row; False if there was none of one's own."""
    return OwnRow.objects.filter(owner=owner, kind=kind, key=key).delete()[0] > 0
