"""Reads a body that is larger than a form may be, without taking in more than is allowed."""

from __future__ import annotations

from collections.abc import Iterator

from django.http import HttpRequest, HttpResponse

CHUNK = 1024 * 1024
LARGEST_ARCHIVE = 512 * 2**20
"""bytes over HTTP, the most of any file; a larger archive is taken in with `gondola import`"""


class TooLarge(Exception):
    """A body over what is allowed; `message` says so."""

    def __init__(self, what: str, most: int) -> None:
        self.message = f"This is over {most // 2**20} MB; {what} has to be smaller."
        super().__init__(self.message)


def read_body(request: HttpRequest, most: int, what: str) -> bytes:
    """The raw body, up to `most` bytes; TooLarge before it is read where its length says so."""
    return b"".join(body_chunks(request, most, what))


def body_chunks(request: HttpRequest, most: int, what: str) -> Iterator[bytes]:
    """The same a piece at a time, for what need not be held whole."""
    length = request.META.get("CONTENT_LENGTH") or "0"
    if length.isdigit() and int(length) > most:
        raise TooLarge(what, most)
    size = 0
    while chunk := request.read(CHUNK):
        size += len(chunk)
        if size > most:
            raise TooLarge(what, most)
        yield chunk


BINARY_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
"""In the OpenAPI document: the whole body is a file."""


def download(content: bytes | str, kind: str, name: str) -> HttpResponse:
    """A made file, under a name that is ours."""
    return HttpResponse(
        content, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
