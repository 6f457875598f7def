"""The data folder: what lies in it, and whom it lets in."""

from __future__ import annotations

import fcntl
import os
import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from gondola_core.errors import GondolaError
from gondola_server.where import usual_data

DATABASE = "gondola.sqlite3"
KEY = "secret_key"
LOCK = "serving.lock"
BACKUPS = "backups"


def data_folder() -> Path:
    """Where the data of this installation lies: see `gondola_server.where`."""
    folder = usual_data()
    os.umask(0o077)
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    make_private(folder)
    return folder


def make_private(folder: Path) -> None:
    """The folder and the databases in it for this account alone."""
    folder.chmod(0o700)
    for file in folder.glob("*.sqlite3*"):
        file.chmod(0o600)


def secret_key(folder: Path) -> str:
    """The key of this installation, made at its first start and readable by nobody else."""
    file = folder / KEY
    if not file.exists():
        with os.fdopen(os.open(file, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
            out.write(secrets.token_urlsafe(64))
    return file.read_text()


@contextmanager
def held(folder: Path) -> Iterator[None]:
    """Nobody else serves or restores this folder meanwhile; GondolaError where somebody does."""
    with (folder / LOCK).open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise GondolaError(f"A server is working with {folder.name}: stop it first.") from None
        yield
