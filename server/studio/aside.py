"""Long questions are answered by a second process of the same server, below all others: within one process threads wait
for each other's Python, and a short question would wait for a long one's, however low that is."""

from __future__ import annotations

import http.client
import select
import socket
import time
from collections.abc import Callable
from contextlib import closing

from django.http import HttpRequest, HttpResponse

LONGEST_S, LOOK_EVERY_S = 180.0, 0.25
"""How long an answer from aside is waited for, and between two looks whether its asker is still there. Source:
assumed"""
OF_A_CONNECTION = {
    "connection", "keep-alive", "transfer-encoding", "content-length", "accept-encoding", "upgrade", "te", "expect",
}
"""Headers that belong to a connection and not to what is asked."""
OF_AN_ANSWER = ("Content-Type", "Content-Disposition", "Cache-Control", "ETag", "Retry-After")
"""Headers that an answer from aside keeps; all others are set by the process that hands it on."""


class Answered(Exception):
    """The answer has come from aside; `answer` is what is handed on."""

    def __init__(self, answer: HttpResponse) -> None:
        super().__init__()
        self.answer = answer


class Lost(Exception):
    """The process aside ended under a question, or took too long."""

    message = "This took too much and was ended before its end. Nothing was lost: wait a moment, then ask again."


class _Aside(http.client.HTTPConnection):
    """HTTP over a socket in the data folder, which only this installation's account may open."""

    def __init__(self, path: str) -> None:
        super().__init__("localhost")
        self._path = path

    def connect(self) -> None:
        self.sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
        self.sock.connect(self._path)


def ask_aside(request: HttpRequest, path: str, there: Callable[[float], None]) -> None:
    """Raises Answered with the answer from aside; does nothing where nobody listens at the path.

    there  called now and then; what it raises ends the question here and aside

    Lost where the answer breaks off or takes too long: it may have done its work, so it is not done again here.
    """
    with closing(_Aside(path)) as aside:
        try:
            aside.connect()
        except OSError:
            return
        try:
            aside.request(request.method or "GET", request.get_full_path(), request.body, _headers(request))
            _wait(aside.sock, there)
            told = aside.getresponse()
            content = told.read()
        except (OSError, http.client.HTTPException):
            raise Lost from None
    kept = {name: told.headers[name] for name in OF_AN_ANSWER if name in told.headers}
    raise Answered(HttpResponse(content, status=told.status, headers=kept))


def _headers(request: HttpRequest) -> dict[str, str]:
    """What was asked with, and from where in which way: the process aside sees only us."""
    asked = {name: value for name, value in request.headers.items() if name.lower() not in OF_A_CONNECTION}
    return {**asked, "X-Forwarded-For": request.META.get("REMOTE_ADDR", ""),
            "X-Forwarded-Proto": request.scheme or "http"}


def _wait(answer: socket.socket, there: Callable[[float], None]) -> None:
    came, until = select.poll(), time.monotonic() + LONGEST_S
    came.register(answer, select.POLLIN)
    while not came.poll(1e3 * LOOK_EVERY_S):
        there(0.0)
        if time.monotonic() > until:
            raise Lost
