"""The shape of a scene, joined: columns, what is solid along them, what floods, what each figure is.

Each piece is kept by the inputs that it depends on, so that a moved figure meets its own columns
again and nothing else.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..scene import Figure, Scene
from ..shape import Bulk, Meshes, TriMesh, above_ml, figure_bulk
from ..shape.columns import (
    FIRST_FIGURE,
    Columns,
    ColumnSpans,
    Parts,
    ground_spans,
    lowest_gap_mm,
    put_together,
    spans_of,
    tank_columns,
)
from ..shape.floods import FreeSpans, free_spans
from ..shape.pockets import AirTrap, DryBasin, air_traps, dry_basins, kept_air, late_hollows, pocket_mesh
from .kept import Keeper

Array = NDArray[np.float64]


MOST_SHAPES = 12
"""Whole scenes of columns kept at a time."""


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureShape:
    """One figure as a body: corners of its extent, bulk, underside, and how far the bed is below.

    gap_below_mm      down to the bed; None beside it
    contact_cm2       of its underside within 1 mm of its lowest point
    covered_fraction  of its plan that resin would cover at the fill line
    """

    least: Array
    most: Array
    bulk: Bulk
    above_ml: float
    gap_below_mm: float | None
    contact_cm2: float
    covered_fraction: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SceneShape:
    """All of it."""

    columns: Columns
    spans: ColumnSpans
    free: FreeSpans
    figures: list[FigureShape]
    traps: list[AirTrap]
    basins: list[DryBasin]


def scene_shape(scene: Scene, meshes: Meshes, keeper: Keeper) -> SceneShape:
    """The shape of a scene; see `SceneShape`."""
    tank = scene.tank
    outline = [
        tank.shape, tank.taper_deg, tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm,
    ]
    columns = keeper.keep("columns", outline, lambda: tank_columns(tank))
    bed = [scene.bed.heights_mm, scene.bed.mesh]
    outside, ground = keeper.keep(
        "ground", [outline, bed], lambda: ground_spans(tank, scene.bed, columns, meshes)
    )
    bodies = [body_inputs(figure) for figure in scene.figures]
    bulks = [
        keeper.keep(
            "bulk", own_inputs(figure),
            lambda figure=figure: figure_bulk(figure, meshes),  # type: ignore[misc]
        )
        for figure in scene.figures
    ]
    parts: list[Parts] = [
        keeper.keep(
            "figure", [outline, body],
            lambda figure=figure: spans_of(figure, columns, meshes),  # type: ignore[misc]
        )
        for figure, body in zip(scene.figures, bodies, strict=True)
    ]
    spans = keeper.keep(
        "spans", [outline, bed, bodies], lambda: put_together(columns, [outside, ground, *parts]),
        most=MOST_SHAPES,
    )
    prefilled = [figure.prefilled for figure in scene.figures]
    free = keeper.keep(
        "flood", [outline, bed, bodies, prefilled],
        lambda: free_spans(
            spans,
            frozenset(FIRST_FIGURE + at for at, full in enumerate(prefilled) if full),
        ),
        most=MOST_SHAPES,
    )
    named = [(figure.id, figure.name) for figure in scene.figures]
    traps, basins = keeper.keep(
        "pockets", [outline, bed, bodies, prefilled, named],
        lambda: (air_traps(scene, spans, free), dry_basins(scene, spans, free)),
    )
    figures = [
        keeper.keep(
            "body", [outline, bed, body],
            lambda figure=figure, part=part, bulk=bulk: _figure_shape(  # type: ignore[misc]
                figure, part, ground, columns, bulk, tank.fill_height_mm
            ),
        )
        for figure, body, part, bulk in zip(scene.figures, bodies, parts, bulks, strict=True)
    ]
    return SceneShape(
        columns=columns, spans=spans, free=free, figures=figures, traps=traps, basins=basins
    )


def own_inputs(figure: Figure) -> list[object]:
    """What a figure is by itself, wherever it stands."""
    return [figure.solids, figure.turn_deg, figure.tilt_deg, figure.roll_deg]


def scene_pockets(scene: Scene, shape: SceneShape) -> dict[str, TriMesh]:
    """The air that stays as `air-N` and the hollows that fill late as `dry-N`, largest first."""
    found = {}
    for word, pockets in (
        ("air", kept_air(scene, shape.spans, shape.free)),
        ("dry", late_hollows(scene, shape.spans, shape.free)),
    ):
        for number, pocket in enumerate(pockets, start=1):
            found[f"{word}-{number}"] = pocket_mesh(pocket, shape.spans)
    return found


def body_inputs(figure: Figure) -> list[object]:
    """What a figure's body in the tank depends on: not its paint, not how it is held."""
    return [own_inputs(figure), figure.place, figure.vents]


def _figure_shape(
    figure: Figure, part: Parts, ground: Parts, columns: Columns, bulk: Bulk, fill_mm: float
) -> FigureShape:
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    column, low, high = part
    contact = covered = 0.0
    if len(column):
        under = np.full(columns.begins_mm.size, np.inf)
        over = np.full(columns.begins_mm.size, -np.inf)
        np.minimum.at(under, column, low)
        np.maximum.at(over, column, high)
        met = np.isfinite(under)
        contact = float((under[met] < under[met].min() + 1.0).sum() * columns.area_mm2 / 100)
        covered = float((over[met] < fill_mm - 0.01).mean())
    return FigureShape(
        least=bulk.least + place,
        most=bulk.most + place,
        bulk=bulk,
        above_ml=above_ml(bulk, fill_mm - figure.place.height_mm),
        gap_below_mm=lowest_gap_mm(part, ground, columns.begins_mm.size),
        contact_cm2=contact,
        covered_fraction=covered,
    )
