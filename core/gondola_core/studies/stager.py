"""Stages a scene: the fewest pours of one resin that break no limit, each into the tack of the last."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..answers.kept import Keeper
from ..checks import Flag, Remedy, Severity, reader_units, told_remedy
from ..checks.heat import warm_words
from ..checks.recoat import window_middle_h
from ..errors import GondolaError
from ..evaluate import DRAFT, KEEPER, evaluate
from ..outcome import Outcome
from ..part import Part
from ..scene import Dose, Pour, Room, Scene
from ..scene.edits import USUAL_WAIT_H, Edit, Operation, instead, stage_pours
from ..shape import Meshes
from ..words import Words, words

MOST_POURS = 14
"""More than this is no plan any more. Source: assumed"""
SETTLE = 3
"""Marches in which waits settle to the middle of the tack windows."""
HOT_CODES = frozenset({"too_hot", "figure_hot", "may_crack"})
"""Stops that more pours can answer."""
HEAT_CODES = HOT_CODES | {"too_early", "never_hard"}
"""Stops that pours and waits can answer."""
OVER_LABEL = 1.6
"""Depth of a pour over its label's from which staging begins to try. Source: assumed"""
COLDEST_ROOM_C, WARMEST_ROOM_C = 10.0, 40.0
"""Rooms that are tried. Source: assumed"""
COOLEST_MIX_C, WARMEST_MIX_C = 18.0, 30.0
"""A mix is brought to the room, within this. Source: assumed"""


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


def _untold(_: float) -> None:
    """Nobody asks how far it is."""


def stage_for(
    scene: Scene, resin_id: str, rooms_c: list[float], meshes: Meshes | None = None,
    keeper: Keeper = KEEPER, told: Callable[[float], None] = _untold,
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
        found.append(_staged(scene, tried, resin_id, room_c, name, meshes, keeper, still_there))
    told(1.0)
    return found


def _staged(
    scene: Scene, tried: Scene, resin_id: str, room_c: float, name: Words, meshes: Meshes | None, keeper: Keeper,
    told: Callable[[float], None],
) -> Staging:
    resin = next(one for one in scene.resins if one.id == resin_id)
    fill = scene.tank.fill_height_mm
    least = max(1, int(-(-fill // (OVER_LABEL * resin.most_pour_mm))))
    for count in range(min(least, MOST_POURS), MOST_POURS + 1):
        settled, outcome = _settled(_cut(tried, resin_id, room_c, count), meshes, keeper, told)
        stops = _stops(outcome)
        # where only waits or a stalled cure are left, more pours would not help
        if count == MOST_POURS or not any(flag.code in HOT_CODES for flag in stops):
            break
    return _told(scene, settled, outcome, name, room_c)


def _cut(scene: Scene, resin_id: str, room_c: float, count: int) -> Scene:
    fill = scene.tank.fill_height_mm
    bottom_up = [round(fill * (1 - (n + 1) / count), 1) for n in range(count)]
    bottom_up[-1] = 0.0
    pours = [
        Pour(
            id=f"pour-{n + 1}", top_depth_mm=top, resin_id=resin_id,
            mix_c=min(WARMEST_MIX_C, max(COOLEST_MIX_C, room_c)), wait_h=0.0 if n == 0 else USUAL_WAIT_H,
            doses=_doses_at(scene, top),
        )
        for n, top in enumerate(bottom_up)
    ]
    room = Room(day_c=room_c, night_c=room_c, spread_k=scene.brief.room.spread_k)
    return scene.model_copy(
        update={"pours": pours, "brief": scene.brief.model_copy(update={"room": room})}
    )


def _doses_at(scene: Scene, top_mm: float) -> list[Dose]:
    """The doses that the plan had where the new pour's line is."""
    above = [pour for pour in scene.pours if pour.top_depth_mm <= top_mm]
    return max(above, key=lambda pour: pour.top_depth_mm).doses


def _settled(
    scene: Scene, meshes: Meshes | None, keeper: Keeper, told: Callable[[float], None]
) -> tuple[Scene, Outcome]:
    outcome = evaluate(scene, DRAFT, keeper, told, meshes)
    for _ in range(SETTLE):
        waits = [0.0]
        for number in range(1, len(scene.pours)):
            middle = window_middle_h(outcome.pours[number - 1].heat.cure)
            waits.append(round(middle, 1) if middle is not None else scene.pours[number].wait_h)
        if max(abs(wait - pour.wait_h) for wait, pour in zip(waits, scene.pours, strict=True)) < 0.6:
            break
        pours = [
            pour.model_copy(update={"wait_h": wait})
            for pour, wait in zip(scene.pours, waits, strict=True)
        ]
        scene = scene.model_copy(update={"pours": pours})
        outcome = evaluate(scene, DRAFT, keeper, told, meshes)
    return scene, outcome


def _stops(outcome: Outcome) -> list[Flag]:
    return [
        flag for flag in outcome.flags
        if flag.severity is Severity.STOP and flag.code in HEAT_CODES
    ]


def _told(scene: Scene, staged: Scene, outcome: Outcome, name: Words, room_c: float) -> Staging:
    """The staging, as an edit of the scene that was asked about."""
    units, whole, stops = reader_units(scene.brief.units), outcome.whole, _stops(outcome)
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
    if not any(flag.code == "never_hard" for flag in _stops(outcome)):
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
