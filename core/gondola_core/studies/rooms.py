"""The same plan in a row of rooms: how hot it gets."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ..answers.book import Book
from ..answers.kept import Keeper
from ..answers.curves import PROFILE
from ..scene import Scene


@dataclass(frozen=True, slots=True, kw_only=True)
class InRoom:
    """What the whole piece comes to in a room that is as warm by night as by day."""

    room_c: float
    hottest_c: float


def in_rooms(scene: Scene, rooms_c: Sequence[float], told: Callable[[float], None]) -> list[InRoom]:
    """One row a room, in the order asked; draft cells."""
    keeper, rows = Keeper(most=200), []
    for done, room_c in enumerate(rooms_c):
        told(done / len(rooms_c))
        room = scene.brief.room.model_copy(update={"day_c": room_c, "night_c": room_c})
        there = scene.model_copy(update={"brief": scene.brief.model_copy(update={"room": room})})
        profile = Book(there, keeper=keeper).ask(PROFILE)
        rows.append(InRoom(room_c=room_c, hottest_c=max(profile.peak_c)))
    return rows
