"""Bubbles as they would hang in the set piece: at true size, the same every time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..answers.bodies import BODIES
from ..answers.book import Book
from ..answers.clarity import Case, case_of
from ..answers.cups import CUPS
from ..answers.fills import VOLUMES
from ..answers.heat import HEAT
from ..cure.clarity import SEEN_MM, gas_left, stirred_left
from ..scene import Scene
from ..shape import bed_heights
from ..units import MM

Array = NDArray[np.float64]

MOST_DRAWN = 1500
"""More of them say no more; the share that is drawn is told then."""
TRIES = 24
"""Places that are drawn for each bubble until one lies in resin."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SeenBubbles:
    """Bubbles that an eye makes out: places from the left, behind the glass and below the fill line, and sizes.

    drawn_fraction  of those that there would be
    """

    x_mm: list[float]
    behind_mm: list[float]
    depth_mm: list[float]
    size_mm: list[float]
    drawn_fraction: float


def seen_bubbles(book: Book, seed: int = 1) -> SeenBubbles:
    """Bubbles of all pours, a Poisson number of each size; the same for a seed.

    They hang evenly in their pour: what rises only part of the way is spread as it was.
    """
    scene = book.scene
    heat, volumes, cups, bodies = book.ask(HEAT), book.ask(VOLUMES), book.ask(CUPS), book.ask(BODIES)
    cases = [case_of(scene, number, heat, volumes, cups, bodies) for number in range(1, len(scene.pours) + 1)]
    means = [_means(case) for case in cases]
    expected = sum(float(count.sum()) for _, count in means)
    share = min(1.0, MOST_DRAWN / expected) if expected > 0 else 1.0
    random = np.random.default_rng(seed)
    drawn = [_placed(scene, number, *mean, share, random) for number, mean in enumerate(means)]
    whole = np.concatenate(drawn) if drawn else np.zeros((0, 4))
    x, behind, depth, size = (np.round(whole[:, at], 2).tolist() for at in range(4))
    return SeenBubbles(x_mm=x, behind_mm=behind, depth_mm=depth, size_mm=size, drawn_fraction=round(share, 4))


def _means(case: Case) -> tuple[Array, Array]:
    """Sizes [mm] that are seen, and how many of each the pour is expected to keep."""
    sizes, counts = stirred_left(case.liquid, case.handling)
    gases = [gas_left(case.liquid, gas, case.handling) for gas in (case.bed, case.figures)]
    size = np.append(sizes, [one for one, _ in gases]) / MM
    count = np.append(counts, [one for _, one in gases]) * case.liquid.volume_ml
    seen = size >= SEEN_MM - 1e-9
    return size[seen], count[seen]


def _placed(
    scene: Scene, index: int, sizes: Array, counts: Array, share: float, random: np.random.Generator
) -> Array:
    """Places and sizes (n, 4) in mm of the bubbles of a pour, those that would lie in the bed left out."""
    tank = scene.tank
    size = np.repeat(sizes, random.poisson(share * counts))
    top = scene.pours[index].top_depth_mm
    floor = scene.pours[index - 1].top_depth_mm if index else tank.fill_height_mm
    places = np.empty((len(size), 3))
    left = np.arange(len(size))
    ground = _ground(scene)
    for _ in range(TRIES):
        places[left] = random.uniform(
            [0.0, 0.0, top], [tank.inner_width_mm, tank.inner_behind_mm, floor], (len(left), 3)
        )
        under = ground[places[left, 1].astype(int), places[left, 0].astype(int)]
        left = left[tank.fill_height_mm - places[left, 2] < under]
        if not len(left):
            break
    kept = np.setdiff1d(np.arange(len(size)), left)
    return np.column_stack([places[kept], size[kept]])


def _ground(scene: Scene) -> Array:
    """Height of the bed at every millimetre [mm]."""
    tank = scene.tank
    across, behind = (np.arange(int(size) + 1, dtype=float) for size in (tank.inner_width_mm, tank.inner_behind_mm))
    return bed_heights(scene.bed, tank, across, behind)
