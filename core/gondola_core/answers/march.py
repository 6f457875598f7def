"""The march of a scene: its cells, what stands around, its pours and its room."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..cure.cells import CellGeometry, cut_cells, faces, layered_faces
from ..cure.losses import BASE_FILM, FAN_FILM, TOP_FILM, WALL_FILM, Surroundings
from ..cure.march import Marched, Room, TimedPour, march_pours
from ..materials import Resin, SolidMaterial
from ..scene.schedule import ROOM_STEP_H, pour_starts_h, room_samples_c
from ..shape import tank_plan
from ..shape.columns import ColumnSpans, solid_fractions
from ..shape.floods import FreeSpans, air_shares
from ..units import DAY, HOUR, MM
from .columns import OUTLINE
from .grades import Grade

Array = NDArray[np.float64]
Told = Callable[[float], None] | None

WARMTH = (
    *OUTLINE, "tank.wall", "tank.base", "bed.material", "figures.material", "resins", "brief.room",
    "brief.first_pour_at", "pours.top_depth_mm", "pours.resin_id", "pours.mix_c", "pours.wait_h",
)
"""What a march reads of a scene, besides its columns."""
AFTER_LAST_POUR = 14 * DAY
"""Longest march after the last pour [s]; what is not hard by then is said so."""


def cells_of(scene: Any, grade: Grade, spans: ColumnSpans, free: FreeSpans) -> CellGeometry:
    """The cells for a scene: even across, with a face at every layer line, cut by the walls.

    How many there are across follows from the floor, so that they grow evenly with walls that lean.
    """
    tank = scene.tank

    def outline(height: float) -> Array:
        return tank_plan(tank, height / MM) * MM

    x, y, z, pour_of_level = _faces(scene, grade, outline)
    solids, group_of = _solids(scene)
    in_mm = (x / MM, y / MM, z / MM)
    shares = solid_fractions(spans, group_of, *in_mm)
    air = air_shares(spans, free, tank.fill_height_mm, in_mm)
    inside = np.maximum(1.0 - shares[0], 1e-9)
    return CellGeometry(
        x_faces=x, y_faces=y, z_faces=z, pour_of_level=pour_of_level,
        solid_fractions=np.where(shares[0] >= 1.0, 0.0, np.minimum(shares[1:] / inside, 1.0)),
        solids=tuple(solids), cut=cut_cells(outline, x, y, z, tank.taper_deg),
        base_cell=grade.base_mm * MM, air=np.minimum(air / inside, 1.0),
    )


def _faces(
    scene: Any, grade: Grade, outline: Callable[[float], Array]
) -> tuple[Array, Array, Array, NDArray[np.int64]]:
    """Faces along x, y, z [m], and the pour of each level."""
    fill = scene.tank.fill_height_mm
    floor, widest = outline(0.0), outline(fill * MM)
    width, behind = (float(size) for size in floor.max(axis=0) - floor.min(axis=0))
    cell = max(grade.cell_mm * MM, (width * behind * fill * MM / grade.most_cells) ** (1 / 3))
    z, pour_of_level = layered_faces(
        [(fill - pour.top_depth_mm) * MM for pour in scene.pours], cell, grade.least_levels
    )
    across = max(cell, (width * behind * len(pour_of_level) / (2 * grade.most_cells)) ** 0.5)
    x, y = (
        np.linspace(low, high, len(faces(size, across, grade.least_across)))
        for low, high, size in zip(widest.min(axis=0), widest.max(axis=0), (width, behind), strict=True)
    )
    return x, y, z, pour_of_level


def _solids(scene: Any) -> tuple[list[SolidMaterial], list[int]]:
    """Materials of bed and figures, the bed's first, and the group of each span: beyond the walls is 0."""
    solids: list[SolidMaterial] = []
    group_of = [0]
    for material in [scene.bed.material, *(figure.material for figure in scene.figures)]:
        if material not in solids:
            solids.append(material)
        group_of.append(1 + solids.index(material))
    return solids, group_of


def surroundings(scene: Any, losses: float = 1.0) -> Surroundings:
    """The sheet and the base as the march sees them; `losses` times the air's films."""
    tank = scene.tank
    fan = scene.brief.room.fan
    return Surroundings(
        wall=tank.wall.material, wall_thickness=tank.wall.thickness_mm * MM,
        base=tank.base.material, base_thickness=tank.base.thickness_mm * MM,
        top_film=losses * (FAN_FILM if fan else TOP_FILM), wall_film=losses * (FAN_FILM if fan else WALL_FILM),
        base_film=losses * BASE_FILM,
    )


def timed_pours(scene: Any) -> list[TimedPour]:
    """The pours as the march sees them."""
    index = {resin.id: number for number, resin in enumerate(scene.resins)}
    return [
        TimedPour(start=start * HOUR, mix_c=pour.mix_c, resin=index[pour.resin_id])
        for start, pour in zip(pour_starts_h(scene.pours), scene.pours, strict=True)
    ]


def room_of(scene: Any, after: float = AFTER_LAST_POUR) -> Array:
    """The room at even steps from the first pour until so long after the last [degrees C]."""
    span_h = pour_starts_h(scene.pours)[-1] + after / HOUR
    return room_samples_c(scene.brief.first_pour_at, scene.brief.room, span_h)


def march(
    scene: Any, cells: CellGeometry, grade: Grade, *, resins: list[Resin] | None = None,
    room_offset_k: float = 0.0, losses: float = 1.0, until: float | None = None, told: Told = None,
) -> Marched:
    """The march of a scene on given cells, until 14 days after the last pour, or a moment from the first [s].

    resins  in place of its own; room_offset_k  by how much the room is warmer; losses, factor on the air's films
    """
    timed = timed_pours(scene)
    end = timed[-1].start + AFTER_LAST_POUR if until is None else until
    room = Room(room_of(scene) + room_offset_k, ROOM_STEP_H * HOUR)
    return march_pours(
        cells, surroundings(scene, losses), scene.resins if resins is None else resins, timed, room,
        end, grade.tolerance, progress=told,
    )
