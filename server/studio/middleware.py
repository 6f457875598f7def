"""Signs the demo's owner in, on this machine only."""

from __future__ import annotations

from collections.abc import Callable
from ipaddress import ip_address

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from .actions import demo_owner

FORWARDED = ("HTTP_FORWARDED", "HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_HOST", "HTTP_X_REAL_IP", "HTTP_VIA")
"""Headers that something between adds: whoever asks is then not at this machine, whatever its address says."""


class DemoSignIn:
    """In the demo, whoever asks at this machine itself is its owner; nobody else is let in.

    No session is made: it is found anew with each request, so that none is left behind.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if settings.DEMO and not request.user.is_authenticated and _is_local(request):
            request.user = demo_owner()
        return self.get_response(request)


def _is_local(request: HttpRequest) -> bool:
    """Asked from loopback, at loopback, with nothing between."""
    if any(name in request.META for name in FORWARDED):
        return False
    return _loopback(request.META.get("REMOTE_ADDR", ""), of_name=False) and _loopback(
        request.META.get("SERVER_NAME", ""), of_name=True
    )


def _loopback(address: str, *, of_name: bool) -> bool:
    """Whether an address is of this machine alone; `of_name` is the answer for what is no address."""
    try:
        return ip_address(address).is_loopback
    except ValueError:
        return of_name
