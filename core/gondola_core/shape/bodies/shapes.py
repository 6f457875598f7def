"""Figures to plan with, made as closed meshes from a few measures; one maker a kind."""

from __future__ import annotations

import functools
from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...part import Part
from ...scene import Box, Capsule, Eel, Ellipsoid, Fish, Hull, Ladder, Ring, Solid, Tuft, Wagon
from .mesh import TriMesh, joined

Array = NDArray[np.float64]

AROUND = 24
"""Points around a lofted body."""
GOLDEN = 2.399963229728653
"""radians between the blades of a plant, so that no two stand alike"""


def solid_mesh(solid: Solid) -> TriMesh:
    """The closed mesh of a solid in its figure's own frame; meshes that were brought in excepted.

    Round things are drawn with their points on the true surface, so they are a little small: 1 %
    in volume at most (tested).
    """
    return _made(solid.kind, solid.model_dump_json())


@functools.lru_cache(maxsize=512)
def _made(kind: str, measures: str) -> TriMesh:
    model, maker = _MAKERS[kind]
    return maker(model.model_validate_json(measures))


def tube(spine: Array, across: Array, up: Array, sides: Array | None = None) -> TriMesh:
    """A closed body around a spine: an ellipse at every point, closed to a point at both ends.

    spine       (n, 3) middles [mm]
    across, up  (n,) half-axes: level across the spine, and in its upright plane [mm]
    """
    ahead = np.gradient(spine, axis=0)
    ahead /= np.linalg.norm(ahead, axis=1)[:, None]
    upright = np.array([0.0, 0.0, 1.0])
    side = np.cross(upright, ahead)
    length = np.linalg.norm(side, axis=1)
    side = np.where(length[:, None] > 1e-6, side / np.maximum(length, 1e-6)[:, None], [0, 1, 0])
    above = np.cross(ahead, side)
    turn = np.linspace(0, 2 * np.pi, AROUND, endpoint=False)
    rings = (
        spine[:, None]
        + np.cos(turn)[None, :, None] * (across[:, None] * side)[:, None]
        + np.sin(turn)[None, :, None] * (up[:, None] * above)[:, None]
    )
    return _lofted(rings, spine[0], spine[-1])


def _lofted(rings: Array, first: Array, last: Array) -> TriMesh:
    """Rings (n, m, 3) joined in order; ends closed by fans to `first` and `last`."""
    n, m = rings.shape[:2]
    vertices = np.concatenate([rings.reshape(-1, 3), [first, last]])
    k = np.arange(m)
    following = (k + 1) % m
    faces = [
        np.stack([np.full(m, n * m), following, k], axis=1),
        np.stack([np.full(m, n * m + 1), (n - 1) * m + k, (n - 1) * m + following], axis=1),
    ]
    for row in range(n - 1):
        a, b = row * m + k, row * m + following
        c, d = a + m, b + m
        faces += [np.stack([a, b, d], axis=1), np.stack([a, d, c], axis=1)]
    return TriMesh(vertices, np.concatenate(faces).astype(np.int32))


def block(low: list[float], high: list[float]) -> TriMesh:
    """An upright block between two corners."""
    corners = np.array([[x, y, z] for z in (0, 1) for y in (0, 1) for x in (0, 1)], dtype=float)
    vertices = np.asarray(low) + corners * (np.asarray(high) - np.asarray(low))
    faces = [
        (0, 2, 3), (0, 3, 1), (4, 5, 7), (4, 7, 6), (0, 1, 5), (0, 5, 4),
        (2, 6, 7), (2, 7, 3), (0, 4, 6), (0, 6, 2), (1, 3, 7), (1, 7, 5),
    ]
    return TriMesh(vertices, np.array(faces, dtype=np.int32))


def bar(start: list[float], end: list[float], radius: float) -> TriMesh:
    """A round bar with flat ends."""
    spine = np.array([start, start, end, end], dtype=float)
    ahead = spine[2] - spine[0]
    spine[1] += 1e-6 * ahead
    spine[2] -= 1e-6 * ahead
    spine[[0, 3]] = spine[[1, 2]]
    ahead = ahead / np.linalg.norm(ahead)
    other = np.array([0.0, 0.0, 1.0]) if abs(ahead[2]) < 0.9 else np.array([1.0, 0.0, 0.0])
    side = np.cross(other, ahead)
    side /= np.linalg.norm(side)
    above = np.cross(ahead, side)
    turn = np.linspace(0, 2 * np.pi, AROUND // 2, endpoint=False)[None, :, None]
    around = radius * (np.cos(turn) * side + np.sin(turn) * above)
    rings = np.array([start, end], dtype=float)[:, None] + around
    return _lofted(rings, np.asarray(start, dtype=float), np.asarray(end, dtype=float))


def _ellipsoid(solid: Ellipsoid) -> TriMesh:
    at = np.pi * (np.arange(1, AROUND // 2 + 6) / (AROUND // 2 + 6))
    turn = np.linspace(0, 2 * np.pi, AROUND + 8, endpoint=False)
    ring = np.stack(
        [
            np.broadcast_to(-np.cos(at)[:, None], (len(at), len(turn))),
            np.sin(at)[:, None] * np.cos(turn),
            np.sin(at)[:, None] * np.sin(turn),
        ],
        axis=-1,
    )
    mesh = _lofted(ring, np.array([-1.0, 0, 0]), np.array([1.0, 0, 0]))
    angle = np.radians(solid.pitch_deg)
    c, s = np.cos(angle), np.sin(angle)
    lifted = (mesh.vertices * np.array(solid.radii_mm)) @ np.array(
        [[c, 0.0, -s], [0.0, 1.0, 0.0], [s, 0.0, c]]
    ).T
    return mesh.moved(lifted + np.array(solid.centre_mm))


def _box(solid: Box) -> TriMesh:
    centre, half = np.array(solid.centre_mm), np.array(solid.size_mm) / 2
    return block((centre - half).tolist(), (centre + half).tolist())


def _capsule(solid: Capsule) -> TriMesh:
    start, end = np.array(solid.from_mm), np.array(solid.to_mm)
    length = float(np.linalg.norm(end - start))
    ahead = (end - start) / length if length > 0 else np.array([1.0, 0, 0])
    other = np.array([0.0, 0.0, 1.0]) if abs(ahead[2]) < 0.9 else np.array([1.0, 0.0, 0.0])
    side = np.cross(other, ahead)
    side /= np.linalg.norm(side)
    above = np.cross(ahead, side)
    half = np.pi / 2 * np.linspace(0, 1, 7)[1:]
    along = np.concatenate([-np.cos(half), length / solid.radius_mm + np.cos(half[::-1])])
    wide = np.concatenate([np.sin(half), np.sin(half[::-1])])
    turn = np.linspace(0, 2 * np.pi, AROUND, endpoint=False)[None, :, None]
    rings = start + solid.radius_mm * (
        along[:, None, None] * ahead
        + wide[:, None, None] * (np.cos(turn) * side + np.sin(turn) * above)
    )
    r = solid.radius_mm
    return _lofted(rings, start - r * ahead, end + r * ahead)


def _bent(points: Array, length: float, bend_deg: float) -> Array:
    """Points bent level into an arc over their length along x."""
    if abs(bend_deg) < 0.01:
        return points
    radius = length / np.radians(bend_deg)
    angle = points[:, 0] / radius
    out = points.copy()
    out[:, 0] = (radius - points[:, 1]) * np.sin(angle)
    out[:, 1] = radius - (radius - points[:, 1]) * np.cos(angle)
    return out


def _fish(fish: Fish) -> TriMesh:
    length, high, thick = fish.length_mm, fish.height_mm, fish.thick_mm
    at = 0.5 - 0.5 * np.cos(np.pi * np.linspace(0.02, 0.98, 15))
    body = 0.80 * length
    # tail root at s = 0, nose at s = 1: fullest a third behind the nose
    shape = (np.sin(np.pi * at**1.35) * 0.88 + 0.12 * np.sqrt(at * (1 - at)) * 2) * (0.55 + 0.45 * at)
    shape = np.maximum(shape / shape.max(), 0.14)
    shape[-1] *= 0.6
    x = -0.3 * length + body * at
    middle = np.stack([x, np.zeros_like(x), 0.5 * high + 0.0 * x], axis=1)
    trunk = tube(middle, 0.5 * thick * shape, 0.43 * high * shape)

    def fin(points: list[tuple[float, float]], flat: float) -> TriMesh:
        edge = np.array(points)
        front = np.stack([edge[:, 0], np.full(len(edge), -flat), edge[:, 1]], axis=1)
        rear = front + np.array([0.0, 2 * flat, 0.0])
        rings = np.stack([front, rear])
        return _lofted(rings, front.mean(axis=0), rear.mean(axis=0))

    flat = max(0.12, 0.06 * thick)
    mid = 0.5 * high
    tail = fin(
        [(-0.27 * length, mid - 0.05 * high), (-0.27 * length, mid + 0.05 * high),
         (-0.5 * length, mid + 0.42 * high), (-0.41 * length, mid),
         (-0.5 * length, mid - 0.42 * high)][::-1], flat,
    )
    back = fin(
        [(0.2 * length, mid + 0.36 * high), (0.1 * length, mid + 0.5 * high),
         (-0.08 * length, mid + 0.44 * high), (-0.13 * length, mid + 0.26 * high)], flat,
    )
    belly = fin(
        [(0.12 * length, mid - 0.32 * high), (-0.06 * length, mid - 0.24 * high),
         (-0.02 * length, mid - 0.5 * high)], flat,
    )
    whole = joined([trunk, *(_outward(one) for one in (tail, back, belly))])
    return whole.moved(_bent(whole.vertices, length, fish.bend_deg))


def _outward(mesh: TriMesh) -> TriMesh:
    from .mesh import mesh_volume

    return mesh if mesh_volume(mesh) > 0 else TriMesh(mesh.vertices, mesh.faces[:, ::-1].copy())


def _eel(eel: Eel) -> TriMesh:
    at = np.linspace(0.0, 1.0, 41)
    taper = np.clip(np.minimum(1.0, 8 * (1 - at) + 0.2) * (0.12 + 0.88 * at**0.6), 0.08, 1)
    spine = np.stack(
        [
            eel.length_mm * (at - 0.5),
            eel.wave_mm * np.sin(4 * np.pi * at) * (1.1 - at),
            np.full_like(at, 0.5 * eel.thick_mm),
        ],
        axis=1,
    )
    half = 0.5 * eel.thick_mm * taper
    return tube(spine, 0.8 * half, half)


def _hull(hull: Hull) -> TriMesh:
    """Outer and inner skin, joined along the rim: an open, thick-walled shell."""
    stations, points = 25, 17
    at = np.linspace(-1.0, 1.0, stations)
    full = np.sqrt(np.clip(1 - np.abs(at) ** 2.4, 0.0, 1.0))
    sheer = hull.depth_mm + hull.sheer_mm * at**2
    around = np.linspace(-np.pi / 2, np.pi / 2, points)

    def skin(half_length: float, half_beam: float, bottom: float) -> Array:
        width = np.maximum(full * half_beam, 0.02 * half_beam)[:, None] * np.sin(around)
        low = bottom + (sheer[:, None] - bottom) * (1 - np.cos(around)) ** 1.0
        x = np.broadcast_to((half_length * at)[:, None], width.shape)
        return np.stack([x, width, low], axis=-1)

    outer = skin(hull.length_mm / 2, hull.beam_mm / 2, 0.0)
    wall = min(hull.wall_mm, 0.3 * hull.beam_mm, 0.45 * hull.depth_mm)
    inner = skin(
        hull.length_mm / 2 - wall * 1.5, hull.beam_mm / 2 - wall, wall
    )
    # each station is a closed ring: outer skin port to starboard, inner skin back again
    rings = np.concatenate([outer, inner[:, ::-1]], axis=1)
    mesh = _capped_rings(rings, points)
    return _outward(mesh)


def _capped_rings(rings: Array, points: int) -> TriMesh:
    """U-shaped rings joined in order, the two ends closed between outer and inner skin."""
    n, m = rings.shape[:2]
    k = np.arange(m)
    following = (k + 1) % m
    faces = []
    for row in range(n - 1):
        a, b = row * m + k, row * m + following
        faces += [
            np.stack([a, b, b + m], axis=1), np.stack([a, b + m, a + m], axis=1),
        ]
    p = np.arange(points - 1)
    outer, inner = p, 2 * points - 1 - p
    front = [
        np.stack([outer, inner, inner - 1], axis=1), np.stack([outer, inner - 1, outer + 1], axis=1)
    ]
    rear = [(n - 1) * m + face[:, ::-1] for face in front]
    return TriMesh(rings.reshape(-1, 3), np.concatenate([*faces, *front, *rear]).astype(np.int32))


def _wagon(wagon: Wagon) -> TriMesh:
    length, width, high = wagon.length_mm, wagon.width_mm, wagon.height_mm
    wheel = 0.2 * high
    floor = 2.1 * wheel
    wall = min(wagon.wall_mm, 0.2 * width)
    l2, w2 = length / 2, width / 2
    parts = [
        block([-l2, -0.36 * width, 1.5 * wheel], [l2, 0.36 * width, 2.05 * wheel]),
        block([-0.85 * l2, -w2, floor], [0.85 * l2, w2, floor + wall]),
        block([-0.85 * l2, -w2, floor], [0.85 * l2, -w2 + wall, high]),
        block([-0.85 * l2, w2 - wall, floor], [0.85 * l2, w2, high]),
        block([-0.85 * l2, -w2, floor], [-0.85 * l2 + wall, w2, high]),
        block([0.85 * l2 - wall, -w2, floor], [0.85 * l2, w2, high]),
        block([-0.2 * l2, -0.2 * width, 1.9 * wheel], [0.2 * l2, 0.2 * width, floor + 0.5 * wall]),
        bar([-l2 * 1.12, 0, 1.78 * wheel], [l2 * 1.12, 0, 1.78 * wheel], 0.3 * wheel),
    ]
    for x in (-0.55 * l2, 0.55 * l2):
        parts.append(bar([x, -0.8 * w2, wheel], [x, 0.8 * w2, wheel], 0.25 * wheel))
        for side in (-1, 1):
            y = side * 0.62 * w2
            parts.append(bar([x, y - 0.12 * w2, wheel], [x, y + 0.12 * w2, wheel], wheel))
    return joined(parts)


def _ladder(ladder: Ladder) -> TriMesh:
    half, rail = ladder.width_mm / 2, ladder.rail_mm / 2
    parts = [
        bar([0, side * (half - rail), 0], [0, side * (half - rail), ladder.length_mm], rail)
        for side in (-1, 1)
    ]
    for rung in range(1, ladder.rungs_count + 1):
        z = ladder.length_mm * rung / (ladder.rungs_count + 1)
        parts.append(bar([0, -half + rail, z], [0, half - rail, z], 0.75 * rail))
    return joined(parts)


def _ring(ring: Ring) -> TriMesh:
    small = ring.thick_mm / 2
    large = max(ring.outer_mm / 2 - small, small * 1.02)
    n, m = 48, AROUND
    u = np.linspace(0, 2 * np.pi, n, endpoint=False)[:, None]
    v = np.linspace(0, 2 * np.pi, m, endpoint=False)[None, :]
    away = large + small * np.cos(v)
    points = np.stack(
        [away * np.cos(u), away * np.sin(u), np.broadcast_to(small + small * np.sin(v), (n, m))], -1
    )
    k = np.arange(m)
    faces = []
    for row in range(n):
        a, b = row * m + k, row * m + (k + 1) % m
        c, d = (row + 1) % n * m + k, (row + 1) % n * m + (k + 1) % m
        faces += [np.stack([a, c, d], axis=1), np.stack([a, d, b], axis=1)]
    return TriMesh(points.reshape(-1, 3), np.concatenate(faces).astype(np.int32))


def _tuft(tuft: Tuft) -> TriMesh:
    parts = []
    for blade in range(tuft.blades_count):
        share = (blade + 0.5) / tuft.blades_count
        lean = 0.5 * tuft.spread_mm * np.sqrt(share)
        high = tuft.height_mm * (1.0 - 0.35 * share * (0.6 + 0.4 * np.sin(3.1 * blade)))
        away = np.array([np.cos(GOLDEN * blade), np.sin(GOLDEN * blade)])
        at = np.linspace(0, 1, 9)
        spine = np.zeros((9, 3))
        spine[:, :2] = away * (0.12 * lean + 0.88 * lean * at[:, None] ** 1.8)
        spine[:, 2] = high * at
        half = 0.5 * tuft.blade_mm * np.maximum(1.0 - 0.85 * at**2, 0.15)
        parts.append(tube(spine, half, 0.45 * half))
    return joined(parts)


_MAKERS: dict[str, tuple[type[Part], Callable[[Any], TriMesh]]] = {
    "ellipsoid": (Ellipsoid, _ellipsoid), "box": (Box, _box), "capsule": (Capsule, _capsule),
    "fish": (Fish, _fish), "eel": (Eel, _eel), "hull": (Hull, _hull), "wagon": (Wagon, _wagon),
    "ladder": (Ladder, _ladder), "ring": (Ring, _ring), "tuft": (Tuft, _tuft),
}
