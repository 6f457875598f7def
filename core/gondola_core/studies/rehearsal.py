"""A rehearsal: a seeded helping of bad luck at some steps, and what it would have come to."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import tzinfo
from random import Random
from typing import Any

from ..answers.kept import Keeper
from ..bench.correcting import NOTICED
from ..bench.events import Abraded, AnyEvent, Struck, standing
from ..bench.happened import as_happened, pour_logs
from ..bench.steps import BenchStep
from ..checks import Flag, Severity
from ..evaluate import DRAFT, KEEPER, evaluate
from ..outcome import Outcome
from ..scene import Scene
from ..shape import Meshes
from ..words import Words, words

RUNS_ON = 0.12
"""Share by which part A is over. Source: assumed"""
CALL_MIN = 35.0
"""A long call. Source: assumed"""
DROP_MM = 2.0
"""By how much a leak lowers the line. Source: assumed"""
COLD_K = 8.0
"""By how much the room is colder than planned. Source: assumed"""
COLD_EVERY_H, COLD_H = 1.0, 24
"""Readings of that room. Source: assumed"""
LATE_H = 3.0
"""Hours past the tack. Source: assumed"""
COUNT = 3
"""Mishaps of one rehearsal. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """What can be done about a mishap.

    events        that follow from it: fields of an event, and how many hours ago it was
    ahead_min     by how much the clock goes on
    past_window   True if it goes on past the tack of the pour below
    """

    id: str
    words: Words
    events: list[tuple[float, dict[str, Any]]]
    ahead_min: float = 0.0
    past_window: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Mishap:
    """Something that goes wrong at a step."""

    id: str
    step_id: str
    words: Words
    choices: list[Choice]


@dataclass(frozen=True, slots=True, kw_only=True)
class Debrief:
    """What was done, what it would have come to, and what to do otherwise."""

    did: list[Words]
    would: list[Words]
    better: list[Words]


def mishaps_of(scene: Scene, steps: Sequence[BenchStep], seed: int) -> list[Mishap]:
    """Three of those that can befall this scene, the same from the same seed, in the order in which they strike."""
    random = Random(seed)
    possible = [made for made in (make(scene, steps, random) for make in _MAKERS) if made is not None]
    chosen = random.sample(possible, min(COUNT, len(possible)))
    order = {one.id: at for at, one in enumerate(steps)}
    return sorted(chosen, key=lambda one: order[one.step_id])


def _first(steps: Sequence[BenchStep], kind: str, number: int = 1) -> BenchStep | None:
    return next((one for one in steps if one.kind == kind and one.pour_number == number), None)


def _see(mishap: str, events: list[tuple[float, dict[str, Any]]], **more: Any) -> list[Choice]:
    """A mishap that is only seen; what is done about it shows in what comes next."""
    name = "look" if mishap == "too_much_a" else "see"
    return [Choice(id=name, words=words(f"rehearsal.{mishap}_{name}"), events=events, **more)]


def _too_much_a(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    number = random.choice([1, min(2, len(scene.pours))])
    weigh_a, weigh_b = _first(steps, "weigh_a", number), _first(steps, "weigh_b", number)
    if weigh_a is None or weigh_b is None:
        return None
    more = round(RUNS_ON * (weigh_a.target_g or 0.0), 1)
    event = {"kind": "weighed", "pour_id": weigh_a.pour_id, "cup": 1, "part": "a", "mass_g": more}
    return Mishap(
        id="too_much_a", step_id=weigh_b.id, words=words("rehearsal.too_much_a", mass=more),
        choices=_see("too_much_a", [(0.0, event)]),
    )


def _phone(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    step = _first(steps, "stir", random.randint(1, len(scene.pours)))
    return None if step is None else Mishap(
        id="phone", step_id=step.id, words=words("rehearsal.phone"),
        choices=[
            Choice(id="ignore", words=words("rehearsal.phone_ignore"), events=[]),
            Choice(id="take", words=words("rehearsal.phone_take"), events=[], ahead_min=CALL_MIN),
        ],
    )


def _leak(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    if len(scene.pours) < 2:
        return None
    step, pour = _first(steps, "leaks"), scene.pours[0]
    if step is None:
        return None
    low = {"kind": "poured", "pour_id": pour.id, "line_depth_mm": pour.top_depth_mm + DROP_MM}
    return Mishap(
        id="leak", step_id=step.id, words=words("rehearsal.leak", drop=DROP_MM),
        choices=[
            Choice(id="tape", words=words("rehearsal.leak_tape"), events=[]),
            Choice(id="leave", words=words("rehearsal.leak_leave"), events=[(0.0, low)]),
        ],
    )


def _floats(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    set_ = [one for one in steps if one.kind == "figure"]
    if not set_:
        return None
    step = random.choice(set_)
    name = next(one.name for one in scene.figures if one.id == step.figure_id)
    leaks = next(one for one in steps if one.kind == "leaks" and one.pour_number == step.pour_number)
    out = {"kind": "placed", "figure_id": step.figure_id, "left_out": True}
    return Mishap(
        id="floats", step_id=leaks.id, words=words("rehearsal.floats", name=name),
        choices=[
            Choice(id="hold", words=words("rehearsal.floats_hold"), events=[]),
            Choice(id="out", words=words("rehearsal.floats_out"), events=[(0.0, out)]),
        ],
    )


def _cold(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    step = _first(steps, "feel", 2)
    if step is None:
        return None
    room_c = round(scene.brief.room.mean_c - COLD_K, 1)
    events: list[tuple[float, dict[str, Any]]] = [
        (hour * COLD_EVERY_H, {"kind": "measured", "what": "room", "measured_c": room_c}) for hour in range(COLD_H)
    ]
    return Mishap(
        id="cold", step_id=step.id, words=words("rehearsal.cold", room_c=room_c), choices=_see("cold", events)
    )


def _overslept(scene: Scene, steps: Sequence[BenchStep], random: Random) -> Mishap | None:
    step = _first(steps, "feel", 3)
    return None if step is None else Mishap(
        id="overslept", step_id=step.id, words=words("rehearsal.overslept"),
        choices=_see("overslept", [], past_window=True),
    )


_MAKERS: tuple[Callable[[Scene, Sequence[BenchStep], Random], Mishap | None], ...] = (
    _too_much_a, _phone, _leak, _floats, _cold, _overslept,
)


def debrief(
    scene: Scene, mishaps: Sequence[Mishap], events: Sequence[AnyEvent], zone: tzinfo, meshes: Meshes | None = None,
    keeper: Keeper = KEEPER,
) -> Debrief:
    """What a rehearsal came to: told by the scene as it would have happened."""
    happened = as_happened(scene, events, zone)
    planned, was = (evaluate(one, DRAFT, keeper, None, meshes) for one in (scene, happened))
    struck = {one.mishap: one.choice for one in standing(events) if isinstance(one, Struck)}
    met = [one for one in mishaps if one.id in struck]
    fresh = _fresh(planned, was)
    kept = {one.id for one in happened.figures}
    gone = [one.name for one in scene.figures if one.id not in kept]
    missing = [words("rehearsal.missing", names=gone)] if gone else []
    return Debrief(
        did=[_did(scene, one, struck[one.id], happened, events) for one in met] or [words("rehearsal.not_met")],
        would=missing + [
            words("rehearsal.would", severity=flag.severity.value, title=flag.title, sentence=flag.sentence)
            for flag in fresh
        ] or [words("rehearsal.nothing")],
        better=[words(f"rehearsal.{one.id}_better") for one in met],
    )


def _fresh(planned: Outcome, was: Outcome) -> list[Flag]:
    known = {(one.code, one.pour_number, one.figure_id) for one in planned.flags}
    return [
        one for one in was.flags
        if one.severity is not Severity.NOTE and (one.code, one.pour_number, one.figure_id) not in known
    ]


def _did(scene: Scene, mishap: Mishap, choice: str, happened: Scene, events: Sequence[AnyEvent]) -> Words:
    """What was done about it, as the events tell."""
    how, values = choice, dict(mishap.words.values)
    if mishap.id == "too_much_a":
        worst = max(abs(happened.resin_of(pour).mixed_error_fraction) for pour in happened.pours)
        how = "wrong" if worst >= NOTICED else "right"
    elif mishap.id in ("cold", "overslept"):
        how = _met_it(scene, mishap.id, events)
    elif mishap.id == "phone":
        values["minutes"] = CALL_MIN
    return words(f"rehearsal.{mishap.id}_did_{how}", **values)


def _met_it(scene: Scene, mishap: str, events: Sequence[AnyEvent]) -> str:
    """Whether the next pour waited for its tack, or the face was abraded."""
    told = standing(events)
    if mishap == "overslept":
        return "abraded" if any(isinstance(one, Abraded) for one in told) else "poured"
    logs = pour_logs(scene, events)
    outcome = evaluate(as_happened(scene, events))
    first, second = logs[0].start, logs[1].start
    opens = outcome.pours[0].heat.cure.tack_opens_h if outcome.pours[0].heat.cure else None
    if first is None or second is None or opens is None:
        return "waited"
    return "waited" if (second - first).total_seconds() / 3600 >= opens - 0.5 else "poured"
