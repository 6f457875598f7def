"""A mill pond whose wheel stands out of the water."""

from datetime import datetime
from math import cos, pi, sin

from ...scene import Box, Capsule, Scene
from ...shape.templates import new_figure
from ..placing import Spot
from .start import Placed, ground, start, thing

PADDLES = 12
RIM_MM, HUB_MM = 30.0, 4.0


@start("mill-pond", "Mill Pond", "A wheel with its lower third in the water; reeds, and a shallow bank.")
def mill_pond(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """170 x 120 mm, 70 mm deep; the wheel's hub is above the water."""
    scene = ground(
        "Mill Pond", "The wheel has stood still for years.", first_pour_at,
        inside_mm=(170, 120, 70), scale=60, bed="slope", paint="#9c8a5c", water="1C",
    )
    at = [2 * pi * n / PADDLES for n in range(PADDLES)]
    spokes = [
        Capsule(kind="capsule", from_mm=[0, 0, 0], to_mm=[RIM_MM * cos(a), 0, RIM_MM * sin(a)], radius_mm=1.0)
        for a in at
    ]
    paddles = [
        Box(kind="box", centre_mm=[RIM_MM * cos(a), 0, RIM_MM * sin(a)], size_mm=[4, 12, 4]) for a in at
    ]
    hub = Capsule(kind="capsule", from_mm=[0, -8, 0], to_mm=[0, 8, 0], radius_mm=HUB_MM)
    wheel = thing("wheel", [*spokes, *paddles, hub], "basswood", "#a07a50", "wire", (118.0, 84.0, 82.0))
    reeds = new_figure(scene, "tuft", 40.0)
    fish = new_figure(scene, "fish", 18.0)
    return scene, "deep", [
        (wheel, None), (reeds, Spot(x_mm=60, behind_mm=80)), (fish, Spot(x_mm=110, behind_mm=35, depth_mm=30)),
    ]
