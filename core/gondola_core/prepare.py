"""Compiles the kernels, or loads what was compiled before: else the first question of each kind waits for that."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from .answers.kept import Keeper
from .evaluate import evaluate
from .samples import quarry_pool
from .shape.bodies.estimated import estimated_solid
from .shape.bodies.mesh import TriMesh
from .studies.stills import still_png
from .views.look.bake import mean_radiance
from .views.look.look import MOVING, Asked, lit_world, look
from .views.look.stand import usual_stand
from .views.picture import picture

SMALL = (120, 75)
"""Dots of the pictures that are drawn for it, across and down."""


def prepare_heat() -> None:
    """Volumes, heat and cure, and meshes that do not close."""
    evaluate(quarry_pool())
    corners = np.array([[0.0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1]])
    estimated_solid(TriMesh(corners, np.array([[0, 2, 1], [0, 1, 3], [0, 3, 2]], dtype=np.int32)))


def prepare_pictures() -> None:
    """The section, and the block as it will look, in haze too."""
    scene, keeper = quarry_pool(), Keeper()
    picture(scene, "front", 400, {}, keeper)
    asked = Asked(usual_stand(scene), *SMALL, MOVING)
    look(scene, asked, {}, keeper)
    world, _ = lit_world(scene, asked, {}, keeper)
    # what haze sends into a ray: from one place in the water [mm], by a few directions
    mean_radiance(world, np.array([[10.0, 10.0, 100.0]]), 4)


def prepare_stills() -> None:
    """The block at rest, with its bubbles: its light alone takes some seconds."""
    still_png(quarry_pool(), usual_stand(quarry_pool()), SMALL, lambda _: None)


PARTS: dict[str, Callable[[], None]] = {"heat": prepare_heat, "pictures": prepare_pictures, "stills": prepare_stills}
