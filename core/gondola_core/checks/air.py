"""Air that stays under things, and hollows that fill late or never."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ..answers.flood import BASINS, TRAPS
from ..scene import Scene
from ..scene.edits import Edit, prefill_figure, vent_figure
from ..shape.bodies.frame import figure_matrix
from ..shape.pockets import AirTrap, DryBasin
from ..words import words
from .flag import Finding, Severity, Where
from .registry import check

TRAP_WATCH_ML = 0.3
"""Pocket of air from which it is watched, not noted. Source: own_geometry"""
ABOVE_THE_CEILING_MM = 0.3
"""A vent begins this far below the highest point of its pocket."""


def vent_at(scene: Scene, trap: AirTrap) -> Edit:
    """A hole upward from the highest point of a pocket."""
    figure = next(one for one in scene.figures if one.id == trap.figure_id)
    top = np.array([
        trap.x_mm, trap.behind_mm, scene.tank.fill_height_mm - trap.depth_mm - ABOVE_THE_CEILING_MM
    ])
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    return vent_figure(scene, figure.id, figure_matrix(figure).T @ (top - place))


@check("air_trap", stage="figures", needs=(TRAPS,), source="own_geometry", remedies=(prefill_figure, vent_figure))
def air_trap(scene: Scene, traps: list[AirTrap]) -> Iterator[Finding]:
    """Pockets of air that the level seals."""
    names = {figure.id: figure.name for figure in scene.figures}
    for trap in traps:
        over = names[trap.figure_id] if trap.figure_id else words("flags.air_trap.bed")
        remedies = [prefill_figure(scene, trap.figure_id), vent_at(scene, trap)] if trap.figure_id else []
        yield Finding(
            severity=Severity.WATCH if trap.volume_ml >= TRAP_WATCH_ML else Severity.NOTE,
            where=Where(depth_mm=trap.depth_mm, figure_id=trap.figure_id), number=trap.volume_ml, limit=0.0,
            quantity="volume", values={"over": over, "lip": trap.lip_depth_mm, "deep": trap.depth_mm},
            remedies=remedies,
        )


@check("dry_basin", stage="figures", needs=(BASINS,), source="own_geometry")
def dry_basin(_: Scene, basins: list[DryBasin]) -> Iterator[Finding]:
    """Hollows that fill late or never."""
    for basin in basins:
        shut = "_shut" if basin.sealed else ""
        yield Finding(
            severity=Severity.NOTE, where=Where(depth_mm=basin.rim_depth_mm), number=basin.volume_ml, limit=0.0,
            quantity="volume", title=f"title{shut}", sentence=f"sentence{shut}", values={"rim": basin.rim_depth_mm},
        )
