"""Water: a dose and a figure dragged, the picture against bare exponentials, the solver's errors."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import numpy as np
from scipy.optimize import nnls

from gondola_core.answers.kept import Keeper
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint.attenuation import DIFFUSE_PATH, absorption_of_drop
from gondola_core.tint.colour import colour_difference
from gondola_core.tint.solver import card, solve_water, water_types
from gondola_core.units import MM
from gondola_core.views.picture import picture

Timer = Callable[..., float]
SEVEN = [
    "turquoise-ink", "deep-blue-ink", "leaf-green-ink", "yellow-ink", "burnt-umber-ink", "red-ink",
    "black-ink",
]


def dose_moved(step: int) -> dict[str, Any]:
    document = quarry_pool().model_dump(mode="json")
    document["pours"][1]["doses"][0]["dose_drops_per_100g"] = 0.2 + 0.02 * step
    return document


def figure_moved(step: int) -> dict[str, Any]:
    document = quarry_pool().model_dump(mode="json")
    document["figures"][1]["place"]["x_mm"] = 120.0 + step
    return document


def dragged_at_the_server(ask: Callable[[str, dict[str, Any]], None], timed: Timer) -> None:
    """New colours, profile and picture of 480 x 320 after each move."""
    _dragged("dose", dose_moved, ask, timed)
    _dragged("figure", figure_moved, ask, timed)


def _dragged(
    name: str, moved: Callable[[int], dict[str, Any]], ask: Callable[[str, dict[str, Any]], None],
    timed: Timer,
) -> None:
    for step in range(3):
        ask("/api/evaluate", moved(step))
        ask("/api/picture?width=480&file=jpeg", moved(step))
    answers = [timed(lambda s=step: ask("/api/evaluate", moved(s))) for step in range(3, 15)]
    pictures = [timed(lambda s=step: ask("/api/picture?width=480&file=jpeg", moved(s))) for step in range(3, 15)]
    both = np.add(answers, pictures)
    with ThreadPoolExecutor(2) as two:
        def at_once(step: int) -> None:
            body = moved(step)
            list(two.map(lambda url: ask(url, body), ("/api/evaluate", "/api/picture?width=480&file=jpeg")))

        at_once(15)
        together = [timed(lambda s=step: at_once(s)) for step in range(16, 28)]
    print(f"A {name} dragged, at the server, warm")
    print(f"  both asked at once, as the page does: median {np.median(together) * 1e3:.0f} ms"
          "   (to reach: 120)")
    print(f"  one after the other, median {np.median(both) * 1e3:.0f} ms: all answers"
          f" {np.median(answers) * 1e3:.0f}, picture {np.median(pictures) * 1e3:.0f}")


def water(timed: Timer) -> None:
    keeper = Keeper()
    scenes = [scene_from(dose_moved(step)) for step in range(8)]
    picture(scenes[0], "front", 480, {}, keeper)
    step = iter(range(10**6))
    ours = timed(lambda: picture(scenes[next(step) % 8], "front", 480, {}, keeper), 15)
    strengths = np.random.default_rng(1).uniform(0, 3, (320, 480, 31))
    bare = timed(lambda: np.exp(-strengths), 9)
    single = strengths.astype(np.float32)
    bare_single = timed(lambda: np.exp(-single), 9)
    print("Picture 480 x 320 of 31 bands against the bare exponentials of as many")
    print(f"  {ours * 1e3:.0f} ms to {bare * 1e3:.0f} ms: {ours / bare:.2f} times (to reach: at most 3);"
          f" to single precision {bare_single * 1e3:.0f} ms: {ours / bare_single:.2f}")
    document = quarry_pool().model_dump(mode="json")
    document["brief"]["owned"] = SEVEN
    document["wish"] = {"look": {"kind": "scale_true", "water_type": "3C"}, "most_colourants": 7}
    wished = scene_from(document)
    taken = timed(lambda: solve_water(wished), 5)
    print(f"Solver, four layers and seven colourants: {taken:.2f} s (to reach: 1.5)")
    fill = wished.tank.fill_height_mm * MM
    shelf = load_library().colourants
    columns = np.stack([absorption_of_drop(shelf[key]) for key in SEVEN], axis=1)
    print("Mean colour error against SciPy nnls without weights, 7 bottles, 1:48")
    for kind in ("3C", "5C", "9C", "II"):
        document["wish"]["look"]["water_type"] = kind
        solved = solve_water(scene_from(document))
        target = 48 * water_types()[kind] / DIFFUSE_PATH
        plain = columns @ nnls(columns, target)[0]
        theirs = float(colour_difference(card(plain, fill), card(target, fill)).mean())
        print(f"  {kind:3s} ours {solved.mean_de00:.2f}   theirs {theirs:.2f}")
