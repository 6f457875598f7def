"""When things happen: the pours on the clock, and the room through day and night."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from . import Pour, Room
from .brief import FreeHours

Array = NDArray[np.float64]

WARMEST_HOUR = 15.0
"""hour of the day at which a room is warmest. Source: assumed"""
ROOM_STEP_H = 0.25
FADES_H = 12.0
"""After the last reading the room comes back to what was planned in so many hours. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Night:
    """A stretch of dark, in hours from the first pour."""

    from_h: float
    to_h: float


def room_temperature_c(hour_of_day: Array, room: Room) -> Array:
    """Room temperature at hours of the day: a cosine between night and day, warmest at 15.

    hour_of_day  any shape; hours past 24 go on into the next days
    Source: assumed
    """
    mean, swing = 0.5 * (room.day_c + room.night_c), 0.5 * (room.day_c - room.night_c)
    return np.asarray(mean + swing * np.cos(2 * np.pi * (hour_of_day - WARMEST_HOUR) / 24.0))


def hour_of(moment: datetime) -> float:
    """Hour of the day, with its minutes as a part of an hour."""
    return moment.hour + moment.minute / 60 + moment.second / 3600


def room_samples_c(first_pour_at: datetime, room: Room, span_h: float) -> Array:
    """Room temperature every `ROOM_STEP_H` from the first pour over a span: (n,).

    Where it was measured it goes through the readings, off by what lies linear between them; after the last
    one that fades away.
    Source: assumed
    """
    hours = np.arange(0.0, span_h + 2 * ROOM_STEP_H, ROOM_STEP_H)
    planned = _planned_c(first_pour_at, room, hours)
    if not room.measured:
        return planned
    read = sorted(room.measured, key=lambda one: one.at_h)
    at = np.array([one.at_h for one in read])
    off = np.array([one.room_c for one in read]) - _planned_c(first_pour_at, room, at)
    faded = np.exp(-np.maximum(hours - at[-1], 0.0) / FADES_H)
    return np.asarray(planned + np.interp(hours, at, off) * faded)


def _planned_c(first_pour_at: datetime, room: Room, hours: Array) -> Array:
    if room.warm_box_c is not None:
        return np.full(len(hours), room.warm_box_c)
    return room_temperature_c(hour_of(first_pour_at) + hours, room)


def pour_starts_h(pours: list[Pour]) -> list[float]:
    """Start of each pour in hours from the first; the first pour's own wait counts for nothing."""
    starts = [0.0]
    for pour in pours[1:]:
        starts.append(starts[-1] + pour.wait_h)
    return starts


def nights(first_pour_at: datetime, span_h: float) -> list[Night]:
    """Nights, ten in the evening to six, that touch the span."""
    start = hour_of(first_pour_at)
    found = []
    night = -26.0 - start
    while night < span_h:
        if night + 8.0 > 0:
            found.append(Night(from_h=max(0.0, night), to_h=min(span_h, night + 8.0)))
        night += 24.0
    return found


SATURDAY = 5
"""First day of the weekend, as `datetime.weekday` counts."""
FREE_WITHIN_D = 14
"""Days that are looked through for a free hour; every kind of day comes in them."""


def free_spans(first_pour_at: datetime, free: FreeHours, span_h: float) -> list[tuple[float, float]]:
    """Free stretches in hours from the first pour, from the day before it on: (from, to)."""
    found = []
    for day in range(-1, int(span_h // 24) + 2):
        date = first_pour_at + timedelta(days=day)
        hours = _hours_of(date.date(), free)
        if hours is not None:
            midnight = 24.0 * day - hour_of(first_pour_at)
            found.append((midnight + hours[0], midnight + hours[1]))
    return found


def _hours_of(day: date, free: FreeHours) -> list[float] | None:
    """Free hours of a day; None for a day away."""
    if day in free.away:
        return None
    return free.weekend if day.weekday() >= SATURDAY or day in free.holidays else free.weekday


def is_quiet(hour: float, quiet: list[float] | None) -> bool:
    """True for an hour of the day that is to be quiet; such hours may go past midnight."""
    if quiet is None:
        return False
    start, end = quiet
    return start <= hour < end if start <= end else hour >= start or hour < end


def is_free(first_pour_at: datetime, free: FreeHours | None, at_h: float) -> bool:
    """True if a person can begin something then; without free hours always."""
    return free is None or any(low <= at_h <= high for low, high in free_spans(first_pour_at, free, at_h))


def free_moment_h(
    first_pour_at: datetime, free: FreeHours | None, low_h: float, high_h: float, wished_h: float
) -> float | None:
    """The free moment from low to high that is nearest to the wished one; None if there is none."""
    if free is None:
        return wished_h
    spans = [
        (max(low, low_h), min(high, high_h)) for low, high in free_spans(first_pour_at, free, high_h)
        if min(high, high_h) >= max(low, low_h)
    ]
    moments = [min(high, max(low, wished_h)) for low, high in spans]
    return min(moments, key=lambda one: abs(one - wished_h), default=None)


def next_free_h(first_pour_at: datetime, free: FreeHours | None, after_h: float) -> float:
    """The first free moment from a time on."""
    if free is None:
        return after_h
    spans = free_spans(first_pour_at, free, after_h + 24 * (FREE_WITHIN_D + len(free.away)))
    return next(max(low, after_h) for low, high in spans if high > after_h)
