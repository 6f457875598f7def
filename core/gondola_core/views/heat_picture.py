"""The heat as a picture at one moment, and the curve of one place through time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..answers.book import KEEPER, Book
from ..answers.grades import DRAFT
from ..answers.heat import HEAT, Heat
from ..answers.kept import Keeper
from ..errors import GondolaError
from ..scene import Scene
from ..shape import Meshes
from ..units import HOUR, MM
from ..words import words

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatPlane:
    """The upright plane half way to the back, at one moment; None where nothing is poured yet.

    temperature_c, degree_of_cure   rows from the surface down, each from left to right
    """

    at_h: float
    behind_mm: float
    x_mm: list[float]
    depth_mm: list[float]
    temperature_c: list[list[float | None]]
    degree_of_cure: list[list[float | None]]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceCurve:
    """One place of that plane through time; None before it is poured."""

    x_mm: float
    depth_mm: float
    at_h: list[float]
    temperature_c: list[float | None]
    degree_of_cure: list[float | None]


def _heat(scene: Scene, meshes: Meshes | None, keeper: Keeper) -> Heat:
    return Book(scene, DRAFT, keeper, meshes).ask(HEAT)


def _frame(scene: Scene, heat: Heat) -> tuple[Array, Array, slice, float]:
    """Middles of cells from the left, depths of levels from the surface, the levels, the plane."""
    x = 0.5 * (heat.cells.x_faces[:-1] + heat.cells.x_faces[1:]) / MM
    levels = slice(None, heat.marched.base_levels - 1 if heat.marched.base_levels else None, -1)
    depth = scene.tank.fill_height_mm - heat.marched.heights[levels] / MM
    y = heat.cells.y_faces
    row = (len(y) + 1) // 2 - 1
    return x, depth, levels, float(0.5 * (y[row] + y[min(row + 1, len(y) - 1)]) / MM)


def heat_plane(
    scene: Scene, at_h: float, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> HeatPlane:
    """The plane at a moment of the plan, linear between the moments that the march kept."""
    heat = _heat(scene, meshes, keeper)
    x, depth, levels, behind = _frame(scene, heat)
    times = heat.marched.history_at / HOUR
    after = int(np.clip(np.searchsorted(times, at_h), 0, len(times) - 1))
    before = max(after - 1, 0)
    span = times[after] - times[before]
    part = float(np.clip((at_h - times[before]) / span, 0, 1)) if span > 0 else 0.0

    def between(history: NDArray[np.float32]) -> Array:
        low, high = history[before, levels], history[after, levels]
        fresh = high if part > 0.5 else low
        return np.asarray(np.where(np.isnan(low), fresh, low + part * (high - low)))

    return HeatPlane(
        at_h=round(float(at_h), 2), behind_mm=round(behind, 1),
        x_mm=np.round(x, 1).tolist(), depth_mm=np.round(depth, 2).tolist(),
        temperature_c=_told(between(heat.marched.history_plane_c), 1),
        degree_of_cure=_told(between(heat.marched.history_plane_degree), 3),
    )


def place_curve(
    scene: Scene, x_mm: float, depth_mm: float, meshes: Meshes | None = None,
    keeper: Keeper = KEEPER,
) -> PlaceCurve:
    """The cell nearest a place in the plane, through the whole march; GondolaError outside the tank."""
    if not 0 <= depth_mm <= scene.tank.fill_height_mm:
        raise GondolaError(
            words("refusals.depth", range=(0.0, scene.tank.fill_height_mm), given=depth_mm), "depth_mm"
        )
    heat = _heat(scene, meshes, keeper)
    x, depth, levels, _ = _frame(scene, heat)
    row, cell = int(np.abs(depth - depth_mm).argmin()), int(np.abs(x - x_mm).argmin())
    warm = heat.marched.history_plane_c[:, levels][:, row, cell]
    cure = heat.marched.history_plane_degree[:, levels][:, row, cell]
    return PlaceCurve(
        x_mm=round(float(x[cell]), 1), depth_mm=round(float(depth[row]), 1),
        at_h=np.round(heat.marched.history_at / HOUR, 2).tolist(),
        temperature_c=_told(warm[None], 1)[0], degree_of_cure=_told(cure[None], 3)[0],
    )


def _told(values: NDArray[np.floating], digits: int) -> list[list[float | None]]:
    return [
        [None if np.isnan(value) else round(float(value), digits) for value in row]
        for row in values
    ]
