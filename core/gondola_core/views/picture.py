"""The piece as it will look: bed, figures and back wall through the tinted resin, pixel by pixel."""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numba import njit
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from ..answers.bodies import PLACED
from ..answers.columns import OUTLINE
from ..answers.kept import Keeper
from ..answers.reading import Reading
from ..digests import digest
from ..scene import BoxShape, Figure, Scene
from ..shape import Meshes, TriMesh, figure_mesh, plan_box, tank_plan
from ..shape.bodies.body import own_mesh
from ..shape.bodies.frame import figure_matrix
from ..shape.bodies.shapes import GOLDEN
from ..tint import water_of
from ..tint.attenuation import DIFFUSE_PATH, FRONT_PATH, Water
from ..tint.colour import encode_srgb, linear_of_hex, linear_srgb
from ..tint.spectrum import reflectance_basis
from ..tint.top_view import seen_from_above
from ..units import MM
from .model import bed_surface
from .raster import Buffer, Pixels, corner_attributes, draw
from .surface_paint import surface_paint

Array = NDArray[np.float64]
View = Literal["front", "side", "above"]

SKY = 0.5
"""Light from above that reaches a face turned away from it. Source: assumed"""
LAMP_WIDE = 0.16
"""Half width of the lamp's penumbra over the height of what stands above. Source: assumed"""
AT_GLASS_MM = 0.6
"""A surface this near the glass is cast against it. Source: assumed"""
NODES = 28
"""Distances along a sight line at which its colour is computed."""
MOST_SCENERIES = 4
"""Sceneries kept at a time: some 20 MB each at the width of the page."""
JPEG_QUALITY = 93
SAMPLES = 14
"""Looks up for the soft shadow of a pixel."""
LEAST_PIXELS, MOST_PIXELS = 120, 1600
BED, BEHIND = 0, -1
BED_SURFACE = Reading(*OUTLINE, "bed.heights_mm")
SHAPED = Reading(*PLACED, "own_colours")
"""What a drawn bed and a drawn figure depend on."""
SCENERY = Reading(
    *OUTLINE, "bed.heights_mm", "bed.mesh", "bed.paint_srgb", "brief.backdrop_srgb",
    *(f"figures.{field}" for field in (*PLACED, "own_colours", "paint_srgb", "zones")),
)
"""What a view meets, whatever the water."""


@dataclass(frozen=True, slots=True, eq=False)
class Scenery:
    """What a view meets, whatever the water: kept while only doses change.

    rows are of depth in front and side views
    far_mm      (columns,) distance to the back wall, and where the glass begins
    from_top, from_front   light on each pixel's surface by its facing and what shades it
    paint       linear colour of each pixel's surface
    """

    buffer: Buffer
    scale: float
    near_mm: Pixels
    far_mm: Pixels
    from_top: Pixels
    from_front: Pixels
    paint: Pixels


def picture(
    scene: Scene, view: View, width_px: int, meshes: Meshes, keeper: Keeper
) -> NDArray[np.uint8]:
    """What is seen through the front, the right side, or from above: (rows, columns, 3) of sRGB.

    Orthographic, at the section's own scale: from the fill line to the floor, or the plan with its
    back at the top. Colours come from the 31-band model at every row and at 28 distances.
    """
    width_px = int(np.clip(width_px, LEAST_PIXELS, MOST_PIXELS))
    _, seen = SCENERY(scene)
    scenery = keeper.keep(
        "scenery", digest([view, width_px, seen]), lambda: _scenery(scene, view, width_px, meshes, keeper),
        most=MOST_SCENERIES,
    )
    water = water_of(scene)
    return _encoded(_above(scene, scenery, water) if view == "above" else _level(scenery, water))


def _frame(scene: Scene, view: View) -> tuple[float, float, tuple[int, int, int], tuple[float, ...]]:
    """Width and height of the view [mm], its axes (right, down, away) and the near upper left corner."""
    left, right, front, back = plan_box(scene.tank)
    fill = scene.tank.fill_height_mm
    if view == "front":
        return right - left, fill, (0, 2, 1), (left, fill, front)
    if view == "side":
        return back - front, fill, (1, 2, 0), (front, fill, right)
    return right - left, back - front, (0, 1, 2), (left, back, fill)


_SIGNS = {"front": (1.0, -1.0, 1.0), "side": (1.0, -1.0, -1.0), "above": (1.0, -1.0, -1.0)}


def _drawn(mesh: TriMesh, turn: Array) -> tuple[TriMesh, Pixels]:
    return mesh, corner_attributes(mesh, turn)


def _drawn_figure(figure: Figure, meshes: Meshes) -> tuple[TriMesh, Pixels]:
    mesh = figure_mesh(figure, meshes)
    return _drawn(mesh if figure.own_colours else mesh.plain(), figure_matrix(figure))


def _scenery(
    scene: Scene, view: View, width_px: int, meshes: Meshes, keeper: Keeper
) -> Scenery:
    wide, high, axes, origin = _frame(scene, view)
    scale = min(width_px / wide, MOST_PIXELS / high)
    columns, rows = max(8, round(wide * scale)), max(8, round(high * scale))
    upright = np.eye(3)
    _, ground = BED_SURFACE(scene)
    bodies = [keeper.keep("bed-drawn", digest(ground), lambda: _drawn(bed_surface(scene), upright))]
    if scene.bed.mesh is not None:
        bodies.append(_drawn(own_mesh(scene.bed.mesh, meshes), upright))
    bed_parts = len(bodies)
    for figure in scene.figures:
        bodies.append(
            keeper.keep(
                "drawn", digest(SHAPED(figure)[1]),
                lambda figure=figure: _drawn_figure(figure, meshes),  # type: ignore[misc]
            )
        )
    buffer = draw(
        bodies, rows, columns, axes, (origin[0], origin[1], origin[2]), _SIGNS[view], scale
    )
    near, far = _walls(scene, view, columns, scale)
    x, y, z = _places(scene, view, buffer, scale, far)
    from_top, from_front = _lighting(scene, view, buffer, bodies, x, y, z)
    paint = surface_paint(scene, buffer, bed_parts, x, y, z)
    return Scenery(
        buffer=buffer, scale=scale, near_mm=near, far_mm=far, from_top=from_top,
        from_front=from_front, paint=paint,
    )


def _walls(scene: Scene, view: View, columns: int, scale: float) -> tuple[Pixels, Pixels]:
    """Where the glass begins and the back wall stands along each column's sight line [mm]."""
    _, _, _, origin = _frame(scene, view)
    tank = scene.tank
    left, right, front, back = plan_box(tank)
    depth = {"front": back - front, "side": right - left, "above": tank.fill_height_mm}[view]
    near = np.zeros(columns, dtype=np.float32)
    far = np.full(columns, depth, dtype=np.float32)
    if view == "above" or (isinstance(tank.shape, BoxShape) and tank.taper_deg == 0):
        return near, far
    plan = tank_plan(tank, tank.fill_height_mm)
    axis, other = (0, 1) if view == "front" else (1, 0)
    at = origin[0] + (np.arange(columns) + 0.5) / scale
    for column, place in enumerate(at):
        hits = []
        for p, q in zip(plan, np.roll(plan, -1, axis=0), strict=True):
            if (p[axis] > place) != (q[axis] > place):
                share = (place - p[axis]) / (q[axis] - p[axis])
                hits.append(p[other] + share * (q[other] - p[other]))
        if hits:
            ways = [hit - front if view == "front" else right - hit for hit in (min(hits), max(hits))]
            near[column], far[column] = min(ways), max(ways)
    return near, far


def _places(
    scene: Scene, view: View, buffer: Buffer, scale: float, far: Pixels
) -> tuple[Pixels, Pixels, Pixels]:
    """Place of each pixel's surface in the tank [mm]; that of the back wall where nothing is met."""
    rows, columns = buffer.away.shape
    _, _, axes, origin = _frame(scene, view)
    away = np.where(np.isfinite(buffer.away), buffer.away, far[None, :])
    signs = _SIGNS[view]
    along = [
        origin[0] + signs[0] * (np.arange(columns) + 0.5)[None, :] / scale + 0 * away,
        origin[1] + signs[1] * (np.arange(rows) + 0.5)[:, None] / scale + 0 * away,
        origin[2] + signs[2] * away,
    ]
    place = [along[axes.index(axis)].astype(np.float32) for axis in range(3)]
    return place[0], place[1], place[2]


def _lighting(
    scene: Scene, view: View, buffer: Buffer, bodies: list[tuple[TriMesh, Pixels]],
    x: Pixels, y: Pixels, z: Pixels,
) -> tuple[Pixels, Pixels]:
    """Light from above and from the front on each pixel: facing, soft shadow, contact darkening.

    The shadow is that of a wide lamp: samples around the place look up how high things stand above
    it; what is near darkens the contact.
    """
    left, right, front, back = plan_box(scene.tank)
    step = max(0.7, (right - left) / 260)
    columns, rows = int((right - left) / step) + 2, int((back - front) / step) + 2
    # only how high things stand is asked: nothing is carried along
    bare = [(mesh, attributes[:, :, :0]) for mesh, attributes in bodies]
    top = draw(bare, rows, columns, (0, 1, 2), (left, front, 1e4), (1.0, 1.0, -1.0), 1 / step)
    height = np.where(np.isfinite(top.away), 1e4 - top.away, -1e4).astype(np.float32)
    turn = GOLDEN * np.arange(SAMPLES)
    ring = np.sqrt((np.arange(SAMPLES) + 0.5) / SAMPLES)
    met = buffer.what >= 0
    shade, contact = _shaded(
        met, x, y, z, height, np.float32(left), np.float32(front), np.float32(1 / step),
        (ring * np.cos(turn)).astype(np.float32), (ring * np.sin(turn)).astype(np.float32), np.float32(LAMP_WIDE),
    )
    # a bed that is cast against the glass is lit through the glass, whatever stands over it
    pressed = {"front": y - front, "side": right - x}.get(view)
    if pressed is not None:
        shade[pressed < AT_GLASS_MM] = contact[pressed < AT_GLASS_MM] = 0.0
    up = np.clip(buffer.carried[..., 2], 0.0, 1.0)
    toward = {"front": -buffer.carried[..., 1], "side": buffer.carried[..., 0],
              "above": buffer.carried[..., 2]}[view]
    from_top = (SKY + (1 - SKY) * up) * (1 - 0.6 * shade) * (1 - 0.4 * contact)
    from_front = (0.45 + 0.55 * np.clip(toward, 0, 1)) * (1 - 0.45 * contact)
    return (
        np.where(met, from_top, 1.0).astype(np.float32),
        np.where(met, from_front, 1.0).astype(np.float32),
    )


@njit(nogil=True, cache=True, fastmath=True)
def _shaded(met, x, y, z, height, left, front, per_mm, dx, dy, wide):  # type: ignore[no-untyped-def]
    rows, columns = x.shape
    ny, nx = height.shape
    shade = np.zeros((rows, columns), dtype=np.float32)
    contact = np.zeros((rows, columns), dtype=np.float32)
    for j in range(rows):
        for i in range(columns):
            if not met[j, i]:
                continue
            dark, close = 0, 0
            for s in range(dx.shape[0]):
                # look up in a disc that widens with the height of what stands there
                reach = np.float32(1.2)
                for turn in range(2):
                    u = int((x[j, i] + reach * dx[s] - left) * per_mm)
                    v = int((y[j, i] + reach * dy[s] - front) * per_mm)
                    u = min(max(u, 0), nx - 1)
                    v = min(max(v, 0), ny - 1)
                    gap = height[v, u] - z[j, i]
                    if turn == 0:
                        if np.float32(0.4) < gap < np.float32(7.0):
                            close += 1
                        reach = np.float32(2.0) + wide * max(gap, np.float32(10.0))
                    elif gap > np.float32(1.0):
                        dark += 1
            shade[j, i] = np.float32(dark) / dx.shape[0]
            contact[j, i] = np.float32(close) / dx.shape[0]
    return shade, contact


def _kernel() -> Array:
    """From a spectrum to the 3 x 3 map of paint's linear sRGB to seen linear sRGB, (31, 9)."""
    basis = reflectance_basis()
    bands = linear_srgb(np.eye(31))
    return np.asarray((bands[:, :, None] * basis[:, None, :]).reshape(31, 9))


_KERNEL = _kernel()


def _level(scenery: Scenery, water: Water) -> Pixels:
    """Front and side views: every sight line runs level, in one layer."""
    rows = scenery.buffer.away.shape[0]
    depth = (np.arange(rows) + 0.5) / scenery.scale * MM
    furthest = float(scenery.far_mm.max()) * MM
    nodes = np.linspace(0.0, furthest, NODES)
    top, front, back = water.light
    kernel = _KERNEL.astype(np.float32)
    layer = water.layer_at(depth)
    beam = water.beam()
    above = (top * water.from_above(depth)).astype(np.float32)

    def by_layer(strength: float) -> Pixels:
        return np.exp(-strength * beam[:, None, :] * nodes[:, None]).astype(np.float32)

    sight = by_layer(1.0)
    maps_top = np.empty((rows, NODES, 9), dtype=np.float32)
    for row in range(0, rows, 64):
        part = slice(row, row + 64)
        maps_top[part] = (above[part, None, :] * sight[layer[part]]) @ kernel
    if front or back:
        lit = front * by_layer(1.0 + FRONT_PATH)
        if back:
            away = np.exp(-FRONT_PATH * beam[:, None, :] * (furthest - nodes)[:, None])
            lit = lit + back * sight * away
        maps_front = ((lit.astype(np.float32)) @ kernel)[layer]
    else:
        maps_front = np.zeros((rows, NODES, 9), dtype=np.float32)
    veil = np.zeros((rows, NODES, 3), dtype=np.float32)
    if water.haze is not None:
        veil = linear_srgb(water.veil(depth[:, None], nodes[None, :])).astype(np.float32)
    return np.asarray(_composed(
        scenery.buffer.away, scenery.near_mm, scenery.far_mm, scenery.paint, scenery.from_top,
        scenery.from_front, maps_top, maps_front, veil, np.float32(furthest / MM / (NODES - 1)),
    ))


@njit(nogil=True, cache=True, fastmath=True)
def _composed(away, near, far, paint, from_top, from_front, maps_top, maps_front, veil, node_mm):  # type: ignore[no-untyped-def]
    rows, columns = away.shape
    out = np.empty((rows, columns, 3), dtype=np.float32)
    last = maps_top.shape[1] - 2
    for j in range(rows):
        for i in range(columns):
            reach = min(away[j, i], far[i]) - near[i]
            place = max(reach, np.float32(0.0)) / node_mm
            node = min(int(place), last)
            part = place - node
            r, g, b = paint[j, i, 0], paint[j, i, 1], paint[j, i, 2]
            top, front = from_top[j, i], from_front[j, i]
            for k in range(3):
                k3 = 3 * k
                low = top * (
                    maps_top[j, node, k3] * r + maps_top[j, node, k3 + 1] * g
                    + maps_top[j, node, k3 + 2] * b
                ) + front * (
                    maps_front[j, node, k3] * r + maps_front[j, node, k3 + 1] * g
                    + maps_front[j, node, k3 + 2] * b
                ) + veil[j, node, k]
                high = top * (
                    maps_top[j, node + 1, k3] * r + maps_top[j, node + 1, k3 + 1] * g
                    + maps_top[j, node + 1, k3 + 2] * b
                ) + front * (
                    maps_front[j, node + 1, k3] * r + maps_front[j, node + 1, k3 + 1] * g
                    + maps_front[j, node + 1, k3 + 2] * b
                ) + veil[j, node + 1, k]
                out[j, i, k] = low + part * (high - low)
    return out


def _above(scene: Scene, scenery: Scenery, water: Water) -> Pixels:
    """From above: light goes down and comes back up; the flat face throws some back to the bed."""
    fill = scene.tank.fill_height_mm
    nodes = np.linspace(0.0, fill, 64)
    tau = water.optical_depth(nodes * MM)
    met = np.isfinite(scenery.buffer.away)
    place = np.where(met, np.clip(scenery.buffer.away, 0, fill), fill) / fill * 63
    row = np.minimum(place.astype(int), 62)
    part = (place - row)[..., None].astype(np.float32)
    bed_grey = float(linear_of_hex(scene.bed.paint_srgb).mean())
    out = np.empty_like(scenery.paint)
    for on_bed in (True, False):
        mine = (scenery.buffer.what <= BED) == on_bed
        if not mine.any():
            continue
        if water.haze is not None:
            through = water.from_above(nodes * MM) * np.exp(-tau)
        elif on_bed:
            through = seen_from_above(np.full(31, bed_grey), tau)
        else:
            through = np.exp(-(1 + DIFFUSE_PATH) * tau)
        maps = (through @ _KERNEL).astype(np.float32).reshape(-1, 3, 3)
        chosen = maps[row[mine]] * (1 - part[mine][..., None]) + maps[row[mine] + 1] * part[mine][..., None]
        out[mine] = np.einsum("nij,nj->ni", chosen, scenery.paint[mine])
    lit = out * scenery.from_top[..., None]
    return np.asarray(np.where(_in_plan(scene, scenery)[..., None], lit, linear_of_hex(scene.brief.backdrop_srgb)))


def _in_plan(scene: Scene, scenery: Scenery) -> NDArray[np.bool_]:
    """Pixels of the view from above that lie within the walls at the fill line, (rows, columns)."""
    _, _, _, origin = _frame(scene, "above")
    plan = tank_plan(scene.tank, scene.tank.fill_height_mm)
    rows, columns = scenery.buffer.away.shape
    mask = Image.new("1", (columns, rows))
    corners = [
        (float((x - origin[0]) * scenery.scale - 0.5), float((origin[1] - y) * scenery.scale - 0.5)) for x, y in plan
    ]
    ImageDraw.Draw(mask).polygon(corners, fill=1)
    return np.array(mask)


_CODES = encode_srgb(np.linspace(0.0, 1.0, 8193)).astype(np.uint8)


def _encoded(linear: Pixels) -> NDArray[np.uint8]:
    """sRGB of linear values by table: as `encode_srgb`, at most one step off in the darkest."""
    place = np.clip(linear, 0.0, 1.0)
    place *= 8192
    place += 0.5
    return np.asarray(_CODES.take(place.astype(np.int32)))


def jpeg_of(image: NDArray[np.uint8]) -> bytes:
    """The picture as a JPEG file without loss of colour: a tenth of the time of a PNG, for what is dragged."""
    out = io.BytesIO()
    Image.fromarray(image).save(out, format="JPEG", quality=JPEG_QUALITY, subsampling=0)
    return out.getvalue()


def png_of(image: NDArray[np.uint8]) -> bytes:
    """The picture as a PNG file."""
    out = io.BytesIO()
    Image.fromarray(image).save(out, format="PNG", compress_level=1)
    return out.getvalue()


