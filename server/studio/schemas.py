"""What the API says about itself and about refusals."""

from __future__ import annotations

from ninja import Schema


class Problem(Schema):
    """One field and what has to be changed in it."""

    field: str
    message: str


class Refusal(Schema):
    """Why something was not done; nothing was lost."""

    message: str
    problems: list[Problem]
