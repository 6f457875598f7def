"""From the water that is wished to doses that can be measured."""

from __future__ import annotations

import functools
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares, nnls

from ..errors import GondolaError
from ..materials import Colourant, load_library
from ..materials.library import read_rows
from ..scene import ByEye, ScaleTrue, Scene
from ..units import MM
from .attenuation import DIFFUSE_PATH, Water, absorption_of_drop, scatter_of_drop
from .colour import colour_difference, lab, lab_of_linear, linear_of_hex, reflectance_of_hex
from .restrictions import within
from .sights import FigureSight, feather_gain, own_of, seam_steps, water_of_doses
from .spectrum import WAVELENGTHS_NM, luminance, observer

Array = NDArray[np.float64]

CARD_BEHIND_MM = 10.0
"""Distance of the white card by which a wish is judged from the front. Source: own_light"""
SHARES_OF_DEPTH = (0.25, 0.5, 0.75, 1.0)
"""Depths of the card over the whole depth. Source: own_light"""
LEAST_DROP = 1e-4
"""Dose per 100 g below which there is none."""
SOFT_JOIN_MM = 3.0
"""Width of a soft join. Source: assumed"""
SHARP_STEP_DE00 = 1.5
"""Step that a sharp join may have without being looked for. Source: own_light"""
CONTRAST_BEAM = 4.0
"""Beam attenuation of natural water over its diffuse attenuation. Source: own_light"""
BEST_SUBSETS = 7
"""Choices of bottles that are refined by colour."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedDose:
    """A dose of the solution."""

    colourant_id: str
    dose_drops_per_100g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Solved:
    """Doses by pour from the bottom up, and how near they come.

    front_de00, top_de00   of a white card 10 mm behind the glass and from above, at four depths
    eye_de00               of picked colours, in their order
    factor                 by which restrictions made all doses smaller
    layers_sharp_count, layers_soft_count   that the gradient needs to show no line
    """

    pours: list[list[SolvedDose]]
    colourants: list[Colourant]
    front_de00: list[float]
    top_de00: list[float]
    eye_de00: list[float]
    mean_de00: float
    worst_de00: float
    factor: float
    path_de00: float
    layers_sharp_count: int
    layers_soft_count: int
    largest_step_de00: float
    shown_depth_m: float
    sentence: str


@functools.cache
def water_types() -> dict[str, Array]:
    """Diffuse attenuation of natural water types [1/m], (31,) each. Source: jerlov1976"""
    return {
        row["water_type"]: np.array(
            [float(row[f"kd_per_m_{int(band)}nm"]) for band in WAVELENGTHS_NM]
        )
        for row in read_rows("water_types")
    }


def solve_water(scene: Scene, sights: Sequence[FigureSight] = ()) -> Solved:
    """Doses for the scene's wish from the colourants that are owned.

    sights  where each figure is seen, as `figure_sights` tells; else at its place

    GondolaError if there is no wish or nothing to tint with.
    """
    wish = scene.wish
    if wish is None:
        raise GondolaError("Say first how the water should look.", "wish")
    inks = _usable(scene)
    if not inks:
        raise GondolaError("Take some colourants from the shelf first.", "colourants")
    count = len(scene.pours)
    extra: list[tuple[Colourant, float]] = []
    if isinstance(wish.look, ScaleTrue):
        target = _target(wish.look, scene.brief.scale)
        recipe = _recipe(
            target, own_of(scene), inks, wish.most_colourants, scene.tank.fill_height_mm * MM
        )
        if wish.look.haze:
            extra = _haze(wish.look, scene.brief.scale, recipe)
        layers = [recipe] * count
        if wish.graded:
            layers = _graded(scene, recipe, extra)
    else:
        target = None
        layers = _by_eye(scene, wish.look, inks, wish.most_colourants)
    layers = [[*layer, *extra] for layer in layers]
    factor = within(scene, layers, sights)
    layers = [[(ink, dose * factor) for ink, dose in layer] for layer in layers]
    return _told(scene, layers, target, factor)


def _usable(scene: Scene) -> list[Colourant]:
    owned = set(scene.brief.owned) or {one.id for one in scene.colourants}
    shelf = {**load_library().colourants, **{one.id: one for one in scene.colourants}}
    return [
        shelf[key] for key in shelf
        if key in owned and shelf[key].form in ("ink", "paste") and shelf[key].modelled
    ]


def _target(look: ScaleTrue, scale: float) -> Array:
    """Absorption of scale-true resin [1/m]: D a = S Kd. Source: own_light"""
    return np.asarray(scale * look.exaggeration * water_types()[look.water_type] / DIFFUSE_PATH)


def front_card(absorption: Array, depth: float) -> Array:
    """L*a*b* of a white card in uniform waters (..., 31) at four depths, seen from the front, (..., 4, 3)."""
    z = np.array(SHARES_OF_DEPTH)[:, None] * depth
    return lab(np.exp(-absorption[..., None, :] * (DIFFUSE_PATH * z + CARD_BEHIND_MM * MM)))


def card(absorption: Array, depth: float) -> Array:
    """L*a*b* of a white card in uniform water at four depths, front then top, (8, 3)."""
    z = np.array(SHARES_OF_DEPTH)[:, None] * depth
    front = np.exp(-absorption * (DIFFUSE_PATH * z + CARD_BEHIND_MM * MM))
    top = np.exp(-(1 + DIFFUSE_PATH) * absorption * z)
    return lab(np.concatenate([front, top]))


def _weights(target: Array) -> Array:
    """What the eye makes of each band of a target: sensitivity times what is left at 60 mm."""
    seen = observer().sum(axis=1)
    return np.asarray(np.maximum(0.01, seen / seen.max() * np.exp(-0.06 * target)))


def _recipe(
    target: Array, own: Array, inks: list[Colourant], most: int, depth: float
) -> list[tuple[Colourant, float]]:
    """The best recipe of at most so many colourants for one uniform absorption, the resin's own in it.

    Non-negative least squares weighted by what the eye sees ranks all subsets; the best few are
    refined on colour differences of a card. The smallest mean wins, fewer bottles on a tie.
    Source: lawson_hanson1974, own_light
    """
    columns = np.stack([absorption_of_drop(ink) for ink in inks], axis=1)
    weight = _weights(target)
    wanted = card(target, depth)
    ranked = []
    for size in range(1, min(most, len(inks)) + 1):
        for chosen in combinations(range(len(inks)), size):
            part = columns[:, chosen]
            doses, rest = nnls(part * weight[:, None], (target - own) * weight)
            ranked.append((rest + 1e-4 * size, chosen, doses))
    ranked.sort(key=lambda one: one[0])
    best: tuple[float, tuple[int, ...], Array] | None = None
    for _, chosen, doses in ranked[:BEST_SUBSETS]:
        part = columns[:, chosen]
        refined = _refined(part, own, doses, wanted, depth)
        mean = float(colour_difference(card(own + part @ refined, depth), wanted).mean())
        score = mean + 0.05 * len(chosen)
        if best is None or score < best[0]:
            best = (score, chosen, refined)
    assert best is not None
    return [
        (inks[i], float(dose))
        for i, dose in zip(best[1], best[2], strict=True) if dose > LEAST_DROP
    ]


def _damped(wanted: Array) -> Array:
    """Weight of L*, a*, b* differences: chroma counts less where there is much of it."""
    chroma = np.hypot(wanted[:, 1], wanted[:, 2])
    return np.stack([np.ones_like(chroma), 1 / (1 + 0.045 * chroma), 1 / (1 + 0.03 * chroma)], axis=1)


def _refined(part: Array, own: Array, doses: Array, wanted: Array, depth: float) -> Array:
    damp = _damped(wanted)

    def away(x: Array) -> Array:
        return np.asarray(((card(own + part @ x, depth) - wanted) * damp).ravel())

    start = np.maximum(doses, 0.01 * max(float(doses.max()), 1e-3))
    found = least_squares(away, start, bounds=(0.0, np.inf), x_scale=start, max_nfev=24, xtol=1e-5)
    return np.asarray(found.x)


def _haze(
    look: ScaleTrue, scale: float, recipe: list[tuple[Colourant, float]]
) -> list[tuple[Colourant, float]]:
    """White that brings contrast down as natural water does: c = 4 Kd at 550 nm."""
    white = load_library().colourants["white-paste"]
    band = 15
    wanted = CONTRAST_BEAM * scale * look.exaggeration * water_types()[look.water_type][band]
    have = sum(dose * (absorption_of_drop(ink) + scatter_of_drop(ink))[band] for ink, dose in recipe)
    dose = max(0.0, (wanted - have) / float(scatter_of_drop(white)[band]))
    return [(white, float(dose))] if dose > LEAST_DROP else []


def _path(scene: Scene, recipe: list[tuple[Colourant, float]]) -> tuple[Array, Array]:
    """Shares of the full recipe, and the colour difference walked to each on the back wall."""
    shares = np.linspace(0.0, 1.0, 81)
    beam = sum(
        (dose * (absorption_of_drop(ink) + scatter_of_drop(ink)) for ink, dose in recipe),
        np.zeros(len(WAVELENGTHS_NM)),
    )
    behind = scene.tank.inner_behind_mm * MM
    wall = reflectance_of_hex(scene.brief.backdrop_srgb)
    colours = lab(wall * np.exp(-shares[:, None] * beam * behind))
    steps = colour_difference(colours[:-1], colours[1:])
    return shares, np.concatenate([[0.0], np.cumsum(steps)])


def _graded(
    scene: Scene, recipe: list[tuple[Colourant, float]], extra: list[tuple[Colourant, float]]
) -> list[list[tuple[Colourant, float]]]:
    """Layers from clear at the surface to the full recipe at the bed, by equal colour difference.

    The recipe is made stronger so that the whole depth takes as much light as the uniform one.
    """
    shares, walked = _path(scene, [*recipe, *extra])
    count = len(scene.pours)
    if count == 1:
        return [recipe]
    wanted = np.linspace(0.0, walked[-1], count)
    by_layer = np.interp(wanted, walked, shares)[::-1]  # bottom first
    heights = -np.diff([scene.tank.fill_height_mm, *(pour.top_depth_mm for pour in scene.pours)])
    mean = float((by_layer * heights).sum() / heights.sum())
    lift = 1.0 / max(mean, 1e-6)
    return [
        [(ink, dose * float(share) * lift) for ink, dose in recipe] for share in by_layer
    ]


def _by_eye(
    scene: Scene, look: ByEye, inks: list[Colourant], most: int
) -> list[list[tuple[Colourant, float]]]:
    """Doses of every layer that bring the back wall to the picked colours."""
    picked, count = _Picked.of(scene, look), len(scene.pours)
    table, _ = picked.fit(inks, np.full(count * len(inks), 0.15))
    strength = np.array([
        float((table[:, i].sum() * absorption_of_drop(ink)) @ luminance())
        for i, ink in enumerate(inks)
    ])
    kept = sorted(np.argsort(-strength)[:most].tolist())
    chosen = [inks[i] for i in kept]
    table, _ = picked.fit(chosen, np.maximum(table[:, kept], 0.02).ravel())
    return [
        [(ink, float(dose)) for ink, dose in zip(chosen, row, strict=True) if dose > LEAST_DROP]
        for row in table
    ]


@dataclass(frozen=True, slots=True, eq=False)
class _Picked:
    """Colours that the back wall is to have at some depths, and the bare water of the scene before it."""

    depths: Array
    wanted: Array
    wall: Array
    bare: Water
    count: int

    @classmethod
    def of(cls, scene: Scene, look: ByEye) -> _Picked:
        return cls(
            depths=np.array([min(pick.depth_mm, scene.tank.fill_height_mm) for pick in look.picks]) * MM,
            wanted=lab_of_linear(np.stack([linear_of_hex(pick.srgb) for pick in look.picks])),
            wall=reflectance_of_hex(scene.brief.backdrop_srgb),
            bare=water_of_doses(scene, [[] for _ in scene.pours]), count=len(scene.pours),
        )

    def fit(self, chosen: list[Colourant], start: Array) -> tuple[Array, float]:
        """Doses (pours, colourants) and what they miss the colours by, dE00 in the mean."""
        columns = np.stack([absorption_of_drop(ink) for ink in chosen], axis=1)
        damp, bare = _damped(self.wanted), self.bare

        def read(x: Array) -> Array:
            absorption = (x.reshape(self.count, -1) @ columns.T)[::-1] + bare.attenuation
            water = Water(
                depths=bare.depths, attenuation=absorption, scatter=np.zeros_like(absorption),
                cosine=np.zeros_like(absorption), light=bare.light, behind=bare.behind, haze=None,
            )
            return lab(water.seen(self.wall, self.depths, water.behind))

        def away(x: Array) -> Array:
            table = x.reshape(self.count, -1)
            smooth = 0.4 * np.diff(table, axis=0).ravel() / (0.2 + table.mean())
            return np.concatenate([((read(x) - self.wanted) * damp).ravel(), smooth, 0.02 * x])

        found = least_squares(away, start, bounds=(0.0, 60.0), max_nfev=30, xtol=1e-5)
        mean = float(colour_difference(read(found.x), self.wanted).mean())
        return found.x.reshape(self.count, -1), mean


def _told(
    scene: Scene, layers: list[list[tuple[Colourant, float]]], target: Array | None, factor: float
) -> Solved:
    wish = scene.wish
    assert wish is not None
    water = water_of_doses(scene, layers)
    front, top = _off_cards(scene, water, target)
    eye = _off_picks(scene, water, wish.look) if isinstance(wish.look, ByEye) else []
    deepest = max(layers, key=lambda layer: sum(dose for _, dose in layer))
    _, walked = _path(scene, deepest)
    soft = feather_gain(max(scene.brief.feather_mm, SOFT_JOIN_MM), scene.brief.viewing_mm)
    steps = seam_steps(water, reflectance_of_hex(scene.brief.backdrop_srgb))
    all_away = [*front, *top, *eye]
    mean, worst = float(np.mean(all_away)), float(np.max(all_away))
    shown = scene.tank.fill_height_mm * MM * scene.brief.scale
    return Solved(
        pours=[
            [SolvedDose(colourant_id=ink.id, dose_drops_per_100g=float(f"{dose:.3g}")) for ink, dose in layer]
            for layer in layers
        ],
        colourants=list({ink.id: ink for layer in layers for ink, _ in layer}.values()),
        front_de00=front, top_de00=top, eye_de00=eye,
        mean_de00=round(mean, 2), worst_de00=round(worst, 2), factor=round(factor, 3),
        path_de00=round(float(walked[-1]), 1),
        layers_sharp_count=1 + int(np.ceil(walked[-1] / SHARP_STEP_DE00)),
        layers_soft_count=1 + int(np.ceil(walked[-1] / (SHARP_STEP_DE00 * soft))),
        largest_step_de00=round(float(steps.max()), 2) if len(steps) else 0.0,
        shown_depth_m=round(shown, 2),
        sentence=_sentence(scene, mean, worst, factor, shown),
    )


def _off_cards(scene: Scene, water: Water, target: Array | None) -> tuple[list[float], list[float]]:
    """How far white cards are off the uniform water, in front and from above; nothing without a target."""
    if target is None:
        return [], []
    fill = scene.tank.fill_height_mm * MM
    at = np.array(SHARES_OF_DEPTH) * fill
    tau = water.optical_depth(at)
    own = lab(np.concatenate([
        np.exp(-DIFFUSE_PATH * tau - water.attenuation[water.layer_at(at - 1e-9)] * CARD_BEHIND_MM * MM),
        np.exp(-(1 + DIFFUSE_PATH) * tau),
    ]))
    away = colour_difference(own, card(target, fill))
    return np.round(away[:4], 2).tolist(), np.round(away[4:], 2).tolist()


def _off_picks(scene: Scene, water: Water, look: ByEye) -> list[float]:
    """How far the back wall is off each picked colour."""
    picked = _Picked.of(scene, look)
    read = lab(water.seen(picked.wall, picked.depths, water.behind))
    off: list[float] = np.round(colour_difference(read, picked.wanted), 2).tolist()
    return off


def _sentence(scene: Scene, mean: float, worst: float, factor: float, shown: float) -> str:
    wish = scene.wish
    assert wish is not None
    if wish.graded or factor < 0.999:
        words = f"Against the uniform water it is off by {mean:.1f} in the mean, {worst:.1f} at most."
        if wish.graded:
            words = "Graded from clear to full. " + words
        return words + _rest(wish.look, scene, factor, shown)
    near = "as near as the eye tells" if mean < 1 else (
        "near" if mean < 2.5 else "not near: other bottles would come closer"
    )
    words = f"{near[:1].upper()}{near[1:]}: off by {mean:.1f} in the mean, {worst:.1f} at most."
    return words + _rest(wish.look, scene, factor, shown)


def _rest(look: ScaleTrue | ByEye, scene: Scene, factor: float, shown: float) -> str:
    words = ""
    if isinstance(look, ScaleTrue):
        words += f" The tank shows {shown:.1f} m of {look.water_type} water"
        words += f", exaggerated {look.exaggeration:g} times." if look.exaggeration != 1 else "."
    if factor < 0.999:
        words += f" What has to stay in sight made all doses smaller, to {factor:.0%}."
    return words
