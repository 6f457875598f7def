"""Buoyancy and holding of every figure, with what is near it in the plan."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..holding.facts import FigureFacts, figure_facts
from ..holding.load import Load, Wetting, worst_load
from ..holding.ways import Nearby
from ..shape.columns import FIRST_FIGURE, ColumnSpans
from ..shape.floods import FreeSpans
from ..shape.pockets import air_under_ml
from .answer import Answer
from .bodies import BODIES, FigureBody
from .fills import lines_mm
from .flood import FLOOD, SPANS
from .heat import HEAT, Heat
from .reading import Reading

READS = Reading(
    "tank.fill_height_mm", "tank.wall_height_mm", "pours.top_depth_mm", "pours.wait_h", "figures.id", "figures.place",
    "figures.hollow", "figures.mass_g", "figures.material", "figures.hold",
)
LOAD_READS = Reading(
    "tank.fill_height_mm", "pours.top_depth_mm", "pours.resin_id", "resins", "figures.place",
    "figures.hollow", "figures.mass_g", "figures.material",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureLoad:
    """What lifts a figure at its worst moment, and the air that is left under it at the fill line."""

    load: Load
    trapped_ml: float


def _loads(scene: Any, bodies: list[FigureBody], spans: ColumnSpans, free: FreeSpans) -> list[FigureLoad]:
    """One a figure; whatever the heat is."""
    shut_in = air_under_ml(spans, free, lines_mm(scene), FIRST_FIGURE + len(scene.figures))
    each_air = shut_in[:, FIRST_FIGURE:].T.tolist()
    return [
        FigureLoad(load=worst_load(figure, body.bulk, _wettings(scene, air)), trapped_ml=air[-1])
        for figure, body, air in zip(scene.figures, bodies, each_air, strict=True)
    ]


def facts_of_figures(
    scene: Any, bodies: list[FigureBody], loads: list[FigureLoad], heat: Heat
) -> list[FigureFacts]:
    """One a figure."""
    facts = []
    for figure, body, lifted, peak in zip(scene.figures, bodies, loads, heat.figure_peaks_c, strict=True):
        bottom, top = float(body.least[2]), float(body.most[2])
        off, stiff = _layer_below(scene, heat, bottom, top)
        near = Nearby(
            gap_below_mm=body.gap_below_mm, line_below_mm=off, contact_cm2=body.contact_cm2,
            layer_is_stiff=stiff, room_above_mm=max(1.0, scene.tank.wall_height_mm - top), peak_c=peak,
        )
        facts.append(
            figure_facts(
                figure, body.bulk, lifted.load, near, above_ml=body.above_ml, trapped_ml=lifted.trapped_ml,
            )
        )
    return facts


def _wettings(scene: Any, air_ml: list[float]) -> list[Wetting]:
    lines = lines_mm(scene)
    return [
        Wetting(
            number=number, resin=scene.resin_of(pour), floor_mm=lines[number - 1], line_mm=lines[number],
            air_below_floor_ml=air_ml[number - 1], air_below_line_ml=air_ml[number],
        )
        for number, pour in enumerate(scene.pours, start=1)
    ]


def _layer_below(scene: Any, heat: Heat, bottom_mm: float, top_mm: float) -> tuple[float | None, bool]:
    """How far a figure's foot is above the layer line nearest to it, and whether that layer has gelled
    when the next pour comes."""
    inner = lines_mm(scene)[1:-1]
    below = [line for line in inner if line <= top_mm]
    if not below:
        return None, False
    line = min(below, key=lambda one: abs(bottom_mm - one))
    laid_on = inner.index(line)
    cure = heat.cures[laid_on]
    opens = cure.tack_opens_h if cure else 0.0
    return bottom_mm - line, opens is not None and scene.pours[laid_on + 1].wait_h >= opens


LOADS = Answer(name="loads", reads=LOAD_READS, needs=(BODIES, SPANS, FLOOD), by=_loads)
FIGURE_FACTS = Answer(name="figure_facts", reads=READS, needs=(BODIES, LOADS, HEAT), by=facts_of_figures)
