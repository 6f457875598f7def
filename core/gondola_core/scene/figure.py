"""Figures, built from simple solids in a frame of their own and placed in the tank."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..materials import SolidMaterial
from ..part import Key, Name, Part, bounded

Offset = Annotated[
    float, Field(title="offset", ge=-1200, le=1200, json_schema_extra={"unit": "mm"})
]
Size = Annotated[float, Field(title="size", ge=0.2, le=1200, json_schema_extra={"unit": "mm"})]
Point = Annotated[list[Offset], Field(min_length=3, max_length=3)]
"""Right, behind, up from the figure's own origin, in mm."""


class Ellipsoid(Part):
    """Three half-axes; nose up by `pitch_deg` about the axis that runs from front to back."""

    kind: Literal["ellipsoid"]
    centre_mm: Point
    radii_mm: Annotated[list[Size], Field(title="half-axes", min_length=3, max_length=3)]
    pitch_deg: float = bounded("pitch", "°", -90, 90, default=0.0)


class Box(Part):
    """An upright block."""

    kind: Literal["box"]
    centre_mm: Point
    size_mm: Annotated[list[Size], Field(title="size of the box", min_length=3, max_length=3)]


class Capsule(Part):
    """A round bar with round ends."""

    kind: Literal["capsule"]
    from_mm: Point
    to_mm: Point
    radius_mm: float = bounded("radius of the bar", "mm", 0.1, 300)


class Fish(Part):
    """A fish to plan with: body, tail, back and belly fins; nose along +x, belly at the origin."""

    kind: Literal["fish"]
    length_mm: float = bounded("length of the fish", "mm", 2, 1000)
    height_mm: float = bounded("height of the fish", "mm", 0.8, 500)
    thick_mm: float = bounded("thickness of the fish", "mm", 0.5, 400)
    bend_deg: float = bounded("bend of the fish", "°", -90, 90, default=0.0)


class Eel(Part):
    """A long round body in waves."""

    kind: Literal["eel"]
    length_mm: float = bounded("length of the eel", "mm", 4, 1200)
    thick_mm: float = bounded("thickness of the eel", "mm", 0.5, 200)
    wave_mm: float = bounded("swing of the eel", "mm", 0, 200, default=0.0)


class Hull(Part):
    """An open boat: stem along +x, keel at the origin's height, sheer rising to the ends."""

    kind: Literal["hull"]
    length_mm: float = bounded("length of the hull", "mm", 8, 1200)
    beam_mm: float = bounded("beam of the hull", "mm", 3, 600)
    depth_mm: float = bounded("depth of the hull", "mm", 2, 400)
    sheer_mm: float = bounded("sheer of the hull", "mm", 0, 200, default=0.0)
    wall_mm: float = bounded("planking of the hull", "mm", 0.3, 40)


class Wagon(Part):
    """A small wagon with an open tub on four wheels; wheels stand at the origin's height."""

    kind: Literal["wagon"]
    length_mm: float = bounded("length of the wagon", "mm", 6, 600)
    width_mm: float = bounded("width of the wagon", "mm", 4, 400)
    height_mm: float = bounded("height of the wagon", "mm", 4, 400)
    wall_mm: float = bounded("sheet of the tub", "mm", 0.3, 20)


class Ladder(Part):
    """Two rails and rungs along the figure's own height."""

    kind: Literal["ladder"]
    length_mm: float = bounded("length of the ladder", "mm", 5, 1000)
    width_mm: float = bounded("width of the ladder", "mm", 2, 200)
    rail_mm: float = bounded("thickness of the rails", "mm", 0.3, 30)
    rungs_count: Annotated[int, Field(title="number of rungs", ge=1, le=60)]


class Ring(Part):
    """A round ring that lies flat."""

    kind: Literal["ring"]
    outer_mm: float = bounded("outer width of the ring", "mm", 2, 600)
    thick_mm: float = bounded("thickness of the ring", "mm", 0.4, 200)


class Tuft(Part):
    """Blades of a plant that lean outward from one root; the same every time."""

    kind: Literal["tuft"]
    height_mm: float = bounded("height of the plant", "mm", 2, 600)
    spread_mm: float = bounded("spread of the plant", "mm", 1, 400)
    blade_mm: float = bounded("thickness of a blade", "mm", 0.3, 20)
    blades_count: Annotated[int, Field(title="number of blades", ge=1, le=60)]


class MeshSolid(Part):
    """A closed mesh that was brought in; its points stand in the mesh itself, kept apart.

    spread_ml  by how much the volume of the mesh itself is a guess, either way; 0 for one that closed
    """

    kind: Literal["mesh"]
    mesh_id: Key
    spread_ml: float = bounded("how far its volume may be off", "ml", 0, 1e6, default=0.0)
    scale_ratio: float = bounded("scale of the mesh", "", 0.001, 1000, default=1.0)
    offset_mm: Point = [0.0, 0.0, 0.0]


Made = Fish | Eel | Hull | Wagon | Ladder | Ring | Tuft
"""Solids that the core makes as closed meshes from a few measures."""

Solid = Annotated[
    Ellipsoid | Box | Capsule | Fish | Eel | Hull | Wagon | Ladder | Ring | Tuft | MeshSolid,
    Field(discriminator="kind"),
]


class Place(Part):
    """Where the figure's own origin stands."""

    x_mm: float = bounded("place from the left wall", "mm", -200, 1400)
    behind_mm: float = bounded("place behind the glass", "mm", -200, 1400)
    height_mm: float = bounded("height above the floor", "mm", -100, 800)


class Hollow(Part):
    """A shell: sealed it holds its air, vented the resin runs in."""

    wall_mm: float = bounded("wall of a hollow figure", "mm", 0.2, 50)
    vented: Annotated[bool, Field(title="vented")] = False


class Vent(Part):
    """A hole drilled upward from a point in the figure's own frame."""

    at_mm: Point
    width_mm: float = bounded("width of a vent", "mm", 0.5, 30)


class Lamp(Part):
    """A light in the scene that is buried for good."""

    limit_c: float = bounded("temperature that the lamp stands", "°C", 40, 200, default=80.0)
    wire_to: Annotated[
        Literal["bed", "back", "side", "above"], Field(title="where its wire leaves")
    ] = "bed"
    tested: Annotated[bool, Field(title="tested before it is buried")] = False


class Liner(Part):
    """What keeps a figure removable: a sleeve around it leaves a cavity."""

    gap_mm: float = bounded("gap of the liner", "mm", 0.1, 10)
    draft_deg: float = bounded("draft of the cavity", "°", 0, 15, default=2.0)


class Hold(Part):
    """Measures of whatever holds a figure; `length_mm` None: as far as the bed below it."""

    stem_mm: float = bounded("thickness of a stem", "mm", 0.5, 30, default=3.0)
    wire_mm: float = bounded("thickness of a wire", "mm", 0.1, 6, default=0.8)
    wire: Annotated[
        Literal["steel", "brass", "copper", "aluminium"], Field(title="metal of the wire")
    ] = "steel"
    glue_mm2: float = bounded("area of a glue spot", "mm²", 0.5, 5000, default=20.0)
    pin_depth_mm: float = bounded("depth of a pin in the bed", "mm", 1, 60, default=6.0)
    lean_deg: float = bounded("lean of a stem or wire", "°", 0, 80, default=15.0)


class Zones(Part):
    """Paint by zone; where a zone is left out the figure's own colour stands."""

    back_srgb: Annotated[str | None, Field(pattern=r"^#[0-9a-f]{6}$")] = None
    belly_srgb: Annotated[str | None, Field(pattern=r"^#[0-9a-f]{6}$")] = None
    mark_srgb: Annotated[str | None, Field(pattern=r"^#[0-9a-f]{6}$")] = None


class Figure(Part):
    """Anything modelled in the water; its solids overlap freely and count once.

    It is rolled about its own length, then tilted nose up, then turned about the vertical.
    """

    id: Key
    name: Name
    solids: Annotated[list[Solid], Field(title="solids", min_length=1, max_length=60)]
    place: Place
    turn_deg: float = bounded("turn", "°", -360, 360, default=0.0)
    tilt_deg: float = bounded("tilt", "°", -180, 180, default=0.0)
    roll_deg: float = bounded("roll", "°", -180, 180, default=0.0)
    material: SolidMaterial
    mass_g: Annotated[
        float | None,
        Field(title="weighed mass", ge=0.001, le=100000, json_schema_extra={"unit": "g"}),
    ] = None
    hollow: Hollow | None = None
    paint_srgb: Annotated[str, Field(title="colour of the figure", pattern=r"^#[0-9a-f]{6}$")]
    zones: Zones = Zones()
    file_srgb: Annotated[
        str | None, Field(title="mean colour that its file tells", pattern=r"^#[0-9a-f]{6}$")
    ] = None
    own_colours: Annotated[bool, Field(title="wears the colours of its file, not paint")] = False
    holding: Annotated[
        Literal["on_bed", "staged", "stem", "wire", "line", "glue_spot", "pin"],
        Field(title="holding"),
    ] = "on_bed"
    hold: Hold = Hold()
    locked: Annotated[bool, Field(title="locked in its place")] = False
    vents: Annotated[list[Vent], Field(title="vents", max_length=12)] = []
    prefilled: Annotated[bool, Field(title="hollows brushed full before the pour")] = False
    cut_at_fill: Annotated[bool, Field(title="cut at the fill line, added later")] = False
    lamp: Lamp | None = None
    liner: Liner | None = None

    @property
    def worn_srgb(self) -> str:
        """What it is read off by: the mean of its file's colours if it wears them, else its paint."""
        return self.file_srgb if self.own_colours and self.file_srgb else self.paint_srgb
