"""Which fields of which rows go into an archive. Pictures and shapes are files of their own beside them."""

from __future__ import annotations

from datetime import datetime
from typing import Any, TypeVar

from django.core.exceptions import ValidationError
from django.db import models
from django.utils.dateparse import parse_datetime

from gondola_core.scene.brief import FIRST_YEAR, LAST_YEAR

M = TypeVar("M", bound=models.Model)

FORM = 1
"""Version of what an archive looks like."""
SHELF = ("kind", "key", "body", "source")
STOCK = ("currency", "held", "kits", "counted_at")
BOTTLE = ("kind", "key", "before", "before_own", "before_source")
BOTTLE_LOG = ("kind", "title", "asked", "told", "prior", "place", "made_at", "withdrawn_at")
SCENE = ("created_at", "changed_at")
REVISION = ("number", "note", "kept_aside", "created_at")
ENTRY = ("kind", "at", "text", "x_mm", "depth_mm", "behind_mm", "body", "taken_back_at", "made_at")
RUN = ("zone", "rehearsal", "seed", "speed", "ahead_s", "started_at", "ended_at")
STILL = ("revision", "stand", "width_px", "height_px", "made_at")
MOMENTS = {
    "counted_at", "made_at", "withdrawn_at", "created_at", "changed_at", "at", "taken_back_at", "started_at",
    "ended_at",
}
NOT_YET = {"withdrawn_at", "taken_back_at", "ended_at"}
"""Moments that need not have come."""


def told(row: Any, fields: tuple[str, ...]) -> dict[str, Any]:
    """The fields of a row as JSON takes them."""
    return {one: _plain(getattr(row, one)) for one in fields}


def _plain(value: Any) -> Any:
    return value.isoformat() if isinstance(value, datetime) else value


def read(body: dict[str, Any], fields: tuple[str, ...]) -> dict[str, Any]:
    """The same fields back, moments as moments. KeyError and ValueError where the archive was changed by hand."""
    return {one: _moment(one, body[one]) if one in MOMENTS else body[one] for one in fields}


def _moment(name: str, text: str | None) -> datetime | None:
    if text is None:
        if name in NOT_YET:
            return None
        raise ValueError(f"{name} is missing")
    moment = parse_datetime(text)
    if moment is None or moment.tzinfo is None:
        raise ValueError(f"{name}, '{text[:40]}', is no moment with its zone")
    if not FIRST_YEAR <= moment.year <= LAST_YEAR:
        raise ValueError(f"{name}, '{text[:40]}', is of no year from {FIRST_YEAR} to {LAST_YEAR}")
    return moment


def made(model: type[M], **values: Any) -> M:
    """A row, not yet stored, whose fields are all as its model takes them; ValueError names the first that is not."""
    row = model(**values)
    for name, value in values.items():
        field = model._meta.get_field(name)
        if field.is_relation:
            continue
        if isinstance(field, models.CharField) and not isinstance(value, str):
            raise ValueError(f"{name} of a {model._meta.verbose_name} is no text")
        try:
            setattr(row, name, field.clean(value, row))  # type: ignore[union-attr]
        except ValidationError as flaw:
            # what forms ask a person to fill in may be empty here
            if any(one.code != "blank" for one in flaw.error_list):
                raise ValueError(f"{name} of a {model._meta.verbose_name}: {' '.join(flaw.messages)}") from None
    return row
