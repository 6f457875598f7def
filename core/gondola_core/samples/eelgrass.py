"""Eelgrass and Seahorse: a first project, a cube of 60 mm in two pours of casting resin."""

from __future__ import annotations

from datetime import datetime

from ..materials import load_library
from ..scene import (
    Base,
    Bed,
    Brief,
    Dose,
    Eel,
    Figure,
    MeasuredDepth,
    Place,
    Pour,
    Ring,
    Room,
    Scene,
    Seal,
    Tank,
    Tuft,
    Wall,
    Zones,
)
from ..shape.bedform import measured_heights


def eelgrass() -> Scene:
    """A small cube, its sandy bed measured at five points."""
    library = load_library()
    solids = library.solids
    tank = Tank(
        inner_width_mm=60, inner_behind_mm=60, wall_height_mm=70, fill_height_mm=60,
        wall=Wall(material=solids["polypropylene"], thickness_mm=1.5),
        seal=Seal(material=solids["silicone"]),
        base=Base(material=solids["wood"], thickness_mm=12),
        release="none",
    )
    measured = [
        MeasuredDepth(x_mm=x, behind_mm=y, depth_mm=depth)
        for x, y, depth in ((4, 4, 52), (56, 4, 55), (4, 56, 41), (56, 56, 46), (30, 30, 50))
    ]
    return Scene(
        name="Eelgrass and Seahorse",
        brief=Brief(
            idea="A first cube: one seahorse holding on to eelgrass in shallow summer water.",
            scale=2,
            viewing_sides=["front", "left", "right", "above"],
            room=Room(day_c=23, night_c=20),
            light="room",
            backdrop_srgb="#f4f1ea",
            first_pour_at=datetime(2027, 6, 12, 10, 0),
        ),
        tank=tank,
        bed=Bed(
            heights_mm=measured_heights(measured, tank), measured=measured,
            material=solids["sand"], sealed=True, paint_srgb="#c2ad7c",
        ),
        figures=[
            Figure(
                id="eelgrass", name="eelgrass",
                solids=[Tuft(kind="tuft", height_mm=44, spread_mm=24, blade_mm=1.6,
                             blades_count=14)],
                place=Place(x_mm=36, behind_mm=36, height_mm=10), material=solids["pla"],
                paint_srgb="#4f7a3a", holding="pin",
            ),
            Figure(
                id="seahorse", name="seahorse",
                solids=[Eel(kind="eel", length_mm=24, thick_mm=5, wave_mm=2.4)],
                place=Place(x_mm=24, behind_mm=24, height_mm=34), tilt_deg=78, turn_deg=20,
                material=solids["polymer-clay"], paint_srgb="#c9963f",
                zones=Zones(belly_srgb="#e6cf96"), holding="wire",
            ),
            Figure(
                id="ring", name="lost ring",
                solids=[Ring(kind="ring", outer_mm=9, thick_mm=1.6)],
                place=Place(x_mm=44, behind_mm=18, height_mm=9), tilt_deg=24,
                material=solids["brass"], paint_srgb="#caa64a", holding="on_bed",
            ),
        ],
        resins=[library.resins["casting"], library.resins["deep"]],
        colourants=[library.colourants["turquoise-ink"], library.colourants["leaf-green-ink"]],
        pours=[
            Pour(id="pour-1", top_depth_mm=46, resin_id="casting", mix_c=23, wait_h=0,
                 doses=_doses(0.5)),
            Pour(id="pour-2", top_depth_mm=33, resin_id="casting", mix_c=23, wait_h=9,
                 doses=_doses(0.45)),
            Pour(id="pour-3", top_depth_mm=20, resin_id="casting", mix_c=23, wait_h=9,
                 doses=_doses(0.4)),
            Pour(id="pour-4", top_depth_mm=9, resin_id="casting", mix_c=23, wait_h=9,
                 doses=_doses(0.35)),
            Pour(id="pour-5", top_depth_mm=0, resin_id="casting", mix_c=23, wait_h=9,
                 doses=_doses(0.3)),
        ],
    )


def _doses(drops: float) -> list[Dose]:
    return [
        Dose(colourant_id="turquoise-ink", dose_drops_per_100g=drops),
        Dose(colourant_id="leaf-green-ink", dose_drops_per_100g=round(0.4 * drops, 3)),
    ]
