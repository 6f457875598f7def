"""A flag says what will go wrong, with number, limit, place and time; a remedy is an edit."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any


class Severity(StrEnum):
    """How bad: the piece fails; look again; good to know."""

    STOP = "stop"
    WATCH = "watch"
    NOTE = "note"


@dataclass(frozen=True, slots=True, kw_only=True)
class Edit:
    """One step of a JSON Patch (RFC 6902) on the scene document."""

    op: str
    path: str
    value: Any


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """Something to try with one click."""

    label: str
    edits: list[Edit]


@dataclass(frozen=True, slots=True, kw_only=True)
class Flag:
    """`number` against `limit`, both in `unit`; depth and time say where the gondola goes.

    close_call  True if the cells of this march are too coarse to decide it
    """

    code: str
    severity: Severity
    title: str
    sentence: str
    number: float
    limit: float
    unit: str
    depth_mm: float | None
    at_h: float | None
    pour_number: int | None
    figure_id: str | None
    remedies: list[Remedy]
    close_call: bool = False
