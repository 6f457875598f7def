"""A pendant with a lost key: one small pour in a silicone mould."""

from datetime import datetime

from ...scene import Box, Capsule, Ring, Round, Scene
from ..placing import Spot
from .start import Placed, ground, start, thing


@start("lost-key", "The Lost Key", "A pendant: a key on sand, one small pour in a silicone mould.")
def lost_key(first_pour_at: datetime) -> tuple[Scene, str, list[Placed]]:
    """34 mm across, 12 mm deep."""
    scene = ground(
        "The Lost Key", "A pendant: what somebody dropped from a jetty.", first_pour_at,
        inside_mm=(34, 34, 12), scale=1, bed=2.0, shape=Round(kind="round"), wall="silicone-mould", base="acrylic",
        material="sand", paint="#b9a77c", resin="casting", water="1C", sides=["above", "front"],
    )
    key = thing("key", [
        Ring(kind="ring", outer_mm=7, thick_mm=1.4),
        Capsule(kind="capsule", from_mm=[3.2, 0, 0.7], to_mm=[15, 0, 0.7], radius_mm=0.7),
        Box(kind="box", centre_mm=[13.6, -1.6, 0.7], size_mm=[1.2, 2.4, 1.2]),
        Box(kind="box", centre_mm=[11.2, -1.2, 0.7], size_mm=[1.2, 1.8, 1.2]),
    ], "brass", "#b08d3e", "on_bed", turn_deg=28)
    return scene, "casting", [(key, Spot(x_mm=12, behind_mm=17))]
