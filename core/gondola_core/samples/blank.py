"""An empty scene to begin with: a small box, a level bed, one pour of deep-pour resin."""

from __future__ import annotations

from datetime import datetime

from ..materials import load_library
from ..scene import Base, Bed, Brief, Pour, Room, Scene, Seal, Tank, Wall
from ..shape.bedform import bed_grid


def blank(name: str, first_pour_at: datetime) -> Scene:
    """What a person starts from; everything in it can be changed."""
    library = load_library()
    solids = library.solids
    tank = Tank(
        inner_width_mm=120, inner_behind_mm=80, wall_height_mm=82, fill_height_mm=70,
        wall=Wall(material=solids["acrylic"], thickness_mm=3),
        seal=Seal(material=solids["silicone"]),
        base=Base(material=solids["wood"], thickness_mm=18),
    )
    x, y = bed_grid(tank)
    return Scene(
        name=name,
        brief=Brief(
            scale=48, viewing_sides=["front", "above"], room=Room(day_c=22, night_c=20),
            first_pour_at=first_pour_at.replace(second=0, microsecond=0, tzinfo=None),
        ),
        tank=tank,
        bed=Bed(
            heights_mm=[[5.0] * len(x) for _ in y], material=solids["plaster"], sealed=True
        ),
        resins=list(library.resins.values()),
        colourants=[library.colourants["turquoise-ink"], library.colourants["leaf-green-ink"]],
        pours=[
            Pour(id="pour-1", top_depth_mm=35, resin_id="deep", mix_c=22, wait_h=0),
            Pour(id="pour-2", top_depth_mm=0, resin_id="deep", mix_c=22, wait_h=30),
        ],
    )
