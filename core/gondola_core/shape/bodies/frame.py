"""From a figure's own frame to the tank's: turned about the vertical, then put in its place."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ...scene import Ellipsoid, Figure

Array = NDArray[np.float64]


def turn_matrix(turn_deg: float) -> Array:
    """Rotation about the vertical, anticlockwise seen from above; (3, 3)."""
    angle = np.radians(turn_deg)
    c, s = np.cos(angle), np.sin(angle)
    return np.array([[c, -s, 0.0], [s, c, 0.0], [0.0, 0.0, 1.0]])


def pitch_matrix(pitch_deg: float) -> Array:
    """Rotation that lifts the +x end; (3, 3)."""
    angle = np.radians(pitch_deg)
    c, s = np.cos(angle), np.sin(angle)
    return np.array([[c, 0.0, -s], [0.0, 1.0, 0.0], [s, 0.0, c]])


def roll_matrix(roll_deg: float) -> Array:
    """Rotation about the +x axis that lifts the +y side; (3, 3)."""
    angle = np.radians(roll_deg)
    c, s = np.cos(angle), np.sin(angle)
    return np.array([[1.0, 0.0, 0.0], [0.0, c, -s], [0.0, s, c]])


def figure_matrix(figure: Figure) -> Array:
    """A figure's rotation: rolled, then tilted nose up, then turned; (3, 3)."""
    whole = turn_matrix(figure.turn_deg)
    if figure.tilt_deg or figure.roll_deg:
        whole = whole @ pitch_matrix(figure.tilt_deg) @ roll_matrix(figure.roll_deg)
    return whole


def to_tank(points_mm: Array, figure: Figure) -> Array:
    """Points of a figure's frame, (n, 3), in the tank: right, behind the glass, up [mm]."""
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    return np.asarray(np.asarray(points_mm) @ figure_matrix(figure).T + place)


def ellipsoid_shape(solid: Ellipsoid, figure: Figure) -> tuple[Array, Array]:
    """Centre (3,) and matrix (3, 3) of an ellipsoid in the tank: (p-c)' S^-1 (p-c) <= 1 [mm]."""
    tilt = figure_matrix(figure) @ pitch_matrix(solid.pitch_deg)
    shape = tilt @ np.diag(np.square(solid.radii_mm)) @ tilt.T
    return to_tank(np.array([solid.centre_mm]), figure)[0], np.asarray(shape)
