"""Bodies that are larger than anything that is read here: told so before they are kept anywhere."""

from __future__ import annotations

import json
import time
from collections.abc import Awaitable, Callable
from typing import Any

from .gone import Application, Receive, Scope

MOST_SWALLOWED = 4 * 2**30
"""bytes of a body that are heard and thrown away, so that whoever sends them reads the answer. Source: assumed"""
MOST_SECONDS = 120.0
"""How long they are heard. Source: assumed"""
MEGABYTE = 2**20
Send = Callable[[dict[str, Any]], Awaitable[None]]


class _Over(Exception):
    """More came than is allowed."""


def bounded(application: Application, most_of_a_file: int, most_of_all_else: int) -> Application:
    """An ASGI application to which no body comes that is over what is allowed, whatever its length says.

    most_of_a_file    bytes of a body that is a file
    most_of_all_else  bytes of any other
    """

    async def within(scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await application(scope, receive, send)
            return
        headers = dict(scope["headers"])
        is_file = headers.get(b"content-type", b"").startswith(b"application/octet-stream")
        most = most_of_a_file if is_file else most_of_all_else
        length = headers.get(b"content-length", b"0")
        came = 0

        async def counted() -> dict[str, Any]:
            nonlocal came
            message = await receive()
            came += len(message.get("body", b""))
            if came > most:
                raise _Over
            return message

        if length.isdigit() and int(length) > most:
            await _refuse(receive, send, most)
            return
        try:
            await application(scope, counted, send)
        except _Over:
            await _refuse(receive, send, most)

    return within


async def _refuse(receive: Receive, send: Send, most: int) -> None:
    """The sentence, and then its end: only once all has come, or the connection breaks before the sentence is read."""
    said = f"This is over {most // MEGABYTE} MB, which is more than is taken in this way: make it smaller."
    body = json.dumps({"message": said, "problems": [{"field": "", "message": said}]}).encode()
    await send({
        "type": "http.response.start", "status": 413,
        "headers": [(b"content-type", b"application/json"), (b"content-length", str(len(body)).encode()),
                    (b"connection", b"close")],
    })
    began, came = time.monotonic(), 0
    while came < MOST_SWALLOWED and time.monotonic() - began < MOST_SECONDS:
        message = await receive()
        came += len(message.get("body", b""))
        if message["type"] != "http.request" or not message.get("more_body"):
            break
    await send({"type": "http.response.body", "body": body})
