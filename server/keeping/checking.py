"""Whether all that was entrusted is there and can be read: a sentence for each thing that is not."""

from __future__ import annotations

import sqlite3
import zlib
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

from studio import originals

from gondola_core.errors import GondolaError
from gondola_core.scene import read_scene

from .backup import photographs_of
from .folder import DATABASE

MOST_TOLD = 20
"""Findings of one kind that are told one by one."""


def broken_database(database: Path, quick: bool = False) -> str:
    """What SQLite finds wrong in a file; empty where nothing is."""
    try:
        with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as opened:
            rows = opened.execute(f"PRAGMA {'quick' if quick else 'integrity'}_check(5)").fetchall()
            told = [row[0] for row in rows if row[0] != "ok"]
            if not told:
                told = [f"a row of {row[0]} points at nothing" for row in opened.execute("PRAGMA foreign_key_check")]
    except sqlite3.DatabaseError as error:
        told = [str(error)]
    if not told:
        return ""
    return f"the database is damaged ({told[0]}). Restore the newest backup: `gondola restore`."


def check(folder: Path, quick: bool = False) -> list[str]:
    """All findings, as sentences; `quick` reads only what a person would open next."""
    database = folder / DATABASE
    if not database.exists():
        return []
    broken = broken_database(database, quick)
    if broken:
        return [f"Nothing can be trusted before this is mended: {broken}"]
    with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as opened:
        return [*_revisions(opened, quick), *_scenes(opened), *_photographs(folder, database)]


def _revisions(opened: sqlite3.Connection, quick: bool) -> Iterator[str]:
    """Documents that cannot be read any more, and shapes that they point at and nobody keeps."""
    which = "WHERE r.id IN (SELECT head_id FROM scenes_variant)" if quick else ""
    kept = {(owner, key) for owner, key in opened.execute("SELECT owner_id, key FROM shapes_mesh")}
    rows = opened.execute(
        "SELECT s.name, s.owner_id, r.number, r.packed, r.id IN (SELECT head_id FROM scenes_variant) "
        f"FROM scenes_revision r JOIN scenes_scene s ON s.id = r.scene_id {which}"
    )
    told = 0
    for name, owner, number, packed, shown in rows:
        try:
            document = read_scene(zlib.decompress(packed))
        except (zlib.error, GondolaError, ValueError) as error:
            told += 1
            if told <= MOST_TOLD:
                yield f"Revision {number} of {name} cannot be read: {error}"
            continue
        missing = [key for key in document.mesh_ids() if (owner, key) not in kept]
        if shown and missing:
            yield f"{name} points at a shape that is not kept any more ({missing[0]}): bring its file in again."
    if told > MOST_TOLD:
        yield f"And {told - MOST_TOLD} revisions more cannot be read."


def _scenes(opened: sqlite3.Connection) -> Iterator[str]:
    for (name,) in opened.execute(
        "SELECT name FROM scenes_scene WHERE id NOT IN (SELECT scene_id FROM scenes_variant WHERE name = 'plan')"
    ):
        yield f"{name} has no plan that is worked on: restore it from a backup."


def _photographs(folder: Path, database: Path) -> Iterator[str]:
    """Originals that are named and missing; and files that nobody names."""
    named = photographs_of(database)
    missing = [one for one in named if not originals.place_of(folder, one).is_file()]
    if missing:
        yield f"{len(missing)} photographs of the log have lost their original: copy `photographs` from a backup."
    orphans = {one.name for one in originals.all_in(folder)} - set(named)
    if orphans:
        yield f"{len(orphans)} files lie in `photographs` that no entry names; `gondola tidy` takes them away."
