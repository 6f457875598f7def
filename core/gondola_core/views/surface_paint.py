"""The paint on what a view meets: figures by zone, the bed by slope, height and grain."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

from ..scene import Figure, Scene
from ..shape import TriMesh
from ..tint.colour import hex_of, linear_of_hex, linear_of_srgb
from .raster import ATTRIBUTES, COLOURED, Buffer, Pixels

Array = NDArray[np.float64]


def surface_paint(
    scene: Scene, buffer: Buffer, bed_parts: int, x: Pixels, y: Pixels, z: Pixels
) -> Pixels:
    """Linear colour of each pixel's surface: figures by zone, the bed by slope, height and grain."""
    what = buffer.what.ravel()
    carried = buffer.carried.reshape(len(what), -1)
    paint = np.empty((len(what), 3), dtype=np.float32)
    paint[:] = linear_of_hex(scene.brief.backdrop_srgb).astype(np.float32)
    bed = np.flatnonzero((what >= 0) & (what < bed_parts))
    if len(bed):
        place = (axis.ravel()[bed] for axis in (x, y, z))
        paint[bed] = bed_paint(scene, carried[bed], *place)
    for number, figure in enumerate(scene.figures, start=bed_parts):
        mine = np.flatnonzero(what == number)
        if len(mine):
            paint[mine] = figure_paint(figure, carried[mine])
    return paint.reshape(*buffer.what.shape, 3)


def mean_colour(mesh: TriMesh) -> str | None:
    """Mean of a mesh's own colours by area, `#rrggbb`; None where it has none."""
    if mesh.colours is None:
        return None
    a, b, c = (mesh.vertices[mesh.faces[:, corner]] for corner in range(3))
    area = np.linalg.norm(np.cross(b - a, c - a), axis=1)
    by_face = linear_of_srgb(mesh.colours)[mesh.faces].mean(axis=1)
    return hex_of(area @ by_face / area.sum())


def bed_paint(
    scene: Scene, carried: Pixels, x: Array | Pixels, y: Array | Pixels, z: Array | Pixels
) -> Array:
    """Linear colour of points of the bed: darker where steep or deep, with a grain."""
    base = linear_of_hex(scene.bed.paint_srgb)
    bright = bed_tone(scene, carried[:, 2], z) * bed_grain(x, y, z)
    return np.asarray(base * np.clip(bright, 0.15, 1.5)[:, None])


def bed_tone(scene: Scene, up: Array | Pixels, z: Array | Pixels) -> Array:
    """How bright the bed's paint is, its grain left out: darker where steep or deep."""
    steep: Array = 1 - np.clip(np.asarray(up, dtype=float), 0, 1)
    deep = 1 - np.clip(np.asarray(z, dtype=float) / max(scene.tank.fill_height_mm, 1.0), 0, 1)
    return np.asarray(1.12 - 0.40 * steep - 0.22 * deep)


@njit(nogil=True, cache=True)
def bed_grain(x, y, z):  # type: ignore[no-untyped-def]
    """The grain of the bed's paint: a factor about 1; places [mm] in arrays or one by one."""
    return 1 + 0.09 * (
        np.sin(0.9 * x + 1.7 * np.sin(0.31 * y)) * np.sin(0.8 * y + 1.3 * np.sin(0.27 * x + 0.5 * z))
        + 0.5 * np.sin(2.3 * x + 0.7 * z) * np.sin(2.1 * y - 1.1 * z)
    )


def figure_paint(figure: Figure, carried: Pixels) -> Array:
    """Linear colour of points of a figure: of its file, or paint by zone.

    Back above, belly below, marks as bars on fish and as the lower third of other things.
    """
    if figure.own_colours and carried.shape[1] == COLOURED and np.isfinite(carried[:, ATTRIBUTES:]).all():
        return np.asarray(carried[:, ATTRIBUTES:])
    flank = linear_of_hex(figure.paint_srgb)
    out = np.broadcast_to(flank, (len(carried), 3)).copy()
    upness, along, own_height = carried[:, 3], carried[:, 4], carried[:, 5]
    zones, kind = figure.zones, figure.solids[0].kind
    if zones.mark_srgb:
        if kind in ("fish", "eel"):
            bars = np.clip((np.sin(2 * np.pi * along * 6.5) - 0.35) * 3, 0, 1)
            share = bars * np.clip(upness + 0.75, 0, 1) * (along > 0.3)
        else:
            share = np.clip((0.36 - own_height) * 14, 0, 1)
        out += share[:, None] * (linear_of_hex(zones.mark_srgb) - out)
    if zones.back_srgb:
        share = np.clip((upness - 0.25) * 2.2, 0, 1)
        out += share[:, None] * (linear_of_hex(zones.back_srgb) - out)
    if zones.belly_srgb:
        share = np.clip((-upness - 0.15) * 2.2, 0, 1)
        out += share[:, None] * (linear_of_hex(zones.belly_srgb) - out)
    return out
