"""What the section draws: the bed where it is cut, figures in outline, soundings from above."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..answers.answer import Answer, EachAnswer
from ..answers.bodies import BULKS, OWN
from ..answers.columns import OUTLINE
from ..answers.reading import Reading, SceneExtract
from ..answers.water import SIGHTS
from ..shape import Bulk, Meshes, Outline, bed_heights, put_in_place, silhouette_of, tank_plan
from ..tint import FigureSight

Array = NDArray[np.float64]

CUT_STEP_MM = 2.0
SOUNDINGS_ACROSS = 11


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureView:
    """A figure drawn in one view.

    spread_mm  how far its outline may be off because its solid is a guess
    """

    figure_id: str
    reads_srgb: str
    nearest_mm: float
    spread_mm: float
    outlines: list[Outline]


@dataclass(frozen=True, slots=True, kw_only=True)
class View:
    """One view of the tank: its inner outline, the bed where it is cut, figures, farthest first."""

    across_mm: float
    bed_cut_mm: list[list[float]]
    tank_mm: list[list[float]]
    figures: list[FigureView]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sounding:
    """Depth of the bed at one point."""

    x_mm: float
    behind_mm: float
    depth_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """What is drawn of the tank."""

    front: View
    side: View
    above: View
    soundings: list[Sounding]


def _silhouettes(view: str) -> EachAnswer[Any]:
    def drawn(figure: Any, _: SceneExtract, meshes: Meshes) -> Any:
        return silhouette_of(figure, view, meshes)

    return EachAnswer(name=f"silhouette-{view}", of="figures", reads=Reading(*OWN), by=drawn, meshes=True)


def _drawn(view: str) -> EachAnswer[Any]:
    def placed(figure: Any, _: SceneExtract, shadow: Any) -> list[Outline]:
        return put_in_place(figure, view, shadow)

    return EachAnswer(
        name=f"drawn-{view}", of="figures", reads=Reading("place"), own=(_silhouettes(view),), by=placed,
    )


FRONT, SIDE, ABOVE = (_drawn(view) for view in ("front", "side", "above"))
Drawn = list[list[Outline]]


def _section(
    scene: Any, sights: list[FigureSight], bulks: list[Bulk], front: Drawn, side: Drawn, above: Drawn
) -> Section:
    """All views: the front cut at the glass, the side at the right wall, from above not at all."""
    tank, bed = scene.tank, scene.bed
    x, y = _steps(tank.inner_width_mm), _steps(tank.inner_behind_mm)
    cuts = {
        "front": (x, bed_heights(bed, tank, x, np.zeros(1))[0]),
        "side": (y, bed_heights(bed, tank, np.array([tank.inner_width_mm]), y)[:, 0]),
        "above": (x, np.zeros_like(x)),
    }

    def view(name: str, across_mm: float, drawn: Drawn) -> View:
        return View(
            across_mm=across_mm,
            tank_mm=np.round(_tank_outline(tank, name), 2).tolist(),
            bed_cut_mm=np.round(np.stack(cuts[name], axis=1), 2).tolist(),
            figures=_figure_views(scene, sights, bulks, drawn),
        )

    return Section(
        front=view("front", tank.inner_width_mm, front), side=view("side", tank.inner_behind_mm, side),
        above=view("above", tank.inner_width_mm, above), soundings=_soundings(scene),
    )


def _figure_views(
    scene: Any, sights: list[FigureSight], bulks: list[Bulk], outlines: list[list[Outline]]
) -> list[FigureView]:
    views = [
        FigureView(
            figure_id=figure.id,
            reads_srgb=sight.reads_srgb,
            nearest_mm=min((outline.nearest_mm for outline in lines), default=0.0),
            spread_mm=round(10 * bulk.spread_ml / max(bulk.area_cm2, 1e-9), 2),
            outlines=lines,
        )
        for figure, sight, lines, bulk in zip(scene.figures, sights, outlines, bulks, strict=True)
    ]
    return sorted(views, key=lambda figure: -figure.nearest_mm)


def _tank_outline(tank: Any, view: str) -> Array:
    """Inner outline of the tank in a view [mm], (n, 2)."""
    if view == "above":
        return tank_plan(tank, tank.fill_height_mm)
    high, axis = tank.wall_height_mm, 0 if view == "front" else 1
    floor, rim = tank_plan(tank)[:, axis], tank_plan(tank, high)[:, axis]
    return np.array([[rim.min(), high], [floor.min(), 0.0], [floor.max(), 0.0], [rim.max(), high]])


def _soundings(scene: Any) -> list[Sounding]:
    """Depths of the bed on an even grid."""
    tank = scene.tank
    across = np.linspace(0, tank.inner_width_mm, SOUNDINGS_ACROSS + 2)[1:-1]
    rows = max(2, round(SOUNDINGS_ACROSS * tank.inner_behind_mm / tank.inner_width_mm))
    back = np.linspace(0, tank.inner_behind_mm, rows + 2)[1:-1]
    heights = bed_heights(scene.bed, tank, across, back)
    return [
        Sounding(
            x_mm=round(float(across[i]), 1), behind_mm=round(float(back[j]), 1),
            depth_mm=round(float(tank.fill_height_mm - heights[j, i]), 1),
        )
        for j in range(len(back))
        for i in range(len(across))
    ]


def _steps(length_mm: float) -> Array:
    return np.linspace(0.0, length_mm, max(3, round(length_mm / CUT_STEP_MM) + 1))


SECTION = Answer(
    name="section", needs=(SIGHTS, BULKS, FRONT, SIDE, ABOVE), by=_section,
    reads=Reading(*OUTLINE, "tank.wall_height_mm", "bed.heights_mm", "bed.mesh", "figures.id"),
)
