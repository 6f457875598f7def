"""How painted colours read in the water, and the paint that would read as wished."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.optimize import linprog, minimize

from ..errors import GondolaError
from ..scene import Figure, Scene
from ..units import MM
from ..words import Words, words
from .attenuation import Water
from .colour import colour_difference, hex_of, lab_of_linear, linear_of_hex, linear_srgb, reflectance_of_hex
from .sights import water_of
from .spectrum import reflectance_basis

Array = NDArray[np.float64]

LEAST_PAINT, MOST_PAINT = 0.02, 0.92
"""Reflectance that paints reach. Source: own_light"""
ZONES = ("paint_srgb", "back_srgb", "belly_srgb", "mark_srgb")
ZONE_NAMES = {"paint_srgb": "flank", "back_srgb": "back", "belly_srgb": "belly", "mark_srgb": "mark"}


@dataclass(frozen=True, slots=True, kw_only=True)
class ZoneReads:
    """A painted zone of a figure, and how it reads where it is."""

    zone: str
    paint_srgb: str
    reads_srgb: str
    away_de00: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OtherPlace:
    """The same wish with the figure elsewhere."""

    words: str
    depth_mm: float
    behind_mm: float
    gap_de00: float
    reads_srgb: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PaintAnswer:
    """The paint for a wished colour of a figure; the nearest where none can.

    possible     paintable; only an odd spectrum; no paint at all
    white_reads_srgb   the brightest that anything reads there
    """

    figure_id: str
    wished_srgb: str
    paint_srgb: str
    reads_srgb: str
    gap_de00: float
    possible: str
    white_reads_srgb: str
    sentence: Words
    places: list[OtherPlace]
    zones: list[ZoneReads]


def _spot(figure: Figure, scene: Scene) -> tuple[float, float]:
    depth = np.clip(scene.tank.fill_height_mm - figure.place.height_mm, 0, scene.tank.fill_height_mm)
    behind = np.clip(figure.place.behind_mm, 0, scene.tank.inner_behind_mm)
    return float(depth), float(behind)


def linear_map(water: Water, depth_mm: ArrayLike, behind_mm: ArrayLike) -> tuple[Array, Array]:
    """Paint's linear sRGB to what it reads as: read = M paint + veil, (..., 3, 3) and (..., 3).

    depth_mm, behind_mm  (...), broadcast
    """
    z, y = np.asarray(depth_mm) * MM, np.asarray(behind_mm) * MM
    through = water.light_at(z, y) * water.sight(z, y)
    by_paint = linear_srgb(reflectance_basis().T * through[..., None, :])
    return np.swapaxes(by_paint, -1, -2), np.asarray(linear_srgb(water.veil(z, y)))


def reads_as(water: Water, srgb: str, depth_mm: float, behind_mm: float) -> Array:
    """Linear sRGB of a paint where it is."""
    return np.asarray(
        linear_srgb(water.seen(reflectance_of_hex(srgb), depth_mm * MM, behind_mm * MM))
    )


def nearest_paint(
    water: Water, wished_srgb: str, depth_mm: float, behind_mm: float
) -> tuple[Array, float, str]:
    """(linear paint, gap in dE00, how possible) for a wish at a place.

        read = M paint + veil, so paint = M^-1 (wish - veil) where that is a paint

    Source: mallett2019, own_light
    """
    matrix, veil = linear_map(water, depth_mm, behind_mm)
    wish = linear_of_hex(wished_srgb)
    exact = np.linalg.solve(matrix, wish - veil)
    if (exact >= LEAST_PAINT).all() and (exact <= MOST_PAINT).all():
        return np.asarray(exact, dtype=float), 0.0, "paintable"
    wanted = lab_of_linear(wish)

    def gap(paint: Array) -> float:
        return float(colour_difference(lab_of_linear(matrix @ paint + veil), wanted))

    start = np.clip(exact, LEAST_PAINT, MOST_PAINT)
    best: Array = start
    least = gap(start)
    for first in (start, np.full(3, 0.5), np.array([MOST_PAINT, 0.3, 0.2])):
        found = minimize(
            gap, first, bounds=[(LEAST_PAINT, MOST_PAINT)] * 3, method="L-BFGS-B",
            options={"maxiter": 60},
        )
        if found.fun < least:
            best, least = found.x, float(found.fun)
    if least < 0.5:
        return np.asarray(best, dtype=float), least, "paintable"
    z, y = depth_mm * MM, behind_mm * MM
    through = water.light_at(z, y) * water.sight(z, y)
    rows = np.stack([linear_srgb(row) for row in np.eye(len(through)) * through], axis=1)
    any_paint = linprog(
        np.zeros(len(through)), A_eq=rows, b_eq=wish - veil,
        bounds=[(LEAST_PAINT, MOST_PAINT)] * len(through),
    )
    how = "only an odd spectrum" if any_paint.success else "no paint at all"
    return np.asarray(best, dtype=float), least, how


def paint_answer(scene: Scene, figure_id: str, wished_srgb: str) -> PaintAnswer:
    """What to paint a figure so that it reads as wished, and where it would rather stand."""
    figure = next((one for one in scene.figures if one.id == figure_id), None)
    if figure is None:
        raise GondolaError(words("refusals.no_figure", id=figure_id), "figure_id")
    water = water_of(scene)
    depth, behind = _spot(figure, scene)
    paint, gap, possible = nearest_paint(water, wished_srgb, depth, behind)
    matrix, veil = linear_map(water, depth, behind)
    reads = hex_of(matrix @ paint + veil)
    names = {**ZONE_NAMES, "paint_srgb": "mean"} if figure.own_colours else ZONE_NAMES
    own = {"paint_srgb": figure.worn_srgb}
    if not figure.own_colours:
        own |= figure.zones.model_dump(mode="json")
    zones = []
    for zone in ZONES:
        colour = own.get(zone)
        if not colour:
            continue
        read = reads_as(water, colour, depth, behind)
        zones.append(
            ZoneReads(
                zone=names[zone], paint_srgb=colour, reads_srgb=hex_of(read),
                away_de00=round(float(colour_difference(
                    lab_of_linear(read), lab_of_linear(linear_of_hex(colour)))), 1),
            )
        )
    return PaintAnswer(
        figure_id=figure.id,
        wished_srgb=wished_srgb,
        paint_srgb=hex_of(paint),
        reads_srgb=reads,
        gap_de00=round(gap, 1),
        possible=possible,
        white_reads_srgb=hex_of(reads_as(water, "#ffffff", depth, behind)),
        sentence=_sentence(figure.name, depth, behind, possible, gap, reads),
        places=[] if possible == "paintable" else _places(water, wished_srgb, depth, behind),
        zones=zones,
    )


def _sentence(name: str, depth: float, behind: float, possible: str, gap: float, reads: str) -> Words:
    where = words("paint.where", deep=depth, behind=behind)
    if possible == "paintable":
        return words("paint.paintable", name=name, where=where)
    return words("paint.none" if possible == "no paint at all" else "paint.odd", where=where, reads=reads, gap=gap)


def _places(water: Water, wished: str, depth: float, behind: float) -> list[OtherPlace]:
    found = []
    for where, z, y in (
        ("half as far behind the glass", depth, behind / 2),
        ("close behind the glass", depth, min(behind, 5.0)),
        ("half as deep", depth / 2, behind),
        ("half as deep, close behind the glass", depth / 2, min(behind, 5.0)),
    ):
        paint, gap, _ = nearest_paint(water, wished, z, y)
        matrix, veil = linear_map(water, z, y)
        found.append(
            OtherPlace(
                words=where, depth_mm=round(z, 1), behind_mm=round(y, 1), gap_de00=round(gap, 1),
                reads_srgb=hex_of(matrix @ paint + veil),
            )
        )
    return sorted(found, key=lambda place: place.gap_de00)


