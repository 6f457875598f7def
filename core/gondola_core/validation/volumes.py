"""Volumes: what the columns of a scene hold, against the formulas of solid geometry."""

from __future__ import annotations

from collections.abc import Iterator
from math import pi, tan

import numpy as np

from ..cure.cells import cut_cells, faces
from ..holding.laws import shell_inside
from ..materials import load_library
from ..scene import Base, Bed, Box, Capsule, Ellipsoid, Figure, Place, Tank, Wall
from ..shape import tank_plan
from ..shape.columns import column_spans, free_volume_ml
from ..units import ML, MM
from .measured import Measured, measure

MODEL = "Volumes"
WIDE, BEHIND, FILL = 100.0, 80.0, 90.0
"""Of the tank, inside [mm]."""


def _tank(taper_deg: float = 0.0) -> Tank:
    solids = load_library().solids
    return Tank(
        inner_width_mm=WIDE, inner_behind_mm=BEHIND, wall_height_mm=100, fill_height_mm=FILL, taper_deg=taper_deg,
        wall=Wall(material=solids["acrylic"], thickness_mm=3), base=Base(material=solids["wood"], thickness_mm=18),
    )


def _bed(*rows: list[float]) -> Bed:
    return Bed(heights_mm=list(rows), material=load_library().solids["plaster"])


Body = Ellipsoid | Capsule | Box


def _figure(solid: Body) -> Figure:
    return Figure(
        id="one", name="one", solids=[solid], turn_deg=27.0, place=Place(x_mm=47.3, behind_mm=38.8, height_mm=45.0),
        material=load_library().solids["polymer-clay"], paint_srgb="#808080",
    )


def _solid_ml(bed: Bed, *figures: Figure) -> float:
    spans = column_spans(_tank(), bed, list(figures))
    return WIDE * BEHIND * FILL / 1000 - float(free_volume_ml(spans, np.array([FILL]))[0])


@measure
def bodies() -> Iterator[Measured]:
    """Solids that stand anywhere, any way round."""
    flat = _bed([0, 0], [0, 0])
    rows: list[tuple[str, Body, float]] = [
        ("ball of 20 mm", Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[20] * 3), 4 / 3 * pi * 20**3),
        (
            "tilted ellipsoid", Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[30, 15, 20], pitch_deg=33),
            4 / 3 * pi * 30 * 15 * 20,
        ),
        (
            "round bar aslant", Capsule(kind="capsule", from_mm=[-14, 3, -15], to_mm=[14, -3, 15], radius_mm=13),
            pi * 13**2 * (28**2 + 6**2 + 30**2) ** 0.5 + 4 / 3 * pi * 13**3,
        ),
        ("turned box", Box(kind="box", centre_mm=[0, 0, 0], size_mm=[40, 30, 20]), 40.0 * 30 * 20),
    ]
    for name, solid, exact in rows:
        yield Measured(
            model=MODEL, quantity=f"{name} [ml]", against="solid geometry", source="definition", expected=exact / 1000,
            found=_solid_ml(flat, _figure(solid)), allowed=0.004 * exact / 1000,
        )


@measure
def beds() -> Iterator[Measured]:
    """A bed that slopes evenly is a wedge."""
    yield Measured(
        model=MODEL, quantity="bed from 60 to 0 mm across the tank [ml]", against="wedge", source="definition",
        expected=0.5 * 60 * WIDE * BEHIND / 1000, found=_solid_ml(_bed([60, 0], [60, 0])), allowed=0.05,
    )


@measure
def leaning_walls() -> Iterator[Measured]:
    """A box whose walls lean out is a frustum of even rise: its volume is that of the prismatoid."""
    tank, lean_deg = _tank(3.0), 3.0

    def outline(height: float) -> np.ndarray:
        return tank_plan(tank, height / MM) * MM

    corners = outline(FILL * MM)
    x, y = (
        np.linspace(low, high, count)
        for low, high, count in zip(corners.min(axis=0), corners.max(axis=0), (11, 9), strict=True)
    )
    cut = cut_cells(outline, x, y, faces(FILL * MM, 0.01), lean_deg)
    out = 2 * FILL * tan(lean_deg * pi / 180)

    def area(part: float) -> float:
        return (WIDE + part * out) * (BEHIND + part * out)

    exact = FILL / 6 * (area(0.0) + 4 * area(0.5) + area(1.0)) / 1000
    yield Measured(
        model=MODEL, quantity="tank whose walls lean out by 3°, by its cells [ml]", against="prismatoid",
        source="sutherland_hodgman1974", expected=exact, found=float(cut.volume.sum()) / ML, allowed=0.002 * exact,
    )


@measure
def shells() -> Iterator[Measured]:
    """What a hollow ball holds."""
    radius, wall = 10.0, 2.0
    volume, area = 4 / 3 * pi * radius**3, 4 * pi * radius**2
    yield Measured(
        model=MODEL, quantity="inside of a hollow ball of 20 mm with a wall of 2 mm [ml]", against="4/3 pi (r - t)^3",
        source="definition", expected=4 / 3 * pi * (radius - wall) ** 3 / 1000,
        found=shell_inside(volume, area, wall) / 1000, allowed=1e-6,
    )
