"""The light on every surface, gathered by the same chain that draws them, and what haze sends into a ray."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from math import cos, pi, sin, sqrt

import numpy as np

from .bodies import LightPoints
from .bvh import Single, nearest
from .chain import chain, look_along, wade
from .kernels import njit_fast
from .optics import even, frame, mirrored
from .world import KIND, PAINTED, Array, Desk, World, desk_for

HANDS = 2
"""Threads that gather and draw; the kernels let go of the interpreter."""
PUSHED_MM = 0.002
MOST_MIRRORS = 16
"""Faces of a block whose images of a lamp are looked for."""


def in_strips(work: Callable[[int, int, Desk], None], count: int, strip: int, bands: int) -> None:
    """Work done in strips of a range by two hands, each with room of its own; what one raises ends it."""
    starts = range(0, count, strip)
    if len(starts) == 1:
        work(0, count, desk_for(bands))
        return
    with ThreadPoolExecutor(HANDS) as pool:
        jobs = [pool.submit(work, at, min(at + strip, count), desk_for(bands)) for at in starts]
        try:
            for job in jobs:
                job.result()
        except BaseException:
            for job in jobs:
                job.cancel()
            raise


def gathered(world: World, points: Array, normals: Array, directions: int, wanted: Callable[[], None]) -> Single:
    """Light on points over that on a white card, (p, bands), from so many directions over their hemispheres.

    wanted  called now and then; raises when nobody waits any more
    """
    bands = len(world.spectra)
    out = np.zeros((len(points), bands), dtype=np.float32)

    def some(start: int, stop: int, desk: Desk) -> None:
        wanted()
        _gather(world, points, normals, directions, out, (start, stop), desk)

    in_strips(some, len(points), 64, bands)
    return out


def spread(light: Single, points: LightPoints) -> Single:
    """The light of points on every vertex, (v, bands)."""
    out = np.zeros((len(points.near), light.shape[1]), dtype=np.float32)
    for column in range(points.near.shape[1]):
        out += light[points.near[:, column]] * points.share[:, column, None]
    return out


@njit_fast
def within(block, p):  # type: ignore[no-untyped-def]
    """True if a place lies in the block, ripples left aside."""
    for f in range(block.planes.shape[0]):
        if block.planes[f, 0] * p[0] + block.planes[f, 1] * p[1] + block.planes[f, 2] * p[2] > block.planes[f, 3]:
            return False
    return True


@njit_fast
def _halves(number):  # type: ignore[no-untyped-def]
    """A number's binary digits mirrored at the point. Source: hammersley1960"""
    out, part = 0.0, 0.5
    while number:
        out += part * (number & 1)
        number >>= 1
        part *= 0.5
    return out


@njit_fast
def _gather(world, points, normals, directions, out, part, desk):  # type: ignore[no-untyped-def]
    bands = desk.seen.shape[0]
    total = np.zeros(bands)
    for i in range(part[0], part[1]):
        n = (normals[i, 0], normals[i, 1], normals[i, 2])
        p = (points[i, 0] + PUSHED_MM * n[0], points[i, 1] + PUSHED_MM * n[1], points[i, 2] + PUSHED_MM * n[2])
        inside = within(world.block, p)
        across, along = frame(n)
        turned = even(i, 3)
        total[:] = 0.0
        for k in range(directions):
            rise = (k + 0.5) / directions
            round_ = 2.0 * pi * (_halves(k) + turned)
            flat, up = sqrt(rise), sqrt(1.0 - rise)
            u, v = flat * cos(round_), flat * sin(round_)
            d = (u * across[0] + v * along[0] + up * n[0], u * across[1] + v * along[1] + up * n[1],
                 u * across[2] + v * along[2] + up * n[2])
            if inside:
                desk.seen[:] = 0.0
                desk.depth[:] = 0.0
                chain(world, p, d, 1.0, desk, i * 512 + k, False)
            else:
                look_along(world, p, d, desk, i * 512 + k, False)
            for b in range(bands):
                total[b] += desk.seen[b]
        for b in range(bands):
            out[i, b] = total[b] / directions
        if inside and world.within.intensity > 0.0:
            _add_lamp(world, p, n, out[i], desk)


@njit_fast
def _add_lamp(world, p, n, out, desk):  # type: ignore[no-untyped-def]
    """Light of the lamp within on a point: straight, and by its image in every face.

    E/pi = I cos/(pi r^2) exp(-tau) R,  a shadow ray to the face and one on to the lamp
    """
    block, lamp = world.block, world.within
    _one_lamp(world, p, n, lamp.place, -1, out, desk)
    if block.planes.shape[0] > MOST_MIRRORS:
        return
    for f in range(block.planes.shape[0]):
        if block.finish[f, KIND] == PAINTED:
            continue
        normal = (block.planes[f, 0], block.planes[f, 1], block.planes[f, 2])
        off = 2.0 * (block.planes[f, 3] - normal[0] * lamp.place[0] - normal[1] * lamp.place[1]
                     - normal[2] * lamp.place[2])
        image = (lamp.place[0] + off * normal[0], lamp.place[1] + off * normal[1], lamp.place[2] + off * normal[2])
        _one_lamp(world, p, n, image, f, out, desk)


@njit_fast
def _one_lamp(world, p, n, image, face, out, desk):  # type: ignore[no-untyped-def]
    lamp = world.within
    x, y, z = image[0] - p[0], image[1] - p[1], image[2] - p[2]
    far = sqrt(x * x + y * y + z * z)
    d = (x / far, y / far, z / far)
    cosine = d[0] * n[0] + d[1] * n[1] + d[2] * n[2]
    if cosine <= 0.0 or far <= lamp.radius:
        return
    share = 1.0
    first = far
    if face >= 0:
        planes = world.block.planes
        toward = planes[face, 0] * d[0] + planes[face, 1] * d[1] + planes[face, 2] * d[2]
        if toward <= 1e-9:
            return
        here = planes[face, 0] * p[0] + planes[face, 1] * p[1] + planes[face, 2] * p[2]
        first = (planes[face, 3] - here) / toward
        share, _ = mirrored(toward, world.block.index_of_refraction)
        if share < 1e-3 or first >= far:
            return
    _, found, _, _ = nearest(world.bodies.tree, p, d, first - (lamp.radius if face < 0 else 1e-6), desk.stack)
    if found >= 0:
        return
    desk.depth[:] = 0.0
    wade(world, p, d, first, 0.0, desk)
    if face >= 0:
        at = (p[0] + first * d[0], p[1] + first * d[1], p[2] + first * d[2])
        x, y, z = lamp.place[0] - at[0], lamp.place[1] - at[1], lamp.place[2] - at[2]
        second = sqrt(x * x + y * y + z * z)
        on = (x / second, y / second, z / second)
        _, found, _, _ = nearest(world.bodies.tree, at, on, second - lamp.radius, desk.stack)
        if found >= 0:
            return
        wade(world, at, on, second, 0.0, desk)
    lit = share * lamp.intensity * cosine / (pi * far * far)
    for b in range(out.shape[0]):
        out[b] += lit * np.exp(-desk.depth[b])


def mean_radiance(world: World, places: Array, directions: int) -> Array:
    """Mean of what comes from all sides to places in the water, (n, bands)."""
    bands = len(world.spectra)
    out = np.zeros((len(places), bands))
    _all_round(world, places, directions, out, desk_for(bands))
    return out


@njit_fast
def _all_round(world, places, directions, out, desk):  # type: ignore[no-untyped-def]
    for i in range(places.shape[0]):
        p = (places[i, 0], places[i, 1], places[i, 2])
        for k in range(directions):
            up = 1.0 - 2.0 * (k + 0.5) / directions
            round_ = 2.0 * pi * (_halves(k) + even(i, 5))
            flat = sqrt(1.0 - up * up)
            desk.seen[:] = 0.0
            desk.depth[:] = 0.0
            chain(world, p, (flat * cos(round_), flat * sin(round_), up), 1.0, desk, i * 512 + k, False)
            for b in range(out.shape[1]):
                out[i, b] += desk.seen[b] / directions
