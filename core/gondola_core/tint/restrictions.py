"""What has to stay in sight, and which lines may not show: the share of all doses that allows it."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..materials import Colourant
from ..scene import Scene
from ..units import MM
from .colour import reflectance_of_hex
from .sights import FigureSight, feather_gain, seam_steps, water_of_doses
from .spectrum import luminance

Layers = list[list[tuple[Colourant, float]]]
"""Doses of each pour, from the bottom up."""


def _spot(scene: Scene, sights: Sequence[FigureSight]) -> tuple[float, float] | None:
    """Depth and distance behind the glass at which the figure to keep is seen [m]."""
    assert scene.wish is not None
    key = scene.wish.keep_figure
    for sight in sights:
        if sight.figure_id == key:
            middle = 0.5 * (sight.top_depth_mm + sight.bottom_depth_mm)
            return float(np.clip(middle, 0, scene.tank.fill_height_mm)) * MM, max(0.0, sight.behind_mm) * MM
    for figure in scene.figures:
        if figure.id == key:
            depth = scene.tank.fill_height_mm - figure.place.height_mm
            return depth * MM, max(0.0, figure.place.behind_mm) * MM
    return None


def within(
    scene: Scene, layers: Layers, sights: Sequence[FigureSight]
) -> float:
    """Largest share of all doses that keeps the wish's restrictions; 1 where there are none."""
    wish = scene.wish
    assert wish is not None
    spot = _spot(scene, sights)
    if spot is None and wish.most_step_de00 is None:
        return 1.0
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)

    def holds(factor: float) -> bool:
        water = water_of_doses(scene, [[(ink, dose * factor) for ink, dose in layer] for layer in layers])
        if wish.most_step_de00 is not None and len(layers) > 1:
            soft = feather_gain(scene.brief.feather_mm, scene.brief.viewing_mm)
            if float(seam_steps(water, wall).max()) > wish.most_step_de00 * soft:
                return False
        if spot is not None:
            light = water.light_at(*spot)
            left = (luminance() * light * water.sight(*spot)).sum()
            if left / (luminance() * light).sum() < wish.keep_contrast:
                return False
        return True

    if holds(1.0):
        return 1.0
    low, high = 0.0, 1.0
    for _ in range(20):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low
