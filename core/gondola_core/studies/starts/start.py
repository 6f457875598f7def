"""The register of starts, and what they are built of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from ...answers.kept import Keeper
from ...errors import GondolaError
from ...evaluate import KEEPER
from ...materials import load_library
from ...scene import (
    Base,
    Bed,
    BoxShape,
    Brief,
    Figure,
    Place,
    Pour,
    Room,
    ScaleTrue,
    Scene,
    Seal,
    Shape,
    Solid,
    Tank,
    Wall,
    Wish,
)
from ...scene.brief import check_year
from ...shape.bedform import bed_grid, starter_heights
from ...words import words
from ..begin import Begun, plan
from ..fill_line import usual_wall_mm
from ..placing import Spot

Placed = tuple[Figure, Spot | None]
INKS = ["turquoise-ink", "deep-blue-ink", "leaf-green-ink", "burnt-umber-ink"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Start:
    """A piece to start from: its name, what it is about, and how it is made (scene, resin, figures)."""

    key: str
    name: str
    about: str
    make: Callable[[datetime], tuple[Scene, str, list[Placed]]]


STARTS: dict[str, Start] = {}


def start(key: str, name: str, about: str) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a start under its key."""

    def registered(make: Callable[..., Any]) -> Callable[..., Any]:
        STARTS[key] = Start(key=key, name=name, about=about, make=make)
        return make

    return registered


def begin_like(key: str, first_pour_at: datetime, keeper: Keeper = KEEPER) -> Begun:
    """The plan of a start; GondolaError if there is none of that key."""
    if key not in STARTS:
        raise GondolaError(words("refusals.no_start", id=key), "key")
    check_year(first_pour_at, "first_pour_at")
    scene, resin_id, figures = STARTS[key].make(first_pour_at)
    return plan(scene, resin_id, len(figures), lambda _, at: figures[at], keeper)


def ground(
    name: str, idea: str, first_pour_at: datetime, *, inside_mm: tuple[float, float, float], scale: float,
    bed: str | float, **more: Any,
) -> Scene:
    """Tank and bed with one pour in it.

    inside_mm  across, to the back, depth of the water
    bed        a simple form, or the height of a level one [mm]
    more       shape, wall, seal, base, material (of the bed), paint, sides, pieces, resin, water
    """
    library = load_library()
    solids = library.solids
    width, behind, deep = inside_mm
    shape: Shape = more.get("shape", BoxShape(kind="box"))
    tank = Tank(
        shape=shape, inner_width_mm=width, inner_behind_mm=behind, wall_height_mm=usual_wall_mm(deep),
        fill_height_mm=deep, wall=Wall(material=solids[more.get("wall", "acrylic")], thickness_mm=3.0),
        seal=Seal(material=solids[more.get("seal", "silicone")]),
        base=Base(material=solids[more.get("base", "wood")], thickness_mm=12.0),
    )
    x, y = bed_grid(tank)
    heights = starter_heights(bed, tank) if isinstance(bed, str) else [[float(bed)] * len(x) for _ in y]
    resin = library.resins[more.get("resin", "deep")]
    water = more.get("water", "3C")
    return Scene(
        name=name,
        brief=Brief(
            idea=idea, scale=scale, viewing_sides=more.get("sides", ["front", "above"]), owned=INKS,
            room=Room(day_c=22, night_c=20), first_pour_at=first_pour_at, pieces_count=more.get("pieces", 1),
        ),
        tank=tank,
        bed=Bed(
            heights_mm=heights, material=solids[more.get("material", "plaster")], sealed=True,
            paint_srgb=more.get("paint", "#7a6b52"),
        ),
        resins=[resin, *(one for one in library.resins.values() if one.id != resin.id)],
        colourants=[library.colourants[key] for key in INKS],
        pours=[Pour(id="pour-1", top_depth_mm=0, resin_id=resin.id, mix_c=22, wait_h=0)],
        wish=None if water is None else Wish(
            look=ScaleTrue(kind="scale_true", water_type=water), most_colourants=3
        ),
    )


def thing(
    name: str, solids: list[Solid], material: str, colour: str, holding: str,
    at: tuple[float, float, float] = (0, 0, 0), **more: Any,
) -> Figure:
    """A figure of a start; its id is its name."""
    return Figure(
        id=name.replace(" ", "-"), name=name, solids=solids, material=load_library().solids[material],
        place=Place(x_mm=at[0], behind_mm=at[1], height_mm=at[2]), paint_srgb=colour,
        holding=holding,  # type: ignore[arg-type]
        **more,
    )
