"""Stages a scene: the fewest pours of one resin that break no limit, each into the tack of the last."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..answers.kept import Keeper
from ..checks import Remedy, reader_units, told_remedy
from ..checks.heat import warm_words
from ..errors import GondolaError
from ..evaluate import KEEPER
from ..outcome import Outcome
from ..part import Part
from ..scene import Room, Scene
from ..scene.edits import Edit, Operation, instead, stage_pours
from ..shape import Meshes
from ..words import Words, words
from .laying import lay_pours, stops_of, untold

OVER_LABEL = 1.6
"""Depth of a pour over its label's from which staging begins to try. Source: assumed"""
COLDEST_ROOM_C, WARMEST_ROOM_C = 10.0, 40.0
"""Rooms that are tried. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Staging:
    """A way of pouring that stops nothing, or the best that was found.

    after_words  what has to follow where the room is too cold to get it hard
    """

    name: str
    room_c: float
    pours_count: int
    clear: bool
    hottest_c: float | None
    runs_away: bool
    last_pour_d: float
    demould_d: float | None
    stops: list[str]
    after_words: str
    remedy: Remedy


def stage_for(
    scene: Scene, resin_id: str, rooms_c: list[float], meshes: Meshes | None = None,
    keeper: Keeper = KEEPER, told: Callable[[float], None] = untold,
) -> list[Staging]:
    """The fewest equal pours that stop nothing, for each room, and for a footprint twice as large.

    GondolaError names a resin that the scene does not hold, or a room out of range. Waits are set
    to the middle of each tack window, over some marches. `told` hears the share that is done.
    """
    if resin_id not in {resin.id for resin in scene.resins}:
        raise GondolaError(words("refusals.no_resin", id=resin_id), "resin_id")
    for room_c in rooms_c:
        if not COLDEST_ROOM_C <= room_c <= WARMEST_ROOM_C:
            raise GondolaError(
                words("refusals.room_c", range=(COLDEST_ROOM_C, WARMEST_ROOM_C), given=room_c), "rooms_c"
            )
    tries = [(scene, words("staging.room", room_c=room_c), room_c) for room_c in rooms_c]
    wide = _wider(scene)
    if wide is not None:
        tries.append((wide, words("staging.wide", room_c=max(rooms_c)), max(rooms_c)))
    found = []
    for at, (tried, name, room_c) in enumerate(tries):
        def still_there(_: float, share: float = at / len(tries)) -> None:
            told(share)

        told(at / len(tries))
        staged, outcome = lay_pours(_in_room(tried, room_c), resin_id, meshes, keeper, still_there, OVER_LABEL)
        found.append(_told(scene, staged, outcome, name, room_c))
    told(1.0)
    return found


def _in_room(scene: Scene, room_c: float) -> Scene:
    room = Room(day_c=room_c, night_c=room_c, spread_k=scene.brief.room.spread_k)
    return scene.model_copy(update={"brief": scene.brief.model_copy(update={"room": room})})


def _told(scene: Scene, staged: Scene, outcome: Outcome, name: Words, room_c: float) -> Staging:
    """The staging, as an edit of the scene that was asked about."""
    units, whole, stops = reader_units(scene.brief.units), outcome.whole, stops_of(outcome)
    return Staging(
        name=name.said(units), room_c=room_c, pours_count=len(staged.pours), clear=not stops,
        hottest_c=whole.hottest_c,
        runs_away=whole.runs_away,
        last_pour_d=round(outcome.pours[-1].clock.start_h / 24, 1),
        demould_d=None if whole.demould_h is None else round(whole.demould_h / 24, 1),
        stops=[flag.title for flag in stops],
        after_words=_after(staged, outcome),
        remedy=told_remedy(_edit(scene, staged, room_c), units),
    )


def _edit(scene: Scene, staged: Scene, room_c: float) -> Edit:
    """Pours and room of the staging; and, if it is wider, its tank and where the figures stand."""
    count = len(staged.pours)
    label = words("staging.pours", pours=count, deep=staged.tank.fill_height_mm / count, room_c=room_c)
    more = _part_instead("/brief/room", scene.brief.room, staged.brief.room)
    if staged.tank != scene.tank:
        more += _part_instead("/tank", scene.tank, staged.tank)
        for at, (was, figure) in enumerate(zip(scene.figures, staged.figures, strict=True)):
            more.append(Operation(op="test", path=f"/figures/{at}/id", value=figure.id))
            more += _part_instead(f"/figures/{at}/place", was.place, figure.place)
    return stage_pours(scene, label, staged.pours, *more)


def _part_instead(path: str, was: Part, part: Part) -> list[Operation]:
    return instead(path, was.model_dump(mode="json"), part.model_dump(mode="json"))


def _after(scene: Scene, outcome: Outcome) -> str:
    """What has to follow in a room that is too cold to get the piece hard; empty where none is."""
    if not any(flag.code == "never_hard" for flag in stops_of(outcome)):
        return ""
    units, last = reader_units(scene.brief.units), outcome.pours[-1]
    warm = warm_words(scene.resin_of(scene.pours[-1]), scene.brief.room)
    if last.heat.cure is None or last.heat.cure.tack_closes_h is None:
        return warm.said(units)
    gone_d = (last.clock.start_h + last.heat.cure.tack_closes_h) / 24
    return words("staging.after", gone_d=gone_d, warm=warm).said(units)


def _wider(scene: Scene) -> Scene | None:
    """The same scene on twice the footprint; None where that is no tank any more."""
    tank = scene.tank
    grow = 2**0.5
    width, behind = tank.inner_width_mm * grow, tank.inner_behind_mm * grow
    if max(width, behind) > 1200:
        return None
    changed = tank.model_dump() | {"inner_width_mm": width, "inner_behind_mm": behind}
    shape = changed["shape"]
    if shape["kind"] == "free":
        shape["points_mm"] = [[x * grow, y * grow] for x, y in shape["points_mm"]]
    figures = [
        figure.model_copy(
            update={
                "place": figure.place.model_copy(
                    update={"x_mm": figure.place.x_mm * grow, "behind_mm": figure.place.behind_mm * grow}
                )
            }
        )
        for figure in scene.figures
    ]
    return scene.model_copy(update={"tank": type(tank).model_validate(changed), "figures": figures})
