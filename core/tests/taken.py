"""Takes a remedy on the scene that it was made for."""

from __future__ import annotations

from gondola_core.checks import Remedy
from gondola_core.scene import Scene
from gondola_core.scene.edits import apply_edit


def taken(scene: Scene, remedy: Remedy) -> Scene:
    """The scene with a remedy taken."""
    return apply_edit(scene, remedy.edits, remedy.digest)
