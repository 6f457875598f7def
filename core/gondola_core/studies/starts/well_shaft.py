"""A deep well shaft, seen only from above."""

from datetime import datetime

from ...scene import Capsule, Ring, Round, Scene
from ...shape.templates import new_figure
from ..placing import Spot
from .start import Placed, ground, start, thing


@start("well-shaft", "The Well", "A deep round shaft seen from above: five hands of water over a bucket.")
def well_shaft(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """84 mm across, 180 mm deep."""
    scene = ground(
        "The Well", "Look down, and there is the bucket, and something beside it.", first_pour_at,
        inside_mm=(84, 84, 180), scale=20, bed=9.0, shape=Round(kind="round"), wall="polypropylene", base="tile",
        material="stone", paint="#8c8f86", water="III", sides=["above"],
    )
    bucket = thing("bucket", [
        Ring(kind="ring", outer_mm=22, thick_mm=2.4),
        Capsule(kind="capsule", from_mm=[-10, 0, 1.2], to_mm=[10, 0, 1.2], radius_mm=1.2),
        Capsule(kind="capsule", from_mm=[0, -10, 1.2], to_mm=[0, 10, 1.2], radius_mm=1.2),
    ], "brass", "#c09a5a", "on_bed", turn_deg=15)
    stones = new_figure(scene, "sphere", 11.0)
    return scene, "deep", [(bucket, Spot(x_mm=36, behind_mm=44)), (stones, Spot(x_mm=60, behind_mm=40))]
