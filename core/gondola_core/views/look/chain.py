"""One ray: into the block, from face to face, until it meets a surface or nothing of it is left.

In a convex block nothing branches: at every face the part that leaves ends in what stands about, the part that
stays goes on. All radiances are over the square of the index where they are, so that no factor of it is needed.
Source: own_appearance
"""

from __future__ import annotations

from math import cos, exp, pi, sin, sqrt

import numpy as np

from ..surface_paint import bed_grain
from .bvh import nearest
from .kernels import njit_fast
from .optics import bent, even, facet, mirrored
from .world import (
    BENDS,
    EDGE,
    GRAINY,
    KIND,
    LIGHT,
    OF_RGB,
    PAINT_RHO,
    PAINTED,
    SHELF,
    SHELF_RHO,
    SLOPE,
    SOURCE,
    THROUGH,
    WALL,
    WALL_RHO,
    WITHIN,
)

BOUNCES = 16
LEAST = 1e-3
"""Of a ray: what is left below it takes the light of the room."""
HAZE_STEPS = 10
UNDER_WHITE, UNDER_PAINT = 0.5, 0.2
"""Of the room's light: what comes through white water, and through paint that lies in contact. Source: assumed"""
LAMP_ON_WHITE = 0.2
"""Light on white water over the radiance of the lamp above it. Source: assumed"""
RULE_WIDE_MM, RULE_INKS = 7.0, (0.06, 0.85)
"""Of the rule, and the reflectances of its dark and its pale steps. Source: assumed"""
ENTRY = 4001
"""Number of the facet by which a ray comes in, beside those of its bounces."""
GRAZING = 0.5
"""Sine of the steepest ray that a layer line can mirror."""
STEPS = 4
"""Of Newton's, to the rippled top."""


@njit_fast
def ripple(waves, x, y):  # type: ignore[no-untyped-def]
    """Height of the top over its level, and its slopes across and away."""
    high, across, away = 0.0, 0.0, 0.0
    for k in range(waves.shape[0]):
        phase = waves[k, 1] * x + waves[k, 2] * y + waves[k, 3]
        high += waves[k, 0] * sin(phase)
        turn = waves[k, 0] * cos(phase)
        across += turn * waves[k, 1]
        away += turn * waves[k, 2]
    return high, across, away


@njit_fast
def to_top(block, p, d, t):  # type: ignore[no-untyped-def]
    """The way along a ray to the rippled top, from the way to its level."""
    level = block.planes[block.planes.shape[0] - 1, 3]
    for _ in range(STEPS):
        high, across, away = ripple(block.waves, p[0] + t * d[0], p[1] + t * d[1])
        rises = d[2] - across * d[0] - away * d[1]
        if abs(rises) < 0.05:
            break
        t -= (p[2] + t * d[2] - level - high) / rises
    return t


@njit_fast
def normal_at(block, face, p):  # type: ignore[no-untyped-def]
    """Outward normal of a face where a ray meets it: of the ripple on top, round on round walls."""
    last = block.planes.shape[0] - 1
    plain = (block.planes[face, 0], block.planes[face, 1], block.planes[face, 2])
    if face == last:
        if not block.waves.shape[0]:
            return plain
        _, across, away = ripple(block.waves, p[0], p[1])
        long = sqrt(across * across + away * away + 1.0)
        return -across / long, -away / long, 1.0 / long
    own = block.finish
    if own[face, BENDS] == 0.0 and own[face, BENDS + 1] == 0.0:
        return plain
    ax, ay = own[face, EDGE + 2] - own[face, EDGE], own[face, EDGE + 3] - own[face, EDGE + 1]
    share = ((p[0] - own[face, EDGE]) * ax + (p[1] - own[face, EDGE + 1]) * ay) / (ax * ax + ay * ay)
    share = min(max(share, 0.0), 1.0)
    x = own[face, BENDS] + share * (own[face, BENDS + 2] - own[face, BENDS])
    y = own[face, BENDS + 1] + share * (own[face, BENDS + 3] - own[face, BENDS + 1])
    flat = sqrt(x * x + y * y)
    level = sqrt(1.0 - plain[2] * plain[2])
    return x / flat * level, y / flat * level, plain[2]


@njit_fast
def leaves(block, p, d):  # type: ignore[no-untyped-def]
    """Where a ray from within leaves the block: how far, and by which face."""
    far, face = 1e30, 0
    for f in range(block.planes.shape[0]):
        toward = block.planes[f, 0] * d[0] + block.planes[f, 1] * d[1] + block.planes[f, 2] * d[2]
        if toward > 1e-12:
            here = block.planes[f, 0] * p[0] + block.planes[f, 1] * p[1] + block.planes[f, 2] * p[2]
            t = (block.planes[f, 3] - here) / toward
            if f == block.planes.shape[0] - 1 and block.waves.shape[0]:
                t = to_top(block, p, d, t)
            if t < far:
                far, face = t, f
    return max(far, 0.0), face


@njit_fast
def enters(block, p, d):  # type: ignore[no-untyped-def]
    """Where a ray from without enters the block: how far (infinite if it does not), and by which face."""
    near, far, face = -1e30, 1e30, -1
    for f in range(block.planes.shape[0]):
        toward = block.planes[f, 0] * d[0] + block.planes[f, 1] * d[1] + block.planes[f, 2] * d[2]
        here = block.planes[f, 3] - (
            block.planes[f, 0] * p[0] + block.planes[f, 1] * p[1] + block.planes[f, 2] * p[2]
        )
        if abs(toward) <= 1e-12:
            if here < 0.0:
                return 1e30, -1
        elif toward < 0.0:
            if here / toward > near:
                near, face = here / toward, f
        else:
            far = min(far, here / toward)
    if face < 0 or near >= far or near <= 1e-9:
        return 1e30, -1
    if face == block.planes.shape[0] - 1 and block.waves.shape[0]:
        near = to_top(block, p, d, near)
    return near, face


@njit_fast
def white_patch(block, p):  # type: ignore[no-untyped-def]
    """True where white water lies on the top: blots of a width, the same every time."""
    share, wide = block.white
    if share <= 0.0:
        return False
    total = 0.0
    for octave in range(2):
        per = (1.0 + octave) / wide
        x, y = p[0] * per, p[1] * per
        i, j = int(np.floor(x)), int(np.floor(y))
        u, v = x - i, y - j
        u, v = u * u * (3 - 2 * u), v * v * (3 - 2 * v)
        a, b = even(i * 4099 + j + 17, octave), even((i + 1) * 4099 + j + 17, octave)
        c, e = even(i * 4099 + j + 18, octave), even((i + 1) * 4099 + j + 18, octave)
        total += ((a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + e * u) * v) * (0.65 if octave == 0 else 0.35)
    # what two octaves of even noise exceed in a share of places, near enough to normal: mean 0.5, sd 0.17
    return total > 0.5 + 0.17 * _above(share)


@njit_fast
def _above(share):  # type: ignore[no-untyped-def]
    """What a normal number exceeds in a share of draws. Source: hastings1955"""
    least = min(share, 1.0 - share)
    if least <= 1e-9:
        return -9.0 if share > 0.5 else 9.0
    t = sqrt(-2.0 * np.log(least))
    z = t - (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t**3)
    return z if share < 0.5 else -z


@njit_fast
def _cell(maps, box, u, v):  # type: ignore[no-untyped-def]
    """Cell of a map at a place, and how far in it lies."""
    rows, columns = maps.shape[1], maps.shape[2]
    x = min(max((u - box[0]) / (box[1] - box[0]) * columns - 0.5, 0.0), columns - 1.001)
    y = min(max((v - box[2]) / (box[3] - box[2]) * rows - 0.5, 0.0), rows - 1.001)
    return int(x), int(y), x - int(x), y - int(y)


@njit_fast
def _from_map(maps, one, i, j, x, y, band):  # type: ignore[no-untyped-def]
    above = maps[one, j, i, band] * (1 - x) + maps[one, j, i + 1, band] * x
    below = maps[one, j + 1, i, band] * (1 - x) + maps[one, j + 1, i + 1, band] * x
    return above * (1 - y) + below * y


@njit_fast
def room_light(around, up):  # type: ignore[no-untyped-def]
    """Radiance from the room by how far up it comes from."""
    return around.room[0] + around.room[1] * up


@njit_fast
def add_around(world, p, d, weight, desk):  # type: ignore[no-untyped-def]
    """What stands about the block, met by a ray that has left it, through the water that it came by."""
    around = world.around
    bands = desk.seen.shape[0]
    lamp = around.lamp
    if d[2] > 1e-9 and lamp[5] > 0.0 and p[2] < lamp[4]:
        t = (lamp[4] - p[2]) / d[2]
        x, y = p[0] + t * d[0], p[1] + t * d[1]
        if lamp[0] < x < lamp[1] and lamp[2] < y < lamp[3]:
            for b in range(bands):
                desk.seen[b] += weight * exp(-desk.depth[b]) * lamp[5]
            return
    to_wall = (around.wall[0] - p[1]) / d[1] if d[1] > 1e-9 else 1e30
    to_shelf = -p[2] / d[2] if d[2] < -1e-9 else 1e30
    if to_shelf < to_wall:
        x, y = p[0] + to_shelf * d[0], p[1] + to_shelf * d[1]
        ink = _on_rule(around.rule, x, y)
        i, j, u, v = _cell(around.maps, around.shelf_box, x, y)
        for b in range(bands):
            lit = _from_map(around.maps, SHELF, i, j, u, v, b)
            rho = world.spectra[b, SHELF_RHO] if ink < 0.0 else ink
            desk.seen[b] += weight * exp(-desk.depth[b]) * lit * rho
    elif to_wall < 1e30 and p[2] + to_wall * d[2] < around.wall[1]:
        x, z = p[0] + to_wall * d[0], p[2] + to_wall * d[2]
        i, j, u, v = _cell(around.maps, around.wall_box, x, z)
        for b in range(bands):
            lit = _from_map(around.maps, WALL, i, j, u, v, b) + around.wall[2]
            desk.seen[b] += weight * exp(-desk.depth[b]) * lit * world.spectra[b, WALL_RHO]
    else:
        lit = room_light(around, d[2])
        for b in range(bands):
            desk.seen[b] += weight * exp(-desk.depth[b]) * lit


@njit_fast
def _on_rule(rule, x, y):  # type: ignore[no-untyped-def]
    """Ink of the rule on the shelf; -1 beside it."""
    along, across = (x - rule[0]) / rule[2] if rule[3] > 0.0 else -1.0, y - rule[1]
    if along < 0.0 or along >= rule[3] or across < 0.0 or across > RULE_WIDE_MM:
        return -1.0
    dark = (int(along) % 2 == 0) == (across > RULE_WIDE_MM / 2)
    return RULE_INKS[0] if dark else RULE_INKS[1]


@njit_fast
def _add_surface(world, place, u, v, at, weight, desk):  # type: ignore[no-untyped-def]
    """What a surface sends back of the light that was baked on it."""
    bodies = world.bodies
    i, j, k = bodies.corner[place, 0], bodies.corner[place, 1], bodies.corner[place, 2]
    w = 1.0 - u - v
    vertex = bodies.vertex
    r = w * vertex[i, 0] + u * vertex[j, 0] + v * vertex[k, 0]
    g = w * vertex[i, 1] + u * vertex[j, 1] + v * vertex[k, 1]
    b = w * vertex[i, 2] + u * vertex[j, 2] + v * vertex[k, 2]
    if vertex[i, GRAINY] > 0.5:
        weight *= bed_grain(at[0], at[1], at[2])
    for c in range(desk.seen.shape[0]):
        rho = world.spectra[c, OF_RGB] * r + world.spectra[c, OF_RGB + 1] * g + world.spectra[c, OF_RGB + 2] * b
        lit = w * vertex[i, LIGHT + c] + u * vertex[j, LIGHT + c] + v * vertex[k, LIGHT + c]
        desk.seen[c] += weight * exp(-desk.depth[c]) * rho * lit


@njit_fast
def wade(world, p, d, leg, weight, desk):  # type: ignore[no-untyped-def]
    """A leg through the water: what it takes, and what haze sends into it."""
    water = world.water
    cells, bands = water.cells.shape[0] - 1, desk.depth.shape[0]
    if water.hazy:
        step = leg / HAZE_STEPS
        for k in range(HAZE_STEPS):
            z = p[2] + (k + 0.5) * step * d[2]
            cell = min(max(int(z * water.per_mm), 0), cells - 1)
            for b in range(bands):
                taken = 0.5 * step * water.cells[cell, WITHIN, b]
                desk.depth[b] += taken
                desk.seen[b] += weight * exp(-desk.depth[b]) * step * water.cells[cell, SOURCE, b]
                desk.depth[b] += taken
        return
    low = min(max(p[2] * water.per_mm, 0.0), cells * 1.0)
    high = min(max((p[2] + leg * d[2]) * water.per_mm, 0.0), cells * 1.0)
    if abs(high - low) < 0.25:
        cell = min(int(0.5 * (low + high)), cells - 1)
        for b in range(bands):
            desk.depth[b] += leg * water.cells[cell, WITHIN, b]
        return
    stretch = leg * water.per_mm / abs(high - low)
    i, j = min(int(low), cells - 1), min(int(high), cells - 1)
    u, v = low - i, high - j
    for b in range(bands):
        a = water.cells[i, THROUGH, b] + u * (water.cells[i + 1, THROUGH, b] - water.cells[i, THROUGH, b])
        e = water.cells[j, THROUGH, b] + v * (water.cells[j + 1, THROUGH, b] - water.cells[j, THROUGH, b])
        desk.depth[b] += abs(e - a) * stretch


@njit_fast
def _meets_lamp(within, p, d, far):  # type: ignore[no-untyped-def]
    """How far along a ray the lamp within is met; infinite if it is not, or not before `far`."""
    if within.intensity <= 0.0:
        return 1e30
    x, y, z = within.place[0] - p[0], within.place[1] - p[1], within.place[2] - p[2]
    along = x * d[0] + y * d[1] + z * d[2]
    off = x * x + y * y + z * z - along * along
    if along <= 0.0 or off > within.radius * within.radius:
        return 1e30
    t = along - sqrt(within.radius * within.radius - off)
    return t if 0.0 < t < far else 1e30


@njit_fast
def _faced(ahead, slope, d, turn, number):  # type: ignore[no-untyped-def]
    """The normal that a ray meets, on its far side: of a facet where the face is sanded; and the cosine to it."""
    normal = ahead
    if slope > 0.0:
        normal = facet(ahead, slope, turn, number)
    cosine = normal[0] * d[0] + normal[1] * d[1] + normal[2] * d[2]
    if cosine <= 1e-4:
        normal = ahead
        cosine = max(normal[0] * d[0] + normal[1] * d[1] + normal[2] * d[2], 1e-4)
    return normal, cosine


@njit_fast
def chain(world, p, d, weight, desk, turn, looks):  # type: ignore[no-untyped-def]
    """Follow a ray that is within the block; adds what it meets to `desk.seen`, over the square of the index.

    p, d     place and unit direction, three numbers each
    weight   share of the ray that has come so far; its optical depth is in `desk.depth`
    turn     number that turns the facets of sanded faces
    looks    True for an eye's ray, which sees the lamp within; light that is baked has it already
    """
    block = world.block
    bands = desk.seen.shape[0]
    top = block.planes.shape[0] - 1
    for bounce in range(BOUNCES):
        far, face = leaves(block, p, d)
        leg, found, u, v = nearest(world.bodies.tree, p, d, far, desk.stack)
        if looks:
            bulb = _meets_lamp(world.within, p, d, leg)
            if bulb < 1e30:
                wade(world, p, d, bulb, weight, desk)
                glow = world.within.intensity / (pi * world.within.radius**2)
                for b in range(bands):
                    desk.seen[b] += weight * exp(-desk.depth[b]) * glow
                return
        wade(world, p, d, leg, weight, desk)
        at = (p[0] + leg * d[0], p[1] + leg * d[1], p[2] + leg * d[2])
        if found >= 0:
            _add_surface(world, found, u, v, at, weight, desk)
            return
        if block.finish[face, KIND] == PAINTED or (face == top and white_patch(block, at)):
            lit = room_light(world.around, 0.5) * (UNDER_WHITE if face == top else UNDER_PAINT)
            for b in range(bands):
                desk.seen[b] += weight * exp(-desk.depth[b]) * world.spectra[b, PAINT_RHO] * lit
            return
        plain = normal_at(block, face, at)
        normal, cosine = _faced(plain, block.finish[face, SLOPE], d, turn, bounce)
        share, beyond = mirrored(cosine, block.index_of_refraction)
        if share < 1.0:
            out = bent(d, normal, cosine, beyond, block.index_of_refraction)
            add_around(world, at, out, weight * (1.0 - share), desk)
        weight *= share
        if weight < LEAST:
            break
        x, y, z = d[0] - 2 * cosine * normal[0], d[1] - 2 * cosine * normal[1], d[2] - 2 * cosine * normal[2]
        if x * plain[0] + y * plain[1] + z * plain[2] > -1e-6:
            cosine = plain[0] * d[0] + plain[1] * d[1] + plain[2] * d[2]
            x, y, z = d[0] - 2 * cosine * plain[0], d[1] - 2 * cosine * plain[1], d[2] - 2 * cosine * plain[2]
        p, d = at, (x, y, z)
    for b in range(bands):
        desk.seen[b] += weight * exp(-desk.depth[b]) * room_light(world.around, 0.0)


@njit_fast
def look_along(world, p, d, desk, turn, looks):  # type: ignore[no-untyped-def]
    """What comes along a ray from outside of the block, set into `desk.seen`."""
    block = world.block
    desk.seen[:] = 0.0
    desk.depth[:] = 0.0
    near, face = enters(block, p, d)
    if world.bodies.outside:
        leg, found, u, v = nearest(world.bodies.tree, p, d, near, desk.stack)
        if found >= 0:
            at = (p[0] + leg * d[0], p[1] + leg * d[1], p[2] + leg * d[2])
            _add_surface(world, found, u, v, at, 1.0, desk)
            return
    if face < 0:
        add_around(world, p, d, 1.0, desk)
        return
    at = (p[0] + near * d[0], p[1] + near * d[1], p[2] + near * d[2])
    top = block.planes.shape[0] - 1
    if block.finish[face, KIND] == PAINTED or (face == top and white_patch(block, at)):
        lit = room_light(world.around, 0.0) + (world.around.lamp[5] * LAMP_ON_WHITE if face == top else 0.0)
        for b in range(desk.seen.shape[0]):
            desk.seen[b] = world.spectra[b, PAINT_RHO] * lit
        return
    plain = normal_at(block, face, at)
    ahead, cosine = _faced((-plain[0], -plain[1], -plain[2]), block.finish[face, SLOPE], d, turn, ENTRY)
    share, beyond = mirrored(cosine, 1.0 / block.index_of_refraction)
    back = (d[0] - 2 * cosine * ahead[0], d[1] - 2 * cosine * ahead[1], d[2] - 2 * cosine * ahead[2])
    add_around(world, at, back, share, desk)
    into = bent(d, ahead, cosine, beyond, 1.0 / block.index_of_refraction)
    if abs(into[2]) < GRAZING and block.seams.shape[0]:
        _past_seams(world, at, into, 1.0 - share, desk, turn, looks)
    else:
        chain(world, at, into, 1.0 - share, desk, turn, looks)


@njit_fast
def _past_seams(world, p, d, weight, desk, turn, looks):  # type: ignore[no-untyped-def]
    """The ray that has come in, parted once by a layer line that it grazes: a thin mirror.

    R = ((1 - w)/(1 + w))^2,  w = sqrt(1 - (gc/g)^2),  gc = sqrt(2 dn/n);  left out where R is below 0.005.
    Source: fresnel1823
    """
    seams = world.block.seams
    graze = abs(d[2])
    for k in range(seams.shape[0]):
        critical = sqrt(2.0 * seams[k, 1] / world.block.index_of_refraction)
        if graze >= 2.0 * critical or graze < 1e-9:
            continue
        t = (seams[k, 0] - p[2]) / d[2]
        if t <= 0.0:
            continue
        far, _ = leaves(world.block, p, d)
        leg, _, _, _ = nearest(world.bodies.tree, p, d, far, desk.stack)
        if t >= leg:
            continue
        share = 1.0
        if graze > critical:
            w = sqrt(1.0 - (critical / graze) ** 2)
            share = ((1.0 - w) / (1.0 + w)) ** 2
        wade(world, p, d, t, weight * share, desk)
        at = (p[0] + t * d[0], p[1] + t * d[1], seams[k, 0])
        chain(world, at, (d[0], d[1], -d[2]), weight * share, desk, turn, looks)
        desk.depth[:] = 0.0
        weight *= 1.0 - share
    chain(world, p, d, weight, desk, turn, looks)
