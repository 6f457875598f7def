"""The cells on which heat and cure march: where they stand, what of them is inside the tank, their walls."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..materials import SolidMaterial
from ..polygon import PlanCells, plan_cells
from .kinetics import Array

Whole = NDArray[np.int64]

LEAST_SHARE = 0.1
"""A cell of which less is inside goes to its fullest neighbour, so that no cell is stiff. Source: own_march"""


@dataclass(frozen=True, slots=True, kw_only=True)
class CutCells:
    """What the walls leave of each cell; areas in m2, lengths in m.

    volume           (levels, rows, cells) inside the tank [m3]
    centre_x, centre_y   (levels, rows, cells) of that
    open_x, open_y   (levels, rows, cells-1), (levels, rows-1, cells) face between two cells
    open_z           (levels+1, rows, cells) face under each level, and over the highest
    wall_cell        (n,) flat index of the cell that each piece of wall belongs to
    wall_area, wall_normal, wall_middle   (n,), (n, 2) outward, (n, 2)
    """

    volume: Array
    centre_x: Array
    centre_y: Array
    open_x: Array
    open_y: Array
    open_z: Array
    wall_cell: Whole
    wall_area: Array
    wall_normal: Array
    wall_middle: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class CellGeometry:
    """What is where. Heights run from the tank floor up; all in metres.

    x_faces, y_faces  from the left wall, from the front glass
    z_faces           from the floor to the fill line, with a face at every layer line
    pour_of_level     (levels,) index of the pour that brings each level
    solid_fractions   (materials, levels, rows, cells) share of each solid in what is inside of a cell
    solids            what those materials are, that of the bed first
    cut               what the walls leave of the cells; None for a whole box
    base_cell         tallest cell of the base under it [m]
    air               (levels, rows, cells) share of what is inside that the liquid does not reach; None: none
    """

    x_faces: Array
    y_faces: Array
    z_faces: Array
    pour_of_level: Whole
    solid_fractions: Array
    solids: tuple[SolidMaterial, ...]
    cut: CutCells | None = None
    base_cell: float = 0.0095
    air: Array | None = None

    @property
    def shape(self) -> tuple[int, int, int]:
        """Levels, rows, cells."""
        return len(self.z_faces) - 1, len(self.y_faces) - 1, len(self.x_faces) - 1


def faces(length: float, cell: float, least: int = 1) -> Array:
    """Even faces over a length, with cells no larger than `cell` and at least `least` of them."""
    count = max(least, int(np.ceil(length / cell - 1e-9)))
    return np.linspace(0.0, length, count + 1)


def graded_faces(length: float, cell: float, at_wall: float, growth: float, least: int = 1) -> Array:
    """Faces over a length, `at_wall` wide at both ends and wider inwards up to `cell`; symmetric.

    growth  width of a cell over that of its neighbour towards the wall
    least   least number of cells
    """
    widths: list[float] = []
    width, room = at_wall, 0.5 * length
    while width < cell and sum(widths) + width < room:
        widths.append(width)
        width *= growth
    middle = length - 2 * sum(widths)
    inner = max(0 if middle < 1e-9 else 1, int(np.ceil(middle / cell - 1e-9)))
    inner = max(inner, least - 2 * len(widths))
    across = [*widths, *[middle / max(inner, 1)] * inner, *widths[::-1]]
    return np.concatenate([[0.0], np.cumsum(across)]) * (length / sum(across))


def layered_faces(
    layer_tops: list[float], cell: float, least_levels: int
) -> tuple[Array, Whole]:
    """Faces in height with one at every layer line, and the pour of each level.

    A layer has at least `least_levels` levels, but none thinner than 2 mm unless it is one.
    """
    all_faces = [0.0]
    pour_of_level: list[int] = []
    below = 0.0
    for number, top in enumerate(layer_tops):
        thick = top - below
        least = max(1, min(least_levels, int(thick / 0.002)))
        inner = below + faces(thick, cell, least)
        all_faces.extend(float(face) for face in inner[1:])
        pour_of_level.extend([number] * (len(inner) - 1))
        below = top
    return np.array(all_faces), np.array(pour_of_level)


def whole_box(
    size: tuple[float, float], layer_tops: list[float], cell: float, least_levels: int = 3
) -> CellGeometry:
    """Even cells of an empty tank: inner size across and behind, layer tops above the floor [m]."""
    x_faces, y_faces = faces(size[0], cell), faces(size[1], cell)
    z_faces, pour_of_level = layered_faces(layer_tops, cell, least_levels)
    shape = (0, len(pour_of_level), len(y_faces) - 1, len(x_faces) - 1)
    return CellGeometry(
        x_faces=x_faces, y_faces=y_faces, z_faces=z_faces, pour_of_level=pour_of_level,
        solid_fractions=np.zeros(shape), solids=(),
    )


def whole_cells(x_faces: Array, y_faces: Array, z_faces: Array) -> CutCells:
    """The cells of a box, none of them cut."""
    dx, dy, dz = np.diff(x_faces), np.diff(y_faces), np.diff(z_faces)
    shape = (len(dz), len(dy), len(dx))
    mid_x, mid_y = 0.5 * (x_faces[:-1] + x_faces[1:]), 0.5 * (y_faces[:-1] + y_faces[1:])
    index = np.arange(np.prod(shape)).reshape(shape)
    side_x = np.broadcast_to(dz[:, None] * dy[None, :], shape[:2])
    side_y = np.broadcast_to(dz[:, None] * dx[None, :], (shape[0], shape[2]))
    ends = [
        (index[:, :, 0], side_x, (-1.0, 0.0), (np.full_like(mid_y, x_faces[0]), mid_y)),
        (index[:, :, -1], side_x, (1.0, 0.0), (np.full_like(mid_y, x_faces[-1]), mid_y)),
        (index[:, 0], side_y, (0.0, -1.0), (mid_x, np.full_like(mid_x, y_faces[0]))),
        (index[:, -1], side_y, (0.0, 1.0), (mid_x, np.full_like(mid_x, y_faces[-1]))),
    ]
    return CutCells(
        volume=dz[:, None, None] * dy[None, :, None] * dx[None, None, :],
        centre_x=np.broadcast_to(mid_x, shape), centre_y=np.broadcast_to(mid_y[:, None], shape),
        open_x=np.repeat(side_x[:, :, None], shape[2] - 1, axis=2),
        open_y=np.repeat(side_y[:, None, :], shape[1] - 1, axis=1),
        open_z=np.broadcast_to(dy[:, None] * dx[None, :], (shape[0] + 1, *shape[1:])),
        wall_cell=np.concatenate([cells.ravel() for cells, *_ in ends]),
        wall_area=np.concatenate([area.ravel() for _, area, *_ in ends]),
        wall_normal=np.concatenate([np.tile(normal, (cells.size, 1)) for cells, _, normal, _ in ends]),
        wall_middle=np.concatenate(
            [np.tile(np.stack(at, axis=1), (len(dz), 1)) for *_, at in ends]
        ),
    )


def cut_cells(
    outline_at: Callable[[float], Array], x_faces: Array, y_faces: Array, z_faces: Array, lean_deg: float = 0.0
) -> CutCells:
    """The cells of a tank of any outline, slivers merged.

    outline_at  inner outline at a height above the floor, anticlockwise (n, 2) [m]
    lean_deg    of the walls outward; 0: the outline is the same at all heights
    """
    dz = np.diff(z_faces)
    if lean_deg == 0.0:
        same = plan_cells(outline_at(0.0), x_faces, y_faces)
        plans, floors = [same] * len(dz), [same.area] * (len(dz) + 1)
    else:
        plans = [
            plan_cells(outline_at(float(at)), x_faces, y_faces) for at in 0.5 * (z_faces[:-1] + z_faces[1:])
        ]
        floors = [plan_cells(outline_at(float(at)), x_faces, y_faces).area for at in z_faces]
    slant = 1.0 / np.cos(np.radians(lean_deg))
    full = dz[:, None, None] * np.diff(y_faces)[None, :, None] * np.diff(x_faces)[None, None, :]
    return merged_slivers(_stacked(plans, floors, dz, slant), full)


def _stacked(plans: list[PlanCells], floors: list[Array], dz: Array, slant: float) -> CutCells:
    """One plan a level, as cells of their heights."""
    plane = plans[0].area.size
    tall = dz[:, None, None]
    return CutCells(
        volume=np.stack([plan.area for plan in plans]) * tall,
        centre_x=np.stack([plan.centre_x for plan in plans]),
        centre_y=np.stack([plan.centre_y for plan in plans]),
        open_x=np.stack([plan.open_x for plan in plans]) * tall,
        open_y=np.stack([plan.open_y for plan in plans]) * tall,
        open_z=np.stack(floors),
        wall_cell=np.concatenate([plan.wall_cell + level * plane for level, plan in enumerate(plans)]),
        wall_area=np.concatenate(
            [plan.wall_length * height * slant for plan, height in zip(plans, dz, strict=True)]
        ),
        wall_normal=np.concatenate([plan.wall_normal for plan in plans]),
        wall_middle=np.concatenate([plan.wall_middle for plan in plans]),
    )


def merged_slivers(cut: CutCells, full: Array, least_share: float = LEAST_SHARE) -> CutCells:
    """Slivers given to the neighbour beside them that they share most with; nothing is lost.

    full     (levels, rows, cells) volume of each cell before it was cut [m3]
    returns  the same tank: volumes, walls, floors and tops move to the neighbour with the sliver,
             and so do faces between two slivers whose neighbours touch
    """
    sliver = (cut.volume > 0) & (cut.volume < least_share * full)
    if not sliver.any():
        return cut
    owner = _owners(cut, sliver)
    flat = owner.ravel()

    def gathered(values: Array) -> Array:
        return np.asarray(np.bincount(flat, values.ravel(), minlength=flat.size), dtype=float).reshape(values.shape)

    volume = gathered(cut.volume)
    safe = np.where(volume > 0, volume, 1.0)
    plane = owner.shape[1] * owner.shape[2]
    within = owner % plane
    open_x, open_y = _faces_moved(cut, owner, volume > 0)
    return CutCells(
        volume=volume,
        centre_x=np.where(volume > 0, gathered(cut.volume * cut.centre_x) / safe, cut.centre_x),
        centre_y=np.where(volume > 0, gathered(cut.volume * cut.centre_y) / safe, cut.centre_y),
        open_x=open_x, open_y=open_y,
        open_z=_floors_moved(cut.open_z, within, volume.reshape(len(volume), -1) > 0),
        wall_cell=flat[cut.wall_cell], wall_area=cut.wall_area, wall_normal=cut.wall_normal,
        wall_middle=cut.wall_middle,
    )


def _owners(cut: CutCells, sliver: NDArray[np.bool_]) -> Whole:
    """Flat index of the cell that each cell belongs to: itself, or its best whole neighbour.

    A sliver in a corner, between slivers, goes where the best of them goes.
    """
    whole = _best_neighbour(cut, sliver, ~sliver)
    lonely = sliver & (whole < 0)
    owner = np.where(sliver & ~lonely, whole, np.arange(sliver.size).reshape(sliver.shape))
    beside = _best_neighbour(cut, lonely, sliver & ~lonely)
    return np.where(lonely & (beside >= 0), owner.ravel()[beside], owner)


def _best_neighbour(cut: CutCells, asks: NDArray[np.bool_], may: NDArray[np.bool_]) -> Whole:
    """Of each cell that asks, the neighbour beside it that it shares most with; -1 if there is none."""
    index = np.arange(cut.volume.size).reshape(cut.volume.shape)
    best, found = np.zeros(index.shape), np.full(index.shape, -1)
    for axis, opening in ((2, cut.open_x), (1, cut.open_y)):
        low = tuple(slice(None, -1) if dim == axis else slice(None) for dim in range(3))
        high = tuple(slice(1, None) if dim == axis else slice(None) for dim in range(3))
        for here, there in ((low, high), (high, low)):
            score = opening * may[there]
            better = asks[here] & (score > best[here])
            found[here] = np.where(better, index[there], found[here])
            best[here] = np.where(better, score, best[here])
    return found


def _faces_moved(cut: CutCells, owner: Whole, there: NDArray[np.bool_]) -> tuple[Array, Array]:
    """Openings between neighbours, each given to the pair of cells that now own its two sides.

    Where these touch at a corner only, the way leads through the cell that has a face with both.
    """
    moved_x, moved_y = np.zeros_like(cut.open_x), np.zeros_like(cut.open_y)
    for axis, opening in ((2, cut.open_x), (1, cut.open_y)):
        count = owner.shape[axis]
        open_here = opening > 0
        ends = [np.take(owner, at, axis)[open_here] for at in (range(count - 1), range(1, count))]
        (level, row_a, cell_a), (_, row_b, cell_b) = (np.unravel_index(end, owner.shape) for end in ends)
        size = opening[open_here]
        rows, cells = np.abs(row_a - row_b), np.abs(cell_a - cell_b)
        left, front = np.minimum(cell_a, cell_b), np.minimum(row_a, row_b)
        _add(moved_x, (level, row_a, left), size, (rows == 0) & (cells == 1))
        _add(moved_y, (level, front, cell_a), size, (rows == 1) & (cells == 0))
        corner = (rows == 1) & (cells == 1)
        through_a, through_b = there[level, row_a, cell_b], there[level, row_b, cell_a]
        share = size / np.maximum(1, through_a.astype(int) + through_b)
        for through, row_x, cell_y in ((through_a, row_a, cell_b), (through_b, row_b, cell_a)):
            _add(moved_x, (level, row_x, left), share, corner & through)
            _add(moved_y, (level, front, cell_y), share, corner & through)
    return moved_x, moved_y


def _add(to: Array, at: tuple[Whole, ...], values: Array, chosen: NDArray[np.bool_]) -> None:
    np.add.at(to, tuple(index[chosen] for index in at), values[chosen])


def _floors_moved(open_z: Array, within: Whole, there: NDArray[np.bool_]) -> Array:
    """Openings between levels, each given to a column that has a cell on both of its sides."""
    plane = within[0].size
    size = open_z.reshape(len(open_z), plane)
    below = np.concatenate([within[:1], within]).reshape(size.shape)
    above = np.concatenate([within, within[-1:]]).reshape(size.shape)
    held_below = np.concatenate([there[:1], there])
    held_above = np.concatenate([there, there[-1:]])
    moved = np.zeros_like(size)
    left = size > 0
    for column in (above, below):
        row, at = np.nonzero(left)
        to = column[row, at]
        fits = held_below[row, to] & held_above[row, to]
        np.add.at(moved, (row[fits], to[fits]), size[row[fits], at[fits]])
        left[row[fits], at[fits]] = False
    return moved.reshape(open_z.shape)
