"""Wagon in the Quarry Pool: a tipping wagon on a ledge of a flooded slate quarry, 1:48."""

from __future__ import annotations

from datetime import datetime
from math import exp, sin

from ..materials import SolidMaterial, load_library
from ..scene import (
    Base,
    Bed,
    Brief,
    Dose,
    Figure,
    Finish,
    Fish,
    Ladder,
    Place,
    Pour,
    Room,
    Scene,
    Seal,
    Tank,
    Wagon,
    Wall,
    Zones,
)

WIDTH, BEHIND, FILL = 180.0, 110.0, 120.0
STEP = 5.0


def quarry_pool() -> Scene:
    """The demo scene: four pours of deep-pour resin over a sloping bed, one of them too deep."""
    library = load_library()
    solids = library.solids
    inks = ("leaf-green-ink", "turquoise-ink", "burnt-umber-ink", "red-ink")
    return Scene(
        name="Wagon in the Quarry Pool",
        brief=Brief(
            idea="A flooded slate quarry on a bright day; the wagon went over the edge long ago.",
            scale=48,
            viewing_sides=["front", "left", "right", "above"],
            room=Room(day_c=26, night_c=22),
            light="lamp_above",
            backdrop_srgb="#f2efe6",
            first_pour_at=datetime(2027, 3, 5, 9, 0),
        ),
        tank=Tank(
            inner_width_mm=WIDTH,
            inner_behind_mm=BEHIND,
            wall_height_mm=134,
            fill_height_mm=FILL,
            wall=Wall(material=solids["acrylic"], thickness_mm=3),
            seal=Seal(material=solids["hot-glue"]),
            base=Base(material=solids["wood"], thickness_mm=18),
        ),
        bed=Bed(heights_mm=_slate(), material=solids["plaster"], paint_srgb="#7d7666"),
        figures=[
            _wagon(solids["polystyrene"]),
            _pike(solids["polymer-clay"]),
            *(
                _perch(number, place, turn, solids["polymer-clay"])
                for number, (place, turn) in enumerate(_SHOAL, start=1)
            ),
            _ladder(solids["basswood"]),
        ],
        resins=[library.resins["deep"], library.resins["casting"], library.resins["coating"]],
        colourants=[library.colourants[ink] for ink in inks],
        pours=[
            _pour(1, 92, 0, 1.16),
            _pour(2, 40, 26, 1.00),
            _pour(3, 18, 25, 0.86),
            _pour(4, 0, 25, 0.74),
        ],
        finish=Finish(sand_to_grit=3000, edge_coat=True),
    )


_SHOAL = [
    (Place(x_mm=72, behind_mm=30, height_mm=102), 5.0),
    (Place(x_mm=90, behind_mm=38, height_mm=102), -8.0),
    (Place(x_mm=107, behind_mm=26, height_mm=102), 12.0),
    (Place(x_mm=98, behind_mm=46, height_mm=80), 2.0),
    (Place(x_mm=119, behind_mm=36, height_mm=80), -15.0),
]


def _pour(number: int, top_depth_mm: float, wait_h: float, share: float) -> Pour:
    doses = {
        "leaf-green-ink": 0.30,
        "turquoise-ink": 0.19,
        "burnt-umber-ink": 0.06,
        "red-ink": 0.09,
    }
    return Pour(
        id=f"pour-{number}",
        top_depth_mm=top_depth_mm,
        resin_id="deep",
        mix_c=24,
        wait_h=wait_h,
        doses=[
            Dose(colourant_id=ink, dose_drops_per_100g=round(drops * share, 3))
            for ink, drops in doses.items()
        ],
    )


def _slate() -> list[list[float]]:
    """Quarry wall on the left, a ledge for the wagon, and the deep on the right."""
    rows = []
    for j in range(round(BEHIND / STEP) + 1):
        y = j * STEP
        row = []
        for i in range(round(WIDTH / STEP) + 1):
            x = i * STEP
            wall = 70.0 / (1.0 + exp((x - 24.0 - 0.10 * y) / 6.5))
            ledge = 22.0 / (1.0 + exp((x - 122.0 + 0.12 * (y - 50)) / 6.0))
            rise = 16.0 * (y / BEHIND) ** 2
            grain = 1.4 * sin(0.31 * x + 0.11 * y) + 1.1 * sin(0.53 * x - 0.37 * y + 1.0)
            row.append(round(max(1.0, 5.0 + wall + ledge + rise + grain), 1))
        rows.append(row)
    return rows


def _wagon(material: SolidMaterial) -> Figure:
    return Figure(
        id="wagon",
        name="tipping wagon",
        solids=[Wagon(kind="wagon", length_mm=27, width_mm=15.5, height_mm=18, wall_mm=0.8)],
        place=Place(x_mm=88, behind_mm=42, height_mm=30.4),
        turn_deg=14,
        material=material,
        paint_srgb="#8a4b32",
        zones=Zones(back_srgb="#a0603f", mark_srgb="#5d3a2b"),
        holding="pin",
    )


def _perch(number: int, place: Place, turn_deg: float, material: SolidMaterial) -> Figure:
    bend = (14.0, -10.0, 6.0, -16.0, 9.0)[number - 1]
    return Figure(
        id=f"perch-{number}",
        name=f"perch {number}",
        solids=[Fish(kind="fish", length_mm=13, height_mm=5, thick_mm=2.2, bend_deg=bend)],
        place=place,
        turn_deg=turn_deg,
        material=material,
        paint_srgb="#a99c60",
        zones=Zones(back_srgb="#5f6a35", belly_srgb="#d9cfa8", mark_srgb="#a8502c"),
        holding="staged",
    )


def _pike(material: SolidMaterial) -> Figure:
    return Figure(
        id="pike",
        name="pike",
        solids=[Fish(kind="fish", length_mm=36, height_mm=7, thick_mm=4, bend_deg=-18)],
        place=Place(x_mm=142, behind_mm=48, height_mm=43),
        turn_deg=172,
        material=material,
        paint_srgb="#6f7440",
        zones=Zones(back_srgb="#3f4a2c", belly_srgb="#c9c39a"),
        holding="stem",
    )


def _ladder(material: SolidMaterial) -> Figure:
    return Figure(
        id="ladder",
        name="ladder",
        solids=[Ladder(kind="ladder", length_mm=88, width_mm=9.6, rail_mm=1.6, rungs_count=9)],
        place=Place(x_mm=46, behind_mm=26, height_mm=30),
        tilt_deg=-10,
        turn_deg=-32,
        material=material,
        paint_srgb="#9a8d78",
        holding="pin",
    )
