"""The stager against NSGA-II with ten times as many evaluations, and chances against a longer run.

Hypervolume of the five numbers of a way, each over a stated worst: 10 days, 12 sessions, certain stop,
dE 12 and twice the resin of the plan as it is; what is beyond counts nothing.
"""

from __future__ import annotations

import time

import numpy as np
from pymoo.algorithms.moo.nsga2 import NSGA2
from pymoo.core.problem import ElementwiseProblem
from pymoo.indicators.hv import HV
from pymoo.optimize import minimize

from gondola_core.answers.book import Book
from gondola_core.answers.cups import CUPS
from gondola_core.answers.kept import Keeper
from gondola_core.samples import quarry_pool
from gondola_core.scene import Scene
from gondola_core.studies.chances import chances
from gondola_core.studies.front import front_for
from gondola_core.studies.front.screen import Screen, Screened
from gondola_core.studies.front.search import PLANS, Search
from gondola_core.studies.front.way import THINNEST_MM, Way

MOST_POURS = 10
TIMES = 10


def worst_of(scene: Scene) -> np.ndarray:
    mix_kg = sum(cup.mix.mix_g for cup in Book(scene, keeper=Keeper()).ask(CUPS)) / 1000
    return np.array([10.0, 12.0, 1.0, 12.0, 2 * mix_kg])


def volume(front: list[Screened], worst: np.ndarray) -> float:
    """Share of the box between nought and the worst that a front dominates."""
    five = np.array([one.five for one in front]) / worst
    return float(HV(ref_point=np.ones(5))(five))


class Ways(ElementwiseProblem):  # type: ignore[misc]
    """Every gene from 0 to 1: number of pours, their shares of the depth, resin of each, mix, air, seal, aim."""

    def __init__(self, scene: Scene, resin_ids: list[str]) -> None:
        super().__init__(n_var=5 + 2 * MOST_POURS, n_obj=5, xl=0.0, xu=1.0)
        self.scene, self.resin_ids = scene, resin_ids
        self.screen = Screen(Book(scene, keeper=Keeper()))
        self.seen: list[Screened] = []

    def _evaluate(self, x: np.ndarray, out: dict[str, object], *_: object, **__: object) -> None:
        made = self.screen(self.way(x))
        self.seen.append(made)
        out["F"] = made.five

    def way(self, x: np.ndarray) -> Way:
        count = 1 + min(MOST_POURS - 1, int(x[0] * MOST_POURS))
        shares = 0.15 + x[5 : 5 + count]
        fill = self.scene.tank.fill_height_mm
        tops = fill * (1 - np.cumsum(shares) / shares.sum())
        depths = np.diff([0.0, *(fill - tops)])
        if depths.min() < THINNEST_MM:
            tops = fill * (1 - np.arange(1, count + 1) / count)
        resins = [self.resin_ids[min(len(self.resin_ids) - 1, int(one * len(self.resin_ids)))]
                  for one in x[5 + MOST_POURS : 5 + MOST_POURS + count]]
        return Way(
            tops_mm=(*(round(float(top), 1) for top in tops[:-1]), 0.0), resin_ids=tuple(resins),
            mix_c=round(18 + 12 * float(x[1]), 1), fan=bool(x[2] > 0.5), sealed=bool(x[3] > 0.5),
            aim=round(0.2 + 0.5 * float(x[4]), 2),
        )


def against_nsga2(scene: Scene) -> None:
    seen_from = scene.brief.model_copy(update={"viewing_sides": scene.brief.viewing_sides[:1]})
    scene = scene.model_copy(update={"brief": seen_from})
    resins = [one.id for one in scene.resins if one.light is None]
    worst = worst_of(scene)
    start = time.perf_counter()
    search = Search(scene, Book(scene, keeper=Keeper()), resins, seed=1)
    front = search.run(PLANS, lambda _: None)
    ours_s = time.perf_counter() - start
    start = time.perf_counter()
    problem = Ways(scene, resins)
    minimize(problem, NSGA2(pop_size=100), ("n_eval", TIMES * PLANS), seed=1, verbose=False)
    theirs_s = time.perf_counter() - start
    ours, theirs = volume(front, worst), volume(problem.seen, worst)
    print(f"Stager, {len(search.seen)} ways, against NSGA-II with {len(problem.seen)}")
    print(f"  hypervolume {ours:.4f} against {theirs:.4f}: {ours / theirs:.3f} times   (to reach: 1)")
    print(f"  {ours_s:.1f} s against {theirs_s:.1f} s")


def whole_search(scene: Scene) -> None:
    start, used = time.perf_counter(), time.process_time()
    front = front_for(scene, [one.id for one in scene.resins if one.light is None], keeper=Keeper())
    print(f"Stager of the demo with its shown plans: {time.perf_counter() - start:.1f} s, of the processor"
          f" {time.process_time() - used:.1f} s, {front.plans_count} ways   (to reach: 20 s, 600)")


def draws(scene: Scene) -> None:
    start = time.perf_counter()
    few = chances(scene, 128, keeper=Keeper())
    taken = time.perf_counter() - start
    many = chances(scene, 1024, seed=2, keeper=Keeper())
    peak = max(
        max(abs(a.peak_low_c - b.peak_low_c), abs(a.peak_high_c - b.peak_high_c))
        for a, b in zip(few.pours, many.pours, strict=True)
    )
    hours = max(
        max(abs(a.opens_low_h - b.opens_low_h), abs((a.opens_high_h or 0) - (b.opens_high_h or 0)))
        for a, b in zip(few.pours, many.pours, strict=True)
    )
    print(f"Chances, 128 draws in {taken:.1f} s   (to reach: 10)")
    print(f"  ends of the bands against 1024 draws of another seed: {peak:.2f} K, {hours:.2f} h"
          "   (to reach: 1.5 K, 1 h)")


def staging() -> None:
    whole_search(quarry_pool())
    draws(quarry_pool())
    against_nsga2(quarry_pool())


if __name__ == "__main__":
    staging()
