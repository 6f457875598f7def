"""The picture of the water from the front: bed and back wall seen through the tinted resin."""

from __future__ import annotations

import io

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from .geometry import bed_heights
from .scene import Scene
from .tint import water_of
from .tint.colour import encode_srgb, linear_srgb, reflectance_of_hex
from .units import MM

Array = NDArray[np.float64]

PIXELS_PER_MM = 2.0
MOST_PIXELS = 480
BEHIND_NODES = 24
SKY_LIGHT = 0.35
"""Light on a steep slope of the bed over that on a level one. Source: assumed"""


def front_picture(scene: Scene) -> NDArray[np.uint8]:
    """What is seen through the front glass, without the figures: (rows, columns, 3) of sRGB.

    Rows run down from the fill line to the floor, columns from left to right. Each sight line
    runs level from the glass to the first bed that it meets, or to the back wall. Colours come
    from the 31-band model at every row and at 24 distances, linear between.
    """
    tank = scene.tank
    scale = min(
        PIXELS_PER_MM, MOST_PIXELS / tank.inner_width_mm, MOST_PIXELS / tank.fill_height_mm
    )
    columns = max(8, round(tank.inner_width_mm * scale))
    rows = max(8, round(tank.fill_height_mm * scale))
    x = (np.arange(columns) + 0.5) * tank.inner_width_mm / columns
    depth = (np.arange(rows) + 0.5) * tank.fill_height_mm / rows
    steps = max(16, round(tank.inner_behind_mm * min(1.0, scale)))
    y = np.arange(steps + 1) * tank.inner_behind_mm / steps
    ground = bed_heights(scene.bed, tank, x, y)
    behind, hit = _first_hit(ground, y, tank.fill_height_mm - depth)
    slope = np.hypot(*np.gradient(ground, y, x))
    level = SKY_LIGHT + (1 - SKY_LIGHT) / np.sqrt(1 + slope**2)
    shade = np.where(hit >= 0, level[np.clip(hit, 0, steps), np.arange(columns)[None, :]], 1.0)

    water = water_of(scene)
    nodes = np.linspace(0, tank.inner_behind_mm, BEHIND_NODES)
    spectra = water.seen(np.ones(31), depth[:, None] * MM, nodes[None, :] * MM)
    place = behind / tank.inner_behind_mm * (BEHIND_NODES - 1)
    near = np.minimum(place.astype(int), BEHIND_NODES - 2)
    part = (place - near)[..., None]
    paints = (scene.brief.backdrop_srgb, scene.bed.paint_srgb)
    table = np.stack([linear_srgb(spectra * reflectance_of_hex(paint)) for paint in paints])
    flat = table.reshape(-1, 3).astype(np.float32)
    index = ((hit >= 0) * rows + np.arange(rows)[:, None]) * BEHIND_NODES + near
    low = flat.take(index, axis=0)
    picture = flat.take(index + 1, axis=0)
    picture -= low
    picture *= part.astype(np.float32)
    picture += low
    picture *= shade[..., None].astype(np.float32)
    return _encoded(picture)


_CODES = encode_srgb(np.linspace(0.0, 1.0, 8193)).astype(np.uint8)


def _encoded(linear: NDArray[np.float32]) -> NDArray[np.uint8]:
    """sRGB of linear values by table: as `encode_srgb`, at most one step off in the darkest."""
    place = np.clip(linear, 0.0, 1.0)
    place *= 8192
    place += 0.5
    return np.asarray(_CODES.take(place.astype(np.int32)))


def _first_hit(ground: Array, y: Array, heights: Array) -> tuple[Array, NDArray[np.int64]]:
    """Where level sight lines from the glass first meet the bed.

    ground   (steps, columns) bed heights; y (steps,); heights (rows,) of the sight lines
    returns  distance behind the glass and index of the step, (rows, columns); the back wall
             and -1 where none is met
    """
    risen = np.maximum.accumulate(ground, axis=0)
    first = np.stack(
        [np.searchsorted(risen[:, column], heights) for column in range(ground.shape[1])], axis=1
    )
    met = first < len(y)
    index = np.minimum(first, len(y) - 1)
    before = np.maximum(index - 1, 0)
    columns = np.arange(ground.shape[1])[None, :]
    low, high = ground[before, columns], ground[index, columns]
    part = np.where(index > 0, (heights[:, None] - low) / np.maximum(high - low, 1e-9), 0.0)
    at = y[before] + np.clip(part, 0, 1) * (y[index] - y[before])
    return np.where(met, at, y[-1]), np.where(met, index, -1)


def png_of(picture: NDArray[np.uint8]) -> bytes:
    """The picture as a PNG file."""
    out = io.BytesIO()
    Image.fromarray(picture).save(out, format="PNG", compress_level=3)
    return out.getvalue()
