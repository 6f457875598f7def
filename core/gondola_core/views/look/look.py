"""The piece as it will stand on its shelf, drawn from an eye."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from math import ceil
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...answers.kept import Keeper
from ...digests import digest
from ...scene import Scene
from ...shape import Meshes, bed_heights, figure_mesh
from ...tint import water_of
from ...tint.colour import encode_srgb, linear_of_hex
from ...units import MM
from ..bubbles import SeenBubbles
from .around import MAP_COLUMNS, MAP_ROWS, SHELF_SRGB, Lit, lit, map_points, rule_of
from .bake import gathered, in_strips, mean_radiance, spread
from .bands import Bands, bands_for
from .block import block_of, painted_srgb
from .bodies import Forms, forms_of, light_points, paint_of
from .bubbles_drawn import draw_bubbles, places_of
from .bvh import Single
from .chain import look_along
from .kernels import njit_fast
from .stand import Stand, camera_of
from .world import (
    EDGE,
    LIGHT,
    SLOPE,
    SOURCE,
    THROUGH,
    WITHIN,
    Array,
    Block,
    Bodies,
    Desk,
    Tinted,
    World,
)

CELLS = 512
STRIP_ROWS = 8
ROWS_AT_ONCE = 64
BULB_UP = 0.62
"""Where a lamp sits in the figure that holds it: so far up. Source: assumed"""
LINEAR_TO = 0.8
"""Display values above are rolled off, hue kept. Source: own_appearance"""
HAZE_DIRECTIONS, HAZE_LEVELS = 128, 24
HAZE_COLUMNS = ((0.0, 0.0), (-0.22, 0.15), (0.22, -0.15))
"""Where the light in haze is gathered, off the middle by so much of the plan. Source: own_appearance, assumed"""
ROUGHEST = 0.18
"""Slope of facets, of grit 400, for which a care counts its facets."""
MAP_DIRECTIONS = 5
"""Wall and shelf are seen large and bare: so many times the directions of a body's points."""


@dataclass(frozen=True, slots=True)
class Care:
    """How carefully a picture is made.

    points, directions, passes   of the light that is gathered on the bodies
    samples   of a pixel; facets  of one that looks through a face sanded to grit 400
    still     True for all bands and maps in earnest
    """

    points: int
    directions: int
    passes: int
    samples: int
    facets: int
    still: bool


MOVING = Care(points=900, directions=16, passes=1, samples=1, facets=1, still=False)
DRAFT = Care(points=1600, directions=24, passes=2, samples=1, facets=4, still=False)
GLANCE = replace(DRAFT, samples=4)
CLEARER = Care(points=3000, directions=48, passes=3, samples=4, facets=10, still=False)
STILL = Care(points=6000, directions=64, passes=3, samples=4, facets=10, still=True)
CARES = {"moving": MOVING, "draft": DRAFT, "clearer": CLEARER, "still": STILL}


@dataclass(frozen=True, slots=True)
class Asked:
    """A picture that is asked for: from where, how large, how carefully.

    wanted   is called now and then with the share that is drawn, and may raise
    bubbles  as judged; None to leave them out
    """

    stand: Stand
    width_px: int
    height_px: int
    care: Care = DRAFT
    wanted: Callable[[float], None] = lambda _: None
    bubbles: SeenBubbles | None = None

    def still_wanted(self) -> None:
        """Says that nearly all is drawn."""
        self.wanted(0.99)


def look(scene: Scene, asked: Asked, meshes: Meshes, keeper: Keeper) -> NDArray[np.uint8]:
    """The finished block as an eye sees it, (rows, columns, 3) of sRGB; the same bytes for the same scene.

    Raises GondolaError where the eye cannot stand so, and what `wanted` raises.
    """
    camera = camera_of(scene, asked.stand, asked.width_px / asked.height_px)
    world, gain = lit_world(scene, asked, meshes, keeper)
    picture = drawn(world, camera, asked)
    if asked.bubbles is not None and asked.stand.bubbles:
        draw_bubbles(picture, world, camera, places_of(asked.bubbles, scene.tank.fill_height_mm), asked.still_wanted)
    return displayed(picture * gain)


def displayed(linear: Single) -> NDArray[np.uint8]:
    """Display values of linear sRGB: the brightest rolled off on their largest channel.

        0.8 + 0.2 (1 - exp(-(x - 0.8)/0.2))
    """
    out = np.empty(linear.shape, dtype=np.uint8)
    # some rows at a time: a still is large
    for start in range(0, len(linear), ROWS_AT_ONCE):
        part = linear[start : start + ROWS_AT_ONCE]
        most = part.max(axis=2, keepdims=True)
        over = np.maximum(most - LINEAR_TO, 0.0)
        rest = 1.0 - LINEAR_TO
        rolled = np.where(over > 0, LINEAR_TO + rest * -np.expm1(-over / rest), most)
        out[start : start + ROWS_AT_ONCE] = encode_srgb(part * (rolled / np.maximum(most, 1e-9)))
    return out


def lit_world(scene: Scene, asked: Asked, meshes: Meshes, keeper: Keeper) -> tuple[World, float]:
    """Everything that a ray can meet, with its light, and what makes a display's value of a radiance.

    Kept by what decides it, so that an eye that only moves costs no light.
    """
    stand, care = asked.stand, asked.care
    lights = [stand.hour, stand.lamp_in if stand.hour == "lamp" else None]
    document: Any = scene.model_dump(mode="json", exclude={"name", "wish", "order"})
    key = digest([document, lights, care.points, care.directions, care.passes, care.still])
    world, gain = keeper.keep("look-world", key, lambda: _lit_world(scene, asked, meshes, keeper), most=6)
    if stand.rule:
        world = world._replace(around=world.around._replace(rule=rule_of(scene)))
    return world, gain * 2.0**stand.stops


def _lit_world(scene: Scene, asked: Asked, meshes: Meshes, keeper: Keeper) -> tuple[World, float]:
    stand, care = asked.stand.model_copy(update={"stops": 0}), asked.care
    bands = bands_for(scene, care.still)
    block = block_of(scene)
    forms = forms_of(scene, block, meshes, keeper)
    lights = lit(scene, stand, len(bands.picks), _lamp_place(scene, stand, meshes))
    world = _dark_world(scene, bands, block, forms, lights)
    return _lighted(scene, world, forms, asked, bands, keeper), lights.gain


def _dark_world(scene: Scene, bands: Bands, block: Block, forms: Forms, lights: Lit) -> World:
    painted = [linear_of_hex(code) for code in (scene.brief.backdrop_srgb, SHELF_SRGB, painted_srgb(scene))]
    return World(
        bodies=Bodies(forms.tree, forms.corner, paint_of(scene, forms, len(bands.picks)), forms.outside), block=block,
        water=tinted(scene, bands), around=lights.around, within=lights.within,
        spectra=np.column_stack([bands.to_rgb, bands.of_rgb, *(bands.of_rgb @ rgb for rgb in painted)]),
    )


def tinted(scene: Scene, bands: Bands) -> Tinted:
    """The scene's water in even cells from the floor up; what scatters forward counts as not scattered."""
    water = water_of(scene)
    fill = scene.tank.fill_height_mm
    edges = np.linspace(0.0, fill, CELLS + 1)
    layer = water.layer_at((fill - 0.5 * (edges[:-1] + edges[1:])) * MM)
    taken = water.attenuation + water.scatter * (1 - water.cosine)
    cells = np.zeros((CELLS + 1, 3, len(bands.picks)))
    cells[:-1, WITHIN] = (taken[layer] * MM)[:, bands.picks]
    # the depths of layers need not be those of cells: summed from the layers themselves
    bounds = fill - water.depths[::-1] / MM
    part = np.clip(edges[:, None] - bounds[:-1], 0.0, np.diff(bounds))
    cells[:, THROUGH] = part @ (taken[::-1] * MM)[:, bands.picks]
    return Tinted(cells=cells, per_mm=CELLS / fill, hazy=bool(water.scatter.any()))


def _lighted(
    scene: Scene, world: World, forms: Forms, asked: Asked, bands: Bands, keeper: Keeper
) -> World:
    """The world with its light: gathered on the bodies, on wall and shelf, and in haze, a few times over."""
    care = asked.care
    points = light_points(forms, care.points, keeper)
    for number in range(care.passes):
        wanted = partial(asked.wanted, 0.5 * number / care.passes)
        light = gathered(world, points.points, points.normals, care.directions, wanted)
        world.bodies.vertex[:, LIGHT:] = spread(light, points)
        if world.water.hazy:
            world = world._replace(water=_hazed(scene, world, bands))
        if number == 0:
            world = world._replace(around=_shaded(world, care, wanted))
    return world


def _shaded(world: World, care: Care, wanted: Callable[[], None]) -> Any:
    """Wall and shelf in the light that the block leaves them, or throws on them."""
    wall, from_wall, shelf, from_shelf = map_points(world.around)
    directions = MAP_DIRECTIONS * care.directions
    maps = [
        gathered(world, places, ways, directions, wanted).reshape(MAP_ROWS, MAP_COLUMNS, -1)
        for places, ways in ((wall, from_wall), (shelf, from_shelf))
    ]
    return world.around._replace(maps=np.stack([_smooth(one) for one in maps]))


def _smooth(light: Single) -> Single:
    """A map with each cell the mean of it and its neighbours: few directions leave it uneven."""
    wide = np.pad(light, ((1, 1), (1, 1), (0, 0)), mode="edge")
    rows = 0.25 * wide[:-2] + 0.5 * wide[1:-1] + 0.25 * wide[2:]
    return np.ascontiguousarray(0.25 * rows[:, :-2] + 0.5 * rows[:, 1:-1] + 0.25 * rows[:, 2:])


def _hazed(scene: Scene, world: World, bands: Bands) -> Tinted:
    """Light that haze sends into a ray: b' times the mean of what comes from all sides, by height."""
    water, fill = water_of(scene), scene.tank.fill_height_mm
    places = _free_places(scene, world.block)
    middle = (np.arange(CELLS) + 0.5) / CELLS * fill
    scatter = (water.scatter * (1 - water.cosine))[water.layer_at((fill - middle) * MM)] * MM
    mean = mean_radiance(world, places, HAZE_DIRECTIONS)
    levels = np.unique(places[:, 2])
    by_level = np.stack([mean[places[:, 2] == level].mean(axis=0) for level in levels])
    spread_out = np.stack([np.interp(middle, levels, column) for column in by_level.T], axis=1)
    cells = world.water.cells.copy()
    cells[:-1, SOURCE] = scatter[:, bands.picks] * spread_out
    return world.water._replace(cells=cells)


def _free_places(scene: Scene, block: Block) -> Array:
    """Places at even heights in three columns, those in the bed left out, (n, 3)."""
    spans = np.ptp(block.finish[:-2, EDGE:EDGE + 2], axis=0)
    levels = (np.arange(HAZE_LEVELS) + 0.5) / HAZE_LEVELS * scene.tank.fill_height_mm
    found = []
    for u, v in HAZE_COLUMNS:
        x, y = block.inside[0] + u * spans[0], block.inside[1] + v * spans[1]
        ground = float(bed_heights(scene.bed, scene.tank, np.array([x]), np.array([y]))[0, 0])
        found += [(x, y, z) for z in levels if z > ground + 0.5]
    return np.array(found).reshape(-1, 3)


def _lamp_place(scene: Scene, stand: Stand, meshes: Meshes) -> tuple[float, float, float] | None:
    """Where the lamp within is; None for none, or where another light is on."""
    if stand.hour != "lamp":
        return None
    for figure in scene.figures:
        if figure.id == stand.lamp_in:
            points = figure_mesh(figure, meshes).vertices
            low, high = points.min(axis=0), points.max(axis=0)
            x, y = 0.5 * (low[:2] + high[:2])
            return float(x), float(y), float(low[2] + BULB_UP * (high[2] - low[2]))
    return None


def drawn(world: World, camera: Array, asked: Asked) -> Single:
    """Linear sRGB of every pixel, (rows, columns, 3), over a white card under the unit of light."""
    out = np.zeros((asked.height_px, asked.width_px, 3), dtype=np.float32)
    samples = samples_for(asked.care, float(world.block.finish[:, SLOPE].max()))

    def some(start: int, stop: int, desk: Desk) -> None:
        asked.wanted(0.5 + 0.5 * start / asked.height_px)
        _draw(world, camera, out, (start, stop), samples, desk)

    in_strips(some, asked.height_px, STRIP_ROWS, len(world.spectra))
    return out


def samples_for(care: Care, slope: float) -> int:
    """Rays of a pixel: more where a sanded face scatters them, the wider the more. Source: assumed"""
    return max(care.samples, ceil(care.facets * slope / ROUGHEST))


@njit_fast
def _draw(world, camera, out, part, samples, desk):  # type: ignore[no-untyped-def]
    rows, columns = out.shape[0], out.shape[1]
    eye = (camera[0, 0], camera[0, 1], camera[0, 2])
    for j in range(part[0], part[1]):
        for i in range(columns):
            red, green, blue = 0.0, 0.0, 0.0
            for k in range(samples):
                # R2 sequence: even over the pixel, the same in every pixel
                u = 2.0 * (i + (0.5 + 0.7548776662466927 * k) % 1.0) / columns - 1.0
                v = 2.0 * (j + (0.5 + 0.5698402909980532 * k) % 1.0) / rows - 1.0
                x = camera[1, 0] + u * camera[2, 0] + v * camera[3, 0]
                y = camera[1, 1] + u * camera[2, 1] + v * camera[3, 1]
                z = camera[1, 2] + u * camera[2, 2] + v * camera[3, 2]
                long = (x * x + y * y + z * z) ** 0.5
                look_along(world, eye, (x / long, y / long, z / long), desk, (j * columns + i) * 64 + k, True)
                for b in range(desk.seen.shape[0]):
                    red += desk.seen[b] * world.spectra[b, 0]
                    green += desk.seen[b] * world.spectra[b, 1]
                    blue += desk.seen[b] * world.spectra[b, 2]
            out[j, i, 0], out[j, i, 1], out[j, i, 2] = red / samples, green / samples, blue / samples
