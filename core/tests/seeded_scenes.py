"""Scenes by seed: boxes, round, leaning and many-sided tanks, pendants and long tanks, poured once to three times."""

from __future__ import annotations

import numpy as np

from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import Scene, scene_from

HOTTEST_C = 85.0
"""Scenes that get hotter run away: their peaks converge on no grid."""


def seeded_scene(rng: np.random.Generator) -> Scene:
    """A box, a round or many-sided tank, straight or leaning, a pendant or a long tank."""
    kind = rng.choice(["box", "round", "leaning", "pendant", "long", "sides"])
    document = quarry_pool().model_dump(mode="json")
    wide, deep, fill = rng.uniform(60, 220), rng.uniform(50, 140), rng.uniform(15, 70)
    if kind == "pendant":
        wide, deep, fill = rng.uniform(25, 45), rng.uniform(25, 45), rng.uniform(8, 20)
    if kind == "long":
        wide, deep, fill = rng.uniform(400, 600), rng.uniform(100, 200), rng.uniform(20, 60)
    shape: dict[str, object] = {"kind": "box"}
    if kind in ("round", "pendant"):
        shape, deep = {"kind": "round"}, wide
    if kind == "sides":
        shape = {"kind": "regular", "sides_count": int(rng.integers(5, 9))}
    resin = rng.choice(["deep", "deep", "deep", "casting"])
    if resin == "casting":
        fill = min(fill, 24.0)
    count = int(rng.integers(1, 4)) if fill > 24 else 1
    room, mix = rng.uniform(18, 25), rng.uniform(19, 27)
    fill = round(float(fill), 1)
    document["tank"].update(
        inner_width_mm=round(float(wide), 1), inner_behind_mm=round(float(deep), 1), shape=shape,
        taper_deg=round(float(rng.uniform(1, 12)), 1) if kind == "leaning" else 0.0,
        fill_height_mm=fill, wall_height_mm=fill + 12.0,
    )
    document["tank"]["base"]["material"] = _solid(rng.choice(["wood", "wood", "foam"]))
    document["bed"].update(heights_mm=[[0.0, 0.0], [0.0, 0.0]], mesh=None, measured=[])
    document["figures"] = []
    document["brief"]["room"].update(day_c=round(float(room) + 1, 1), night_c=round(float(room) - 1, 1))
    pour = document["pours"][0]
    document["pours"] = [
        {**pour, "id": f"p{n}", "resin_id": str(resin), "mix_c": round(float(mix), 1),
         "top_depth_mm": round(fill * (1 - (n + 1) / count), 1) if n + 1 < count else 0.0,
         "wait_h": 0.0 if n == 0 else (26.0 if resin == "deep" else 9.0)}
        for n in range(count)
    ]
    return scene_from(document)


def _solid(key: str) -> dict[str, object]:
    return load_library().solids[str(key)].model_dump(mode="json")


LARGE_SEED = 3


def large_scene(rng: np.random.Generator) -> Scene:
    """A box of half a metre to a metre, on a plain or a wavy bed, in many thin pours."""
    document = quarry_pool().model_dump(mode="json")
    count = int(rng.integers(3, 26))
    fill = round(float(count * rng.uniform(10, 24)), 1)
    wide, deep = rng.uniform(400, 1000), rng.uniform(200, 700)
    document["tank"].update(
        inner_width_mm=round(float(wide), 1), inner_behind_mm=round(float(deep), 1), shape={"kind": "box"},
        taper_deg=0.0, fill_height_mm=fill, wall_height_mm=fill + 12,
    )
    rows = [[round(float(rng.uniform(0, 0.4)) * fill, 1) for _ in range(4)] for _ in range(3)]
    document["bed"].update(
        heights_mm=rows if rng.random() < 0.5 else [[0.0, 0.0], [0.0, 0.0]], mesh=None, measured=[]
    )
    document["figures"] = []
    pour, wait = document["pours"][0], round(float(rng.uniform(16, 40)), 1)
    document["pours"] = [
        {**pour, "id": f"p{n}", "resin_id": "deep", "mix_c": 22.0, "wait_h": wait if n else 0.0,
         "top_depth_mm": round(fill * (1 - (n + 1) / count), 1) if n + 1 < count else 0.0}
        for n in range(count)
    ]
    return scene_from(document)


def varied_scene(rng: np.random.Generator) -> Scene:
    """One of these with waits, mixes and a bed of all kinds."""
    document = seeded_scene(rng).model_dump(mode="json")
    for pour in document["pours"]:
        pour["wait_h"] = round(float(rng.uniform(0.2, 2.0)) * pour["wait_h"], 1)
        pour["mix_c"] = round(float(rng.uniform(17, 38)), 1)
    fill = document["tank"]["fill_height_mm"]
    rows = [[round(float(rng.uniform(0, 0.4)) * fill, 1) for _ in range(4)] for _ in range(3)]
    document["bed"]["heights_mm"] = rows if rng.random() < 0.5 else [[0.0, 0.0], [0.0, 0.0]]
    return scene_from(document)
