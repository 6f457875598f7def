"""Beds to start from: simple forms, depths measured with ruler and skewer, height maps."""

from __future__ import annotations

import io
from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from PIL import Image, UnidentifiedImageError
from scipy.interpolate import RBFInterpolator

from ..errors import GondolaError
from ..scene import MeasuredDepth, Tank
from ..tables import rows_of

Array = NDArray[np.float64]

STEP_MM = 4.0
"""Between the points of a bed that is started or measured."""
LARGEST_MAP_FILE = 24 * 1024 * 1024
PNG = b"\x89PNG\r\n"
"""By which a PNG is known whatever its name says."""
MOST_POINTS = 241


def bed_grid(tank: Tank) -> tuple[Array, Array]:
    """Places of the bed's points, even over the inner size and about 4 mm apart: x (nx,), y (ny,)."""
    nx = int(np.clip(round(tank.inner_width_mm / STEP_MM) + 1, 5, 121))
    ny = int(np.clip(round(tank.inner_behind_mm / STEP_MM) + 1, 5, 121))
    return np.linspace(0, tank.inner_width_mm, nx), np.linspace(0, tank.inner_behind_mm, ny)


def _smooth(value: Array) -> Array:
    value = np.clip(value, 0.0, 1.0)
    return value * value * (3.0 - 2.0 * value)


def _slope(u: Array, v: Array) -> Array:
    return 0.08 + 0.5 * (1 - u) ** 1.3 + 0.08 * v


def _bowl(u: Array, v: Array) -> Array:
    away = np.hypot((u - 0.5) * 2, (v - 0.5) * 2)
    return 0.06 + 0.55 * _smooth(away / 1.25)


def _ledge(u: Array, v: Array) -> Array:
    return 0.07 + 0.30 * _smooth((0.55 - u) / 0.08) + 0.25 * _smooth((0.2 - u + 0.1 * v) / 0.12)


def _channel(u: Array, v: Array) -> Array:
    middle = 0.5 + 0.14 * np.sin(2 * np.pi * v)
    return 0.06 + 0.6 * _smooth((np.abs(u - middle) - 0.12) / 0.22)


def _cave(u: Array, v: Array) -> Array:
    """The floor before a cave's mouth: rock behind, a hollow at its foot. The roof is a mesh."""
    rock = _smooth((v - 0.55) / 0.18)
    mouth = _smooth(1.4 - np.hypot((u - 0.5) / 0.2, (v - 0.6) / 0.5))
    return 0.08 + 0.7 * rock * (1 - 0.9 * mouth) + 0.04 * u


def _reef(u: Array, v: Array) -> Array:
    heads = sum(
        high * np.exp(-(((u - x) ** 2 + (v - y) ** 2) / wide**2))
        for x, y, high, wide in (
            (0.25, 0.65, 0.5, 0.16), (0.55, 0.8, 0.62, 0.2), (0.8, 0.55, 0.36, 0.13),
            (0.42, 0.35, 0.22, 0.1), (0.7, 0.25, 0.16, 0.09),
        )
    )
    return np.asarray(0.06 + np.minimum(heads, 0.72))


STARTERS: dict[str, Callable[[Array, Array], Array]] = {
    "slope": _slope, "bowl": _bowl, "ledge": _ledge, "channel": _channel, "cave": _cave,
    "reef": _reef,
}


def starter_heights(kind: str, tank: Tank) -> list[list[float]]:
    """Heights of a simple bed for a tank, up to some 70 % of its depth; own forms (assumed).

    GondolaError if the kind is not known.
    """
    if kind not in STARTERS:
        raise GondolaError(f"A bed can start as {', '.join(STARTERS)}; this says '{kind}'.", "kind")
    x, y = bed_grid(tank)
    shares = STARTERS[kind](
        (x / tank.inner_width_mm)[None, :], (y / tank.inner_behind_mm)[:, None]
    )
    return _kept(np.broadcast_to(shares, (len(y), len(x))) * tank.fill_height_mm, tank)


def measured_heights(points: list[MeasuredDepth], tank: Tank) -> list[list[float]]:
    """The smoothest bed through measured depths (thin-plate spline), held between 0 and the rim.

    Through one depth it is level, through two or three a plane. GondolaError if there are none or
    two differ at one place.
    Source: duchon1977
    """
    if not points:
        raise GondolaError("Type at least one depth: where it is and how deep.", "points")
    places = np.array([[point.x_mm, point.behind_mm] for point in points])
    heights = tank.fill_height_mm - np.array([point.depth_mm for point in points])
    gap = np.linalg.norm(places[:, None] - places[None, :], axis=2) + 1e9 * np.eye(len(points))
    if gap.min() < 0.5:
        i, j = divmod(int(gap.argmin()), len(points))
        raise GondolaError(
            f"Depths {min(i, j) + 1} and {max(i, j) + 1} stand at the same place: take one out.",
            f"points.{max(i, j)}",
        )
    x, y = bed_grid(tank)
    grid = np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)
    scale = max(tank.inner_width_mm, tank.inner_behind_mm)
    flat = len(points) < 3 or np.linalg.matrix_rank(places - places.mean(axis=0), tol=1.0) < 2
    if flat:
        # points in a row say nothing across it: the bed is level that way
        centred = places - places.mean(axis=0)
        axis = np.linalg.svd(centred)[2][0] if len(points) > 1 else np.array([1.0, 0.0])
        along, at = centred @ axis, (grid - places.mean(axis=0)) @ axis
        order = np.argsort(along)
        found = np.interp(at, along[order], heights[order])
    else:
        surface = RBFInterpolator(places / scale, heights, kernel="thin_plate_spline", degree=1)
        found = surface(grid / scale)
    return _kept(found.reshape(len(y), len(x)), tank)


def map_heights(
    content: bytes, name: str, low_mm: float, high_mm: float, tank: Tank
) -> list[list[float]]:
    """Heights from a map: a grey PNG (black is `low_mm`, white `high_mm`) or a CSV of heights in mm.

    The first row of the file is the back of the tank, as on a map that is looked at from the front.
    GondolaError says what to change.
    """
    if not content:
        raise GondolaError("This file is empty.")
    if len(content) > LARGEST_MAP_FILE:
        raise GondolaError(f"A height map has to be under {LARGEST_MAP_FILE // 2**20} MB.")
    if name.lower().endswith(".csv") and not content.startswith(PNG):
        heights = _from_csv(content)
    else:
        if not 0 <= low_mm < high_mm <= 600:
            raise GondolaError(
                "Black and white of a height map have to be heights from 0 to 600 mm, black the "
                f"lower; they say {low_mm:g} and {high_mm:g}.",
                "low_mm",
            )
        heights = low_mm + (high_mm - low_mm) * _from_png(content)
    heights = heights[::-1]
    return _kept(_thinned(heights), tank)


def _thinned(heights: Array) -> Array:
    """Means of blocks, each side by itself, so that a narrow map keeps its few rows."""
    down, across = (int(np.ceil(size / (MOST_POINTS - 1))) for size in heights.shape)
    rows, columns = heights.shape[0] // down * down, heights.shape[1] // across * across
    blocks = heights[:rows, :columns].reshape(rows // down, down, columns // across, across)
    return np.asarray(blocks.mean(axis=(1, 3)))


def _from_png(content: bytes) -> Array:
    try:
        with Image.open(io.BytesIO(content), formats=["PNG"]) as picture:
            if picture.width * picture.height > 40_000_000:
                raise GondolaError("A height map may have 40 million points at most.")
            if picture.width < 2 or picture.height < 2:
                raise GondolaError("A height map needs at least 2 by 2 points.")
            deep = picture.mode.startswith("I")
            grey = np.asarray(picture if deep else picture.convert("L"), dtype=float)
    except Image.DecompressionBombError:
        raise GondolaError("A height map may have 40 million points at most.") from None
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, OverflowError, MemoryError, EOFError):
        raise GondolaError("This file is no picture: a height map is a grey PNG or a CSV.") from None
    return np.asarray(grey / (65535.0 if deep else 255.0))


def _from_csv(content: bytes) -> Array:
    rows: list[list[float]] = []
    for number, cells in rows_of(content):
        odd = next((cell for cell in cells if not _is_number(cell)), None)
        if odd is not None:
            raise GondolaError(
                f"Row {number} of the CSV says '{odd[:30]}', which is no height: give numbers in "
                "mm only."
            )
        values = [float(cell) for cell in cells]
        if rows and len(values) != len(rows[0]):
            raise GondolaError(
                f"Row {number} of the CSV has {len(values)} heights and the first has "
                f"{len(rows[0])}: give every row the same number."
            )
        rows.append(values)
    heights = np.array(rows, dtype=float)
    if heights.ndim != 2 or min(heights.shape) < 2:
        raise GondolaError("A CSV of heights needs at least 2 rows of 2 heights.")
    if not np.isfinite(heights).all() or heights.min() < 0 or heights.max() > 600:
        raise GondolaError(
            "Heights in the CSV have to be from 0 to 600 mm above the floor; they run from "
            f"{heights.min():g} to {heights.max():g}."
        )
    return heights


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True


def _kept(heights: Array, tank: Tank) -> list[list[float]]:
    within = np.clip(heights, 0.0, tank.wall_height_mm)
    kept: list[list[float]] = np.round(within, 2).tolist()
    return kept
