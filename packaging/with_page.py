"""Builds the package with the built front end inside; a build of the same commit is the same to the last byte."""

from __future__ import annotations

import gzip
import os
import shutil
import subprocess
import sys
from pathlib import Path

from setuptools import build_meta

ROOT = Path(__file__).resolve().parent.parent
PAGE = ROOT / "server" / "gondola_server" / "page"
LEFT_BEHIND = (PAGE, ROOT / "build", ROOT / "gondola.egg-info")
PACKED = {".js", ".css", ".html", ".svg", ".json"}

build_sdist = build_meta.build_sdist
get_requires_for_build_sdist = build_meta.get_requires_for_build_sdist
get_requires_for_build_wheel = build_meta.get_requires_for_build_wheel
prepare_metadata_for_build_wheel = build_meta.prepare_metadata_for_build_wheel


def build_wheel(
    wheel_directory: str, config_settings: dict[str, str] | None = None, metadata_directory: str | None = None
) -> str:
    """The wheel, with the page packed beside the server."""
    _tidy()
    os.environ.setdefault("SOURCE_DATE_EPOCH", _moment())
    try:
        shutil.copytree(_built(), PAGE)
        for file in sorted(PAGE.rglob("*")):
            if file.suffix in PACKED:
                file.with_name(f"{file.name}.gz").write_bytes(gzip.compress(file.read_bytes(), mtime=0))
        return str(build_meta.build_wheel(wheel_directory, config_settings, metadata_directory))
    finally:
        _tidy()


def _tidy() -> None:
    for left in LEFT_BEHIND:
        shutil.rmtree(left, ignore_errors=True)


def _built() -> Path:
    """The front end, built anew where its sources are newer: `make` knows."""
    dist = ROOT / "web" / "dist"
    if not (dist / "index.html").is_file():
        (ROOT / ".setup" / "web").unlink(missing_ok=True)
    subprocess.run(["make", "--silent", ".setup/web"], cwd=ROOT, check=True, stdout=sys.stderr)
    return dist


def _moment() -> str:
    """That of the commit, or of the first version where there is no history."""
    asked = subprocess.run(
        ["git", "log", "-1", "--format=%ct"], cwd=ROOT, capture_output=True, text=True, check=False
    )
    return asked.stdout.strip() or "1767225600"
