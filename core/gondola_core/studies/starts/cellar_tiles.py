"""Four flooded-cellar tiles: equal shallow pieces from one mix."""

from datetime import datetime

from ...scene import Box, Capsule, Scene
from ..placing import Spot
from .start import Placed, ground, start, thing


@start("cellar-tiles", "Flooded Cellar, Four Tiles", "Four equal shallow tiles: steps, a shelf, one mix for all.")
def cellar_tiles(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """90 mm square, 24 mm deep, four times."""
    scene = ground(
        "Flooded Cellar, Four Tiles", "Tiles that make one cellar on the table.", first_pour_at,
        inside_mm=(90, 90, 24), scale=35, bed=4.0, wall="pvc-foam", seal="tape", base="mdf", material="xps",
        paint="#86827a", resin="casting", water="5C", sides=["above"], pieces=4,
    )
    steps = thing("steps", [
        Box(kind="box", centre_mm=[6.0 * n, 0, 0.5 * (12 - 3 * n)], size_mm=[6, 26, 12 - 3.0 * n]) for n in range(4)
    ], "plaster", "#a19a8a", "on_bed")
    shelf = thing("shelf", [
        Capsule(kind="capsule", from_mm=[-12, 0, 0.8], to_mm=[-12, 0, 12], radius_mm=0.8),
        Capsule(kind="capsule", from_mm=[12, 0, 0.8], to_mm=[12, 0, 12], radius_mm=0.8),
        Box(kind="box", centre_mm=[0, 0, 7], size_mm=[28, 7, 1.2]),
        Box(kind="box", centre_mm=[0, 0, 12.4], size_mm=[28, 7, 1.2]),
    ], "basswood", "#7d6345", "pin")
    cask = thing("cask", [
        Capsule(kind="capsule", from_mm=[-5, 0, 4.5], to_mm=[5, 0, 4.5], radius_mm=4.5)
    ], "basswood", "#6b4a2c", "pin", turn_deg=35)
    return scene, "casting", [
        (steps, Spot(x_mm=10, behind_mm=62)), (shelf, Spot(x_mm=55, behind_mm=78)), (cask, Spot(x_mm=62, behind_mm=32)),
    ]
