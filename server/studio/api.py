"""The session."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest
from ninja import Router

from .schemas import Session

router = Router(tags=["studio"])


@router.get("/session", response=Session, operation_id="read_session")
def read_session(request: HttpRequest) -> Session:
    return Session(name=request.user.get_username(), demo=settings.DEMO)
