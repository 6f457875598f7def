"""What a thermometer in a cup would read, for a bottle's rate and heat and all else that is not known exactly."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import IntEnum
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from ..cure.cup import PLASTIC, cup_cells, cup_shape, cup_wall_mm
from ..cure.losses import BASE_FILM, TOP_FILM, WALL_FILM, Surroundings
from ..cure.march import Marched, Room, Scrubbing, TimedPour, Tolerance, march_pours
from ..materials import Resin
from ..units import G_PER_ML, HOUR, MM, G
from .belief import factored

Array = NDArray[np.float64]

FOAM_W_MK = 0.035
"""Of the foam that a cup is set in. Source: own_learning"""
ACROSS = 7
"""Cells across the cup of a fit; odd, so that one is on its axis. Its peak is within 0.8 K of fine cells (tested)."""
CLOSE = Tolerance(
    temperature_k=0.02, degree=2e-4,
    scrubbing=Scrubbing(change_k=0.2, change_degree=0.01, longest=0.2 * HOUR, most_rows=1500),
)
ROOM_STEP = 300.0
"""seconds between samples of the room"""
KEPT_MARCHES = 64
"""Some steps of a fit: what was marched for the slopes is asked again."""


DEEP_MM, FILM_MM = 30.0, 8.0
"""Depth of a pour from which a resin is one of deep pours, and below which one of films. Source: assumed"""
Class = Literal["deep", "casting", "coating"]


def class_of(resin: Resin) -> Class:
    """By how deep it pours: which cups are safe, and which tell something."""
    if resin.most_pour_mm >= DEEP_MM:
        return "deep"
    return "coating" if resin.most_pour_mm < FILM_MM else "casting"


class Off(IntEnum):
    """What is fitted, in this order: logarithms of rate, heat and losses; room [K], its drift to the end [K],
    start [s], mix [K], lag of the sensor [s], height of the sensor over the middle [mm]."""

    RATE = 0
    HEAT = 1
    LOSS = 2
    ROOM = 3
    DRIFT = 4
    MIX = 5
    START = 6
    LAG = 7
    HEIGHT = 8


MARCHED = Off.MIX + 1
"""The first so many change the march; the rest only how it is read."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Cup:
    """A cup as it stands: plain, or set in foam of so many mm under and around, with a lid of it."""

    resin: Resin
    mass_g: float
    mix_c: float
    wrap_mm: float = 0.0
    lid: bool = False

    @property
    def wall_mm(self) -> float:
        """Of the plastic."""
        return cup_wall_mm(self.mass_g)


@dataclass(slots=True)
class CupModel:
    """Temperatures at the axis of a cup.

    at         (n,) moments that are asked for, from mixing [s]
    room_c     (m,) the room every `ROOM_STEP` from mixing on
    """

    cup: Cup
    at: Array
    room_c: Array
    _kept: dict[bytes, Marched] = field(default_factory=dict)

    def marched(self, off: Array) -> Marched:
        """The march with what is off; kept, as many steps move only how it is read."""
        key = np.asarray(off[:MARCHED], dtype=float).tobytes()
        found = self._kept.get(key)
        if found is None:
            found = self._march(off)
            if len(self._kept) >= KEPT_MARCHES:
                self._kept.pop(next(iter(self._kept)))
            self._kept[key] = found
        return found

    def _march(self, off: Array) -> Marched:
        cup, end = self.cup, float(self.at[-1]) + 0.5 * HOUR
        radius_mm, fill_mm = cup_shape(cup.mass_g, cup.resin, "cup")
        steps = np.arange(len(self.room_c)) * ROOM_STEP
        room = self.room_c + off[Off.ROOM] + off[Off.DRIFT] * steps / max(float(steps[-1]), ROOM_STEP)
        resin = factored(cup.resin, off[:2])
        held = 1.0 + wall_share(cup, radius_mm * MM, fill_mm * MM)
        resin = resin.model_copy(update={"heat_capacity_j_kgk": resin.heat_capacity_j_kgk * held})
        return march_pours(
            cup_cells(radius_mm * MM, fill_mm * MM, ACROSS),
            cup_surroundings(cup, radius_mm * MM, float(np.exp(off[Off.LOSS]))), [resin],
            [TimedPour(start=0.0, mix_c=cup.mix_c + float(off[Off.MIX]), resin=0)], Room(room, ROOM_STEP), end, CLOSE,
        )

    def curve(self, off: Array) -> Array:
        """(n,) what the thermometer reads [degrees C]."""
        marched = self.marched(off)
        base, middle = marched.base_levels, ACROSS // 2
        heights = marched.heights[base:]
        height = 0.5 * (heights[0] + heights[-1]) + float(off[Off.HEIGHT]) * MM
        place = float(np.interp(height, heights, np.arange(len(heights))))
        low = min(int(place), len(heights) - 2)
        share = place - low
        column = marched.history_plane_c[:, base:, middle].astype(float)
        axis = (1 - share) * column[:, low] + share * column[:, low + 1]
        when = self.at - float(off[Off.START]) - float(off[Off.LAG])
        times = marched.history_at
        cooled = _cooled(when, times, axis, self.room_c)
        within = CubicSpline(times, axis)(np.clip(when, 0.0, times[-1]))
        return np.asarray(np.where(when > times[-1], cooled, within))


def _cooled(when: Array, times: Array, axis: Array, room_c: Array) -> Array:
    """After a march that ended for being cool and hard: on to the room at the pace of its last hour."""
    last = float(axis[-1])
    earlier = float(np.interp(times[-1] - HOUR, times, axis))
    room = float(np.interp(times[-1], np.arange(len(room_c)) * ROOM_STEP, room_c))
    left, was = max(last - room, 1e-3), max(earlier - room, 2e-3)
    pace = max(np.log(was / left), 1e-3) / HOUR
    now = np.interp(when, np.arange(len(room_c)) * ROOM_STEP, room_c)
    return np.asarray(now + (last - room) * np.exp(-pace * np.maximum(when - times[-1], 0.0)))


def wall_share(cup: Cup, radius: float, fill: float) -> float:
    """Heat that the wall of a cup holds, over that of its resin. Source: definition"""
    wall = 2 * np.pi * radius * fill * cup.wall_mm * MM * PLASTIC.density_g_ml * G_PER_ML
    resin = cup.mass_g * G * cup.resin.heat_capacity_j_kgk
    return float(wall * PLASTIC.heat_capacity_j_kgk / resin)


def cup_surroundings(cup: Cup, radius: float, losses: float = 1.0) -> Surroundings:
    """Wall, base and films of a cup; foam adds to the films.

        1/h' = t/k + 1/h under and over it,   r ln((r + t)/r)/k + r/((r + t) h) around it

    losses  factor on all of them
    Source: definition
    """
    foam = cup.wrap_mm * MM
    around = radius * np.log1p(foam / radius) / FOAM_W_MK + radius / ((radius + foam) * WALL_FILM)
    flat = foam / FOAM_W_MK
    return Surroundings(
        wall=PLASTIC, wall_thickness=cup.wall_mm * MM, base=PLASTIC, base_thickness=2 * cup.wall_mm * MM,
        top_film=losses / ((flat if cup.lid else 0.0) + 1 / TOP_FILM),
        wall_film=losses / float(around), base_film=losses / (flat + 1 / BASE_FILM),
    )
