"""Puts a backup in the place of the data; what was there is moved aside, never deleted."""

from __future__ import annotations

import shutil
from datetime import UTC, datetime
from pathlib import Path

from studio.originals import FOLDER

from gondola_core.errors import GondolaError

from .backup import copy_database, manifest_of
from .checking import broken_database
from .folder import DATABASE, held, make_private

ASIDE = "before-restore-%Y%m%dT%H%M%S"


def restore(made: Path, folder: Path) -> Path | None:
    """Restore a backup into a data folder; where what was there lies now, None where nothing was.

    GondolaError where the backup is damaged or a server works with the folder: nothing is touched then.
    """
    manifest_of(made)
    broken = broken_database(made / DATABASE)
    if broken:
        raise GondolaError(f"{made.name} cannot be restored: {broken}")
    with held(folder):
        aside = _move_aside(folder)
        copy_database(made / DATABASE, folder / DATABASE)
        if (made / FOLDER).is_dir():
            shutil.copytree(made / FOLDER, folder / FOLDER)
        make_private(folder)
    return aside


def _move_aside(folder: Path) -> Path | None:
    there = [one for one in (*folder.glob("*.sqlite3*"), folder / FOLDER) if one.exists()]
    if not there:
        return None
    aside = folder / datetime.now(UTC).strftime(ASIDE)
    aside.mkdir(mode=0o700)
    for one in there:
        one.rename(aside / one.name)
    return aside
