"""Seeded scenes and their converged heat: marches on ever finer cells, carried on to cells of no size.

A round tank is marched as a wedge of rings, an upright box as a quarter of it, so that neither has a
cell that the grades have; others on fine square cells.

`python benchmarks/converged.py` prints how far DRAFT and FINE are from them and writes
`core/tests/converged.csv`; the tests hold the grades against that table.
"""

from __future__ import annotations

import csv
import sys
from dataclasses import replace
from pathlib import Path

import numpy as np

from gondola_core.answers.book import Book
from gondola_core.answers.flood import FLOOD, SPANS
from gondola_core.answers.grades import Grade
from gondola_core.answers.kept import Keeper
from gondola_core.answers.march import cells_of, march, timed_pours
from gondola_core.cure.cells import CellGeometry, CutCells, faces, layered_faces, whole_cells
from gondola_core.cure.march import Tolerance
from gondola_core.cure.moments import pour_cures
from gondola_core.evaluate import DRAFT, FINE, evaluate
from gondola_core.materials import load_library
from gondola_core.scene import Scene, scene_from
from gondola_core.units import MM

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT / "core" / "tests"))
from seeded_scenes import HOTTEST_C, seeded_scene

TABLE = ROOT / "core" / "tests" / "converged.csv"
COUNT, SEED = 30, 20261125
MOMENTS = ("gel_h", "tack_closes_h", "hard_h", "demould_h")


def marched_values(scene: Scene, grade: Grade, cells: CellGeometry | None = None) -> list[list[float]]:
    """Peak and moments of each pour on one grade, or on cells of their own."""
    book = Book(scene, grade, Keeper())
    cells = cells or cells_of(scene, grade, book.ask(SPANS), book.ask(FLOOD))
    made = march(scene, cells, grade)
    cures = pour_cures(made, cells, timed_pours(scene), scene.resins, scene.brief.room.mean_c)
    return [
        [cure.peak_c, *(np.nan if getattr(cure, name) is None else getattr(cure, name) for name in MOMENTS)]
        for cure in cures if cure is not None
    ]


def fine_grade(cell_mm: float) -> Grade:
    """A grade for convergence: everything follows the cell, steps are held tightly."""
    return Grade(
        name=f"{cell_mm:g}", cell_mm=cell_mm, most_cells=3_000_000, least_across=round(48 / cell_mm),
        least_levels=round(24 / cell_mm), base_mm=cell_mm, tolerance=Tolerance(temperature_k=0.02, degree=2e-4),
    )


def rings(scene: Scene, cell: float) -> CellGeometry:
    """A wedge of a round tank: one row of rings, its wall only outside [m]."""
    radius, turn = 0.5 * scene.tank.inner_width_mm * MM, 0.1
    r = faces(radius, cell, 8)
    z, pour_of_level = levels_of(scene, cell)
    dz = np.diff(z)[:, None, None]
    area = (0.5 * turn * np.diff(r**2))[None, None, :]
    middle = (2 / 3 * np.diff(r**3) / np.diff(r**2))[None, None, :]
    count = len(r) - 1
    shape = (len(dz), 1, count)
    cut = CutCells(
        volume=area * dz, centre_x=np.broadcast_to(middle, shape), centre_y=np.full(shape, 0.5),
        open_x=turn * r[None, None, 1:-1] * dz, open_y=np.zeros((len(dz), 0, count)),
        open_z=np.broadcast_to(area, (len(dz) + 1, 1, count)),
        wall_cell=np.arange(len(dz)) * count + count - 1, wall_area=turn * radius * dz[:, 0, 0],
        wall_normal=np.tile((1.0, 0.0), (len(dz), 1)), wall_middle=np.tile((radius, 0.5), (len(dz), 1)),
    )
    return CellGeometry(
        x_faces=r, y_faces=np.array([0.0, turn * radius]), z_faces=z, pour_of_level=pour_of_level,
        solid_fractions=np.zeros((0, *shape)), solids=(), cut=cut, base_cell=cell,
    )


def quarter(scene: Scene, cell: float) -> CellGeometry:
    """A quarter of an upright box: walls on two sides, planes of symmetry on the others [m]."""
    x = faces(0.5 * scene.tank.inner_width_mm * MM, cell, 4)
    y = faces(0.5 * scene.tank.inner_behind_mm * MM, cell, 4)
    z, pour_of_level = levels_of(scene, cell)
    whole = whole_cells(x, y, z)
    kept = whole.wall_normal.sum(axis=1) < 0
    return CellGeometry(
        x_faces=x, y_faces=y, z_faces=z, pour_of_level=pour_of_level,
        solid_fractions=np.zeros((0, len(z) - 1, len(y) - 1, len(x) - 1)), solids=(), base_cell=cell,
        cut=replace(
            whole, wall_cell=whole.wall_cell[kept], wall_area=whole.wall_area[kept],
            wall_normal=whole.wall_normal[kept], wall_middle=whole.wall_middle[kept],
        ),
    )


def levels_of(scene: Scene, cell: float) -> tuple[np.ndarray, np.ndarray]:
    """Faces in height, and the pour of each level."""
    fill = scene.tank.fill_height_mm
    return layered_faces([(fill - pour.top_depth_mm) * MM for pour in scene.pours], cell, round(0.024 / cell))


def converged(scene: Scene) -> np.ndarray:
    """(pours, 5) values: at cells of no size where two grids tell it (second order), else on the finer."""
    tank = scene.tank
    kind, large = tank.shape.kind, tank.inner_width_mm * tank.inner_behind_mm * tank.fill_height_mm > 1.2e6
    if kind == "round" and tank.taper_deg == 0:
        cells, sizes = rings, (1.5, 0.75)
    elif kind == "box" and tank.taper_deg == 0:
        cells, sizes = quarter, (5.0, 3.0) if large else (3.0, 1.8)
    else:
        cells, sizes = None, (4.0, 2.5)
    coarse, close = (
        np.array(marched_values(scene, fine_grade(size), cells and cells(scene, size * MM))) for size in sizes
    )
    return close if cells is None else close + (close - coarse) / ((sizes[0] / sizes[1]) ** 2 - 1)


def scenes(count: int = COUNT, seed: int = SEED) -> list[Scene]:
    """Scenes below runaway, in the order of the seed."""
    rng = np.random.default_rng(seed)
    found: list[Scene] = []
    while len(found) < count:
        scene = seeded_scene(rng)
        if max(pour[0] for pour in marched_values(scene, DRAFT)) < HOTTEST_C:
            found.append(scene)
    return found


def main(count: int) -> None:
    rows = []
    for number, scene in enumerate(scenes(count)):
        true = converged(scene)
        tank = scene.tank
        size = f"{tank.inner_width_mm:g} x {tank.inner_behind_mm:g} x {tank.fill_height_mm:g}"
        pours = f"{len(scene.pours)} of {scene.pours[0].resin_id}"
        print(f"{number:2d} {tank.shape.kind} {size} lean {tank.taper_deg:g}, {pours}", flush=True)
        for grade in (DRAFT, FINE):
            told = evaluate(scene, grade, Keeper()).march.peak_error_k
            values = np.array(marched_values(scene, grade))
            off = values - true
            print(f"   {grade.name:5s} peak {np.round(off[:, 0], 2).tolist()} told {told}   moments % "
                  f"{np.round(100 * off[:, 1:] / true[:, 1:], 1).tolist()}", flush=True)
        for pour, values in enumerate(true, start=1):
            rows.append([number, pour, *(f"{value:.3f}" for value in values)])
    with TABLE.open("w", newline="") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["scene", "pour", "peak_c", *MOMENTS])
        writer.writerows(rows)


NAMED: dict[str, dict[str, object]] = {
    "50 mm in a 150 x 100 box": {},
    "30 mm in it": {"fill": 30.0},
    "80 mm in it, a room of 18 °C": {"fill": 80.0, "room": 18.0},
    "casting resin, 10 mm": {"fill": 10.0, "resin": "casting"},
    "casting resin, 14 mm, 60 x 60": {"fill": 14.0, "resin": "casting", "size": (60.0, 60.0)},
    "three pours of 25 mm": {"fill": 75.0, "lines": (50.0, 25.0, 0.0)},
    "50 mm on foam, room of 18 °C": {"base": "foam", "room": 18.0},
    "round, 60 mm across": {"size": (60.0, 60.0), "shape": "round"},
    "a pendant, 35 mm across, 12 deep": {"size": (35.0, 35.0), "shape": "round", "fill": 12.0},
    "walls leaning 5°": {"lean": 5.0},
    "a hexagon of 120 mm": {"size": (120.0, 103.9), "shape": "regular"},
    "600 x 200, 40 mm": {"size": (600.0, 200.0), "fill": 40.0},
}


def named_scene(fill: float = 50.0, room: float = 23.0, resin: str = "deep", base: str = "wood",
                size: tuple[float, float] = (150.0, 100.0), shape: str = "box", lean: float = 0.0,
                lines: tuple[float, ...] = (0.0,)) -> Scene:
    """A plain tank without a bed."""
    document = seeded_scene(np.random.default_rng(0)).model_dump(mode="json")
    kinds = {"round": {"kind": "round"}, "regular": {"kind": "regular", "sides_count": 6}, "box": {"kind": "box"}}
    document["tank"].update(
        inner_width_mm=size[0], inner_behind_mm=size[1], shape=kinds[shape], taper_deg=lean,
        fill_height_mm=fill, wall_height_mm=fill + 12,
    )
    document["tank"]["base"]["material"] = load_library().solids[base].model_dump(mode="json")
    document["brief"]["room"].update(day_c=room, night_c=room)
    document["pours"] = [
        {**document["pours"][0], "id": f"p{n}", "resin_id": resin, "mix_c": room, "top_depth_mm": line,
         "wait_h": 26.0 if n else 0.0}
        for n, line in enumerate(lines)
    ]
    return scene_from(document)


def table() -> None:
    """The table of `docs/models.md`, between its marks: the hottest and the latest of all pours."""
    head = ["scene", "", "peak °C", "told ± K", "gel h", "tack h", "out h"]
    lines = [" | ".join(["", *head, ""]).strip(), "|" + " --- |" * len(head)]
    for name, given in NAMED.items():
        scene = named_scene(**given)
        true = np.array(converged(scene))
        for grade in (None, FINE, DRAFT):
            values = true if grade is None else np.array(marched_values(scene, grade))
            told = "" if grade is None else f"{evaluate(scene, grade, Keeper()).march.peak_error_k}"
            peak, gel, tack, _, out = np.nanmax(values, axis=0)
            row = [name if grade is None else "", grade.name if grade else "converged", f"{peak:.2f}", told,
                   f"{gel:.2f}", f"{tack:.2f}", f"{out:.2f}"]
            lines.append("| " + " | ".join(row) + " |")
            print(lines[-1], flush=True)
    page = ROOT / "docs" / "models.md"
    text = page.read_text()
    before, rest = text.split(MARKS[0])
    _, after = rest.split(MARKS[1])
    page.write_text(f"{before}{MARKS[0]}\n\n" + "\n".join(lines) + f"\n\n{MARKS[1]}{after}")


MARKS = ("<!-- converged: made by benchmarks/converged.py table -->", "<!-- /converged -->")


if __name__ == "__main__":
    if sys.argv[1:] == ["table"]:
        table()
    else:
        main(int(sys.argv[1]) if len(sys.argv) > 1 else COUNT)
