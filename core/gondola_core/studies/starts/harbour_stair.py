"""A harbour stair: steps that begin under water and end above it."""

from datetime import datetime

from ...scene import Box, Capsule, Scene
from ...shape.templates import new_figure
from ..placing import Spot
from .start import Placed, ground, start, thing

STEPS = 9
RISE_MM, TREAD_MM, WIDE_MM = 12.0, 12.0, 34.0


@start("harbour-stair", "Harbour Stair", "A stair that leads out of the water, with a mooring post above it.")
def harbour_stair(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """170 x 110 mm, 90 mm deep; the two uppermost steps stand out."""
    scene = ground(
        "Harbour Stair", "Low tide at a stone quay; somebody left a boat hook.", first_pour_at,
        inside_mm=(170, 110, 90), scale=43, bed=7.0, material="stone", paint="#9a9a8a", base="plywood", water="1C",
    )
    stair = thing("stair", [
        Box(
            kind="box", centre_mm=[TREAD_MM * n, 0, RISE_MM * (n + 1) / 2],
            size_mm=[TREAD_MM, WIDE_MM, RISE_MM * (n + 1)],
        )
        for n in range(STEPS)
    ], "stone", "#a8a698", "on_bed", (22.0, 88.0, 7.0))
    post = thing("mooring post", [
        Capsule(kind="capsule", from_mm=[0, 0, 3], to_mm=[0, 0, 98], radius_mm=3)
    ], "basswood", "#8a6f52", "pin", (150.0, 60.0, 7.0))
    fish = new_figure(scene, "fish", 22.0)
    return scene, "deep", [
        (stair, None), (post, None), (fish, Spot(x_mm=95, behind_mm=40, depth_mm=45)),
        (fish.model_copy(update={"id": "fish-2", "name": "fish 2", "turn_deg": 20.0}),
         Spot(x_mm=60, behind_mm=30, depth_mm=50)),
    ]
