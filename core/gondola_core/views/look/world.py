"""What the kernels look into, as a few plain arrays; millimetres, x right, y away from the eye, z up from the floor.

Few and large, because every array that is handed from kernel to kernel costs time.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from .bvh import Single, Tree

Array = NDArray[np.float64]
CLEAR, PAINTED = 0.0, 1.0
KIND, SLOPE, EDGE, BENDS = 0, 1, 2, 6
"""Columns of a face's finish."""
GRAINY, LIGHT = 3, 4
"""Columns of a vertex after its paint."""
THROUGH, WITHIN, SOURCE = 0, 1, 2
"""Rows of a cell of water."""
WALL, SHELF = 0, 1
"""Maps of light about the block."""
TO_RGB, OF_RGB, WALL_RHO, SHELF_RHO, PAINT_RHO = 0, 3, 6, 7, 8
"""Columns of the spectra."""


class Bodies(NamedTuple):
    """Surfaces in the block, by vertex.

    corner   (m, 3) vertices of the tree's triangles
    vertex   (v, 4 + bands) linear sRGB, 1 where the bed's grain lies on it, and light over that on a white card
    outside  True if some of it stands out of the block
    """

    tree: Tree
    corner: NDArray[np.int32]
    vertex: Single
    outside: bool


class Block(NamedTuple):
    """A convex body of resin.

    planes   (f, 4) outward normal and distance; the last is the top, the one before it the floor
    finish   (f, 10) of each face: clear or painted, slope of its facets where it is sanded, where its edge begins
             and ends in plan, and the normals at those ends where the wall is round (zeros where it is flat)
    waves    (w, 4) of the top: height, wave numbers across and away, phase
    seams    (k, 2) height and step in index of each layer line
    white    share of the top under white water, and how wide its patches are
    index_of_refraction   of the resin
    inside   a point well within
    """

    planes: Array
    finish: Array
    waves: Array
    seams: Array
    white: tuple[float, float]
    index_of_refraction: float
    inside: tuple[float, float, float]


class Tinted(NamedTuple):
    """Water in even cells from the floor up.

    cells    (cells + 1, 3, bands) optical depth summed from the floor; attenuation, and light scattered into a ray,
             both of a millimetre of the cell above
    per_mm   cells of a millimetre
    hazy     True if anything scatters
    """

    cells: Array
    per_mm: float
    hazy: bool


class Around(NamedTuple):
    """What stands about the block, each a radiance over that of a white card under the unit of light.

    lamp       x from, to, y from, to, height and radiance of the panel above
    room       radiance from the room, level, and how much more from above
    wall       where it stands, how high it reaches, what shines through it
    maps       (2, rows, columns, bands) light that falls on wall and shelf
    wall_box, shelf_box   where the maps lie: x from, to, and z or y from, to
    rule       a rule on the shelf: x from, y from, length of a step, number of steps; 0 steps for none
    """

    lamp: tuple[float, float, float, float, float, float]
    room: tuple[float, float]
    wall: tuple[float, float, float]
    maps: Single
    wall_box: tuple[float, float, float, float]
    shelf_box: tuple[float, float, float, float]
    rule: tuple[float, float, float, float]


class Within(NamedTuple):
    """A small lamp in the block: its place, its size, and its intensity [mm2 of white radiance]; 0 for none."""

    place: tuple[float, float, float]
    radius: float
    intensity: float


class World(NamedTuple):
    """All that a ray can meet.

    spectra  (bands, 9) weights that make linear sRGB, reflectance of linear sRGB paint, and reflectances of the wall,
             of the shelf, and of painted faces
    """

    bodies: Bodies
    block: Block
    water: Tinted
    around: Around
    within: Within
    spectra: Array


class Desk(NamedTuple):
    """Room for a ray to work in: boxes that wait, its optical depth, and what it has seen."""

    stack: NDArray[np.int64]
    depth: Array
    seen: Array


def desk_for(bands: int) -> Desk:
    """Room for rays of so many bands; one a thread."""
    return Desk(np.zeros(64, np.int64), np.zeros(bands), np.zeros(bands))
