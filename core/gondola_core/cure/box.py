"""The box of cells on which heat and cure march: what is in each cell and what it touches."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..materials import Resin, SolidMaterial
from ..units import G_PER_ML, J_PER_G
from .kinetics import Array

TOP_FILM = 9.0
"""W/(m2 K), convection and radiation from the open top. Source: own_march"""
WALL_FILM = 9.0
"""W/(m2 K), outside the walls. Source: own_march"""
BASE_FILM = 5.0
"""W/(m2 K), under the base. Source: own_march"""
MOST_CONDUCTIVITY = 2.0
"""W/(m K); a part that conducts better is at one temperature over a cell anyway. Source:
own_march, the peak of a scene with a steel figure moves less than 0.1 K (tested)"""
LEAST_RESIN_FRACTION = 0.02
"""A cell with less resin than this counts as solid where cure is read off."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CellGeometry:
    """What is where. Heights run from the tank floor up; all in metres.

    x_faces, y_faces  from the left wall, from the front glass
    z_faces           from the floor to the fill line, with a face at every layer line
    pour_of_level     (levels,) index of the pour that brings each level
    solid_fractions   (materials, levels, rows, cells) share of each solid in each cell
    solids            what those materials are
    outside           (levels, rows, cells) True where there is no tank; None for a whole box
    wall_share        (levels,) true wall over the stepped wall of the cells, where there is any
    """

    x_faces: Array
    y_faces: Array
    z_faces: Array
    pour_of_level: NDArray[np.int64]
    solid_fractions: Array
    solids: tuple[SolidMaterial, ...]
    outside: NDArray[np.bool_] | None = None
    wall_share: Array | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """The sheet around the liquid and the slab under it [m], and the air's films [W/(m2 K)]."""

    wall: SolidMaterial
    wall_thickness: float
    base: SolidMaterial
    base_thickness: float
    top_film: float = TOP_FILM
    wall_film: float = WALL_FILM
    base_film: float = BASE_FILM


@dataclass(frozen=True, slots=True, kw_only=True)
class CellBox:
    """Arrays for `march.advance`, (levels+2, rows+2, cells+2) with a rim of ghosts.

    gx, gy, gz       conductance to the next cell along x, y, z [W/K]
    ga               conductance to the room but for the open top [W/K]
    top              conductance to the room of each cell if it is the top one [W/K]
    capacity         [J/K], of which `resin_capacity` is the resin's
    inverse          1/capacity, 0 in ghosts [K/J]
    heat             heat of full cure of the cell's resin [J]
    resin_of_level   index of the resin in each level, -1 for base and ghosts
    pour_of_level    index of the pour in each level, -1 for base and ghosts
    base_levels      how many of the lowest levels are base
    z_centres        height of each level's middle above the floor, ghosts left out [m]
    """

    gx: Array
    gy: Array
    gz: Array
    ga: Array
    top: Array
    capacity: Array
    resin_capacity: Array
    inverse: Array
    heat: Array
    resin_of_level: NDArray[np.int64]
    pour_of_level: NDArray[np.int64]
    base_levels: int
    z_centres: Array


def faces(length: float, cell: float, least: int = 1) -> Array:
    """Even faces over a length, with cells no larger than `cell` and at least `least` of them."""
    count = max(least, int(np.ceil(length / cell - 1e-9)))
    return np.linspace(0.0, length, count + 1)


def cell_box(
    geometry: CellGeometry, resin_of_pour: list[int], resins: list[Resin], around: Surroundings
) -> CellBox:
    """Capacities, conductances and heats of a tank; see `CellBox`.

    A cell of several materials has their mixed capacity, and the geometric mean of their
    conductivities by volume.
    Source: lichtenecker1926, own_march
    """
    base_faces = faces(around.base_thickness, 0.0095, 2)
    base_levels = len(base_faces) - 1
    dz = np.concatenate([np.diff(base_faces), np.diff(geometry.z_faces)])
    dx, dy = np.diff(geometry.x_faces), np.diff(geometry.y_faces)
    shape = (len(dz), len(dy), len(dx))
    volume = dz[:, None, None] * dy[None, :, None] * dx[None, None, :]
    pour_of_level = np.concatenate([np.full(base_levels, -1), geometry.pour_of_level])
    resin_of_level = np.array([resin_of_pour[p] if p >= 0 else -1 for p in pour_of_level])

    resin_fraction = np.zeros(shape)
    resin_fraction[base_levels:] = np.clip(1.0 - geometry.solid_fractions.sum(axis=0), 0.0, 1.0)
    resin_fraction[resin_fraction < 1e-9] = 0.0
    resin_capacity = np.zeros(shape)
    heat = np.zeros(shape)
    log_conductivity = np.zeros(shape)
    for level, index in enumerate(resin_of_level):
        if index < 0:
            continue
        resin = resins[index]
        density = resin.density_g_ml * G_PER_ML
        mass = density * volume[level] * resin_fraction[level]
        resin_capacity[level] = mass * resin.heat_capacity_j_kgk
        heat[level] = mass * resin.heat_of_cure_j_g * J_PER_G
        log_conductivity[level] = resin_fraction[level] * np.log(resin.conductivity_w_mk)
    capacity = resin_capacity.copy()
    for fraction, solid in zip(geometry.solid_fractions, geometry.solids, strict=True):
        capacity[base_levels:] += fraction * volume[base_levels:] * _volumetric_capacity(solid)
        log_conductivity[base_levels:] += fraction * np.log(
            min(solid.conductivity_w_mk, MOST_CONDUCTIVITY)
        )
    capacity[:base_levels] = volume[:base_levels] * _volumetric_capacity(around.base)
    log_conductivity[:base_levels] = np.log(min(around.base.conductivity_w_mk, MOST_CONDUCTIVITY))
    heat[resin_fraction < LEAST_RESIN_FRACTION] = 0.0
    here = np.ones(shape, dtype=bool)
    wall_share = np.ones(shape[0])
    if geometry.outside is not None:
        here[base_levels:] = ~geometry.outside
        here[:base_levels] = here[base_levels]
        heat[~here] = 0.0
        resin_capacity[~here] = 0.0
    if geometry.wall_share is not None:
        wall_share[base_levels:] = geometry.wall_share

    k = np.exp(log_conductivity)
    half_x, half_y, half_z = (
        dx[None, None, :] / (2 * k), dy[None, :, None] / (2 * k), dz[:, None, None] / (2 * k)
    )
    area_x = dz[:, None, None] * dy[None, :, None]
    area_y = dz[:, None, None] * dx[None, None, :]
    area_z = dy[None, :, None] * dx[None, None, :]
    rim = tuple(size + 2 for size in shape)
    gx, gy, gz, ga, top = (np.zeros(rim) for _ in range(5))
    gx[1:-1, 1:-1, 1:-2] = area_x / (half_x[:, :, :-1] + half_x[:, :, 1:])
    gy[1:-1, 1:-2, 1:-1] = area_y / (half_y[:, :-1] + half_y[:, 1:])
    gz[1:-2, 1:-1, 1:-1] = area_z / (half_z[:-1] + half_z[1:])
    wall = around.wall_thickness / around.wall.conductivity_w_mk + 1.0 / around.wall_film
    away = _walls(here, area_x, half_x, wall, axis=2) + _walls(here, area_y, half_y, wall, axis=1)
    ga_inner = away * wall_share[:, None, None]
    ga_inner[:base_levels] = 0.0
    ga_inner[0] += area_z[0] / (half_z[0] + 1.0 / around.base_film)
    ga_inner[~here] = 0.0
    gx[1:-1, 1:-1, 1:-2] *= here[:, :, :-1] & here[:, :, 1:]
    gy[1:-1, 1:-2, 1:-1] *= here[:, :-1] & here[:, 1:]
    gz[1:-2, 1:-1, 1:-1] *= here[:-1] & here[1:]
    ga[1:-1, 1:-1, 1:-1] = ga_inner
    top[1:-1, 1:-1, 1:-1] = here * area_z / (half_z + 1.0 / around.top_film)
    z_faces = np.concatenate([base_faces - around.base_thickness, geometry.z_faces[1:]])
    return CellBox(
        gx=gx, gy=gy, gz=gz, ga=ga, top=top,
        capacity=_rimmed(capacity), resin_capacity=_rimmed(resin_capacity),
        inverse=_rimmed(here / capacity), heat=_rimmed(heat),
        resin_of_level=np.pad(resin_of_level, 1, constant_values=-1),
        pour_of_level=np.pad(pour_of_level, 1, constant_values=-1),
        base_levels=base_levels,
        z_centres=0.5 * (z_faces[:-1] + z_faces[1:]),
    )


def _walls(
    here: NDArray[np.bool_], area: Array, half: Array, wall: float, axis: int
) -> Array:
    """Conductance to the room through walls across one axis: wherever a cell has no neighbour."""
    beyond = np.pad(~here, [(1, 1) if dim == axis else (0, 0) for dim in range(3)],
                    constant_values=True)
    count = beyond.shape[axis] - 2
    before = np.take(beyond, np.arange(count), axis=axis)
    after = np.take(beyond, np.arange(2, count + 2), axis=axis)
    sides = before.astype(float) + after
    return np.asarray(here * sides * area / (half + wall))


def _volumetric_capacity(solid: SolidMaterial) -> float:
    return solid.density_g_ml * G_PER_ML * solid.heat_capacity_j_kgk


def _rimmed(array: Array) -> Array:
    return np.pad(array, 1)
