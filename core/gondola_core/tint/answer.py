"""How the planned water will look: colour by depth, sight of figures, steps at layer lines."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..scene import Scene
from ..units import MM
from .attenuation import LIGHTS, Water, attenuation
from .colour import colour_difference, hex_of, lab, linear_srgb, reflectance_of_hex
from .spectrum import luminance

Array = NDArray[np.float64]

PROFILE_STEPS = 61
EYE_BANDS = {"blue_450": 5, "green_550": 15, "red_650": 25}
"""Bands shown as curves: index into the 31."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterProfile:
    """Against depth: light left of three colours and of all, and the look of the back wall."""

    depth_mm: list[float]
    blue_fraction: list[float]
    green_fraction: list[float]
    red_fraction: list[float]
    light_fraction: list[float]
    backdrop_srgb: list[str]
    white_srgb: list[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureSight:
    """How one figure is seen through the front glass.

    contrast_fraction  of its contrast in clear resin, by brightness
    difference_de00    colour difference against the back wall seen beside it
    """

    figure_id: str
    name: str
    top_depth_mm: float
    bottom_depth_mm: float
    behind_mm: float
    contrast_fraction: float
    difference_de00: float
    reads_srgb: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Seam:
    """The step across a layer line, against the back wall."""

    depth_mm: float
    seam_de00: float
    seen: str


def water_of(scene: Scene) -> Water:
    """The water of a scene in layers from the fill line down."""
    inks = {colourant.id: colourant for colourant in scene.colourants}
    downward = list(reversed(scene.pours))
    depths = [pour.top_depth_mm * MM for pour in downward]
    depths.append(scene.tank.fill_height_mm * MM)
    return Water(
        depths=np.array(depths),
        attenuation=np.stack(
            [
                attenuation(
                    [(inks[dose.colourant_id], dose.dose_drops_per_100g) for dose in pour.doses]
                )
                for pour in downward
            ]
        ),
        light=LIGHTS[scene.brief.light],
        behind=scene.tank.inner_behind_mm * MM,
    )


def water_profile(scene: Scene) -> WaterProfile:
    """Light and colour against depth, at even depths from the fill line to the floor."""
    water = water_of(scene)
    depth = np.linspace(0.0, water.depths[-1], PROFILE_STEPS)
    middle = 0.5 * water.behind
    light = water.light_at(depth, middle)
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    at_back = linear_srgb(water.seen(wall, depth, water.behind))
    near = linear_srgb(water.seen(np.ones(31), depth, 0.0))
    return WaterProfile(
        depth_mm=np.round(depth / MM, 2).tolist(),
        blue_fraction=_rounded(light[:, EYE_BANDS["blue_450"]]),
        green_fraction=_rounded(light[:, EYE_BANDS["green_550"]]),
        red_fraction=_rounded(light[:, EYE_BANDS["red_650"]]),
        light_fraction=_rounded(light @ luminance()),
        backdrop_srgb=[hex_of(colour) for colour in at_back],
        white_srgb=[hex_of(colour) for colour in near],
    )


def figure_sights(
    scene: Scene, extents_mm: list[tuple[Array, Array]]
) -> list[FigureSight]:
    """Sight of each figure, at its middle height and its nearest part.

    extents_mm  lowest and highest corner of each figure, above the floor

    Contrast left: C(y) = sum S ybar E exp(-a y) / sum S ybar E.
    Source: beer1852
    """
    water = water_of(scene)
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    sights = []
    for figure, (least, most) in zip(scene.figures, extents_mm, strict=True):
        top = scene.tank.fill_height_mm - most[2]
        bottom = scene.tank.fill_height_mm - least[2]
        depth = np.clip(0.5 * (top + bottom), 0.0, scene.tank.fill_height_mm) * MM
        behind = max(0.0, float(least[1])) * MM
        light = water.light_at(depth, behind)
        sight = np.exp(-water.attenuation[water.layer_at(depth)] * behind)
        own = water.seen(reflectance_of_hex(figure.paint_srgb), depth, behind)
        beside = water.seen(wall, depth, water.behind)
        sights.append(
            FigureSight(
                figure_id=figure.id,
                name=figure.name,
                top_depth_mm=round(float(top), 1),
                bottom_depth_mm=round(float(bottom), 1),
                behind_mm=round(behind / MM, 1),
                contrast_fraction=round(
                    float((luminance() * light * sight).sum() / (luminance() * light).sum()), 4
                ),
                difference_de00=round(float(colour_difference(lab(own), lab(beside))), 2),
                reads_srgb=hex_of(linear_srgb(own)),
            )
        )
    return sights


def seams(scene: Scene) -> list[Seam]:
    """The colour step at each layer line below the surface, from the bottom up.

    Light is continuous across a line; what changes is the sight path to the back wall.
    """
    water = water_of(scene)
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    found = []
    for pour in scene.pours[:-1]:
        depth = pour.top_depth_mm * MM
        below = water.layer_at(depth)
        light = water.light_at(depth, water.behind)
        pair = [
            lab(wall * light * np.exp(-water.attenuation[layer] * water.behind))
            for layer in (below - 1, below)
        ]
        step = float(colour_difference(pair[0], pair[1]))
        found.append(
            Seam(depth_mm=pour.top_depth_mm, seam_de00=round(step, 2), seen=seam_words(step))
        )
    return found


def seam_words(step: float) -> str:
    """How a colour step reads on a wall of water. Source: own_light"""
    if step < 1:
        return "invisible"
    if step < 2:
        return "searched for"
    return "seen" if step < 4 else "a band"


def _rounded(values: Array) -> list[float]:
    rounded: list[float] = np.round(values, 4).tolist()
    return rounded
