"""A block of resin with nothing in it, in light that a closed form knows."""

import numpy as np

from gondola_core.views.look.bvh import tree_of
from gondola_core.views.look.chain import look_along
from gondola_core.views.look.world import CLEAR, LIGHT, Around, Block, Bodies, Tinted, Within, World, desk_for

WIDE, DEEP, HIGH = 200.0, 100.0, 120.0


def sides(corners):
    """Planes of upright walls through corners, anticlockwise."""
    corners = np.asarray(corners, dtype=float)
    along = np.roll(corners, -1, axis=0) - corners
    out = np.stack([along[:, 1], -along[:, 0]], axis=1)
    out /= np.linalg.norm(out, axis=1)[:, None]
    return np.column_stack([out, np.zeros(len(out)), (out * corners).sum(axis=1)])


def plain_block(corners=((0, 0), (WIDE, 0), (WIDE, DEEP), (0, DEEP)), index=1.52, waves=None, seams=None):
    planes = np.concatenate([sides(corners), [[0, 0, -1, 0], [0, 0, 1, HIGH]]])
    finish = np.zeros((len(planes), 10))
    finish[:, 0] = CLEAR
    middle = np.mean(corners, axis=0)
    return Block(
        planes=planes, finish=finish, waves=np.zeros((0, 4)) if waves is None else np.array(waves, dtype=float),
        seams=np.zeros((0, 2)) if seams is None else np.array(seams, dtype=float), white=(0.0, 10.0),
        index_of_refraction=float(index), inside=(float(middle[0]), float(middle[1]), HIGH / 2),
    )


def plain_world(block=None, *, room=0.0, wall=0.0, shelf=0.0, taken_mm=0.0, corners=None, light=1.0, paint=1.0):
    """One band; wall and shelf of a radiance; bodies of triangles (m, 3, 3) with a light on them."""
    corners = np.zeros((0, 3, 3)) if corners is None else np.asarray(corners, dtype=float)
    tree, order = tree_of(corners)
    vertex = np.zeros((max(3 * len(corners), 3), LIGHT + 1), dtype=np.float32)
    vertex[:, :3] = paint
    vertex[:, LIGHT] = light
    numbers = np.arange(3 * max(len(corners), 1), dtype=np.int32).reshape(-1, 3)
    cells = np.zeros((513, 3, 1))
    cells[:, 0, 0] = np.linspace(0, taken_mm * HIGH, 513)
    cells[:, 1] = taken_mm
    maps = np.zeros((2, 4, 4, 1), dtype=np.float32)
    maps[0], maps[1] = wall, shelf
    return World(
        bodies=Bodies(tree, np.ascontiguousarray(numbers[order] if len(corners) else numbers), vertex, False),
        block=block or plain_block(), water=Tinted(cells, 512 / HIGH, False),
        around=Around(
            lamp=(0.0, 0.0, 0.0, 0.0, 400.0, 0.0), room=(float(room), 0.0), wall=(DEEP + 60.0, 1e9, 0.0), maps=maps,
            wall_box=(-500.0, 500.0, 0.0, 500.0), shelf_box=(-500.0, 500.0, -500.0, 500.0), rule=(0.0, 0.0, 10.0, 0.0),
        ),
        within=Within((0.0, 0.0, 0.0), 1.0, 0.0),
        spectra=np.array([[1.0, 1.0, 1.0, 0.5, 0.25, 0.25, 1.0, 1.0, 1.0]]),
    )


def seen(world, eye, way, turn=0):
    """Radiance along a ray from outside."""
    desk = desk_for(1)
    way = np.asarray(way, dtype=float)
    way /= np.linalg.norm(way)
    look_along(world, tuple(float(x) for x in eye), tuple(way.tolist()), desk, turn, True)
    return float(desk.seen[0])
