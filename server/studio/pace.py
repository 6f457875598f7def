"""How many questions in how long are taken from one person, or from one address where nobody is signed in."""

from __future__ import annotations

import threading
import time

from django.conf import settings
from django.http import HttpRequest
from ninja.throttling import BaseThrottle

WITHIN_S = 10
"""seconds of a stretch. Source: assumed"""
MOST_COUNTED = 10_000
"""People and addresses whose questions are counted at one time; the count begins anew beyond that. Source: assumed"""


class Pace(BaseThrottle):
    """Counts questions by account or address, in stretches of ten seconds; `settings.PACE` says how many are taken.

    A machine that asks without end is told to wait; a hand that drags is far below.
    """

    def __init__(self) -> None:
        self._counts: dict[object, tuple[float, int]] = {}
        self._lock = threading.Lock()

    def allow_request(self, request: HttpRequest) -> bool:
        """Whether this one is taken."""
        signed_in = request.user.is_authenticated
        most = settings.PACE[0 if signed_in else 1]
        return not most or self._count(request.user.pk if signed_in else request.META["REMOTE_ADDR"]) <= most

    def wait(self) -> float:
        """Seconds after which more are taken."""
        return WITHIN_S

    def _count(self, who: object) -> int:
        now = time.monotonic()
        with self._lock:
            if len(self._counts) > MOST_COUNTED:
                self._counts.clear()
            began, count = self._counts.get(who, (now, 0))
            if now - began >= WITHIN_S:
                began, count = now, 0
            self._counts[who] = (began, count + 1)
            return count + 1
