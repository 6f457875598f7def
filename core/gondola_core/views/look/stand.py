"""From where the piece is looked at, and in which light."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from ...errors import GondolaError
from ...part import Key, Part, bounded
from ...scene import Scene
from ...words import words
from .world import Array

Hour = Literal["day", "evening", "lamp"]
USUAL_MM, USUAL_SIZES = 400.0, 2.5
"""Distance of an eye: so far, or so many times the largest side. Source: own_appearance"""
USUAL_TURN_DEG, USUAL_DOWN_DEG = 20.0, 12.0
STEEPEST_DEG = 85.0
NEAREST_MM = 150.0
"""An eye is kept so far off the block. Source: own_appearance"""
MARGIN = 1.16
"""Room about the block in the picture."""
PRESETS = {"straight": (0.0, 4.0), "corner": (45.0, 12.0), "above": (15.0, 55.0), "low": (12.0, -1.0)}
"""Turn and how far down an eye looks [deg]. Source: own_appearance"""


class Stand(Part):
    """An eye and a light.

    azimuth_deg    how far round the eye stands: 0 before the front, growing to the right
    eye_height_mm  above the shelf; distance_mm  to the middle of the block
    hour           by day, by evening, or with nothing on but the lamp within
    lamp_in        the figure that holds a lamp
    stops          brighter by so many stops than an eye in that room would have it
    """

    azimuth_deg: float = bounded("turn of the eye", "°", -180, 180, default=USUAL_TURN_DEG)
    eye_height_mm: float = bounded("height of the eye above the shelf", "mm", 0, 5000)
    distance_mm: float = bounded("distance of the eye", "mm", NEAREST_MM, 6000)
    hour: Annotated[Hour, Field(title="hour")] = "evening"
    lamp_in: Annotated[Key | None, Field(title="figure that holds the lamp")] = None
    stops: Annotated[int, Field(title="stops brighter", ge=0, le=2)] = 0
    rule: Annotated[bool, Field(title="a rule beside it")] = True
    bubbles: Annotated[bool, Field(title="bubbles as judged")] = True


def usual_stand(scene: Scene, azimuth_deg: float = USUAL_TURN_DEG, down_deg: float = USUAL_DOWN_DEG) -> Stand:
    """The eye that one begins with: before the piece, a little to the side and above."""
    tank = scene.tank
    distance = max(USUAL_MM, USUAL_SIZES * max(tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm))
    high = 0.5 * tank.fill_height_mm + distance * np.sin(np.radians(down_deg))
    return Stand(
        azimuth_deg=azimuth_deg, eye_height_mm=round(max(0.0, float(high)), 1), distance_mm=round(distance, 1)
    )


def middle_of(scene: Scene) -> Array:
    """The middle of the block [mm]."""
    tank = scene.tank
    return np.array([0.5 * tank.inner_width_mm, 0.5 * tank.inner_behind_mm, 0.5 * tank.fill_height_mm])


def eye_place(scene: Scene, stand: Stand) -> Array:
    """Where the eye is [mm], x right, y away from the front, z up from the shelf.

    Raises GondolaError where the height cannot be at that distance, or lies in the block.
    """
    middle = middle_of(scene)
    rise = (stand.eye_height_mm - middle[2]) / stand.distance_mm
    if abs(rise) > np.sin(np.radians(STEEPEST_DEG)):
        least, most = (
            middle[2] + sign * stand.distance_mm * np.sin(np.radians(STEEPEST_DEG)) for sign in (-1, 1)
        )
        raise GondolaError(
            words("look.too_steep", height=stand.eye_height_mm, distance=stand.distance_mm,
                  least=max(0.0, float(least)), most=float(most)), "stand.eye_height_mm",
        )
    flat = np.sqrt(1 - rise**2)
    turn = np.radians(stand.azimuth_deg)
    place = middle + stand.distance_mm * np.array([np.sin(turn) * flat, -np.cos(turn) * flat, rise])
    box = 0.5 * np.array([scene.tank.inner_width_mm, scene.tank.inner_behind_mm, scene.tank.fill_height_mm])
    gap = np.linalg.norm(np.maximum(np.abs(place - middle) - box, 0.0))
    if gap < 20.0:
        raise GondolaError(words("look.too_near", distance=stand.distance_mm), "stand.distance_mm")
    return np.asarray(place)


def camera_of(scene: Scene, stand: Stand, aspect: float) -> Array:
    """Rows of (eye, toward, right, down): a pixel at u, v from -1 to 1 looks along toward + u right + v down, (4, 3).

    The field is as wide as the block needs.
    """
    eye, middle = eye_place(scene, stand), middle_of(scene)
    toward = middle - eye
    toward /= np.linalg.norm(toward)
    right = np.cross(toward, [0.0, 0.0, 1.0])
    right /= np.linalg.norm(right)
    down = np.cross(toward, right)
    half = middle
    corners = middle + half * np.array([[a, b, c] for a in (-1, 1) for b in (-1, 1) for c in (-1, 1)])
    way = corners - eye
    deep = way @ toward
    across, upright = (way @ right) / deep, (way @ down) / deep
    toward = toward + 0.5 * (upright.max() + upright.min()) * down + 0.5 * (across.max() + across.min()) * right
    wide = MARGIN * max(0.5 * np.ptp(across), 0.5 * np.ptp(upright) * aspect)
    return np.stack([eye, toward, wide * right, wide / aspect * down])
