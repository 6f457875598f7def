"""The register of checks over HTTP."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from gondola_core.checks import CHECKS

router = Router(tags=["checks"])


class CheckRow(Schema):
    """A check: where its subject is worked on, what it says, what it rests on, what it may offer."""

    code: str
    stage: str
    about: str
    source: str
    needs: list[str]
    remedies: list[str]


@router.get("/checks", response=list[CheckRow], operation_id="list_checks")
def list_checks(request: HttpRequest) -> list[CheckRow]:
    return [
        CheckRow(
            code=one.code, stage=one.stage, about=one.about, source=one.source,
            needs=[need.name for need in one.needs], remedies=list(one.remedies),
        )
        for one in CHECKS.values()
    ]
