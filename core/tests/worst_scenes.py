"""The scenes that cost the most of those that may be written."""

from changed import changed

from gondola_core.samples import ferry_landing
from gondola_core.scene import scene_from

RESINS = range(3)


def with_resins(scene=None, **values):
    """The ferry, or another scene, whose resins all have some numbers."""
    scene = scene or ferry_landing()
    paths = {f"resins__{n}__{name}": value for n in RESINS for name, value in values.items()}
    return changed(scene, **paths)


def largest(waits_h=12.0, **values):
    """The largest tank there may be, poured in as many pours as there may be over the finest bed."""
    document = ferry_landing().model_dump(mode="json")
    document["figures"] = []
    document["tank"] |= {
        "inner_width_mm": 1200.0, "inner_behind_mm": 1200.0, "wall_height_mm": 600.0, "fill_height_mm": 580.0,
    }
    document["bed"]["heights_mm"] = [[10 + (7 * i + 3 * j) % 11 / 2 for j in range(241)] for i in range(241)]
    tops = [round(580.0 - 14.5 * (n + 1), 2) for n in range(40)]
    document["pours"] = [
        document["pours"][0] | {"id": f"p{n}", "top_depth_mm": max(top, 0.0), "wait_h": waits_h}
        for n, top in enumerate(tops)
    ]
    return with_resins(scene_from(document), **values)
