"""The box of cells as the march sees it: capacities, heats, and what each cell exchanges with what."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..materials import Resin, SolidMaterial
from ..units import G_PER_ML, J_PER_G
from .cells import CellGeometry, CutCells, faces, whole_cells
from .kinetics import Array
from .losses import Surroundings

MOST_CONDUCTIVITY = 2.0
"""W/(m K); a part that conducts better is at one temperature over a cell anyway. Source:
own_march, the peak of a scene with a steel figure moves less than 0.1 K (tested)"""
LEAST_RESIN_FRACTION = 0.02
"""A cell with less resin than this counts as solid where cure is read off."""
STILL_AIR_W_MK = 0.026
"""Of air that stays in a pocket. Source: own_march"""
AIR_INERTIA = 8e4
"""J/(m3 K) that a pocket of air counts with: far more than air has, so that its cells are not stiff, and
a twenty-fifth of what the resin has. Source: own_march"""
LEAST_REACH = 0.1
"""Least way from a cell's middle to a face of it, over its width: keeps merged cells from being stiff."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CellBox:
    """Arrays for the march, (levels+2, rows+2, cells+2) with a rim of ghosts; base levels come first.

    gx, gy, gz       conductance to the next cell along x, y, z [W/K]
    ga               conductance to the room but for the open top [W/K]
    top              conductance to the room of each cell if it is the top one [W/K]
    up               conductance from a cell's middle to its upper face [W/K]; down: to its lower
    capacity         [J/K], of which `resin_capacity` is the resin's
    inverse          1/capacity, 0 in ghosts [K/J]
    heat             heat of full cure of the cell's resin [J]
    volume           of resin [m3]
    pores            gas in the pores of the bed [m3]
    inside           share of the whole cell that is inside the tank, with what was merged to it
    resin_of_level   index of the resin in each level, -1 for base and ghosts
    pour_of_level    index of the pour in each level, -1 for base and ghosts
    base_levels      how many of the lowest levels are base
    z_centres        height of each level's middle above the floor, ghosts left out [m]
    walls            pieces of wall of the cells
    """

    gx: Array
    gy: Array
    gz: Array
    ga: Array
    top: Array
    up: Array
    down: Array
    capacity: Array
    resin_capacity: Array
    inverse: Array
    heat: Array
    volume: Array
    pores: Array
    inside: Array
    resin_of_level: NDArray[np.int64]
    pour_of_level: NDArray[np.int64]
    base_levels: int
    z_centres: Array
    walls: WallPieces


@dataclass(frozen=True, slots=True, kw_only=True)
class WallPieces:
    """Pieces of wall around resin cells, in the order of their cells.

    cell      (n,) flat index among the cells with their rim
    kept      (n,) share of its cell's excess over the room that is left at the wall
    area      (n,) [m2]
    normal    (n, 2) outward
    middle    (n, 2) [m]
    """

    cell: NDArray[np.int64]
    kept: Array
    area: Array
    normal: Array
    middle: Array


@dataclass(frozen=True, slots=True)
class _Filling:
    """What is in each cell, base first: (levels, rows, cells)."""

    resin_volume: Array
    pores: Array
    resin_capacity: Array
    capacity: Array
    heat: Array
    conductivity: Array


def cell_box(
    geometry: CellGeometry, resin_of_pour: list[int], resins: list[Resin], around: Surroundings
) -> CellBox:
    """Capacities, conductances and heats of a tank; see `CellBox`.

    A cell of several materials has their mixed capacity, and the geometric mean of their
    conductivities by volume.
    Source: lichtenecker1926, own_march
    """
    base_faces = faces(around.base_thickness, geometry.base_cell, 2)
    base_levels = len(base_faces) - 1
    dz = np.concatenate([np.diff(base_faces), np.diff(geometry.z_faces)])
    cut = _with_base(_cut_of(geometry), np.diff(base_faces), geometry)
    pour_of_level = np.concatenate([np.full(base_levels, -1), geometry.pour_of_level])
    resin_of_level = np.array([resin_of_pour[p] if p >= 0 else -1 for p in pour_of_level])
    filling = _filling(geometry, cut, [resins[r] if r >= 0 else None for r in resin_of_level], around.base)
    half_z = dz[:, None, None] / (2 * filling.conductivity)
    gx, gy = _sideways(geometry, cut, filling.conductivity)
    up, down = cut.open_z[1:] / half_z, cut.open_z[:-1] / half_z
    walls, wall_loss = _walls(geometry, cut, filling.conductivity, around.wall_resistance, base_levels)
    away = wall_loss
    away[0] += cut.open_z[0] / (half_z[0] + 1.0 / around.base_film)
    z_faces = np.concatenate([base_faces - around.base_thickness, geometry.z_faces[1:]])
    there = cut.volume > 0
    return CellBox(
        gx=_rimmed(_padded(gx, 2)), gy=_rimmed(_padded(gy, 1)),
        gz=_rimmed(_padded(_in_series(up[:-1], down[1:]), 0)), ga=_rimmed(away),
        top=_rimmed(cut.open_z[1:] / (half_z + 1.0 / around.top_film)),
        up=_rimmed(up), down=_rimmed(down),
        capacity=_rimmed(filling.capacity), resin_capacity=_rimmed(filling.resin_capacity),
        inverse=_rimmed(there / np.where(there, filling.capacity, 1.0)), heat=_rimmed(filling.heat),
        volume=_rimmed(filling.resin_volume), pores=_rimmed(filling.pores),
        inside=_rimmed(cut.volume / (dz[:, None, None] * _plan_areas(geometry))),
        resin_of_level=np.pad(resin_of_level, 1, constant_values=-1),
        pour_of_level=np.pad(pour_of_level, 1, constant_values=-1),
        base_levels=base_levels, z_centres=0.5 * (z_faces[:-1] + z_faces[1:]), walls=walls,
    )


def _cut_of(geometry: CellGeometry) -> CutCells:
    return geometry.cut or whole_cells(geometry.x_faces, geometry.y_faces, geometry.z_faces)


def _with_base(cut: CutCells, base_dz: Array, geometry: CellGeometry) -> CutCells:
    """The cells with those of the base under them: the floor's outline, straight down, no wall."""
    count = len(base_dz)
    floor = cut.open_z[:1]
    first = float(geometry.z_faces[1] - geometry.z_faces[0])
    tall = base_dz[:, None, None]

    def below(values: Array, scale: Array) -> Array:
        return np.concatenate([values[:1] * scale, values])

    return CutCells(
        volume=np.concatenate([floor * tall, cut.volume]),
        centre_x=below(cut.centre_x, np.ones_like(tall)), centre_y=below(cut.centre_y, np.ones_like(tall)),
        open_x=below(cut.open_x, tall / first), open_y=below(cut.open_y, tall / first),
        open_z=np.concatenate([np.repeat(floor, count, axis=0), cut.open_z]),
        wall_cell=cut.wall_cell + count * cut.volume[0].size, wall_area=cut.wall_area,
        wall_normal=cut.wall_normal, wall_middle=cut.wall_middle,
    )


def _filling(
    geometry: CellGeometry, cut: CutCells, resin_of_level: list[Resin | None], base: SolidMaterial
) -> _Filling:
    volume = cut.volume
    base_levels = len(volume) - len(geometry.pour_of_level)
    above = slice(base_levels, None)
    air, resin_fraction = np.zeros_like(volume), np.zeros_like(volume)
    if geometry.air is not None:
        air[above] = geometry.air
    resin_fraction[above] = np.clip(1.0 - geometry.solid_fractions.sum(axis=0) - air[above], 0.0, 1.0)
    resin_fraction[(resin_fraction < 1e-9) | (volume <= 0)] = 0.0
    resin_capacity, heat, log_conductivity, pores = (np.zeros_like(volume) for _ in range(4))
    for level, resin in enumerate(resin_of_level):
        if resin is None:
            continue
        mass = resin.density_g_ml * G_PER_ML * volume[level] * resin_fraction[level]
        resin_capacity[level] = mass * resin.heat_capacity_j_kgk
        heat[level] = mass * resin.heat_of_cure_j_g * J_PER_G
        log_conductivity[level] = resin_fraction[level] * np.log(resin.conductivity_w_mk)
    capacity = resin_capacity + air * volume * AIR_INERTIA
    log_conductivity += air * np.log(STILL_AIR_W_MK)
    for fraction, solid in zip(geometry.solid_fractions, geometry.solids, strict=True):
        capacity[above] += fraction * volume[above] * _volumetric_capacity(solid)
        log_conductivity[above] += fraction * _log_conductivity(solid)
    if geometry.solids:
        pores[above] = geometry.solid_fractions[0] * volume[above] * geometry.solids[0].porosity_fraction
    capacity[:base_levels] = volume[:base_levels] * _volumetric_capacity(base)
    log_conductivity[:base_levels] = _log_conductivity(base)
    heat[resin_fraction < LEAST_RESIN_FRACTION] = 0.0
    return _Filling(
        volume * resin_fraction, pores, resin_capacity, capacity, heat, np.exp(log_conductivity)
    )


def _sideways(geometry: CellGeometry, cut: CutCells, conductivity: Array) -> tuple[Array, Array]:
    """Conductances along x and y: opening over the way from middle to middle through both cells."""
    found = []
    for axis, opening, centre, at in (
        (2, cut.open_x, cut.centre_x, geometry.x_faces), (1, cut.open_y, cut.centre_y, geometry.y_faces)
    ):
        count = centre.shape[axis]
        shape = tuple(-1 if dim == axis else 1 for dim in range(3))
        width = np.diff(at).reshape(shape)
        before = np.maximum(at[1:].reshape(shape) - centre, LEAST_REACH * width) / conductivity
        after = np.maximum(centre - at[:-1].reshape(shape), LEAST_REACH * width) / conductivity
        way = np.take(before, range(count - 1), axis) + np.take(after, range(1, count), axis)
        found.append(opening / way)
    return found[0], found[1]


def _walls(
    geometry: CellGeometry, cut: CutCells, conductivity: Array, outside: float, base_levels: int
) -> tuple[WallPieces, Array]:
    """The pieces of wall, and each cell's conductance through them to the room."""
    _, rows, cells = cut.volume.shape
    level, rest = np.divmod(cut.wall_cell, rows * cells)
    row, cell = np.divmod(rest, cells)
    centre = np.stack([cut.centre_x[level, row, cell], cut.centre_y[level, row, cell]], axis=1)
    least = LEAST_REACH * np.minimum(np.diff(geometry.x_faces)[cell], np.diff(geometry.y_faces)[row])
    reach = np.maximum(((cut.wall_middle - centre) * cut.wall_normal).sum(axis=1), least)
    within = reach / conductivity[level, row, cell]
    through = cut.wall_area / (within + outside)
    loss = np.asarray(np.bincount(cut.wall_cell, through, minlength=cut.volume.size), dtype=float)
    order = np.argsort(cut.wall_cell, kind="stable")
    rimmed = ((level + 1) * (rows + 2) + row + 1) * (cells + 2) + cell + 1
    return WallPieces(
        cell=rimmed[order], kept=(outside / (within + outside))[order],
        area=cut.wall_area[order], normal=cut.wall_normal[order], middle=cut.wall_middle[order],
    ), loss.reshape(cut.volume.shape)


def _plan_areas(geometry: CellGeometry) -> Array:
    """Of whole cells, (rows, cells) [m2]."""
    return np.asarray(np.diff(geometry.y_faces)[:, None] * np.diff(geometry.x_faces)[None, :])


def _in_series(one: Array, two: Array) -> Array:
    return np.asarray(one * two / np.where(one + two > 0, one + two, 1.0))


def _padded(array: Array, axis: int) -> Array:
    """One more plane at the far end, across which nothing flows."""
    end = np.zeros(tuple(1 if dim == axis else size for dim, size in enumerate(array.shape)))
    return np.concatenate([array, end], axis=axis)


def _log_conductivity(solid: SolidMaterial) -> float:
    return float(np.log(min(solid.conductivity_w_mk, MOST_CONDUCTIVITY)))


def _volumetric_capacity(solid: SolidMaterial) -> float:
    return solid.density_g_ml * G_PER_ML * solid.heat_capacity_j_kgk


def _rimmed(array: Array) -> Array:
    """With a rim of ghosts around."""
    rimmed = np.zeros(tuple(size + 2 for size in array.shape))
    rimmed[1:-1, 1:-1, 1:-1] = array
    return rimmed
