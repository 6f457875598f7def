"""What a scene's shape and heat say of its pours and figures, joined."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..bench.hands import HandsOn, hands_on
from ..bench.mixing import Mix, allowance_ml
from ..cure.bubbles import BubbleProfile, Settling, bubble_profile, settling
from ..cure.cooling import pour_cooling
from ..cure.light import LightAnswer, light_answer
from ..cure.stress import PourStress, pour_stress
from ..dam import DamFacts, PourOnDam
from ..holding.facts import FigureFacts, Wetting, figure_facts, worst_load
from ..outcome import Filling
from ..scene import Scene
from ..shape import bed_area_cm2, bed_heights
from ..shape.columns import FIRST_FIGURE, free_surface_cm2, free_volume_ml
from ..shape.floods import FreeSpans, wet_and_trapped_ml
from ..shape.pockets import air_under_ml
from ..units import MM
from .scene_heat import SceneHeat
from .scene_shape import SceneShape

Array = NDArray[np.float64]

CURVE_POINTS = 41
SEALED_LETS_THROUGH = 0.05
"""Share of a bed's gas that passes a brushed seal coat, at its pinholes. Source: assumed"""
DEEPEST_SHARE = 0.01
"""Share of a pour's open surface over which it has to be deep for that to be its depth. Source: assumed"""
HARD_G_ML = 1.0
"""Density from which a solid counts as hard, and hardly shrinks with the resin. Source: assumed"""
SEAL_COAT_MM = 0.25
"""Resin that a brushed seal coat takes over a porous bed. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Volumes:
    """By pour: not solid, taken up, air kept, the open surface at its line, and how deep the liquid is.

    depth_mm  from the line down to the bed or the layer below, where it is deepest but for some crevices
    """

    free_ml: Array
    resin_ml: Array
    trapped_ml: Array
    surface_cm2: Array
    depth_mm: Array


def volumes_of(scene: Scene, shape: SceneShape) -> Volumes:
    """What each pour takes up."""
    fill = scene.tank.fill_height_mm
    tops = np.array([0.0, *(fill - pour.top_depth_mm for pour in scene.pours)])
    wet, trapped = wet_and_trapped_ml(shape.free, shape.spans.area_mm2, tops)
    return Volumes(
        free_ml=np.diff(free_volume_ml(shape.spans, tops)),
        resin_ml=np.maximum(np.diff(wet - trapped), 0.0),
        trapped_ml=np.diff(trapped),
        surface_cm2=free_surface_cm2(shape.spans, tops - 1e-6)[1:],
        depth_mm=np.array([
            liquid_depth_mm(shape.free, floor, line) for floor, line in itertools.pairwise(tops)
        ]),
    )


def liquid_depth_mm(free: FreeSpans, floor_mm: float, line_mm: float) -> float:
    """Depth of a pour between two heights above the tank's floor: from its line down to what is solid.

    The deepest that a hundredth of its open surface reaches; 0 where it has none.
    """
    open_here = (free.high >= line_mm) & (free.low < line_mm) & np.isfinite(free.rim_mm)
    tall = line_mm - np.maximum(free.low[open_here], floor_mm)
    if not len(tall):
        return 0.0
    return float(np.quantile(tall, 1.0 - DEEPEST_SHARE, method="higher"))


def pours_on_dam(scene: Scene, heat: SceneHeat) -> list[PourOnDam]:
    """Each pour as the dam meets it."""
    fill = scene.tank.fill_height_mm
    lines = [fill - pour.top_depth_mm for pour in scene.pours]
    return [
        PourOnDam(
            number=number, floor_mm=floor, line_mm=line, density_g_ml=scene.resin_of(pour).density_g_ml,
            wall_c=place.sheet_c,
        )
        for number, (pour, floor, line, place) in enumerate(
            zip(scene.pours, [0.0, *lines[:-1]], lines, heat.places, strict=True), start=1
        )
    ]


def allowances(scene: Scene, volumes: Volumes, dam: DamFacts) -> list[float]:
    """Films in the cups of each pour, and the climb at the walls with the last one [ml]."""
    more = [
        allowance_ml(float(volume), scene.resin_of(pour))
        for volume, pour in zip(volumes.resin_ml, scene.pours, strict=True)
    ]
    more[-1] += dam.climb_ml
    return more


def hands_of(
    scene: Scene, mixes: list[Mix], volumes: Volumes, shape: SceneShape
) -> list[HandsOn]:
    """Hands-on work of every pour; a figure counts with the pour that covers its foot."""
    fill = scene.tank.fill_height_mm
    lines = [fill - pour.top_depth_mm for pour in scene.pours]
    met = [sum(float(body.least[2]) >= line for line in lines[:-1]) for body in shape.figures]
    return [
        hands_on(scene, index, mix, float(volumes.resin_ml[index]), met.count(index))
        for index, mix in enumerate(mixes)
    ]


def facts_of_figures(scene: Scene, shape: SceneShape, heat: SceneHeat) -> list[FigureFacts]:
    """Buoyancy and holding of every figure, with what is near it in the plan."""
    fill = scene.tank.fill_height_mm
    lines = [fill - pour.top_depth_mm for pour in scene.pours]
    facts = []
    for at, (figure, body, peak) in enumerate(
        zip(scene.figures, shape.figures, heat.figure_peaks_c, strict=True)
    ):
        bottom, top = float(body.least[2]), float(body.most[2])
        below = [line for line in lines[:-1] if line <= top]
        line_below = min(below, key=lambda line: abs(bottom - line)) if below else None
        stiff = False
        if line_below is not None:
            laid_on = lines.index(line_below)
            cure = heat.cures[laid_on]
            opens = cure.tack_opens_h if cure else 0.0
            stiff = opens is not None and scene.pours[laid_on + 1].wait_h >= opens
        air = [air_under_ml(shape.spans, shape.free, FIRST_FIGURE + at, line) for line in (0.0, *lines)]
        wettings = [
            Wetting(
                number=number, resin=scene.resin_of(pour), floor_mm=floor, line_mm=line,
                air_below_floor_ml=air[number - 1], air_below_line_ml=air[number],
            )
            for number, (pour, floor, line) in enumerate(
                zip(scene.pours, [0.0, *lines[:-1]], lines, strict=True), start=1
            )
        ]
        facts.append(
            figure_facts(
                figure, body.bulk, worst_load(figure, body.bulk, wettings),
                gap_below_mm=body.gap_below_mm,
                line_below_mm=None if line_below is None else bottom - line_below,
                contact_cm2=body.contact_cm2,
                layer_is_stiff=stiff,
                room_above_mm=max(1.0, scene.tank.wall_height_mm - top),
                peak_c=peak,
                above_ml=body.above_ml,
                trapped_ml=air[-1],
            )
        )
    return facts


def filling_of(scene: Scene, shape: SceneShape) -> Filling:
    """How the water grows, and what air and hollows do to it."""
    tank, bed = scene.tank, scene.bed
    heights = np.linspace(0.0, tank.fill_height_mm, CURVE_POINTS)
    wet, trapped = wet_and_trapped_ml(shape.free, shape.spans.area_mm2, heights)
    spans = shape.spans
    of_bed = spans.what == 1
    bed_ml = float((spans.high - np.maximum(spans.low, 0.0))[of_bed].sum() * spans.area_mm2 / 1000)
    x = np.linspace(0, tank.inner_width_mm, max(3, round(tank.inner_width_mm / 2)))
    y = np.linspace(0, tank.inner_behind_mm, max(3, round(tank.inner_behind_mm / 2)))
    slope = np.hypot(*np.gradient(bed_heights(bed, tank, x, y), y, x))
    area = bed_area_cm2(bed, tank)
    return Filling(
        height_mm=np.round(heights, 2).tolist(),
        free_ml=np.round(free_volume_ml(spans, heights), 2).tolist(),
        resin_ml=np.round(wet - trapped, 2).tolist(),
        traps=shape.traps,
        basins=shape.basins,
        gas_ml=0.0,
        bed_ml=round(bed_ml, 1),
        steepest_deg=round(float(np.degrees(np.arctan(slope.max()))), 1),
        seal_coat_g=round(area * SEAL_COAT_MM / 10 * scene.resins[0].density_g_ml, 1),
    )


def stresses(scene: Scene, heat: SceneHeat, volumes: Volumes) -> list[PourStress | None]:
    """Shrinkage and stress of each pour."""
    mean = float(heat.room_c.mean())
    solids = [scene.bed.material, *(figure.material for figure in scene.figures)]
    hard = any(solid.density_g_ml >= HARD_G_ML for solid in solids)
    coolings = [
        pour_cooling(heat.marched, number, scene.resin_of(pour)) for number, pour in enumerate(scene.pours)
    ]
    return [
        None if cure is None or cooling is None else pour_stress(
            scene.resin_of(pour), cure.peak_c, cooling, mean, cure.degree_at_end,
            scene.tank.inner_width_mm, float(depth), on_hard=hard,
        )
        for pour, cure, cooling, depth in zip(scene.pours, heat.cures, coolings, volumes.depth_mm, strict=True)
    ]


def gas_of_pour_ml(scene: Scene, index: int, heat: SceneHeat) -> float:
    """Gas that the warming pores of the bed give off while a pour is liquid [ml].

    By the bed's own temperature in the march; a seal coat keeps most of it in.
    """
    through = SEALED_LETS_THROUGH if scene.bed.sealed else 1.0
    return through * max(0.0, float(heat.marched.gas_ml[index]))


def bubbles_of(scene: Scene, heat: SceneHeat) -> BubbleProfile:
    """Escape size at every level that holds resin, from the surface down."""
    marched = heat.marched
    levels = np.flatnonzero(marched.resin.any(axis=(1, 2)))[::-1]
    pours = [scene.pours[int(marched.pour_of_level[level])] for level in levels]
    fill = scene.tank.fill_height_mm
    return bubble_profile(
        [round(fill - float(marched.heights[level]) / MM, 2) for level in levels],
        [pour.top_depth_mm for pour in pours],
        [scene.resin_of(pour).density_g_ml for pour in pours],
        marched.flown[levels],
    )


def settling_of(scene: Scene, index: int, depth_mm: float, heat: SceneHeat) -> list[Settling]:
    """How far the grains of one pour sink before it gels."""
    pour = scene.pours[index]
    mine = np.flatnonzero(heat.marched.pour_of_level == index)
    fluidity = float(np.median(heat.marched.flown[mine])) if len(mine) else 0.0
    return [
        settling(
            one.kind, one.diameter_mm, scene.resin_of(pour).density_g_ml, fluidity, depth_mm
        )
        for one in pour.inclusions
    ]


def light_of(scene: Scene, index: int, depth_mm: float, shape: SceneShape) -> LightAnswer | None:
    """How a light-cured layer sets; figures above its floor shade what is under them."""
    light = scene.resin_of(scene.pours[index]).light
    if light is None:
        return None
    spans = shape.spans
    floor = scene.tank.fill_height_mm - scene.pours[index].top_depth_mm - depth_mm
    column = np.repeat(np.arange(len(spans.first) - 1), np.diff(spans.first))
    shades = (spans.what >= 2) & (spans.low > floor + 0.5)
    shaded = len(np.unique(column[shades])) / (len(spans.first) - 1)
    return light_answer(light, depth_mm, shaded)
