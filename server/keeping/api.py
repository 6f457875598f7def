"""One's own archive over HTTP."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

from django.http import FileResponse, HttpRequest
from ninja import Router, Schema
from studio.bodies import BINARY_BODY, LARGEST_ARCHIVE, read_body

from .archive.back import bring_archive
from .archive.out import write_archive

router = Router(tags=["keeping"])


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
        file.write(read_body(request, LARGEST_ARCHIVE, "an archive"))
        file.flush()
        return TakenIn(words=bring_archive(owner, Path(file.name)))
