"""Which fields of which rows go into an archive. Pictures and shapes are files of their own beside them."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.utils.dateparse import parse_datetime

FORM = 1
"""Version of what an archive looks like."""
SHELF = ("kind", "key", "body", "source")
STOCK = ("currency", "held", "kits", "counted_at")
BOTTLE = ("kind", "key", "before", "before_own", "before_source")
BOTTLE_LOG = ("kind", "title", "asked", "told", "prior", "place", "made_at", "withdrawn_at")
REVISION = ("number", "note", "kept_aside", "created_at")
ENTRY = ("kind", "at", "text", "x_mm", "depth_mm", "behind_mm", "body", "taken_back_at", "made_at")
RUN = ("zone", "rehearsal", "seed", "speed", "ahead_s", "started_at", "ended_at")
STILL = ("revision", "stand", "width_px", "height_px", "made_at")
MOMENTS = {"counted_at", "made_at", "withdrawn_at", "created_at", "at", "taken_back_at", "started_at", "ended_at"}


def told(row: Any, fields: tuple[str, ...]) -> dict[str, Any]:
    """The fields of a row as JSON takes them."""
    return {one: _plain(getattr(row, one)) for one in fields}


def _plain(value: Any) -> Any:
    return value.isoformat() if isinstance(value, datetime) else value


def read(body: dict[str, Any], fields: tuple[str, ...]) -> dict[str, Any]:
    """The same fields back, moments as moments. KeyError and ValueError where the archive was changed by hand."""
    return {one: _moment(body[one]) if one in MOMENTS else body[one] for one in fields}


def _moment(text: str | None) -> datetime | None:
    if text is None:
        return None
    moment = parse_datetime(text)
    if moment is None or moment.tzinfo is None:
        raise ValueError(f"'{text[:40]}' is no moment with its zone")
    return moment
