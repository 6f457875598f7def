"""One's own archive over HTTP."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

from django.http import FileResponse, HttpRequest
from ninja import Router, Schema
from studio.apart import apart
from studio.bodies import BINARY_BODY, LARGEST_ARCHIVE, body_chunks

from .archive.back import bring_archive
from .archive.out import write_archive
from .archive.reading import Ready, read_archive

router = Router(tags=["keeping"])
READING_S = 120.0
"""How long reading an archive may take over HTTP; `gondola import` takes as long as it takes. Source: assumed"""


class TakenIn(Schema):
    """What was done with an archive."""

    words: list[str]


@router.get("/archive", operation_id="export_archive")
def export(request: HttpRequest) -> FileResponse:
    """All that one keeps, in open formats, as one ZIP."""
    owner: Any = request.user
    with tempfile.NamedTemporaryFile(suffix=".zip") as file:
        write_archive(owner, Path(file.name))
        # read by its own handle; the name is gone when this returns
        content = Path(file.name).open("rb")  # noqa: SIM115 - closed by the answer
        return FileResponse(content, as_attachment=True, filename="gondola-archive.zip", content_type="application/zip")


@router.post("/archive", response=TakenIn, operation_id="import_archive", openapi_extra=BINARY_BODY)
def bring(request: HttpRequest) -> TakenIn:
    """An archive, taken in beside what is there; all of it or nothing."""
    owner: Any = request.user
    with tempfile.NamedTemporaryFile(suffix=".zip") as file:
        for chunk in body_chunks(request, LARGEST_ARCHIVE, "an archive"):
            file.write(chunk)
        file.flush()
        return TakenIn(words=bring_archive(owner, Path(file.name), _read_apart))


def _read_apart(file: Path) -> Ready:
    return apart(read_archive, file, what="the archive", seconds=READING_S)
