"""Made-up histories of pieces that went wrong: one cause is planted, its faults drawn, the record has gaps."""

import random
from datetime import UTC, timedelta

from test_traps import CUP, walls

from gondola_core.bench.events import read_events
from gondola_core.bench.happened import as_happened
from gondola_core.bench.mixing import mass_ratio
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.explain.case import Case
from gondola_core.explain.fault import Fault
from gondola_core.explain.registry import CAUSES
from gondola_core.samples import SAMPLES

GAPS = 0.2
"""Share of histories in which one kind of thing was not recorded."""
STRAY = 0.12
"""Share of histories with a fault that has nothing to do with the cause."""
NOTED = {
    "moisture": "the bed was still damp at one corner", "dust": "cat hair on the surface, left uncovered",
    "leaked_joint": "a drip under the left joint",
}


class History:
    """One made-up run of a scene, event by event."""

    def __init__(self, planned, draw: random.Random) -> None:
        self.planned, self.draw, self.bodies = planned, draw, []
        self.first = planned.brief.first_pour_at.replace(tzinfo=UTC)
        self.waits = [pour.wait_h for pour in planned.pours]
        self.outcome = evaluate(planned, DRAFT)

    def tell(self, hours: float, kind: str, **fields) -> None:
        at = (self.first + timedelta(hours=hours)).isoformat()
        self.bodies.append({"id": f"event-{len(self.bodies):06d}", "at": at, "kind": kind, **fields})

    def without(self, *kinds: str) -> None:
        self.bodies = [one for one in self.bodies if one["kind"] not in kinds]

    def pours(self, ratio=None, tint=None, mix_c=None) -> None:
        start = 0.0
        for number, pour in enumerate(self.planned.pours, start=1):
            start += self.waits[number - 1]
            resin = self.planned.resin_of(pour)
            error = ratio[1] if ratio and ratio[0] == number else self.draw.gauss(0, 0.005)
            self.tell(start - 0.3, "weighed", pour_id=pour.id, cup=1, part="a", mass_g=200.0)
            self.tell(start - 0.25, "weighed", pour_id=pour.id, cup=1, part="b",
                      mass_g=round(200.0 * mass_ratio(resin) * (1 + error), 2))
            mix = 200.0 * (1 + mass_ratio(resin))
            for dose in pour.doses:
                times = tint[1] if tint and tint[0] == number else max(0.7, self.draw.gauss(1, 0.05))
                self.tell(start - 0.2, "dropped", pour_id=pour.id, cup=1, colourant_id=dose.colourant_id,
                          neat_drops=round(dose.dose_drops_per_100g * mix / 100 * times, 2))
            if mix_c is not None:
                self.tell(start - 0.1, "measured", what="mix", pour_id=pour.id, measured_c=mix_c)
            self.tell(start, "pouring", pour_id=pour.id)
            self.tell(start + 0.1, "poured", pour_id=pour.id)

    def room(self, by_k: float = 0.0) -> None:
        room = self.planned.brief.room
        for hours in range(0, int(sum(self.waits)) + 30, 6):
            self.tell(hours, "measured", what="room", measured_c=round(room.mean_c + by_k + self.draw.gauss(0, 0.5), 1))

    def case(self, faults) -> Case:
        events = read_events(self.bodies)
        return Case(self.planned, as_happened(self.planned, events), events, faults)


def base(cause: str, draw: random.Random):
    """A scene that goes well but for what a cause plants in the plan itself."""
    scene = SAMPLES["quarry-pool"]()
    bed = scene.bed.model_copy(update={"sealed": cause != "unsealed_bed"})
    scene = scene.model_copy(update={"bed": bed})
    if cause == "overheat":
        top, *rest = scene.pours[1:]
        hot = draw.choice([26.0, 28.0, 30.0])
        pours = [scene.pours[0].model_copy(update={"mix_c": hot}), top.model_copy(update={
            "top_depth_mm": 18.0, "mix_c": hot}), rest[1]]
        return scene.model_copy(update={"pours": pours})
    if cause == "floated_figure":
        figures = [one.model_copy(update={"holding": "staged", "mass_g": None, "material": one.material.model_copy(
            update={"density_g_ml": 0.5})}) if one.id == "pike" else one for one in scene.figures]
        return scene.model_copy(update={"figures": figures})
    if cause == "trapped_air":
        cup = walls(*CUP)
        return scene.model_copy(update={"figures": [*scene.figures, cup.model_copy(update={"id": "cup"})]})
    return scene


def history(cause: str, seed: int) -> Case:
    """The case of a planted cause."""
    draw = random.Random(f"{cause} {seed}")
    made = History(base(cause, draw), draw)
    pours = made.outcome.pours
    ready = made.outcome.whole.demould_h or 150.0
    number = draw.randrange(2, len(pours) + 1)
    if cause == "missed_window":
        closes = pours[number - 2].heat.cure.tack_closes_h
        made.waits[number - 1] = closes + draw.uniform(4, 20)
    ratio = (number, draw.choice([-1, 1]) * draw.uniform(0.1, 0.25)) if cause == "wrong_ratio" else None
    tint = (number, draw.uniform(1.7, 3.0)) if cause == "over_tint" else None
    made.pours(ratio, tint)
    made.room(draw.uniform(-10, -7) if cause == "cold_room" else 0.0)
    made.tell(-24.0, "sealed", sealed=made.planned.bed.sealed)
    starts = [sum(made.waits[: at + 1]) for at in range(len(made.waits))]
    for figure in made.planned.figures:
        if figure.holding == "staged":
            gel = pours[1].heat.cure.gel_h or 10.0
            share = draw.uniform(0.15, 0.6) if cause == "figure_too_early" else draw.uniform(1.1, 1.3)
            made.tell(starts[1] + share * gel, "placed", figure_id=figure.id)
    made.tell(starts[-1], "noted", text="all as it should be")
    off = ready - draw.uniform(10, 40) if cause == "early_demould" else ready + draw.uniform(5, 60)
    made.tell(max(off, starts[-1] + 1.0), "demoulded")
    vessel = "dam" if cause == "vacuum_in_dam" else "cup"
    made.tell(starts[-1] - 0.2, "degassed", pour_id=made.planned.pours[-1].id, vessel=vessel)
    if cause in NOTED and draw.random() < 0.75:
        made.tell(starts[-1] + 2, "noted", text=NOTED[cause])
    for kinds in (("weighed",), ("dropped",), ("measured",), ("sealed",), ("placed",), ("demoulded",), ("degassed",)):
        if draw.random() < GAPS:
            made.without(*kinds)
    return made.case(faults_of(cause, draw))


def faults_of(cause: str, draw: random.Random) -> list[Fault]:
    """What such a cause makes, at least one fault, and now and then a stray one."""
    makes = CAUSES[cause].makes
    kinds = [kind for kind, share in makes.items() if draw.random() < share]
    kinds = kinds or [max(makes, key=lambda kind: makes[kind])]
    if draw.random() < STRAY:
        kinds.append(draw.choice(["bubbles", "flecks", "dust", "wall_print", "milky", "line"]))
    return [Fault(kind=kind, size_mm=round(draw.uniform(0.5, 8), 1)) for kind in dict.fromkeys(kinds)]
