"""Gives a new figure a free place: what stands goes to the bed, what swims into the water, both apart from others."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ..answers.bodies import BODIES, FigureBody
from ..answers.book import KEEPER, Book
from ..answers.figure_facts import FIGURE_FACTS
from ..answers.fills import lines_mm
from ..answers.kept import Keeper
from ..evaluate import DRAFT
from ..polygon import holds_point
from ..scene import Figure, Place, Scene
from ..shape import Meshes, tank_plan
from ..shape.bed import bed_heights

Array = NDArray[np.float64]

APART_MM = 1.0
"""Least gap to other figures, walls and bed. Source: assumed"""
PLACES_ACROSS = 15
"""Places along each side of the floor that are tried. Source: assumed"""
SWIMS = frozenset({"staged", "stem", "wire", "line", "glue_spot"})
"""Ways of holding of what hangs in the water; the others stand on the bed."""
SWIMS_AT = 0.55
"""Height in the water of what swims, in fill heights, where nobody says another. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Spot:
    """Where a figure was dropped; None: anywhere."""

    x_mm: float | None = None
    behind_mm: float | None = None
    depth_mm: float | None = None


ANYWHERE = Spot()


def place_figure(
    scene: Scene, figure: Figure, spot: Spot = ANYWHERE, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> Figure:
    """The figure at the free place nearest to the spot, held in a way that holds it there if there is one.

    What stands touches the bed; what swims lies on the layer line nearest to the depth, or hangs at
    the depth where no line is. Where nothing is free it stays at the first place that the tank holds.
    """
    book = Book(scene, DRAFT, keeper, meshes)
    others = book.ask(BODIES)
    first = None
    for tried, body in _tried(scene, figure, spot, book):
        first = first or tried
        if _apart(body, others):
            return _held(scene, tried, book)
    return figure if first is None else _held(scene, first, book)


def _tried(scene: Scene, figure: Figure, spot: Spot, book: Book) -> Iterator[tuple[Figure, FigureBody]]:
    """Places inside the walls, nearest to the spot first, each at its height; those under the bed are passed by."""
    own = _body(scene, figure, book)
    low, high = own.least - _at(figure.place), own.most - _at(figure.place)
    outline = tank_plan(scene.tank, 0.0)
    tank = scene.tank
    for x, y in _by_distance(scene, spot):
        corners = [(x + a, y + b) for a in (low[0] - APART_MM, high[0] + APART_MM)
                   for b in (low[1] - APART_MM, high[1] + APART_MM)]
        if not all(holds_point(outline, *corner) for corner in corners):
            continue
        for height in _heights(scene, figure, spot, low):
            placed = _moved(figure, x, y, height)
            body = _body(scene, placed, book)
            gap = _gap(scene, placed, body)
            if figure.holding not in SWIMS:
                placed = _moved(figure, x, y, height - gap)
                body = replace(body, least=body.least - [0, 0, gap], most=body.most - [0, 0, gap], gap_below_mm=0.0)
            elif gap < APART_MM:
                continue
            if body.most[2] <= tank.fill_height_mm - APART_MM or figure.cut_at_fill:
                yield placed, body


def _gap(scene: Scene, figure: Figure, body: FigureBody) -> float:
    """Down to the bed; under a figure so thin that no column meets it, to the bed at its place [mm]."""
    if body.gap_below_mm is not None:
        return body.gap_below_mm
    at = (np.array([figure.place.x_mm]), np.array([figure.place.behind_mm]))
    return float(body.least[2] - bed_heights(scene.bed, scene.tank, *at)[0, 0])


def _by_distance(scene: Scene, spot: Spot) -> list[tuple[float, float]]:
    tank = scene.tank
    x0 = tank.inner_width_mm / 2 if spot.x_mm is None else spot.x_mm
    y0 = tank.inner_behind_mm / 2 if spot.behind_mm is None else spot.behind_mm
    xs = np.append(np.linspace(0, tank.inner_width_mm, PLACES_ACROSS), x0)
    ys = np.append(np.linspace(0, tank.inner_behind_mm, PLACES_ACROSS), y0)
    return sorted(
        ((float(x), float(y)) for x in xs for y in ys), key=lambda at: (at[0] - x0) ** 2 + (at[1] - y0) ** 2
    )


def _heights(scene: Scene, figure: Figure, spot: Spot, low: Array) -> list[float]:
    """Heights of its place: on the layer lines, nearest first; else where it was dropped, or in the middle."""
    fill = scene.tank.fill_height_mm
    wished = SWIMS_AT * fill if spot.depth_mm is None else fill - spot.depth_mm
    if figure.holding not in SWIMS:
        return [wished]
    inner = lines_mm(scene)[1:-1]
    if figure.holding != "staged" or not inner:
        return [wished]
    return [line - float(low[2]) for line in sorted(inner, key=lambda line: abs(line - wished))]


def _moved(figure: Figure, x: float, y: float, height: float) -> Figure:
    place = Place(x_mm=round(x, 1), behind_mm=round(y, 1), height_mm=round(height, 1))
    return figure.model_copy(update={"place": place})


def _at(place: Place) -> Array:
    return np.array([place.x_mm, place.behind_mm, place.height_mm])


def _body(scene: Scene, figure: Figure, book: Book) -> FigureBody:
    alone = scene.model_copy(update={"figures": [figure]})
    return book.other(alone).ask(BODIES)[0]


def _apart(body: FigureBody, others: list[FigureBody]) -> bool:
    return not any(
        np.all(body.least < other.most + APART_MM) and np.all(body.most > other.least - APART_MM) for other in others
    )


def _held(scene: Scene, figure: Figure, book: Book) -> Figure:
    """Held as it is if that holds, else in the first way that does."""
    with_it = scene.model_copy(update={"figures": [*scene.figures, figure]})
    ways = book.other(with_it).ask(FIGURE_FACTS)[-1].ways
    holding = [way.way for way in ways if way.holds]
    if not holding or figure.holding in holding:
        return figure
    return figure.model_copy(update={"holding": holding[0]})
