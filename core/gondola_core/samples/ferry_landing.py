"""The Ferry Landing: a sunk ferry boat below a landing stage in a winter lake, 200 mm deep."""

from __future__ import annotations

from datetime import datetime

from ..materials import load_library
from ..scene import (
    Base,
    Bed,
    Brief,
    Capsule,
    Dose,
    Figure,
    Fish,
    Hull,
    Place,
    Pour,
    Room,
    Scene,
    Seal,
    Solid,
    Tank,
    Wall,
    Zones,
)
from ..shape.bedform import starter_heights

FILL = 200.0


def ferry_landing() -> Scene:
    """As its maker first planned it: deep pours of coating resin. Gondola says what is wrong."""
    library = load_library()
    solids = library.solids
    tank = Tank(
        inner_width_mm=240, inner_behind_mm=140, wall_height_mm=212, fill_height_mm=FILL,
        wall=Wall(material=solids["acrylic"], thickness_mm=5),
        seal=Seal(material=solids["hot-glue"]),
        base=Base(material=solids["plywood"], thickness_mm=18),
    )
    posts: list[Solid] = [
        Capsule(kind="capsule", from_mm=[x, y, 0], to_mm=[x, y, 172], radius_mm=2.6)
        for x in (0.0, 34.0) for y in (0.0, 30.0)
    ]
    tops = [140.0, 80.0, 20.0, 0.0]
    return Scene(
        name="The Ferry Landing",
        brief=Brief(
            idea="A winter lake seen through its side: the old ferry lies where it went down.",
            scale=72,
            viewing_sides=["front", "above"],
            room=Room(day_c=23, night_c=23, spread_k=1.5),
            light="lamp_above",
            backdrop_srgb="#dfe6e4",
            first_pour_at=datetime(2027, 1, 16, 10, 0),
        ),
        tank=tank,
        bed=Bed(
            heights_mm=starter_heights("slope", tank), material=solids["plaster"], sealed=True,
            paint_srgb="#6d6a5c",
        ),
        figures=[
            Figure(
                id="ferry", name="ferry boat",
                solids=[Hull(kind="hull", length_mm=92, beam_mm=30, depth_mm=17, sheer_mm=5,
                             wall_mm=1.4)],
                place=Place(x_mm=158, behind_mm=70, height_mm=33), turn_deg=24, roll_deg=14,
                material=solids["basswood"], paint_srgb="#7b6a52",
                zones=Zones(belly_srgb="#5e3f33"), holding="pin",
            ),
            Figure(
                id="landing", name="landing stage", solids=posts,
                place=Place(x_mm=26, behind_mm=60, height_mm=22), material=solids["basswood"],
                paint_srgb="#8b7d68", holding="pin",
            ),
            *(
                Figure(
                    id=f"whitefish-{number}", name=f"whitefish {number}",
                    solids=[Fish(kind="fish", length_mm=11, height_mm=3.6, thick_mm=1.8,
                                 bend_deg=bend)],
                    place=Place(x_mm=x, behind_mm=y, height_mm=120), turn_deg=turn,
                    material=solids["polymer-clay"], paint_srgb="#b9c2c0", holding="staged",
                )
                for number, (x, y, turn, bend) in enumerate(
                    ((108, 40, 10, 12), (122, 52, 2, -9), (136, 44, -6, 7)), start=1
                )
            ),
        ],
        resins=[library.resins["coating"], library.resins["deep"], library.resins["casting"]],
        colourants=[
            library.colourants[ink] for ink in ("deep-blue-ink", "turquoise-ink", "burnt-umber-ink")
        ],
        pours=[
            Pour(
                id=f"pour-{number}", top_depth_mm=top, resin_id="coating", mix_c=23,
                wait_h=0 if number == 1 else 24,
                doses=[
                    Dose(colourant_id="deep-blue-ink", dose_drops_per_100g=0.12),
                    Dose(colourant_id="turquoise-ink", dose_drops_per_100g=0.08),
                    Dose(colourant_id="burnt-umber-ink", dose_drops_per_100g=0.05),
                ],
            )
            for number, top in enumerate(tops, start=1)
        ],
    )
