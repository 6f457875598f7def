"""How the planned water will look: colour by depth, sight of figures, steps at layer lines."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..materials import Colourant
from ..scene import Scene
from ..units import MM
from ..words import Words, words
from .attenuation import DIFFUSE_PATH, LIGHTS, Water, attenuation, own_tint, scattering
from .colour import colour_difference, hex_of, hexes_of, lab, linear_srgb, off_display, reflectance_of_hex
from .haze import Block, haze_field
from .spectrum import luminance

Array = NDArray[np.float64]
Seen = Literal["invisible", "searched_for", "seen", "band"]
"""How a colour step reads on a wall of water."""

PROFILE_STEPS = 61
EYE_BANDS = {"blue_450": 5, "green_550": 15, "red_650": 25}
"""Bands shown as curves: index into the 31."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterProfile:
    """Against depth: light left of three colours and of all, and the look of the back wall.

    sighting_mm        distance behind the glass at which contrast has fallen to 2 % (4/c)
    off_display_de00   how far the display is from the back wall's true colour
    light_words        what this light does to the gradient of depth
    resin_words        what the resin's own yellow takes, at the years on display
    shown_depth_m      the real depth that the tank shows at its scale
    milky              colourants in use that make the resin milk
    """

    depth_mm: list[float]
    blue_fraction: list[float]
    green_fraction: list[float]
    red_fraction: list[float]
    light_fraction: list[float]
    backdrop_srgb: list[str]
    white_srgb: list[str]
    sighting_mm: list[float]
    off_display_de00: list[float]
    light_words: Words
    resin_words: Words
    shown_depth_m: float
    milky: list[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureSight:
    """How one figure is seen through the front glass.

    contrast_fraction  of its contrast in clear resin, by brightness
    difference_de00    colour difference against the back wall seen beside it
    """

    figure_id: str
    top_depth_mm: float
    bottom_depth_mm: float
    behind_mm: float
    contrast_fraction: float
    difference_de00: float
    reads_srgb: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Seam:
    """The step across a layer line, against the back wall; `words` say how it is seen."""

    depth_mm: float
    seam_de00: float
    seen: Seen
    words: Words


def water_of(scene: Scene) -> Water:
    """The water of a scene in layers from the fill line down, its resins' own tint included."""
    inks = {colourant.id: colourant for colourant in scene.colourants}
    return water_of_doses(scene, [
        [(inks[dose.colourant_id], dose.dose_drops_per_100g) for dose in pour.doses]
        for pour in scene.pours
    ])


def water_of_doses(scene: Scene, bottom_up: list[list[tuple[Colourant, float]]]) -> Water:
    """The water of a scene poured with other doses, given by pour from the bottom up."""
    doses, downward = bottom_up[::-1], scene.pours[::-1]
    depths = np.array([*(pour.top_depth_mm for pour in downward), scene.tank.fill_height_mm]) * MM
    years = scene.brief.display_years
    absorption = np.stack([
        attenuation(layer) + own_tint(scene.resin_of(pour), years)
        for layer, pour in zip(doses, downward, strict=True)
    ])
    pairs = [scattering(layer) for layer in doses]
    scatter, cosine = np.stack([b for b, _ in pairs]), np.stack([g for _, g in pairs])
    haze = None
    if scatter.any():
        haze = haze_field(depths, absorption, scatter, cosine, Block(
            width=scene.tank.inner_width_mm * MM, behind=scene.tank.inner_behind_mm * MM, sides=scene.brief.sides,
            path=DIFFUSE_PATH, bed_reflectance=reflectance_of_hex(scene.bed.paint_srgb),
        ))
    return Water(
        depths=depths, attenuation=absorption, scatter=scatter, cosine=cosine,
        light=LIGHTS[scene.brief.light], behind=scene.tank.inner_behind_mm * MM, haze=haze,
    )


def own_of(scene: Scene) -> Array:
    """Absorption of the clear resin, its layers weighted by their thickness [1/m], (31,)."""
    bare = water_of_doses(scene, [[] for _ in scene.pours])
    return np.asarray(np.diff(bare.depths) @ bare.attenuation / bare.depths[-1])


def _resin_words(scene: Scene) -> Words:
    """What the resin alone takes of blue light, on the way to the back wall."""
    years = scene.brief.display_years
    left = np.exp(-own_of(scene)[EYE_BANDS["blue_450"]] * scene.tank.inner_behind_mm * MM)
    return words("light.resin_later" if years else "light.resin", taken=float(1 - left), years=years)


def water_profile(scene: Scene) -> WaterProfile:
    """Light and colour against depth, at even depths from the fill line to the floor."""
    water = water_of(scene)
    depth = np.linspace(0.0, water.depths[-1], PROFILE_STEPS)
    middle = 0.5 * water.behind
    light = water.light_at(depth, middle)
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    at_back = linear_srgb(water.seen(wall, depth, water.behind))
    near = linear_srgb(water.seen(np.ones(31), depth, 0.0))
    beam = water.beam()[water.layer_at(depth)] @ luminance()
    return WaterProfile(
        depth_mm=np.round(depth / MM, 2).tolist(),
        blue_fraction=_rounded(light[:, EYE_BANDS["blue_450"]]),
        green_fraction=_rounded(light[:, EYE_BANDS["green_550"]]),
        red_fraction=_rounded(light[:, EYE_BANDS["red_650"]]),
        light_fraction=_rounded(light @ luminance()),
        backdrop_srgb=hexes_of(at_back),
        white_srgb=hexes_of(near),
        sighting_mm=_rounded(np.minimum(4.0 / np.maximum(beam, 1e-3) / MM, 9999.0), 1),
        off_display_de00=_rounded(off_display(at_back), 2),
        light_words=words(f"light.{scene.brief.light}"),
        resin_words=_resin_words(scene),
        shown_depth_m=round(scene.tank.fill_height_mm * MM * scene.brief.scale, 2),
        milky=_milky(scene),
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
        sight = water.sight(depth, behind)
        own = water.seen(reflectance_of_hex(figure.worn_srgb), depth, behind)
        beside = water.seen(wall, depth, water.behind)
        sights.append(
            FigureSight(
                figure_id=figure.id,
                top_depth_mm=round(float(top), 1),
                bottom_depth_mm=round(float(bottom), 1),
                behind_mm=round(behind / MM, 1),
                contrast_fraction=round(float(contrast_left(light, sight)), 4),
                difference_de00=round(float(colour_difference(lab(own), lab(beside))), 2),
                reads_srgb=hex_of(linear_srgb(own)),
            )
        )
    return sights


def contrast_left(light: Array, sight: Array) -> Array:
    """Share of a surface's contrast that the way to the glass leaves, by brightness, (..., 31) twice -> (...).

        C(y) = sum S ybar E exp(-a y) / sum S ybar E
    Source: beer1852
    """
    lit = luminance() * light
    return np.asarray((lit * sight).sum(axis=-1) / np.maximum(lit.sum(axis=-1), 1e-300))


def seams(scene: Scene) -> list[Seam]:
    """The colour step at each layer line below the surface, from the bottom up.

    Light is continuous across a line; what changes is the sight path to the back wall.
    """
    water = water_of(scene)
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    soft = feather_gain(scene.brief.feather_mm, scene.brief.viewing_mm)
    found = []
    for pour, step in zip(scene.pours[:-1], seam_steps(water, wall)[::-1], strict=True):
        seen = seam_seen(float(step) / soft)
        found.append(Seam(
            depth_mm=pour.top_depth_mm, seam_de00=round(float(step), 2), seen=seen, words=words(f"seams.{seen}")
        ))
    return found


def seam_steps(water: Water, wall: Array) -> Array:
    """Colour step across each inner line, from the surface down (layers - 1,)."""
    lines = water.depths[1:-1]
    if not len(lines):
        return np.zeros(0)
    light = water.light_at(lines, water.behind)
    beam = water.beam()
    pairs = []
    for layers in (beam[:-1], beam[1:]):
        own = wall * light * np.exp(-layers * water.behind)
        if water.haze is not None:
            own = own + water.haze.veil(lines) * -np.expm1(-layers * water.behind)
        pairs.append(lab(own))
    return colour_difference(*pairs)


_FEATHER = (1.0, 2.0, 3.0, 5.0, 8.0, 12.0, 20.0)
_GAIN = {
    300.0: (2.0, 3.0, 3.7, 4.9, 6.2, 7.5, 9.3), 400.0: (1.8, 2.5, 3.2, 4.2, 5.4, 6.6, 8.3),
    600.0: (1.5, 2.0, 2.5, 3.4, 4.4, 5.4, 7.0), 1000.0: (1.2, 1.6, 1.9, 2.5, 3.3, 4.1, 5.4),
}


def feather_gain(feather_mm: float, viewing_mm: float) -> float:
    """How much larger a step may be behind a soft join than behind a sharp one.

    By the contrast sensitivity of the eye; linear in between, 1 for no feather.
    Source: mannos_sakrison1974
    """
    if feather_mm <= 0:
        return 1.0
    at = sorted(_GAIN)
    by_distance = [
        float(np.interp(feather_mm, (0.0, *_FEATHER), (1.0, *_GAIN[one]))) for one in at
    ]
    return float(np.interp(viewing_mm, at, by_distance))


def _milky(scene: Scene) -> list[str]:
    used = {dose.colourant_id for pour in scene.pours for dose in pour.doses}
    return [
        one.name for one in scene.colourants if one.id in used and one.form == "craft_paint"
    ]


def seam_seen(step: float) -> Seen:
    """How a colour step reads on a wall of water. Source: own_light"""
    if step < 1:
        return "invisible"
    if step < 2:
        return "searched_for"
    return "seen" if step < 4 else "band"


def _rounded(values: Array, digits: int = 4) -> list[float]:
    rounded: list[float] = np.round(values, digits).tolist()
    return rounded
