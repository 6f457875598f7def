"""Searches ways of pouring: even ones of each resin first, then what comes of changing the best of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ...answers.bodies import BODIES, FigureBody
from ...answers.book import Book
from ...cure.moments import PourCure
from ...scene import Scene
from ..laying import COOLEST_MIX_C, MOST_POURS, WARMEST_MIX_C, fewest_pours, usual_mix_c
from .screen import Screen, Screened, crosses
from .way import AFTER_HARD, THINNEST_MM, Way, even_tops

Array = NDArray[np.float64]
Told = Callable[[float], None]
Goal = Literal["soonest", "fewest", "surest", "clearest", "cheapest"]
GOALS: tuple[Goal, ...] = ("soonest", "fewest", "surest", "clearest", "cheapest")
"""What may matter, in the order of the five numbers of a way."""

PLANS = 600
"""Ways that are screened."""
MANY_POURS = 8
"""A resin that needs more of them is tried in as few as it can. Source: assumed"""
CLEAR_SHARE = 0.8
"""Of the ways that are changed, those that stop nothing. Source: assumed"""
MORE_POURS = 4
"""Even ways are tried from the fewest pours that the label allows to so many more."""
ALIKE_MM, ALIKE_K = 6.0, 2.0
"""Pours this near in depth and mix have windows near enough for a first guess. Source: assumed"""
BOXES_C = (25.0, 30.0)
"""Warm boxes that are tried. Source: assumed"""
COOL_C = 21.0
"""Mean of a room below which a warm box is tried from the first. Source: assumed"""
SNAP_MM = (0.0, -2.0, 2.0, -4.0, 4.0, -6.0, 6.0)
"""How far a line gives way to faces and to the feet of staged figures. Source: assumed"""


class Search:
    """The ways seen so far, and the front among them; the same seed sees the same ways."""

    def __init__(self, scene: Scene, base: Book, resin_ids: list[str], seed: int) -> None:
        self.scene, self.screen, self.resin_ids = scene, Screen(base), resin_ids
        self.bodies: list[FigureBody] = base.ask(BODIES)
        self.random = np.random.default_rng(seed)
        self.seen: dict[Way, Screened] = {}
        self.front: list[Screened] = []
        self.known: dict[tuple[object, ...], PourCure] = {}

    def run(self, count: int, told: Told) -> list[Screened]:
        """Screen so many ways; the front of all."""
        for way in self._first():
            if len(self.seen) >= count:
                break
            self._try(way, None)
            told(len(self.seen) / count)
        misses = 0
        while len(self.seen) < count and misses < count and self.front:
            parent = self._parent()
            way = self._changed(parent.way)
            if way in self.seen:
                misses += 1
                continue
            self._try(way, [pour.wait_h for pour in parent.scene.pours])
            told(len(self.seen) / count)
        return self.front

    def _parent(self) -> Screened:
        """One of the front, mostly one that stops nothing; of two that are drawn, that of fewer pours."""
        clear = [one for one in self.front if not one.stops]
        among = clear if clear and self.random.random() < CLEAR_SHARE else self.front
        drawn = [among[at] for at in self.random.integers(len(among), size=2)]
        fewer: Screened = min(drawn, key=lambda one: len(one.way.tops_mm))
        return fewer

    def _try(self, way: Way, waits_h: list[float] | None) -> None:
        if way in self.seen:
            return
        kinds = self._kinds(way)
        self.seen[way] = made = self.screen(way, [self.known.get(kind) for kind in kinds], waits_h)
        self.known.update({kind: cure for kind, cure in zip(kinds, made.cures, strict=True) if cure is not None})
        self.front = joined(self.front, made)

    def _kinds(self, way: Way) -> list[tuple[object, ...]]:
        """What the cure of each pour mostly follows from."""
        depths = way.depths_mm(self.scene.tank.fill_height_mm)
        return [
            (resin, round(depth / ALIKE_MM), round(way.mix_c / ALIKE_K), way.fan, way.box_c, at == 0)
            for at, (resin, depth) in enumerate(zip(way.resin_ids, depths, strict=True))
        ]

    def _first(self) -> Iterator[Way]:
        """Even pours of one resin, in its usual number and more, in the order in which they say most."""
        fill, mix_c = self.scene.tank.fill_height_mm, round(usual_mix_c(self.scene), 1)
        for more in range(MORE_POURS):
            for resin_id in self.resin_ids:
                least = fewest_pours(self.scene, resin_id)
                count = least + more
                thin = count > 1 and fill / count < THINNEST_MM
                if count > MOST_POURS or thin or (more and least > MANY_POURS):
                    continue
                tops = self._snapped(even_tops(fill, count))
                for aim, fan, box_c in self._airs():
                    yield Way(
                        tops_mm=tops, resin_ids=(resin_id,) * count, mix_c=mix_c, fan=fan, sealed=True, aim=aim,
                        box_c=box_c,
                    )

    def _airs(self) -> list[tuple[float, bool, float | None]]:
        """Where in the tack, in which air: still or moved, and in a cool room in a warm box, too."""
        kept = self.scene.brief.room.warm_box_c
        airs: list[tuple[float, bool, float | None]] = [(0.3, False, kept), (0.5, False, kept), (0.3, True, kept),
                                                        (0.5, True, kept)]
        if kept is None and self.scene.brief.room.mean_c < COOL_C:
            airs += [(0.4, False, box_c) for box_c in BOXES_C]
        if self.scene.brief.free is not None:
            airs.append((AFTER_HARD, False, kept))
        return airs

    def _changed(self, way: Way) -> Way:
        """A way with one thing done otherwise, or two."""
        for _ in range(1 + int(self.random.random() < 0.4)):
            way = self._one_change(way)
        return way

    def _one_change(self, way: Way) -> Way:
        kind = self.random.integers(9)
        count = len(way.tops_mm)
        if kind <= 1 and count > 1:
            at = int(self.random.integers(count - 1))
            return self._moved(way, at, float(self.random.normal(0, 8)))
        if kind == 2 and count < MOST_POURS:
            return self._with_line(way)
        if kind == 3 and count > 1:
            at = int(self.random.integers(count - 1))
            return replace(way, tops_mm=way.tops_mm[:at] + way.tops_mm[at + 1:],
                           resin_ids=way.resin_ids[:at] + way.resin_ids[at + 1:])
        if kind == 4:
            return self._other_resin(way)
        if kind == 5:
            warmer = way.mix_c + float(self.random.choice([-2.0, -1.0, 1.0, 2.0]))
            return replace(way, mix_c=round(min(WARMEST_MIX_C, max(COOLEST_MIX_C, warmer)), 1))
        if kind == 6:
            return replace(way, fan=not way.fan) if self.random.random() < 0.5 else replace(way, sealed=not way.sealed)
        if kind == 7:
            boxes = [None, *BOXES_C]
            return replace(way, box_c=boxes[int(self.random.integers(len(boxes)))])
        return replace(way, aim=float(self.random.choice([0.2, 0.3, 0.4, 0.5, 0.6, 0.7, AFTER_HARD])))

    def _moved(self, way: Way, at: int, by_mm: float) -> Way:
        tops = list(way.tops_mm)
        tops[at] = self._beside_faces(tops[at] + by_mm)
        return way if not self._holds(tops) else replace(way, tops_mm=tuple(tops))

    def _with_line(self, way: Way) -> Way:
        depths = way.depths_mm(self.scene.tank.fill_height_mm)
        at = int(np.argmax(depths))
        tops = list(way.tops_mm)
        tops.insert(at, self._beside_faces(way.tops_mm[at] + depths[at] / 2))
        if not self._holds(tops):
            return way
        resins = list(way.resin_ids)
        resins.insert(at, resins[at])
        return replace(way, tops_mm=tuple(tops), resin_ids=tuple(resins))

    def _other_resin(self, way: Way) -> Way:
        at = int(self.random.integers(len(way.resin_ids)))
        resins = list(way.resin_ids)
        resins[at] = str(self.random.choice(self.resin_ids))
        return replace(way, resin_ids=tuple(resins))

    def _holds(self, tops: list[float]) -> bool:
        lines = [self.scene.tank.fill_height_mm, *tops]
        return all(below - top >= THINNEST_MM for below, top in zip(lines, tops, strict=False))

    def _snapped(self, tops: tuple[float, ...]) -> tuple[float, ...]:
        """Lines moved beside faces, where they stay in order."""
        moved = [self._beside_faces(top) for top in tops[:-1]] + [0.0]
        return tuple(moved) if self._holds(moved) else tops

    def _beside_faces(self, depth_mm: float) -> float:
        """The place near a depth where a line crosses fewest faces, and lies under a staged figure if one is near."""
        fill = self.scene.tank.fill_height_mm
        feet = [
            fill - float(body.least[2]) for figure, body in zip(self.scene.figures, self.bodies, strict=True)
            if figure.holding == "staged"
        ]
        for foot in feet:
            if abs(foot - depth_mm) <= max(SNAP_MM):
                return round(foot, 1)
        near = [depth_mm + by for by in SNAP_MM]
        best: float = min(near, key=lambda one: (crosses(self.bodies, fill - one, fill), abs(one - depth_mm)))
        return round(best, 1)


def dominates(one: Screened, other: Screened) -> bool:
    """True if a way is nowhere worse than another, and better in something."""
    return all(a <= b for a, b in zip(one.five, other.five, strict=True)) and one.five != other.five


def joined(front: list[Screened], made: Screened) -> list[Screened]:
    """The front with one more: it stands where none is better in all, and what it betters leaves."""
    if any(dominates(one, made) or one.five == made.five for one in front):
        return front
    return [one for one in front if not dominates(made, one)] + [made]
