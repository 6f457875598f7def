"""What stands about the block: a lamp above, the room, a wall behind, a shelf below, by the hour."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ...scene import Scene
from ...shape import plan_box
from ...tint.attenuation import LIGHTS
from .stand import Stand
from .world import Around, Array, Within

SHELF_SRGB = "#bfae94"
"""Oiled wood. Source: assumed"""
WALL_GAP_MM, WALL_HIGH_MM = 60.0, 1400.0
"""How far behind the block the wall stands, and how high it reaches. Source: assumed"""
LAMP_OVER_MM, LAMP_SIZES, LAMP_LEAST_MM = 220.0, 1.2, 170.0
"""How far over the top the panel hangs, and how wide it is over the block. Source: assumed"""
ROOM_SHARE, ROOM_LEAST, ROOM_UP = 0.9, 0.36, 0.3
"""Radiance of the room: of the light from the front, the least there is, and more of it from above. Source: assumed"""
DAYLIGHT, LAMP_BY_DAY = 0.6, 0.8
"""Radiance of a room by day over a card under its lamp, and what is left of the lamp's weight then. Source: assumed"""
NIGHT = 0.03
"""What is left of the room's lights at night. Source: assumed"""
CARD_OF_LAMP, CARD_OF_WALL = 0.6, 0.3
"""Share of the lamp's light on the top, and of the wall's glow, that a card beside the block gets. Source: assumed"""
CARD = {"day": 0.9, "evening": 0.9, "lamp": 0.9}
"""What a white card beside the block reads; at night as it would in the evening. Source: own_appearance, assumed"""
EVENING_LUX, BULB_LUMEN = 80.0, 1.0
BULB_MM = 1.2
"""On a card in the evening; of a small diode, and its size. Source: assumed"""
MAP_ROWS, MAP_COLUMNS = 24, 32
WALL_REACH_MM, SHELF_REACH_MM, SHELF_BEFORE_MM = 250.0, 220.0, 260.0
"""Cells of the maps of light, and how far they go about the block; beyond, as at their edge."""
RULE_BEFORE_MM, RULE_STEPS, RULE_SHARE = 16.0, 10, 0.8
STEP_MM = {"mm": 10.0, "in": 25.4 / 2}
"""A rule lies before the block: up to ten steps of a centimetre, or of half an inch, fewer before a small one."""


@dataclass(frozen=True, slots=True, eq=False)
class Lit:
    """What stands about, the lamp within, and what makes a display's value of a radiance."""

    around: Around
    within: Within
    gain: float


def lit(scene: Scene, stand: Stand, bands: int, lamp_at: tuple[float, float, float] | None) -> Lit:
    """Light about a scene at an hour; the maps of wall and shelf still even, as without a block, and no rule.

    The lamp within: I = lm/(4 pi) of luminous intensity makes a card r off as light as E_evening does, where
    lm/(4 pi r^2) = 80 lx; in the unit of light I = lm/(4 lx) 10^6 mm2/m2 times that of the card.
    """
    tank = scene.tank
    left, right, front, back = plan_box(tank)
    top_share, front_share, back_share = LIGHTS[scene.brief.light]
    dim, is_day = NIGHT if stand.hour == "lamp" else 1.0, stand.hour == "day"
    evening = _card(top_share, ROOM_SHARE * front_share + ROOM_LEAST, back_share)
    top_share *= LAMP_BY_DAY if is_day else 1.0
    wide, deep = (max(LAMP_SIZES * size, LAMP_LEAST_MM) / 2 for size in (right - left, back - front))
    x, y, high = 0.5 * (left + right), 0.5 * (front + back), tank.fill_height_mm + LAMP_OVER_MM
    radiance = top_share / panel_share(wide, deep, LAMP_OVER_MM)
    room = ROOM_SHARE * front_share + ROOM_LEAST + (DAYLIGHT if is_day else 0.0)
    card = _card(top_share, room, back_share)
    wall_box = (left - WALL_REACH_MM, right + WALL_REACH_MM, 0.0, tank.fill_height_mm + WALL_REACH_MM)
    shelf_box = (left - SHELF_REACH_MM, right + SHELF_REACH_MM, front - SHELF_BEFORE_MM, back + WALL_GAP_MM)
    bulb = Within((x, y, 0.0), BULB_MM, 0.0)
    if lamp_at is not None:
        bulb = Within(lamp_at, BULB_MM, 1e6 * BULB_LUMEN / (4 * EVENING_LUX) * evening)
    size = (MAP_ROWS, MAP_COLUMNS, bands)
    return Lit(
        Around(
            lamp=(x - wide, x + wide, y - deep, y + deep, high, dim * radiance),
            room=(dim * room, dim * ROOM_UP * room),
            wall=(back + WALL_GAP_MM, WALL_HIGH_MM, dim * back_share),
            maps=np.stack([np.full(size, dim * lit * card, np.float32) for lit in (0.5, 1.0)]),
            wall_box=wall_box, shelf_box=shelf_box,
            rule=(0.0, 0.0, 1.0, 0.0),
        ),
        bulb, CARD[stand.hour] / (card if is_day else evening) * 2.0**stand.stops,
    )


def rule_of(scene: Scene) -> tuple[float, float, float, float]:
    """Where the rule lies before the block: x and y from, length of a step, number of steps."""
    left, right, front, _ = plan_box(scene.tank)
    step = STEP_MM[scene.brief.units.length]
    steps = min(RULE_STEPS, max(2, int(RULE_SHARE * (right - left) / step)))
    return 0.5 * (left + right - steps * step), front - RULE_BEFORE_MM, step, float(steps)


def panel_share(wide: float, deep: float, high: float) -> float:
    """Share of a level card's light that a panel over its middle gives: half sizes and height, each alike.

    Source: howell2010
    """
    a, b = wide / high, deep / high
    one = a / np.hypot(1, a) * np.arctan(b / np.hypot(1, a))
    other = b / np.hypot(1, b) * np.arctan(a / np.hypot(1, b))
    return float(2 / np.pi * (one + other))


def _card(top: float, room: float, behind: float) -> float:
    """Light on a white card held level beside the top: of the lamp, the room and the wall. Source: assumed"""
    return float(CARD_OF_LAMP * top + room * (1 + 2 / 3 * ROOM_UP) + CARD_OF_WALL * behind)


def map_points(around: Around) -> tuple[Array, Array, Array, Array]:
    """Middles of the cells of the wall's and of the shelf's map, (cells, 3), and the way that each faces."""
    (x, z), (u, y) = _middles(around.wall_box), _middles(around.shelf_box)
    count = len(x)
    wall = np.column_stack([x, np.full(count, around.wall[0]), z])
    shelf = np.column_stack([u, y, np.zeros(count)])
    return wall, np.tile([0.0, -1.0, 0.0], (count, 1)), shelf, np.tile([0.0, 0.0, 1.0], (count, 1))


def _middles(box: tuple[float, float, float, float]) -> tuple[Array, Array]:
    """Middles of the cells of a map, row by row."""
    u = box[0] + (np.arange(MAP_COLUMNS) + 0.5) / MAP_COLUMNS * (box[1] - box[0])
    v = box[2] + (np.arange(MAP_ROWS) + 0.5) / MAP_ROWS * (box[3] - box[2])
    across, along = np.meshgrid(u, v)
    return across.ravel(), along.ravel()
