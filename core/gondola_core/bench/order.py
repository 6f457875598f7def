"""The order of the whole piece: its steps, what has to come before what, and what a swap costs."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..scene import Scene
from ..scene.order import OWN
from ..units import GRAVITY, HOUR, ML, MM, MPA_S
from ..words import Words, words

FIGURE, POUR, LAMP = "figure:", "pour:", "lamp:"
FOLIAGE = frozenset({"moss"})
"""Materials that a flame burns, and that give off air. Source: assumed"""
SLIT_MM, SLIT_LENGTH_MM = 0.1, 3.0
"""A slit at the foot of a wall that nobody sees, and how far through. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step of the work."""

    id: str
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """That one step comes before another, and what it costs if it does not."""

    first: str
    then: str
    cost: Words


def steps_of(scene: Scene, covered_by: Sequence[int | None]) -> list[Step]:
    """Every step that follows from the scene, in the order in which it goes well.

    covered_by  number of the pour that first meets each figure; None for one that none meets
    """
    return list(_before(scene)) + list(_pouring(scene, covered_by)) + list(_after(scene, covered_by))


def _step(id_: str, kind: str | None = None, **values: object) -> Step:
    return Step(id=id_, words=words(f"order.{kind or id_}", **values))


def _before(scene: Scene) -> Iterator[Step]:
    yield _step("cuts")
    yield _step("base")
    yield _step("bed")
    yield _step("paint")
    if scene.bed.sealed:
        yield _step("seal")
    if scene.tank.seal is not None:
        yield _step("dam")
        yield _step("leaks")
    for figure in scene.figures:
        if figure.lamp is not None:
            yield _step(f"{LAMP}{figure.id}", "lamp", name=figure.name)


def _pouring(scene: Scene, covered_by: Sequence[int | None]) -> Iterator[Step]:
    for number, pour in enumerate(scene.pours, start=1):
        for figure, met in zip(scene.figures, covered_by, strict=True):
            if met == number and not figure.cut_at_fill:
                kind = "lay" if figure.holding == "staged" else "fix"
                yield _step(f"{FIGURE}{figure.id}", kind, name=figure.name)
        if number == 1:
            yield _step("dust")
        yield _step(f"{POUR}{pour.id}", "pour", pour=number)
    yield _step("flame")


def _after(scene: Scene, covered_by: Sequence[int | None]) -> Iterator[Step]:
    if not scene.tank.walls_stay:
        yield _step("out")
        yield _step("faces")
    yield _step("ripples")
    for figure, met in zip(scene.figures, covered_by, strict=True):
        if figure.cut_at_fill or met is None:
            yield _step(f"{FIGURE}{figure.id}", "add", name=figure.name)
    yield _step("plants")


def rules_of(scene: Scene, covered_by: Sequence[int | None], gas_ml: float) -> Iterator[Rule]:
    """What has to come before what in this scene.

    gas_ml  that the bed gives off where no seal keeps it in
    """
    first, last = f"{POUR}{scene.pours[0].id}", f"{POUR}{scene.pours[-1].id}"
    pairs = [
        ("cuts", "base", words("order.cost_cuts")), ("base", "bed", words("order.cost_base")),
        ("bed", "paint", words("order.cost_paint")), ("paint", "seal", words("order.cost_seal")),
        ("seal", "dam", words("order.cost_reach", gas=gas_ml)), ("seal", first, words("order.cost_gas", gas=gas_ml)),
        ("dam", "leaks", words("order.cost_tested")), ("dam", first, words("order.cost_dam")),
        ("leaks", first, words("order.cost_leak", lost=leak_ml_h(scene))),
        ("dust", first, words("order.cost_dust")), (last, "flame", words("order.cost_flame")),
        ("flame", "plants", words("order.cost_plants")), (last, "out", words("order.cost_out")),
        ("out", "faces", words("order.cost_faces")), ("faces", "ripples", words("order.cost_ripples")),
    ]
    yield from (Rule(first=one, then=then, cost=cost) for one, then, cost in pairs)
    for below, above in zip(scene.pours, scene.pours[1:], strict=False):
        yield Rule(first=f"{POUR}{below.id}", then=f"{POUR}{above.id}", cost=words("order.cost_pours"))
    for figure, met in zip(scene.figures, covered_by, strict=True):
        yield from _figure_rules(scene, figure.id, met)


def _figure_rules(scene: Scene, figure_id: str, met: int | None) -> Iterator[Rule]:
    figure = next(one for one in scene.figures if one.id == figure_id)
    step = f"{FIGURE}{figure.id}"
    if figure.cut_at_fill or met is None:
        burns = figure.material.id in FOLIAGE
        yield Rule(
            first="flame", then=step, cost=words("order.cost_burns" if burns else "order.cost_above", name=figure.name)
        )
        return
    covers = f"{POUR}{scene.pours[met - 1].id}"
    yield Rule(first="dam", then=step, cost=words("order.cost_glued", name=figure.name))
    yield Rule(first=step, then=covers, cost=words("order.cost_missed", name=figure.name, pour=met))
    if figure.holding == "staged" and met > 1:
        below = f"{POUR}{scene.pours[met - 2].id}"
        yield Rule(first=below, then=step, cost=words("order.cost_staged", name=figure.name, pour=met - 1))
    if figure.lamp is not None:
        yield Rule(first=f"{LAMP}{figure.id}", then=covers, cost=words("order.cost_lamp", name=figure.name))


def leak_ml_h(scene: Scene) -> float:
    """What a slit at the foot of all walls loses in an hour, under the first pour.

        Q = w dp s^3/(12 mu l)

    Source: own_geometry

    """
    pour = scene.pours[0]
    resin = scene.resin_of(pour)
    deep = (scene.tank.fill_height_mm - pour.top_depth_mm) * MM
    pressure = resin.density_g_ml * 1e3 * GRAVITY * deep
    round_mm = 2 * (scene.tank.inner_width_mm + scene.tank.inner_behind_mm)
    flow = round_mm * MM * pressure * (SLIT_MM * MM) ** 3 / (12 * resin.viscosity_mpa_s * MPA_S * SLIT_LENGTH_MM * MM)
    return float(flow / ML * HOUR)


def in_order(scene: Scene, steps: list[Step]) -> list[Step]:
    """The steps as the person keeps them; what is new stands after what it usually follows."""
    by_id = {step.id: step for step in steps}
    own = {one.id: Step(id=one.id, words=words("order.own", name=one.name)) for one in scene.order
           if one.id.startswith(OWN) and one.name}
    found = [by_id.get(one.id) or own.get(one.id) for one in scene.order]
    kept = [step for step in found if step is not None]
    for at, step in enumerate(steps):
        if step.id in {one.id for one in kept}:
            continue
        before = {one.id for one in steps[:at]}
        places = [place for place, one in enumerate(kept) if one.id in before]
        kept.insert(places[-1] + 1 if places else 0, step)
    return kept


def broken(ordered: Sequence[Step], rules: Iterator[Rule]) -> Iterator[Rule]:
    """The rules that an order breaks, of steps that are there."""
    places = {step.id: at for at, step in enumerate(ordered)}
    for rule in rules:
        if rule.first in places and rule.then in places and places[rule.first] > places[rule.then]:
            yield rule


def moved_before(ordered: Sequence[Step], rule: Rule) -> list[str]:
    """The order with the step that comes too late put right before the one that needs it."""
    ids = [step.id for step in ordered if step.id != rule.first]
    ids.insert(ids.index(rule.then), rule.first)
    return ids
