"""What is solid along the columns, how the level floods what is not, and where air and hollows stay."""

from __future__ import annotations

from typing import Any

from ..shape.columns import FIRST_FIGURE, Columns, ColumnSpans, Parts, put_together
from ..shape.floods import FreeSpans, free_spans
from ..shape.pockets import AirTrap, DryBasin, PourPlace, air_traps, dry_basins, pour_places
from .answer import Answer
from .bodies import MET
from .columns import COLUMNS, GROUND
from .reading import Reading, SceneExtract

MOST_SHAPES = 12
"""Whole scenes of columns kept at a time."""


def _spans(_: SceneExtract, columns: Columns, ground: tuple[Parts, Parts], met: list[Parts]) -> ColumnSpans:
    return put_together(columns, [*ground, *met])


def _flood(scene: SceneExtract, spans: ColumnSpans) -> FreeSpans:
    full = [figure.prefilled for figure in scene.figures]
    return free_spans(spans, frozenset(FIRST_FIGURE + at for at, one in enumerate(full) if one))


def _traps(scene: Any, spans: ColumnSpans, free: FreeSpans) -> list[AirTrap]:
    return air_traps(scene, spans, free)


def _basins(scene: Any, spans: ColumnSpans, free: FreeSpans) -> list[DryBasin]:
    return dry_basins(scene, spans, free)


def _places(scene: SceneExtract, spans: ColumnSpans, free: FreeSpans) -> list[list[PourPlace]]:
    fill = scene.tank.fill_height_mm
    return pour_places(scene.tank, spans, free, [fill - pour.top_depth_mm for pour in scene.pours])


SPANS = Answer(name="spans", reads=Reading(), needs=(COLUMNS, GROUND, MET), by=_spans, most=MOST_SHAPES)
FLOOD = Answer(name="flood", reads=Reading("figures.prefilled"), needs=(SPANS,), by=_flood, most=MOST_SHAPES)
TRAPS = Answer(
    name="traps", reads=Reading("tank.fill_height_mm", "figures.id"), needs=(SPANS, FLOOD), by=_traps,
)
BASINS = Answer(name="basins", reads=Reading("tank.fill_height_mm"), needs=(SPANS, FLOOD), by=_basins)
PLACES = Answer(
    name="places", reads=Reading("tank.fill_height_mm", "tank.inner_width_mm", "tank.inner_behind_mm",
                                 "pours.top_depth_mm"),
    needs=(SPANS, FLOOD), by=_places,
)
