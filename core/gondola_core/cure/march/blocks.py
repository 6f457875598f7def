"""What the kernels of the march are given: arrays in blocks by what they are about.

Arrays over cells are (levels+2, cells of a level with its rim of ghosts), each level laid out flat.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Single = NDArray[np.float32]
Whole = NDArray[np.int64]


class Conductances(NamedTuple):
    """To the next cell along x, y, z and to the room [W/K]; inverse capacity [K/J]; heat of cure [J]."""

    gx: Array | Single
    gy: Array | Single
    gz: Array | Single
    ga: Array | Single
    inverse: Array | Single
    heat: Array | Single


class Cells(NamedTuple):
    """The cells so far poured, in double precision and, for the stages, in single.

    levels   how many are in place, from 1 on
    width    of a row with its two ghosts
    """

    levels: int
    width: int
    exact: Conductances
    quick: Conductances
    resin_of_level: Whole
    pour_of_level: Whole


class Chemistry(NamedTuple):
    """`tables.RateTables` as a block."""

    by_temperature: Array
    by_degree: Array
    sharpness: Array
    logistic: Array


class Room(NamedTuple):
    """The room at even steps from the first pour [degrees C], [s]."""

    temperature_c: Array
    step: float


def steady_room(room_c: float, span: float) -> Room:
    """A room that stays as it is [degrees C] for so long [s]."""
    return Room(np.full(4, float(room_c)), span)


class Control(NamedTuple):
    """How far a step may be off, how long it may be [s], when the march may stop, and what conduction decays by [1/s].

    signal  (ended, time reached [s]), shared with who hears of the march
    most_stages   stages after which it stops, of which what is done once a step counts as `step_stages`
    """

    tolerance_k: float
    tolerance_degree: float
    longest_step: float
    stop_below_c: float
    spectral_radius: float
    signal: Array
    most_stages: float
    step_stages: float


class Step(NamedTuple):
    """Both ends of a step: temperature and its slope, degree of cure and its slope."""

    time: float
    length: float
    t0: Array
    ft0: Array
    a0: Array
    fa0: Array
    t1: Array
    ft1: Array
    a1: Array
    fa1: Array


class Notes(NamedTuple):
    """What is kept of each cell.

    thresholds    (pours, marks) degrees of cure that are noted
    reached       how many marks each cell has passed
    crossed_at    (marks, cells) when [s]
    peak, peak_at   hottest moment
    pour_peak     (pours,) hottest so far
    probe         (levels,) cell of each level that tells how it flows; -1: none
    flown         (levels,) its fluidity integral [s/(Pa s)]
    pores         (cells) gas in the pores of the bed there [m3]
    rest_c        (cells) temperature at which it came
    gas           (2, pours) by how much that gas has grown when a pour comes, and at most while that
                  pour is liquid anywhere [m3]
    """

    thresholds: Array
    reached: Whole
    crossed_at: Array
    peak: Array
    peak_at: Array
    pour_peak: Array
    probe: Whole
    flown: Array
    pores: Array
    rest_c: Array
    gas: Array


class Trace(NamedTuple):
    """Rows of history, close where things change quickly.

    at            (rows,) [s]
    kind          (rows,) 0: usual; 1: start of a pour; 2 + pour: that pour's hottest moment
    hottest, least   (rows, levels) hottest resin, least degree of cure
    plane, plane_cure   (rows, levels, cells) of the upright plane in the middle
    plane_first   flat index of the plane's first cell
    made          (1,) rows so far
    gaps          (3,) change of temperature [K], of degree, and time [s] after which a row is due
    now_hot, now_least   (levels,) at the end of the step just made
    """

    at: Array
    kind: Whole
    hottest: Array
    least: Array
    plane: Single
    plane_cure: Single
    plane_first: int
    made: Whole
    gaps: Array
    now_hot: Array
    now_least: Array
