"""`gondola backup`, `restore`, `check`, `tidy`, `export`, `import`: what keeps a studio's work from being lost."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from gondola_core.errors import GondolaError

from .folder import BACKUPS, data_folder, secret_key


def backup(words: list[str]) -> int:
    """Copy all data while the studio works on."""
    parser = argparse.ArgumentParser(prog="gondola backup", description=backup.__doc__)
    parser.add_argument("--into", type=Path, help="where backups lie; `backups` in the data folder")
    options = parser.parse_args(words)

    def run() -> str:
        from .backup import backup as make

        folder = data_folder()
        made = make(folder, options.into or folder / BACKUPS)
        return f"Backed up into {made}."

    return _said(run)


def restore(words: list[str]) -> int:
    """Put a backup in the place of the data; what is there is moved aside, not deleted."""
    parser = argparse.ArgumentParser(prog="gondola restore", description=restore.__doc__)
    parser.add_argument("backup", type=Path, nargs="?", help="its folder; the newest where none is given")
    options = parser.parse_args(words)

    def run() -> str:
        from .backup import backups_in
        from .restore import restore as put_back

        folder = data_folder()
        made = options.backup or next(iter(backups_in(folder / BACKUPS)), None)
        if made is None:
            raise GondolaError(f"No backup lies in {folder / BACKUPS}: name one.")
        aside = put_back(made, folder)
        return f"Restored {made.name}." + (f" What was there lies in {aside}." if aside else "")

    return _said(run)


def check(words: list[str]) -> int:
    """Tell whether all data are there and can be read; 1 where something is not."""
    argparse.ArgumentParser(prog="gondola check", description=check.__doc__).parse_args(words)
    from .checking import check as look

    findings = look(data_folder())
    for one in findings:
        sys.stderr.write(f"{one}\n")
    if not findings:
        sys.stdout.write("All is there and can be read.\n")
    return 1 if findings else 0


def tidy(words: list[str]) -> int:
    """Carry out deletions whose day is over, thin old revisions, take away what nothing names."""
    argparse.ArgumentParser(prog="gondola tidy", description=tidy.__doc__).parse_args(words)

    def run() -> str:
        _set_up()
        from datetime import UTC, datetime

        from .clock import JUMPED, is_steady
        from .tidying import tidy as do

        if not is_steady(data_folder(), datetime.now(UTC)):
            return JUMPED
        went = do()
        told = ", ".join(f"{count} {name}" for name, count in went.items())
        return f"Taken away: {told}." if told else "There was nothing to take away."

    return _said(run)


def export(words: list[str]) -> int:
    """Write all that one person keeps into one archive of open formats."""
    name, archive = _named(words, "export", export.__doc__)

    def run() -> str:
        _set_up()
        from .archive.out import write_archive

        words = write_archive(_account(name), archive)
        return "\n".join([f"Written to {archive}.", *words])

    return _said(run)


def bring(words: list[str]) -> int:
    """Take an archive in, beside what somebody has already."""
    name, archive = _named(words, "import", bring.__doc__)

    def run() -> str:
        _set_up()
        from .archive.back import bring_archive

        if not archive.is_file():
            raise GondolaError(f"There is no file {archive}.")
        return "\n".join(bring_archive(_account(name), archive))

    return _said(run)


def _named(words: list[str], command: str, about: str | None) -> tuple[str, Path]:
    """Whose archive a command is about, and its file."""
    parser = argparse.ArgumentParser(prog=f"gondola {command}", description=about)
    parser.add_argument("name", help="whose it is")
    parser.add_argument("archive", type=Path, metavar="ARCHIVE.zip")
    options = parser.parse_args(words)
    return options.name, options.archive


def _said(run: Callable[[], str]) -> int:
    try:
        sys.stdout.write(run() + "\n")
    except GondolaError as error:
        sys.stderr.write(f"{error.message}\n")
        return 2
    return 0


def _set_up() -> None:
    """Django, with the key of this installation."""
    folder = data_folder()
    os.environ.setdefault("GONDOLA_SECRET_KEY", secret_key(folder))
    os.environ.setdefault("GONDOLA_DATA", str(folder))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gondola_server.settings")
    import django

    django.setup()


def _account(name: str) -> Any:
    from django.contrib.auth.models import User

    account = User.objects.filter(username__iexact=name).first()
    if account is None:
        raise GondolaError(f"Nobody here is called {name}.")
    return account
