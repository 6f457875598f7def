"""A backup while the studio works on: the database as of one moment, the photographs it names, and their hashes."""

from __future__ import annotations

import hashlib
import json
import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from studio.originals import place_of

from gondola_core.errors import GondolaError

from .folder import DATABASE

MANIFEST = "manifest.json"
FORM = 1
"""Version of what a backup looks like."""
STAMP = "gondola-%Y%m%dT%H%M%S"


def backup(folder: Path, into: Path, now: datetime | None = None) -> Path:
    """Make a backup under `into`, whole or not at all; where it lies.

    GondolaError where there is nothing to back up yet, or no room for it.
    """
    if not (folder / DATABASE).exists():
        raise GondolaError(f"There is no studio in {folder.name} yet: start it once.")
    name = (now or datetime.now(UTC)).strftime(STAMP)
    into.mkdir(parents=True, exist_ok=True, mode=0o700)
    partly = into / f".{name}.{os.getpid()}.part"
    try:
        partly.mkdir(mode=0o700)
        copy_database(folder / DATABASE, partly / DATABASE)
        for digest in photographs_of(partly / DATABASE):
            _copy_photograph(folder, partly, digest)
        _write_manifest(partly)
        target = into / name
        partly.rename(target)
    except OSError as error:
        shutil.rmtree(partly, ignore_errors=True)
        raise GondolaError(f"The backup could not be written ({error.strerror}); the studio goes on.") from error
    except BaseException:
        shutil.rmtree(partly, ignore_errors=True)
        raise
    return target


def copy_database(source: Path, target: Path) -> None:
    """SQLite's own online backup: the state of one moment, whoever writes meanwhile."""
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(target)) as copy:
        # in one step: others write on beside it in WAL, and none of their writes makes it begin again
        live.backup(copy)
        copy.execute("PRAGMA journal_mode=DELETE")
    target.chmod(0o600)


def photographs_of(database: Path) -> list[str]:
    """Digests of the originals that a database names."""
    with closing(sqlite3.connect(database)) as opened:
        return [row[0] for row in opened.execute("SELECT DISTINCT digest FROM log_photograph ORDER BY digest")]


def _copy_photograph(folder: Path, partly: Path, digest: str) -> None:
    source, target = place_of(folder, digest), place_of(partly, digest)
    if not source.exists():
        return  # `gondola check` tells of it; a backup of the rest is better than none
    target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    try:
        target.hardlink_to(source)  # originals are never changed
    except OSError:
        shutil.copyfile(source, target)


def _write_manifest(partly: Path) -> None:
    told = {
        "form": FORM, "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
        "files": {str(file.relative_to(partly)): hash_of(file) for file in _files(partly)},
    }
    file = partly / MANIFEST
    file.write_text(json.dumps(told, indent=1, sort_keys=True))
    for each in (file, partly / DATABASE):
        _to_disk(each)


def _files(folder: Path) -> Iterator[Path]:
    return (one for one in sorted(folder.rglob("*")) if one.is_file() and one.name != MANIFEST)


def _to_disk(file: Path) -> None:
    handle = os.open(file, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def hash_of(file: Path) -> str:
    """SHA-256 of a file, in hex."""
    with file.open("rb") as opened:
        return hashlib.file_digest(opened, "sha256").hexdigest()


def manifest_of(made: Path) -> dict[str, Any]:
    """What a backup says it holds; GondolaError where a file is missing or is not as it was written."""
    try:
        told = json.loads((made / MANIFEST).read_text())
        files = dict(told["files"])
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise GondolaError(f"{made.name} is no backup of Gondola: it has no manifest that can be read.") from error
    if told.get("form") != FORM:
        raise GondolaError(f"{made.name} was made by another Gondola: restore it with that one.")
    for name, expected in files.items():
        file = made / name
        if ".." in Path(name).parts or not file.is_file():
            raise GondolaError(f"{made.name} is not whole: {name} is missing. Take another backup.")
        if hash_of(file) != expected:
            raise GondolaError(f"{made.name} is damaged: {name} is not as it was written. Take another backup.")
    return dict(told)


def backups_in(into: Path) -> list[Path]:
    """Backups, the newest first."""
    return sorted((one for one in into.glob("gondola-*") if (one / MANIFEST).is_file()), reverse=True)


def thin_backups(into: Path, most: int) -> None:
    """Keep the newest ones."""
    for one in backups_in(into)[most:]:
        shutil.rmtree(one)
