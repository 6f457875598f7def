"""A flag says what will go wrong, with number, limit, place and time; a remedy is an edit."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from ..scene.edits import Edit, Operation


class Severity(StrEnum):
    """How bad: the piece fails; look again; good to know."""

    STOP = "stop"
    WATCH = "watch"
    NOTE = "note"


UNITS = {
    "length": "mm", "temperature": "°C", "volume": "ml", "mass": "g", "force": "gf", "newton": "N",
    "small_area": "mm²", "area": "cm²", "hours": "h", "minutes": "min", "degrees": "°", "de00": "dE00",
    "drops": "drops per 100 g", "plain": "",
}
"""In which unit the number of a flag is, by its quantity."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Where:
    """Where and when: what the gondola goes to."""

    depth_mm: float | None = None
    at_h: float | None = None
    pour_number: int | None = None
    figure_id: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """What a check found: `number` against `limit`, both of one quantity.

    values    what stands in its sentences, numbers by the unit in their names
    title, sentence   ids in `words/flags.toml` under the check's code; another than these two where
              a check has more than one thing to say
    """

    severity: Severity
    where: Where
    number: float
    limit: float
    quantity: str
    values: dict[str, Any] = field(default_factory=dict)
    remedies: list[Edit] = field(default_factory=list)
    title: str = "title"
    sentence: str = "sentence"
    close_call: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """Something to try with one click: an edit, and the digest of the document that it was made from."""

    label: str
    digest: str
    edits: list[Operation]


@dataclass(frozen=True, slots=True, kw_only=True)
class Flag:
    """A finding as it is told, in the reader's units; `number` and `limit` stay in `unit`.

    close_call  True if the cells of this march are too coarse to decide it
    cause       alike for flags that one and the same edit answers; else of its own
    """

    code: str
    stage: str
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
    close_call: bool
    cause: str
