"""A canal lock gate: two leaves of planks against the water."""

from datetime import datetime

from ...scene import Box, Scene
from ...shape.templates import new_figure
from ..placing import Spot
from .start import Placed, ground, start, thing

PLANKS = 6


def _leaf(name: str, x_mm: float, turn_deg: float) -> Placed:
    """Upright planks side by side behind two rails; higher than the water."""
    planks = [
        Box(kind="box", centre_mm=[9.0 * (n - (PLANKS - 1) / 2), 0, 44], size_mm=[8.6, 3, 88]) for n in range(PLANKS)
    ]
    rails = [Box(kind="box", centre_mm=[0, 2.6, high], size_mm=[54, 3, 5]) for high in (16.0, 70.0)]
    return thing(name, [*planks, *rails], "basswood", "#9a7d58", "pin", (x_mm, 62.0, 8.0), turn_deg=turn_deg), None


@start("lock-gate", "Lock Gate", "Two leaves of planks that meet under water, seen from the side of the boats.")
def lock_gate(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """170 x 100 mm, 100 mm deep."""
    scene = ground(
        "Lock Gate", "The chamber is full; a perch waits for the gate to open.", first_pour_at,
        inside_mm=(170, 100, 100), scale=32, bed=8.0, material="plaster", paint="#8d8a74", base="plywood", water="3C",
    )
    fish = new_figure(scene, "fish", 24.0)
    return scene, "deep", [
        _leaf("left leaf", 52.0, 14.0), _leaf("right leaf", 118.0, -14.0),
        (fish, Spot(x_mm=85, behind_mm=28, depth_mm=50)),
    ]
