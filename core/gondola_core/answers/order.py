"""The order of the work: each step where it is kept, and whether it stands where it costs something."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..bench.order import POUR, Rule, Step, broken, in_order, rules_of, steps_of
from ..scene.schedule import pour_starts_h
from ..words import Words
from .answer import Answer
from .bodies import BODIES, FigureBody
from .fills import covered_by
from .heat import HEAT, Heat
from .reading import Reading


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkStep:
    """One step of the work.

    at_h    hours from the first pour: of a pour its start, of what comes before one that pour's, else of the last
    wrong   True if it has to come before something that comes before it
    """

    id: str
    words: Words
    at_h: float
    wrong: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Order:
    """The steps in their order, and the rules that it breaks."""

    steps: list[Step]
    broken: list[Rule]


def _order(scene: Any, heat: Heat, bodies: list[FigureBody]) -> Order:
    covers = covered_by(scene, bodies)
    ordered = in_order(scene, steps_of(scene, covers))
    gas_ml = float(sum(max(0.0, float(one)) for one in heat.marched.gas_ml))
    return Order(steps=ordered, broken=list(broken(ordered, rules_of(scene, covers, gas_ml))))


def _told(scene: Any, order: Order) -> list[WorkStep]:
    starts = dict(zip((f"{POUR}{pour.id}" for pour in scene.pours), pour_starts_h(scene.pours), strict=True))
    late = {rule.first for rule in order.broken}
    found: list[WorkStep] = []
    at_h = max(starts.values())
    for step in reversed(order.steps):
        at_h = starts.get(step.id, at_h)
        found.append(WorkStep(id=step.id, words=step.words, at_h=round(at_h, 2), wrong=step.id in late))
    return found[::-1]


ORDER = Answer(
    name="order", needs=(HEAT, BODIES), by=_order,
    reads=Reading(
        "order", "tank.seal", "tank.walls_stay", "tank.fill_height_mm", "tank.inner_width_mm", "tank.inner_behind_mm",
        "bed.sealed", "figures.id", "figures.name", "figures.holding", "figures.lamp", "figures.cut_at_fill",
        "figures.material", "pours.id", "pours.top_depth_mm", "pours.resin_id", "resins",
    ),
)
WORK = Answer(name="work", needs=(ORDER,), by=_told, reads=Reading("pours.id", "pours.wait_h"))
