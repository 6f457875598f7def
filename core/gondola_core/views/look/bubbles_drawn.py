"""Bubbles in the look at their true size: each a small window with a mirror round it, never larger than it is."""

from __future__ import annotations

from collections.abc import Callable
from math import asin, cos, pi, sin, sqrt

import numpy as np

from ..bubbles import SeenBubbles
from .bake import within
from .bvh import Single, nearest
from .chain import add_around, chain, wade
from .kernels import njit_fast
from .optics import frame, mirrored
from .world import KIND, PAINTED, SLOPE, Array, World, desk_for

RAYS = 24
"""Over the disc of a bubble."""
LEAST_PX = 0.02
"""A bubble narrower than this on the picture takes nothing from a pixel."""


def places_of(bubbles: SeenBubbles, fill_mm: float) -> Array:
    """Places and radii of bubbles [mm], (n, 4)."""
    return np.column_stack([
        bubbles.x_mm, bubbles.behind_mm, fill_mm - np.array(bubbles.depth_mm), 0.5 * np.array(bubbles.size_mm),
    ]).reshape(-1, 4)


def draw_bubbles(picture: Single, world: World, camera: Array, bubbles: Array, wanted: Callable[[], None]) -> None:
    """Lay bubbles over a picture that is drawn, seen through every flat face that the eye sees."""
    rows, columns = picture.shape[:2]
    desk = desk_for(len(world.spectra))
    eye = tuple(camera[0].tolist())
    # from a place before the eye to (deep u, deep v, deep): the other way round than a pixel looks
    onto = np.ascontiguousarray(np.linalg.inv(np.stack([camera[2], camera[3], camera[1]], axis=1)))
    wide = float(np.linalg.norm(camera[2]))
    for start in range(0, len(bubbles), 64):
        wanted()
        part = bubbles[start : start + 64]
        marks = np.zeros((len(part) * len(world.block.planes), 6))
        count = _marks(world, eye, onto, part, (rows, columns, wide), marks, desk)
        for mark in marks[:count]:
            _lay(picture, *mark)


def _lay(picture: Single, x: float, y: float, radius: float, *colour: float) -> None:
    """One disc of a colour, by the share of each pixel that it covers."""
    rows, columns = picture.shape[:2]
    if radius < 0.5:
        i, j = int(x), int(y)
        if 0 <= i < columns and 0 <= j < rows:
            share = min(1.0, pi * radius**2)
            picture[j, i] += share * (np.array(colour, dtype=np.float32) - picture[j, i])
        return
    left, right = max(0, int(x - radius - 1)), min(columns, int(x + radius + 2))
    top, bottom = max(0, int(y - radius - 1)), min(rows, int(y + radius + 2))
    if right <= left or bottom <= top:
        return
    away = np.hypot(np.arange(left, right)[None, :] + 0.5 - x, np.arange(top, bottom)[:, None] + 0.5 - y)
    cover: Single = np.clip(radius + 0.5 - away, 0.0, 1.0)[..., None].astype(np.float32)
    part = picture[top:bottom, left:right]
    part += cover * (np.array(colour, dtype=np.float32) - part)


@njit_fast
def crossing(eye, place, normal, off, index):  # type: ignore[no-untyped-def]
    """Where the ray from an eye to a place behind a flat face passes it: by Snell, halving an interval.

    n t L/hypot(t L, a) = (1 - t) L/hypot((1 - t) L, b). Source: own_appearance
    """
    a = off - (place[0] * normal[0] + place[1] * normal[1] + place[2] * normal[2])
    b = eye[0] * normal[0] + eye[1] * normal[1] + eye[2] * normal[2] - off
    px, py, pz = place[0] + a * normal[0], place[1] + a * normal[1], place[2] + a * normal[2]
    ex, ey, ez = eye[0] - b * normal[0] - px, eye[1] - b * normal[1] - py, eye[2] - b * normal[2] - pz
    long = sqrt(ex * ex + ey * ey + ez * ez)
    low, high = 0.0, 1.0
    for _ in range(60):
        t = 0.5 * (low + high)
        inner, outer = t * long, (1.0 - t) * long
        if index * inner / sqrt(inner * inner + a * a + 1e-18) > outer / sqrt(outer * outer + b * b + 1e-18):
            high = t
        else:
            low = t
    t = 0.5 * (low + high)
    return px + t * ex, py + t * ey, pz + t * ez


@njit_fast
def _marks(world, eye, onto, bubbles, size, out, desk):  # type: ignore[no-untyped-def]
    """Where bubbles are seen on the picture: column, row, radius [px] and linear sRGB of each; how many."""
    block = world.block
    count = 0
    for face in range(block.planes.shape[0]):
        top = face == block.planes.shape[0] - 1
        if block.finish[face, KIND] == PAINTED or block.finish[face, SLOPE] > 0.0 or (top and block.waves.shape[0]):
            continue
        normal = (block.planes[face, 0], block.planes[face, 1], block.planes[face, 2])
        before = eye[0] * normal[0] + eye[1] * normal[1] + eye[2] * normal[2] - block.planes[face, 3]
        if before <= 1.0:
            continue
        for k in range(bubbles.shape[0]):
            place = (bubbles[k, 0], bubbles[k, 1], bubbles[k, 2])
            at = crossing(eye, place, normal, block.planes[face, 3], block.index_of_refraction)
            inset = (at[0] - 1e-6 * normal[0], at[1] - 1e-6 * normal[1], at[2] - 1e-6 * normal[2])
            if not within(block, inset):
                continue
            count = _mark(world, eye, onto, (place, bubbles[k, 3], at, normal), size, out, count, desk)
    return count


@njit_fast
def _mark(world, eye, onto, bubble, size, out, count, desk):  # type: ignore[no-untyped-def]
    place, radius, at, normal = bubble
    wide = size[2]
    x, y, z = at[0] - eye[0], at[1] - eye[1], at[2] - eye[2]
    outer = sqrt(x * x + y * y + z * z)
    deep = onto[2, 0] * x + onto[2, 1] * y + onto[2, 2] * z
    if deep <= 0.0:
        return count
    column = ((onto[0, 0] * x + onto[0, 1] * y + onto[0, 2] * z) / deep + 1.0) * 0.5 * size[1]
    row = ((onto[1, 0] * x + onto[1, 1] * y + onto[1, 2] * z) / deep + 1.0) * 0.5 * size[0]
    px, py, pz = place[0] - at[0], place[1] - at[1], place[2] - at[2]
    inner = sqrt(px * px + py * py + pz * pz)
    d = (px / inner, py / inner, pz / inner)
    pixels = radius / (outer + inner / world.block.index_of_refraction) * outer / deep / (2.0 * wide / size[1])
    if pixels < LEAST_PX:
        return count
    _, found, _, _ = nearest(world.bodies.tree, at, d, inner - radius, desk.stack)
    if found >= 0:
        return count
    cosine = -(normal[0] * x + normal[1] * y + normal[2] * z) / outer
    glare, _ = mirrored(max(cosine, 1e-4), 1.0 / world.block.index_of_refraction)
    desk.seen[:] = 0.0
    for k in range(RAYS):
        desk.depth[:] = 0.0
        wade(world, at, d, inner, (1.0 - glare) / RAYS, desk)
        way = _bent(d, sqrt((k + 0.5) / RAYS), 2.399963 * k, world.block.index_of_refraction)
        chain(world, place, way, (1.0 - glare) / RAYS, desk, k, False)
    # what the face mirrors lies over the bubble too
    desk.depth[:] = 0.0
    back = (x / outer + 2 * cosine * normal[0], y / outer + 2 * cosine * normal[1], z / outer + 2 * cosine * normal[2])
    add_around(world, at, back, glare, desk)
    for c in range(3):
        total = 0.0
        for b in range(desk.seen.shape[0]):
            total += desk.seen[b] * world.spectra[b, c]
        out[count, 3 + c] = total
    out[count, 0], out[count, 1], out[count, 2] = column, row, pixels
    return count + 1


@njit_fast
def _bent(d, off, round_, index):  # type: ignore[no-untyped-def]
    """Where a ray goes that meets a bubble so far off its middle, over its radius: bent twice, or mirrored.

    bend = 2 (asin(n b/r) - asin(b/r)) within 1/n of the middle, pi - 2 asin(b/r) beyond. Source: own_appearance
    """
    inside = asin(off)
    bend = 2.0 * (asin(index * off) - inside) if index * off < 1.0 else pi - 2.0 * inside
    a, b = frame(d)
    p, q, r = sin(bend) * cos(round_), sin(bend) * sin(round_), cos(bend)
    return (r * d[0] + p * a[0] + q * b[0], r * d[1] + p * a[1] + q * b[1], r * d[2] + p * a[2] + q * b[2])
