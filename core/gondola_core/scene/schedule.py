"""When things happen: the pours on the clock, and the room through day and night."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from . import Pour, Room

Array = NDArray[np.float64]

WARMEST_HOUR = 15.0
"""hour of the day at which a room is warmest. Source: assumed"""
ROOM_STEP_H = 0.25


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
    """Room temperature every `ROOM_STEP_H` from the first pour over a span: (n,)."""
    hours = np.arange(0.0, span_h + 2 * ROOM_STEP_H, ROOM_STEP_H)
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
