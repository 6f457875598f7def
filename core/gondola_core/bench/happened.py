"""The scene as it happened: what was meant, with what the bench recorded of it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime, tzinfo
from itertools import pairwise
from typing import Any

from ..errors import GondolaError
from ..materials import Resin
from ..scene import Dose, Pour, RoomReading, Scene, scene_from
from ..scene.schedule import ROOM_STEP_H, pour_starts_h
from ..words import words
from .correcting import ratio_error
from .events import (
    AnyEvent,
    ColourDropped,
    Met,
    PartWeighed,
    Placed,
    Poured,
    Pouring,
    Sealed,
    TemperatureRead,
    standing,
)
from .mixed import ALRIGHT, as_mixed

LEAST_LAYER_MM = 0.5
"""A layer that is thinner than this is none. Source: assumed"""
SECONDS = 3600.0


@dataclass(slots=True)
class CupLog:
    """What came into a cup: part A from its bottle and with stocks, and part B."""

    plain_a_g: float = 0.0
    stock_a_g: float = 0.0
    part_b_g: float = 0.0

    @property
    def part_a_g(self) -> float:
        """All of part A."""
        return self.plain_a_g + self.stock_a_g


@dataclass(slots=True)
class PourLog:
    """What was recorded of one pour.

    neat_drops  by colourant
    """

    began: datetime | None = None
    ended: datetime | None = None
    met: datetime | None = None
    mix_c: float | None = None
    line_depth_mm: float | None = None
    cups: dict[int, CupLog] = field(default_factory=dict)
    neat_drops: dict[str, float] = field(default_factory=dict)

    @property
    def start(self) -> datetime | None:
        """When it ran into the tank, as far as that was told."""
        return self.began or self.ended

    @property
    def whole_cups(self) -> list[tuple[float, float]]:
        """Cups of which both parts were weighed: (A, B) [g]."""
        return [
            (one.part_a_g, one.part_b_g) for one in self.cups.values() if one.plain_a_g > 0 and one.part_b_g > 0
        ]

    @property
    def mix_g(self) -> float:
        """What was mixed, as far as it was weighed."""
        return sum(a + b for a, b in self.whole_cups)


def pour_logs(scene: Scene, events: Sequence[AnyEvent]) -> list[PourLog]:
    """What stands of each pour, in the order of the pours."""
    logs = {pour.id: PourLog() for pour in scene.pours}
    for one in standing(events):
        log = logs.get(getattr(one, "pour_id", None) or "")
        if log is not None:
            _note(log, one)
    return list(logs.values())


def _note(log: PourLog, event: AnyEvent) -> None:
    if isinstance(event, PartWeighed):
        cup = log.cups.setdefault(event.cup, CupLog())
        cup.plain_a_g += event.mass_g if event.part == "a" else 0.0
        cup.part_b_g += event.mass_g if event.part == "b" else 0.0
    elif isinstance(event, ColourDropped):
        log.cups.setdefault(event.cup, CupLog()).stock_a_g += event.part_a_g
        log.neat_drops[event.colourant_id] = log.neat_drops.get(event.colourant_id, 0.0) + event.neat_drops
    elif isinstance(event, TemperatureRead) and event.what == "mix":
        log.mix_c = event.measured_c
    elif isinstance(event, Met):
        log.met = log.met or event.at
    elif isinstance(event, Pouring):
        log.began = log.began or event.at
    elif isinstance(event, Poured):
        log.ended = event.at
        log.line_depth_mm = event.line_depth_mm if event.line_depth_mm is not None else log.line_depth_mm


def as_happened(scene: Scene, events: Sequence[AnyEvent], zone: tzinfo = UTC) -> Scene:
    """The scene with what was recorded in place of what was meant; what is not yet done stays as planned.

    zone  in which the person reads the clock

    Masses give the ratio of each pour, and with it its cure; starts give the waits; drops the doses; readings
    the room and the mix; a measured line moves the line, and that of the last pour the fill line.
    GondolaError where events contradict the plan: a pour before the one below it, a line out of its place.
    Source: definition
    """
    told = standing(events)
    logs = pour_logs(scene, events)
    started = _starts(scene, logs)
    first = started[0] if started else None
    pours, resins = _pours(scene, logs, started)
    brief: dict[str, Any] = {}
    if first is not None:
        brief["first_pour_at"] = first.astimezone(zone).replace(tzinfo=None, microsecond=0)
        brief["room"] = scene.brief.room.model_copy(update={"measured": _room(told, first)})
    sealed = next((one.sealed for one in reversed(told) if isinstance(one, Sealed)), scene.bed.sealed)
    left_out = {one.figure_id for one in told if isinstance(one, Placed) and one.left_out}
    changed = scene.model_copy(update={
        "pours": pours, "resins": resins, "brief": scene.brief.model_copy(update=brief),
        "bed": scene.bed.model_copy(update={"sealed": sealed}),
        "figures": [one for one in scene.figures if one.id not in left_out],
    })
    return _checked(_filled(changed, logs))


def _starts(scene: Scene, logs: Sequence[PourLog]) -> list[datetime]:
    """Start of each pour up to the last that began; what was not told of those before follows from the plan."""
    planned = pour_starts_h(scene.pours)
    known = [(at, log.start) for at, log in enumerate(logs) if log.start is not None]
    if not known:
        return []
    found: list[datetime] = []
    at, anchor = known[0]
    for index in range(known[-1][0] + 1):
        later = next(((i, start) for i, start in known if i >= index), (at, anchor))
        found.append(_moved(later[1], planned[index] - planned[later[0]]))
    for number, (below, above) in enumerate(pairwise(found), start=2):
        if above < below:
            raise GondolaError(words("refusals.pour_order", pour=number, below=number - 1))
    return found


def _moved(moment: datetime, by_h: float) -> datetime:
    return datetime.fromtimestamp(moment.timestamp() + by_h * SECONDS, tz=UTC)


def _pours(
    scene: Scene, logs: Sequence[PourLog], started: Sequence[datetime]
) -> tuple[list[Pour], list[Resin]]:
    pours, resins = [], list(scene.resins)
    for index, (pour, log) in enumerate(zip(scene.pours, logs, strict=True)):
        update: dict[str, Any] = {}
        if 0 < index < len(started):
            update["wait_h"] = (started[index] - started[index - 1]).total_seconds() / SECONDS
        if log.mix_c is not None:
            update["mix_c"] = log.mix_c
        if log.line_depth_mm is not None and index + 1 < len(scene.pours):
            update["top_depth_mm"] = log.line_depth_mm
        if log.neat_drops and log.mix_g > 0:
            update["doses"] = _doses(pour, log)
        resin = _resin(scene.resin_of(pour), log)
        if resin is not None:
            name = f"as-mixed-{index + 1}"
            resins.append(resin.model_copy(update={"id": name}))
            update["resin_id"] = name
        pours.append(pour.model_copy(update=update))
    return pours, resins


def _doses(pour: Pour, log: PourLog) -> list[Dose]:
    """What was dropped, and of what nobody told anything, as planned."""
    planned = {one.colourant_id: one.dose_drops_per_100g for one in pour.doses}
    real = {key: round(drops / log.mix_g * 100, 5) for key, drops in log.neat_drops.items()}
    return [Dose(colourant_id=key, dose_drops_per_100g=dose) for key, dose in {**planned, **real}.items()]


def _resin(resin: Resin, log: PourLog) -> Resin | None:
    """As it was mixed: by its worst cup, for that is where it stays soft; None where that is as the label says."""
    errors = [ratio_error(resin, a, b) for a, b in log.whole_cups]
    worst = max(errors, key=abs, default=0.0)
    return as_mixed(resin, worst) if abs(worst) >= ALRIGHT else None


def _room(told: Iterable[AnyEvent], first: datetime) -> list[RoomReading]:
    """Readings of the room, one for each step of the march's own room."""
    held: dict[int, list[float]] = {}
    for one in told:
        if isinstance(one, TemperatureRead) and one.what == "room":
            step = round((one.at - first).total_seconds() / SECONDS / ROOM_STEP_H)
            held.setdefault(step, []).append(one.measured_c)
    return [
        RoomReading(at_h=step * ROOM_STEP_H, room_c=round(sum(read) / len(read), 2))
        for step, read in sorted(held.items())
    ]


def _filled(scene: Scene, logs: Sequence[PourLog]) -> Scene:
    """Where the last pour's line was measured, the fill line is there, and all depths run from it."""
    off = logs[-1].line_depth_mm
    if off is None or abs(off) < 1e-9:
        return scene
    tank = scene.tank.model_copy(update={"fill_height_mm": scene.tank.fill_height_mm - off})
    lower = [pour.model_copy(update={"top_depth_mm": pour.top_depth_mm - off}) for pour in scene.pours[:-1]]
    return scene.model_copy(update={"tank": tank, "pours": [*lower, scene.pours[-1]]})


def _checked(scene: Scene) -> Scene:
    """The same, read as a document is; a line out of its place is told in the bench's words."""
    lines = [scene.tank.fill_height_mm, *(pour.top_depth_mm for pour in scene.pours)]
    for number, (below, above) in enumerate(pairwise(lines), start=1):
        if below - above < LEAST_LAYER_MM:
            raise GondolaError(words("refusals.measured_line", pour=number, line=above, below=below))
    return scene_from(scene.model_dump(mode="json"))
