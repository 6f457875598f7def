"""What the section draws: the bed where it is cut, figures in outline, soundings from above."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ..answers.kept import Keeper
from ..answers.scene_shape import own_inputs
from ..outcome import FigureView, Section, Sounding, View
from ..scene import Scene
from ..shape import Bulk, Meshes, bed_heights, put_in_place, silhouette_of, tank_plan
from ..tint import FigureSight

Array = NDArray[np.float64]

CUT_STEP_MM = 2.0
SOUNDINGS_ACROSS = 11


def section(
    scene: Scene, sights: list[FigureSight], bulks: list[Bulk], keeper: Keeper, meshes: Meshes
) -> Section:
    """All views: the front cut at the glass, the side at the right wall, from above not at all."""
    tank, bed = scene.tank, scene.bed
    x = _steps(tank.inner_width_mm)
    y = _steps(tank.inner_behind_mm)
    front_cut = bed_heights(bed, tank, x, np.zeros(1))[0]
    side_cut = bed_heights(bed, tank, np.array([tank.inner_width_mm]), y)[:, 0]
    drawn = {
        view: [
            put_in_place(figure, view, keeper.keep(
                f"silhouette-{view}", own_inputs(figure),
                lambda figure=figure, view=view: silhouette_of(  # type: ignore[misc]
                    figure, view, meshes
                ),
            ))
            for figure in scene.figures
        ]
        for view in ("front", "side", "above")
    }
    floor = tank_plan(tank)
    rim = tank_plan(tank, tank.wall_height_mm)
    high = tank.wall_height_mm

    def view(name: str, across: float, line: Array, cut: Array) -> View:
        figures = [
            FigureView(
                figure_id=figure.id,
                name=figure.name,
                reads_srgb=sight.reads_srgb,
                nearest_mm=min(outline.nearest_mm for outline in lines),
                spread_mm=round(10 * bulk.spread_ml / max(bulk.area_cm2, 1e-9), 2),
                outlines=lines,
            )
            for figure, sight, lines, bulk in zip(scene.figures, sights, drawn[name], bulks, strict=True)
        ]
        if name == "above":
            tank_mm = tank_plan(tank, tank.fill_height_mm)
        else:
            axis = 0 if name == "front" else 1
            tank_mm = np.array([
                [rim[:, axis].min(), high], [floor[:, axis].min(), 0.0],
                [floor[:, axis].max(), 0.0], [rim[:, axis].max(), high],
            ])
        return View(
            across_mm=across,
            tank_mm=np.round(tank_mm, 2).tolist(),
            bed_cut_mm=np.round(np.stack([line, cut], axis=1), 2).tolist(),
            figures=sorted(figures, key=lambda figure: -figure.nearest_mm),
        )

    across = np.linspace(0, tank.inner_width_mm, SOUNDINGS_ACROSS + 2)[1:-1]
    rows = max(2, round(SOUNDINGS_ACROSS * tank.inner_behind_mm / tank.inner_width_mm))
    back = np.linspace(0, tank.inner_behind_mm, rows + 2)[1:-1]
    heights = bed_heights(bed, tank, across, back)
    return Section(
        front=view("front", tank.inner_width_mm, x, front_cut),
        side=view("side", tank.inner_behind_mm, y, side_cut),
        above=view("above", tank.inner_width_mm, x, np.zeros_like(x)),
        soundings=[
            Sounding(
                x_mm=round(float(across[i]), 1),
                behind_mm=round(float(back[j]), 1),
                depth_mm=round(float(tank.fill_height_mm - heights[j, i]), 1),
            )
            for j in range(len(back))
            for i in range(len(across))
        ],
    )


def _steps(length_mm: float) -> Array:
    return np.linspace(0.0, length_mm, max(3, round(length_mm / CUT_STEP_MM) + 1))
