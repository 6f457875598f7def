"""Where a run stands: its steps and its events folded into what is done, what is next, and what the clocks say."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ..cure.kinetics import arrhenius_factor
from ..scene import Pour, Scene
from ..words import Words, words
from .correcting import Correction, TooDark, TopUp, corrected, too_dark, top_up
from .events import AnyEvent, Done, Levelled, Met, PartWeighed, Poured, standing
from .happened import CupLog, PourLog, pour_logs
from .mixing import mass_ratio
from .steps import BenchStep

PARTS = ("weigh_a", "weigh_b")
TOLD_STEPS = 2
"""A scale's reading that is off by so many of its steps is told. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Clock:
    """Something that runs: from when, and until when it is due or over."""

    step_id: str
    pour_id: str
    words: Words
    from_at: datetime
    until_at: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class CupState:
    """A cup as it was weighed; what it still needs, or what puts it right. Masses with what the stocks brought.

    target_b_g   of part B, for the part A that is really in it
    """

    pour_id: str
    cup: int
    part_a_g: float
    part_b_g: float
    target_b_g: float
    correction: Correction | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Conflict:
    """The same step entered on two devices that did not know of each other."""

    step_id: str
    event_ids: list[str]
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class Rim:
    """How far the liquid is to stand below the rim of the walls, at each corner of a tank that may be off level."""

    front_left_mm: float
    front_right_mm: float
    back_left_mm: float
    back_right_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RunState:
    """A run at a moment.

    current      id of the step to do now; "" where all is done
    waits_until  when it is due, if that is still to come
    done         ids of steps that are over
    rim          of the line that is poured to now; None at other steps
    dark         colourants of which too much fell, of the pour that is mixed and not yet in
    top_up       where the pour that is in ended short of its line
    """

    current: str
    waits_until: datetime | None
    done: list[str]
    clocks: list[Clock]
    cups: list[CupState]
    conflicts: list[Conflict]
    poured: list[str]
    rim: Rim | None
    dark: list[TooDark]
    top_up: TopUp | None


def fold(scene: Scene, steps: Sequence[BenchStep], events: Sequence[AnyEvent], now: datetime) -> RunState:
    """The state of a run.

    A step is done when an event says so that was not undone. Chains of steps run beside each other: of those that
    may go on, the first whose time has come is next; where all wait, the one that is due first.
    Source: definition
    """
    told = standing(events)
    done = {one.step_id: one.at for one in told if isinstance(one, Done)}
    logs = dict(zip((pour.id for pour in scene.pours), pour_logs(scene, events), strict=True))
    heads = list(_heads(steps, done))
    due = [_due(one, steps, done, told) for one in heads]
    ready = [at for at, moment in enumerate(due) if moment is None or moment <= now or heads[at].after == "before"]
    first = ready[0] if ready else min(range(len(heads)), key=lambda at: due[at] or now, default=None)
    return RunState(
        current="" if first is None else heads[first].id,
        waits_until=None if first is None else due[first],
        done=[one.id for one in steps if one.id in done],
        clocks=[*_working(scene, logs), *_running(heads, due, steps, done, told)],
        cups=[cup for pour in scene.pours for cup in _cups(scene, pour.id, logs[pour.id], steps, done)],
        conflicts=_conflicts(told),
        poured=[key for key, log in logs.items() if log.ended is not None],
        rim=None if first is None else _rim(scene, heads[first], told),
        dark=[] if first is None else list(_dark(scene, heads[first], steps, logs)),
        top_up=None if first is None else _short(scene, heads[first], steps, logs),
    )


def _dark(
    scene: Scene, now: BenchStep, steps: Sequence[BenchStep], logs: dict[str, PourLog]
) -> Iterable[TooDark]:
    """Too many drops in the pour that is at hand."""
    log = logs.get(now.pour_id)
    if log is None or log.ended is not None:
        return
    number = now.pour_number
    mixed = sum(one.target_g or 0.0 for one in steps if one.pour_id == now.pour_id and one.kind in PARTS)
    names = {one.id: one.name for one in scene.colourants}
    for key, given in log.neat_drops.items():
        mine = [one for one in steps if one.pour_id == now.pour_id and one.colourant_id == key]
        wanted = sum(one.neat_drops or 0.0 for one in mine if one.cup in log.cups)
        share = len([one for one in mine if one.cup in log.cups]) / max(1, len(mine))
        told = too_dark((key, names.get(key, key)), wanted, given, mixed * share, _above(scene, number, key))
        if told is not None:
            yield told


def _above(scene: Scene, number: int, colourant_id: str) -> tuple[float, float] | None:
    """Dose of the pour above, and its thickness over that of this one; None under the last."""
    if number >= len(scene.pours):
        return None
    lines = [scene.tank.fill_height_mm, *(pour.top_depth_mm for pour in scene.pours)]
    thick = (lines[number] - lines[number + 1]) / (lines[number - 1] - lines[number])
    dose = next((
        one.dose_drops_per_100g for one in scene.pours[number].doses if one.colourant_id == colourant_id
    ), 0.0)
    return dose, thick


def _short(scene: Scene, now: BenchStep, steps: Sequence[BenchStep], logs: dict[str, PourLog]) -> TopUp | None:
    """How far the pour at hand ended below its line."""
    log = logs.get(now.pour_id)
    line = next((one for one in steps if one.pour_id == now.pour_id and one.line_depth_mm is not None), None)
    if log is None or log.line_depth_mm is None or line is None or line.line_depth_mm is None:
        return None
    pour = next(one for one in scene.pours if one.id == now.pour_id)
    mix_c = log.mix_c if log.mix_c is not None else pour.mix_c
    return top_up(scene.resin_of(pour), log.line_depth_mm - line.line_depth_mm, line.surface_cm2, mix_c)


def _rim(scene: Scene, step: BenchStep, told: Sequence[AnyEvent]) -> Rim | None:
    if step.line_depth_mm is None:
        return None
    level = next((one for one in reversed(told) if isinstance(one, Levelled)), None)
    return rim_of(
        scene, step.line_depth_mm, level.right_lower_mm if level else 0.0, level.front_lower_mm if level else 0.0
    )


def rim_of(scene: Scene, line_depth_mm: float, right_lower_mm: float, front_lower_mm: float) -> Rim:
    """Distance from the rim down to a line. The liquid lies level, and its volume stays what it was.

        d = (wall - line) -/+ half of what a side lies lower

    Source: definition
    """
    tank = scene.tank
    middle = tank.wall_height_mm - (tank.fill_height_mm - line_depth_mm)
    right, front = right_lower_mm / 2, front_lower_mm / 2
    return Rim(
        front_left_mm=round(middle + right - front, 1), front_right_mm=round(middle - right - front, 1),
        back_left_mm=round(middle + right + front, 1), back_right_mm=round(middle - right + front, 1),
    )


def _heads(steps: Sequence[BenchStep], done: dict[str, datetime]) -> Iterable[BenchStep]:
    """The first open step of each chain that may go on: pours one after the other, pieces of one beside each other."""
    chains: dict[str, list[BenchStep]] = {}
    for one in steps:
        chains.setdefault(one.chain, []).append(one)
    waiting = False
    for chain, mine in chains.items():
        head = next((one for one in mine if one.id not in done), None)
        if head is None:
            continue
        if waiting and "/" not in chain:
            return
        yield head
        waiting = True
        if "/" not in chain or head.kind == "pour":
            return


def _due(
    step: BenchStep, steps: Sequence[BenchStep], done: dict[str, datetime], told: Sequence[AnyEvent]
) -> datetime | None:
    """When its clock runs out; None for a step without one, or whose clock has not begun."""
    start = _clock_start(step, steps, done, told)
    return None if start is None or step.clock_min is None else start + timedelta(minutes=step.clock_min)


def _clock_start(
    step: BenchStep, steps: Sequence[BenchStep], done: dict[str, datetime], told: Sequence[AnyEvent]
) -> datetime | None:
    if step.after == "poured":
        return next((
            one.at for one in reversed(told)
            if isinstance(one, Poured) and one.pour_id == step.pour_id and one.piece == max(1, step.piece)
        ), None)
    if step.after == "before":
        mine = [one for one in steps if one.pour_id == step.pour_id and one.chain in (step.chain, step.pour_id)]
        before = mine[: [one.id for one in mine].index(step.id)]
        return max((done[one.id] for one in before if one.id in done), default=None)
    return None


def _running(
    heads: Sequence[BenchStep], due: Sequence[datetime | None], steps: Sequence[BenchStep],
    done: dict[str, datetime], told: Sequence[AnyEvent],
) -> Iterable[Clock]:
    for step, until in zip(heads, due, strict=True):
        start = _clock_start(step, steps, done, told)
        if start is not None and until is not None:
            yield Clock(step_id=step.id, pour_id=step.pour_id, words=step.title, from_at=start, until_at=until)


def _working(scene: Scene, logs: dict[str, PourLog]) -> Iterable[Clock]:
    """The working time of what is mixed and not yet poured, at the temperature that was read, else planned."""
    for pour in scene.pours:
        log = logs[pour.id]
        if log.met is None or log.ended is not None:
            continue
        resin = scene.resin_of(pour)
        mix_c = log.mix_c if log.mix_c is not None else pour.mix_c
        minutes = resin.working_min / float(arrhenius_factor(mix_c, resin.activation_1_kj_mol))
        yield Clock(
            step_id="", pour_id=pour.id, words=words("run.working", at_c=mix_c), from_at=log.met,
            until_at=log.met + timedelta(minutes=minutes),
        )


def _cups(
    scene: Scene, pour_id: str, log: PourLog, steps: Sequence[BenchStep], done: dict[str, datetime]
) -> Iterable[CupState]:
    """Cups of a pour that something was weighed into."""
    pour = next(one for one in scene.pours if one.id == pour_id)
    mix_c = log.mix_c if log.mix_c is not None else pour.mix_c
    for cup, held in sorted(log.cups.items()):
        mine = [one for one in steps if one.pour_id == pour_id and one.cup == cup]
        parts = {one.kind: one for one in mine if one.kind in ("weigh_a", "weigh_b")}
        if len(parts) == 2 and held.plain_a_g > 0:
            wanted = (parts["weigh_a"].target_g or 0.0, parts["weigh_b"].target_g or 0.0)
            yield _cup(scene, pour, cup, held, wanted, parts["weigh_b"].id in done, mix_c)


def _cup(
    scene: Scene, pour: Pour, cup: int, held: CupLog, wanted: tuple[float, float], over: bool, mix_c: float
) -> CupState:
    resin, step_g = scene.resin_of(pour), scene.brief.habits.scale_step_g
    ratio = mass_ratio(resin)
    target_b = round(held.part_a_g * ratio / step_g) * step_g
    off_b = held.part_b_g - target_b
    near = TOLD_STEPS * step_g
    off = held.plain_a_g > wanted[0] + near or off_b > near or (over and off_b < -near)
    told = corrected(resin, held.part_a_g, held.part_b_g, wanted[1] * (1 + 1 / ratio), mix_c) if off else None
    return CupState(
        pour_id=pour.id, cup=cup, part_a_g=round(held.part_a_g, 3), part_b_g=round(held.part_b_g, 3),
        target_b_g=round(target_b, 3),
        correction=None if told is None or told.add is None else told,
    )


def _conflicts(told: Sequence[AnyEvent]) -> list[Conflict]:
    """Weighings and ends of one step from two devices, the later one entered without knowing of the other."""
    found = []
    by_step: dict[tuple[str, str], list[AnyEvent]] = {}
    for one in told:
        if isinstance(one, Done | PartWeighed | Met | Poured) and one.step_id and one.device:
            by_step.setdefault((one.step_id, one.kind), []).append(one)
    for (step_id, kind), mine in by_step.items():
        blind = [
            (a, b) for a in mine for b in mine
            if a.device != b.device and a.number < b.number and b.seen < a.number
        ]
        if blind and kind != "done":
            first, second = blind[0]
            found.append(Conflict(
                step_id=step_id, event_ids=[first.id, second.id],
                words=words("run.conflict", first=first.device, second=second.device),
            ))
    return found

