"""Where a vertical line enters and leaves a simple solid: exact, for whole grids of lines.

Each law takes lines at (x, y) in the tank and returns (low, high) heights, NaN where the line
misses the solid. Lengths are in whatever unit comes in; one unit throughout.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ...scene import Box, Capsule, Ellipsoid, Figure, Solid
from .frame import ellipsoid_shape, to_tank, turn_matrix

Array = NDArray[np.float64]


def ellipsoid_chord(x: Array, y: Array, centre: Array, shape: Array) -> tuple[Array, Array]:
    """Chord of an ellipsoid, the set (p-c)' S^-1 (p-c) <= 1, with S = R diag(r^2) R'.

    x, y    lines, any shape
    centre  (3,)
    shape   S, (3, 3)
    """
    inverse = np.linalg.inv(shape)
    dx, dy = x - centre[0], y - centre[1]
    a = inverse[2, 2]
    b = inverse[0, 2] * dx + inverse[1, 2] * dy
    c = inverse[0, 0] * dx**2 + 2 * inverse[0, 1] * dx * dy + inverse[1, 1] * dy**2 - 1.0
    half = _root(b**2 - a * c) / a
    return centre[2] - b / a - half, centre[2] - b / a + half


def box_chord(
    x: Array, y: Array, centre: Array, size: Array, turn_deg: float
) -> tuple[Array, Array]:
    """Chord of an upright box turned about the vertical; size (3,) across, behind, up."""
    across = turn_matrix(-turn_deg)
    dx, dy = x - centre[0], y - centre[1]
    inside = (np.abs(across[0, 0] * dx + across[0, 1] * dy) <= size[0] / 2) & (
        np.abs(across[1, 0] * dx + across[1, 1] * dy) <= size[1] / 2
    )
    low = np.where(inside, centre[2] - size[2] / 2, np.nan)
    return low, low + size[2]


def capsule_chord(
    x: Array, y: Array, start: Array, end: Array, radius: float
) -> tuple[Array, Array]:
    """Chord of a round bar with round ends: the hull of its two end balls and its barrel."""
    pieces = [_ball_chord(x, y, start, radius), _ball_chord(x, y, end, radius)]
    axis = end - start
    length = float(np.linalg.norm(axis))
    if length > 0:
        pieces.append(_barrel_chord(x, y, start, axis / length, length, radius))
    low = np.fmin.reduce([piece[0] for piece in pieces])
    high = np.fmax.reduce([piece[1] for piece in pieces])
    return low, high


def _ball_chord(x: Array, y: Array, centre: Array, radius: float) -> tuple[Array, Array]:
    half = _root(radius**2 - (x - centre[0]) ** 2 - (y - centre[1]) ** 2)
    return centre[2] - half, centre[2] + half


def _barrel_chord(
    x: Array, y: Array, start: Array, along: Array, length: float, radius: float
) -> tuple[Array, Array]:
    dx, dy = x - start[0], y - start[1]
    flat = along[0] * dx + along[1] * dy
    slant = 1.0 - along[2] ** 2
    if slant < 1e-12:
        half = np.where(dx**2 + dy**2 <= radius**2, 1.0, np.nan)
        low, high = min(0.0, along[2] * length), max(0.0, along[2] * length)
        return start[2] + low * half, start[2] + high * half
    # |d - (d.u)u|^2 = r^2 with d = (dx, dy, t): slant t^2 - 2 u_z flat t + (dx^2+dy^2-flat^2-r^2)
    middle = along[2] * flat / slant
    half = _root(middle**2 - (dx**2 + dy**2 - flat**2 - radius**2) / slant)
    low, high = middle - half, middle + half
    if abs(along[2]) > 1e-12:
        first, last = -flat / along[2], (length - flat) / along[2]
        low = np.maximum(low, np.minimum(first, last))
        high = np.minimum(high, np.maximum(first, last))
    else:
        beside = (flat < 0) | (flat > length)
        low = np.where(beside, np.nan, low)
    missed = ~(low <= high)
    return (
        np.where(missed, np.nan, start[2] + low),
        np.where(missed, np.nan, start[2] + high),
    )


def _root(square: Array) -> Array:
    return np.sqrt(np.where(square >= 0, square, np.nan))


def figure_chords(figure: Figure, x: Array, y: Array) -> list[tuple[slice, slice, Array, Array]]:
    """Chords of a figure's simple solids on the grid lines x (nx,) by y (ny,) [mm].

    Each: (rows, columns) of the window that the solid can touch, and its low and high there.
    Solids that `has_chords` denies are left out: their meshes are met instead.
    """
    chords = []
    turn = turn_matrix(figure.turn_deg)
    for solid in figure.solids:
        if not has_chords(solid, figure):
            continue
        if isinstance(solid, Ellipsoid):
            centre, shape = ellipsoid_shape(solid, figure)
            reach = np.sqrt(np.diag(shape))
            rows, columns = _window(x, y, centre - reach, centre + reach)
            mesh = np.meshgrid(x[columns], y[rows])
            low, high = ellipsoid_chord(mesh[0], mesh[1], centre, shape)
        elif isinstance(solid, Box):
            size = np.array(solid.size_mm)
            centre = to_tank(np.array([solid.centre_mm]), figure)[0]
            reach = np.abs(turn) @ size / 2
            rows, columns = _window(x, y, centre - reach, centre + reach)
            mesh = np.meshgrid(x[columns], y[rows])
            low, high = box_chord(mesh[0], mesh[1], centre, size, figure.turn_deg)
        elif isinstance(solid, Capsule):
            start, end = to_tank(np.array([solid.from_mm, solid.to_mm]), figure)
            least = np.minimum(start, end) - solid.radius_mm
            most = np.maximum(start, end) + solid.radius_mm
            rows, columns = _window(x, y, least, most)
            mesh = np.meshgrid(x[columns], y[rows])
            low, high = capsule_chord(mesh[0], mesh[1], start, end, solid.radius_mm)
        if low.size:
            chords.append((rows, columns, low, high))
    return chords


def has_chords(solid: Solid, figure: Figure) -> bool:
    """True where a vertical line's chord is known in closed form."""
    upright = figure.tilt_deg == 0 and figure.roll_deg == 0
    return isinstance(solid, Ellipsoid | Capsule) or (isinstance(solid, Box) and upright)


def solid_volume(solid: Ellipsoid | Box | Capsule) -> float:
    """Volume of one simple solid [mm3]; closed forms."""
    if isinstance(solid, Ellipsoid):
        return float(4.0 / 3.0 * np.pi * np.prod(solid.radii_mm))
    if isinstance(solid, Box):
        return float(np.prod(solid.size_mm))
    length = float(np.linalg.norm(np.subtract(solid.to_mm, solid.from_mm)))
    return float(np.pi * solid.radius_mm**2 * (length + 4.0 / 3.0 * solid.radius_mm))


def _window(x: Array, y: Array, least: Array, most: Array) -> tuple[slice, slice]:
    columns = slice(int(np.searchsorted(x, least[0])), int(np.searchsorted(x, most[0], "right")))
    rows = slice(int(np.searchsorted(y, least[1])), int(np.searchsorted(y, most[1], "right")))
    return rows, columns
