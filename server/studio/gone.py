"""Whether whoever asked is still there: what nobody waits for any more is not computed to its end."""

from __future__ import annotations

import threading
from collections.abc import Awaitable, Callable
from typing import Any

from django.http import HttpRequest

Scope = dict[str, Any]
Receive = Callable[[], Awaitable[dict[str, Any]]]
Application = Callable[[Scope, Receive, Any], Awaitable[None]]


class Gone(Exception):
    """Nobody waits for this answer any more."""

    message = "You left before the answer was there. Nothing was lost: ask again."


def hearing(application: Application) -> Application:
    """An ASGI application whose requests carry `gone`, which is set when their connection ends."""

    async def heard(scope: Scope, receive: Receive, send: Any) -> None:
        gone = threading.Event()

        async def told() -> dict[str, Any]:
            message = await receive()
            if message["type"] == "http.disconnect":
                gone.set()
            return message

        await application({**scope, "gone": gone}, told, send)

    return heard


def still_there(request: HttpRequest) -> Callable[[float], None]:
    """To be called while something is computed: raises Gone when nobody waits for it."""
    gone: threading.Event | None = getattr(request, "scope", {}).get("gone")

    def told(_: float) -> None:
        if gone is not None and gone.is_set():
            raise Gone

    return told
