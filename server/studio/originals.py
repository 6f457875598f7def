"""Where originals of photographs lie in a data folder: by the hash of their bytes."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

FOLDER = "photographs"


def place_of(folder: Path, digest: str) -> Path:
    """Where an original lies."""
    return folder / FOLDER / digest[:2] / digest


def all_in(folder: Path) -> Iterator[Path]:
    """Every file among them, those that were never finished too."""
    return (one for one in (folder / FOLDER).glob("??/*") if one.is_file())
