"""Moves the fill line: walls and sheet follow it, and the pours are laid anew where the depth is another."""

from __future__ import annotations

from math import ceil

from ..answers.bodies import BODIES
from ..answers.book import Book
from ..answers.fills import lines_mm
from ..answers.kept import Keeper
from ..checks.dam import LEAST_HEADROOM_MM, THICKEST_MM
from ..dam.facts import MOST_BULGE_MM
from ..errors import GondolaError
from ..evaluate import DRAFT, KEEPER, evaluate
from ..holding.ways.staged import OFF_THE_LINE_MM
from ..outcome import Outcome
from ..scene import Figure, Pour, Scene, Tank
from ..scene.edits import Edit, fill_to
from ..shape import Meshes
from ..words import words
from .laying import lay_pours

HEADROOM_MM = 12.0
"""Wall above the fill line: the climb of the resin, a tilt, a stick to level by. Source: assumed"""
LAID_ANEW = 1.5
"""Times deeper or shallower from which the pours are laid anew, not stretched. Source: assumed"""
LEAST_FILL_MM, MOST_FILL_MM = 3.0, 600.0
"""As a document holds."""


def usual_wall_mm(fill_mm: float) -> float:
    """Height of the walls where nobody says another."""
    return round(fill_mm + HEADROOM_MM, 1)


def fill_line(scene: Scene, fill_mm: float, meshes: Meshes | None = None, keeper: Keeper = KEEPER) -> Edit:
    """The edit that fills the tank to another height above its floor.

    What lay on a layer line lies on one again. Walls of the usual height follow; others stay as long as
    they hold. Sheet that would bulge is thickened. GondolaError for a height that no tank has.
    """
    if not LEAST_FILL_MM <= fill_mm <= MOST_FILL_MM:
        raise GondolaError(
            words("refusals.fill", range=(LEAST_FILL_MM, MOST_FILL_MM), given=fill_mm), "fill_mm"
        )
    tank = _with_walls(scene.tank, fill_mm)
    ratio = fill_mm / scene.tank.fill_height_mm
    if 1 / LAID_ANEW < ratio < LAID_ANEW:
        filled = scene.model_copy(update={"tank": tank, "pours": _stretched(scene.pours, ratio)})
        outcome = evaluate(filled, DRAFT, keeper, meshes=meshes)
    else:
        resin_id = scene.pours[0].resin_id
        filled, outcome = lay_pours(scene.model_copy(update={"tank": tank}), resin_id, meshes, keeper)
    return fill_to(scene, stiffened(filled, outcome).tank, filled.pours, _carried(scene, filled, meshes, keeper))


def _with_walls(tank: Tank, fill_mm: float) -> Tank:
    usual = tank.wall_height_mm == usual_wall_mm(tank.fill_height_mm)
    wall = usual_wall_mm(fill_mm) if usual or tank.wall_height_mm < fill_mm + LEAST_HEADROOM_MM else tank.wall_height_mm
    return tank.model_copy(update={"fill_height_mm": fill_mm, "wall_height_mm": wall})


def _stretched(pours: list[Pour], ratio: float) -> list[Pour]:
    return [pour.model_copy(update={"top_depth_mm": round(ratio * pour.top_depth_mm, 1)}) for pour in pours]


def _carried(scene: Scene, filled: Scene, meshes: Meshes | None, keeper: Keeper) -> list[Figure]:
    """The figures, those that lay on a layer line on the new line that is nearest in the order of the water."""
    was, lines = lines_mm(scene)[1:-1], lines_mm(filled)[1:-1]
    ratio = filled.tank.fill_height_mm / scene.tank.fill_height_mm
    carried = []
    for figure, body in zip(scene.figures, Book(scene, DRAFT, keeper, meshes).ask(BODIES), strict=True):
        foot = float(body.least[2])
        if figure.holding == "staged" and lines and any(abs(foot - line) <= OFF_THE_LINE_MM for line in was):
            line = min(lines, key=lambda one: abs(one - ratio * foot))
            place = figure.place.model_copy(update={"height_mm": round(figure.place.height_mm + line - foot, 1)})
            figure = figure.model_copy(update={"place": place})
        carried.append(figure)
    return carried


def stiffened(scene: Scene, outcome: Outcome) -> Scene:
    """The scene with sheet thick enough that no panel bulges by more than is let pass, if there is such sheet."""
    tank, loads = scene.tank, outcome.dam.loads
    bulges = [load for load in loads if load.bulge_high_mm is None or load.bulge_high_mm > MOST_BULGE_MM]
    if tank.walls_stay or not bulges:
        return scene
    thick = min(THICKEST_MM, ceil(2 * max(load.least_loose_mm for load in loads)) / 2)
    wall = tank.wall.model_copy(update={"thickness_mm": max(thick, tank.wall.thickness_mm)})
    return scene.model_copy(update={"tank": tank.model_copy(update={"wall": wall})})
