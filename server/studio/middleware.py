"""Signs the demo's owner in, on this machine only."""

from __future__ import annotations

from collections.abc import Callable
from ipaddress import ip_address

from django.conf import settings
from django.contrib.auth import login
from django.http import HttpRequest, HttpResponse

from .actions import demo_owner


class DemoSignIn:
    """In the demo, whoever comes from loopback is its owner; nobody else is let in this way."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if settings.DEMO and not request.user.is_authenticated and _is_local(request):
            login(request, demo_owner(), backend="django.contrib.auth.backends.ModelBackend")
        return self.get_response(request)


def _is_local(request: HttpRequest) -> bool:
    try:
        return ip_address(request.META.get("REMOTE_ADDR", "")).is_loopback
    except ValueError:
        return False
