"""Curves of a march for the page: heat against depth, history, the room, and its own account of itself."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ..cure.moments import CureHistory, HeatProfile, MarchAudit, audit, cure_history, heat_profile
from ..scene.schedule import ROOM_STEP_H, Night, nights, pour_starts_h
from ..units import HOUR
from .answer import Answer
from .grades import Grade
from .heat import HEAT, Heat
from .reading import Reading

ROOM_ROWS = 4
"""Steps of the room between two that are shown."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomTrace:
    """The room through the plan."""

    at_h: list[float]
    room_c: list[float]
    nights: list[Night]


def _profile(scene: Any, heat: Heat) -> HeatProfile:
    return heat_profile(
        heat.marched, heat.cells, heat.cures, heat.bands_c, heat.mean_room_c, pour_starts_h(scene.pours)
    )


def _history(_: Any, heat: Heat) -> CureHistory:
    return cure_history(heat.marched)


def _room(scene: Any, heat: Heat) -> RoomTrace:
    at = np.arange(len(heat.room_c)) * ROOM_STEP_H
    span_h = heat.marched.end / HOUR
    shown = at <= span_h + 1
    return RoomTrace(
        at_h=at[shown][::ROOM_ROWS].tolist(),
        room_c=np.round(heat.room_c[shown][::ROOM_ROWS], 2).tolist(),
        nights=nights(scene.brief.first_pour_at, span_h),
    )


def _audit(_: Any, heat: Heat, grade: Grade) -> MarchAudit:
    return audit(heat.marched, heat.cells, grade.name, heat.peak_error_k)


PROFILE = Answer(name="profile", reads=Reading("pours.wait_h"), needs=(HEAT,), by=_profile)
HISTORY = Answer(name="history", reads=Reading(), needs=(HEAT,), by=_history)
ROOM = Answer(name="room", reads=Reading("brief.first_pour_at"), needs=(HEAT,), by=_room)
AUDIT = Answer(name="audit", reads=Reading(), needs=(HEAT,), by=_audit, graded=True)
