"""Scenes with some fields changed, by paths such as `pours__1__wait_h`."""

from __future__ import annotations

from typing import Any

from gondola_core.samples import quarry_pool
from gondola_core.scene import Scene, scene_from


def changed(scene: Scene | None = None, **changes: Any) -> Scene:
    """The quarry pool, or another scene, with each path set to its value."""
    made: Any = (scene or quarry_pool()).model_dump(mode="json")
    for path, value in changes.items():
        spot = made
        *way, last = [int(part) if part.isdigit() else part for part in path.split("__")]
        for part in way:
            spot = spot[part]
        spot[last] = value
    return scene_from(made)
