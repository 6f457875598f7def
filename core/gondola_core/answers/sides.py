"""How far one looks through the resin from each side."""

from __future__ import annotations

from typing import Any

from ..scene.brief import Side


def along_mm(scene: Any, side: Side) -> float:
    """From a side to the one across; from above down to the floor [mm]."""
    tank = scene.tank
    if side == "above":
        return float(tank.fill_height_mm)
    return float(tank.inner_behind_mm if side in ("front", "back") else tank.inner_width_mm)
