"""What the thermometer in a pour, and a finger on it, tell of its bottle while it sets."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import CubicSpline

from ..answers.book import Book
from ..answers.flood import FLOOD, SPANS
from ..answers.grades import Grade
from ..answers.kept import Keeper
from ..answers.march import cells_of, march, room_of, surroundings
from ..cure.cells import CellGeometry
from ..cure.march import Marched, Scrubbing, Tolerance
from ..errors import GondolaError
from ..evaluate import KEEPER
from ..learning.belief import POUR_SCATTER, Belief, factored
from ..learning.cup_fit import RESTART_MISFIT, LogFit, told_of_pour
from ..learning.least_squares import Binned, Fit, Prior, Whitened, best, binned, fitted, root_of
from ..learning.looks import Look, look_residual
from ..learning.temperature_log import step_of
from ..scene import Scene
from ..scene.schedule import ROOM_STEP_H, pour_starts_h
from ..shape import Meshes
from ..units import HOUR, MM
from ..words import words
from .watching import Reading

Array = NDArray[np.float64]
Place = Literal["middle", "wall"]

LEARN = Grade(
    name="learn", cell_mm=18.0, most_cells=900, least_across=5, least_levels=4, base_mm=18.0,
    tolerance=Tolerance(
        temperature_k=0.05, degree=5e-4,
        scrubbing=Scrubbing(change_k=0.4, change_degree=0.02, longest=0.5 * HOUR, most_rows=400),
    ),
)
ROOM_SD_K, LOGGED_SD_K, MIX_SD_K, LOSS_SD, HEIGHT_SD_MM, START_SD = 0.7, 0.3, 0.7, 0.15, 4.0, 300.0
ROUGH = (0.3, 0.03)
"""Priors of what is not known exactly of a pour, and what its model is off. Source: own_learning"""
FEWEST = 4
"""Readings below which only looks count. Source: assumed"""
LOOK_SPAN_H = 72.0
"""Looks are marched so far at most. Source: assumed"""
NEVER_H = 240.0


@dataclass(frozen=True, slots=True)
class _Pour:
    """One pour as it happened, with where its thermometer is and for how long it is heard.

    until  moment from the first pour at which the march ends [s]
    """

    scene: Scene
    cells: CellGeometry
    number: int
    place: Place
    until: float

    @property
    def start(self) -> float:
        """Of this pour [s]."""
        return pour_starts_h(self.scene.pours)[self.number - 1] * HOUR

    def marched(self, logs: Array, *, room_k: float = 0.0, losses: float = 1.0, mix_k: float = 0.0) -> Marched:
        """The march with this bottle's factors and what else is off."""
        mine = self.scene.pours[self.number - 1].resin_id
        resins = [factored(one, logs) if one.id == mine else one for one in self.scene.resins]
        pours = [
            pour.model_copy(update={"mix_c": pour.mix_c + mix_k}) if at == self.number - 1 else pour
            for at, pour in enumerate(self.scene.pours)
        ]
        moved = self.scene.model_copy(update={"pours": pours}) if mix_k else self.scene
        return march(
            moved, self.cells, LEARN, resins=resins, room_offset_k=room_k, losses=losses, until=self.until,
        )

    def levels(self, marched: Marched) -> list[int]:
        """Of this pour."""
        return [at for at, pour in enumerate(marched.pour_of_level) if pour == self.number - 1]

    def curve(self, marched: Marched, at: Array, up: int = 0) -> Array:
        """(n,) what the thermometer shows [degrees C] at moments from the start of the pour [s]."""
        levels = self.levels(marched)
        level = levels[min(len(levels) // 2 + up, len(levels) - 1)]
        plane = marched.history_plane_c[:, level]
        held = np.flatnonzero(np.isfinite(plane[-1]))
        middle = plane.shape[1] / 2 - 0.5
        cell = int(held[np.abs(held - middle).argmin()]) if self.place == "middle" else int(held[0])
        column = plane[:, cell].astype(float)
        known = np.isfinite(column) & (marched.history_at >= self.start - 1.0)
        times, values = _distinct(marched.history_at[known] - self.start, column[known])
        found = CubicSpline(times, values)(np.clip(at, times[0], times[-1]))
        return found if self.place == "middle" else self._outside(found, at)

    def _outside(self, cell_c: Array, at: Array) -> Array:
        """A thermometer taped to the wall: T_room + (T - T_room) R_film/(R_film + R_sheet + R_half cell)."""
        around, resin = surroundings(self.scene), self.scene.resin_of(self.scene.pours[self.number - 1])
        half = float(self.cells.x_faces[1] - self.cells.x_faces[0]) / 2 / resin.conductivity_w_mk
        samples = room_of(self.scene)
        room = np.interp(self.start + at, np.arange(len(samples)) * ROOM_STEP_H * HOUR, samples)
        return np.asarray(room + (cell_c - room) / around.wall_film / (around.wall_resistance + half))

    def moment_h(self, marched: Marched, what: str) -> float:
        """When the top of the pour, away from walls, gels or loses its tack [h]: it is there that one touches."""
        level = self.levels(marched)[-1]
        crossed = marched.crossed_at[0 if what == "gel" else 1, level]
        rows, cells = crossed.shape
        there = float(crossed[rows // 2, cells // 2])
        if not np.isfinite(there):
            known = crossed[np.isfinite(crossed)]
            there = float(np.median(known)) if len(known) else np.nan
        return (there - self.start) / HOUR if np.isfinite(there) else NEVER_H


def _distinct(times: Array, values: Array) -> tuple[Array, Array]:
    keep = np.concatenate([[True], np.diff(times) > 1e-6])
    return times[keep], values[keep]


@dataclass(frozen=True, slots=True, kw_only=True)
class Heard:
    """What was heard of a pour: readings and looks, where the thermometer is, and whether the room was logged."""

    readings: Sequence[Reading]
    looks: Sequence[Look]
    room_logged: bool
    place: Place = "middle"


def fit_pour(
    scene: Scene, number: int, heard: Heard, prior: Belief, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> LogFit:
    """Rate and heat of a pour from its thermometer and its looks.

    scene    as it happened; readings after the next pour has begun are left out
    prior    of the bottle; that of this pour is it with the scatter of pours
    GondolaError for a pour that there is not, and where nothing was read or felt.
    Source: own_learning
    """
    if not 1 <= number <= len(scene.pours):
        raise GondolaError(words("refusals.no_pour", most=len(scene.pours), number=number), "number")
    starts = pour_starts_h(scene.pours)
    ends = starts[number] - starts[number - 1] if number < len(scene.pours) else np.inf
    kept = sorted((one for one in heard.readings if 0 <= one.at_h < ends), key=lambda one: one.at_h)
    kept = kept if len(kept) >= FEWEST else []
    asked = [one for one in heard.looks if one.not_yet_h is not None or one.seen_h is not None]
    if not kept and not asked:
        raise GondolaError(words("learning.nothing_yet"), "number")
    last = max([one.at_h for one in kept], default=0.0)
    until = max([last, *(min(LOOK_SPAN_H, 2.0 * (one.seen_h or one.not_yet_h or 0.0)) for one in asked)]) + 0.5
    book = Book(scene, LEARN, keeper, meshes)
    pour = _Pour(
        scene, cells_of(scene, LEARN, book.ask(SPANS), book.ask(FLOOD)), number, heard.place,
        (starts[number - 1] + min(until, ends)) * HOUR,
    )
    held = prior.scattered(POUR_SCATTER)
    seen = _binned(kept)
    found, curves = _fitted(pour, held, seen, asked, heard.room_logged)
    own = Belief(mean=found.off[:2], covariance=found.covariance[:2, :2])
    return told_of_pour(own, held, found, seen, curves)


def _binned(readings: Sequence[Reading]) -> Binned:
    if not readings:
        return Binned(at=np.zeros(0), values=np.zeros(0), covariance=np.zeros((0, 0)))
    at = np.array([one.at_h for one in readings]) * HOUR
    values = np.array([one.measured_c for one in readings])
    return binned(at, values, step_of(values), ROUGH)


def _fitted(
    pour: _Pour, held: Belief, seen: Binned, looks: Sequence[Look], room_logged: bool
) -> tuple[Fit, Array]:
    """Rate and heat are marched; what else is off moves the curve by its slope at the prior's middle."""
    kept: dict[bytes, Marched] = {}

    def marched(logs: Array) -> Marched:
        key = np.asarray(logs, dtype=float).tobytes()
        if key not in kept:
            kept[key] = pour.marched(logs)
        return kept[key]

    slopes = _slopes(pour, held, seen, marched(held.mean))
    sds = [LOSS_SD, LOGGED_SD_K if room_logged else ROOM_SD_K, MIX_SD_K, HEIGHT_SD_MM, START_SD]
    root = np.zeros((2 + len(sds), 2 + len(sds)))
    root[:2, :2] = np.linalg.cholesky(held.covariance)
    root[2:, 2:] = np.diag(sds)
    prior = Prior(mean=np.concatenate([held.mean, np.zeros(len(sds))]), root=root)

    def curve(off: Array) -> Array:
        return pour.curve(marched(off[:2]), seen.at) + off[2:] @ slopes if len(seen.at) else np.zeros(0)

    def looked(off: Array) -> Array:
        return np.array([
            look_residual(one, pour.moment_h(marched(off[:2]), one.what)) for one in looks
        ])

    whitened = Whitened(values=seen.values, root=root_of(seen.covariance))
    found = fitted(curve, whitened, prior, prior.mean, more=looked if looks else None)
    if found.misfit > RESTART_MISFIT:
        others = [prior.mean + way * np.concatenate([held.sd, np.zeros(len(sds))]) for way in (-1.0, 1.0)]
        found = best([found, *(fitted(curve, whitened, prior, one, more=looked if looks else None) for one in others)])
    return found, np.array([curve(found.off), curve(prior.mean)])


def _slopes(pour: _Pour, held: Belief, seen: Binned, usual: Marched) -> Array:
    """(5, n) by losses, room, mix, height and start, in the middle."""
    if not len(seen.at):
        return np.zeros((5, 0))
    middle = pour.curve(usual, seen.at)
    losses = (pour.curve(pour.marched(held.mean, losses=float(np.exp(LOSS_SD))), seen.at) - middle) / LOSS_SD
    room = pour.curve(pour.marched(held.mean, room_k=1.0), seen.at) - middle
    mix = pour.curve(pour.marched(held.mean, mix_k=1.0), seen.at) - middle
    levels = pour.levels(usual)
    step = float(usual.heights[levels[-1]] - usual.heights[levels[0]]) / max(1, len(levels) - 1) / MM
    height = (pour.curve(usual, seen.at, up=1) - middle) / max(step, 1.0)
    start = -np.gradient(middle, seen.at) if len(seen.at) > 2 else np.zeros(len(seen.at))
    return np.stack([losses, room, mix, height, start])


