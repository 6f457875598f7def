"""Figures to start from: one template a kind, with sizes that suit a tank."""

from __future__ import annotations

from ..errors import GondolaError
from ..materials import load_library
from ..scene import (
    Box,
    Capsule,
    Eel,
    Ellipsoid,
    Figure,
    Fish,
    Hull,
    Ladder,
    MeshSolid,
    Place,
    Ring,
    Scene,
    Solid,
    Tuft,
    Wagon,
)

KINDS = (
    "fish", "eel", "hull", "wagon", "plank", "post", "ladder", "sphere", "ring", "tuft",
)
_LOOK = {
    "fish": ("polymer-clay", "#8f9a6a", "staged"), "eel": ("polymer-clay", "#5d6a4a", "staged"),
    "hull": ("basswood", "#7b6a52", "pin"), "wagon": ("polystyrene", "#8a4b32", "pin"),
    "plank": ("basswood", "#9a8660", "pin"), "post": ("basswood", "#8b7d68", "pin"),
    "ladder": ("basswood", "#9a8d78", "pin"), "sphere": ("stone", "#7f7f78", "on_bed"),
    "ring": ("brass", "#caa64a", "on_bed"), "tuft": ("pla", "#4f7a3a", "pin"),
    "mesh": ("printed-resin", "#9aa0a0", "staged"),
}


def new_figure(scene: Scene, kind: str, size_mm: float | None = None) -> Figure:
    """A figure of a kind with a free id, in the middle of the tank, about a sixth of its width.

    size_mm  its length or height instead
    """
    if kind not in KINDS:
        raise GondolaError(f"A figure can be {', '.join(KINDS)}; this says '{kind}'.", "kind")
    tank = scene.tank
    size = size_mm or max(8.0, min(tank.inner_width_mm / 6, 0.5 * tank.fill_height_mm))
    return _named(scene, kind, [_solid(kind, size)])


def mesh_figure(
    scene: Scene, mesh_id: str, name: str, size_mm: list[float], file_srgb: str | None = None,
    spread_ml: float = 0.0,
) -> Figure:
    """A figure of a mesh that was brought in, made smaller where it would not fit the tank.

    file_srgb  mean of the colours that its file tells, which it then wears
    spread_ml  how far its volume may be off, if its solid had to be guessed
    """
    tank = scene.tank
    room = (tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm)
    scale = min(1.0, *(0.9 * space / max(side, 1e-6) for space, side in zip(room, size_mm, strict=True)))
    solid = MeshSolid(kind="mesh", mesh_id=mesh_id, scale_ratio=round(scale, 4), spread_ml=round(spread_ml, 3))
    figure = _named(scene, "mesh", [solid], name)
    return figure.model_copy(update={"file_srgb": file_srgb, "own_colours": file_srgb is not None})


def _named(scene: Scene, kind: str, solids: list[Solid], name: str | None = None) -> Figure:
    material, paint, holding = _LOOK[kind]
    taken = {figure.id for figure in scene.figures}
    stem = kind
    number = next(n for n in range(1, len(taken) + 2) if f"{stem}-{n}" not in taken)
    tank = scene.tank
    return Figure(
        id=f"{stem}-{number}",
        name=(name or kind)[:70] if number == 1 else f"{(name or kind)[:70]} {number}",
        solids=solids,
        place=Place(
            x_mm=round(tank.inner_width_mm / 2, 1), behind_mm=round(tank.inner_behind_mm / 2, 1),
            height_mm=round(tank.fill_height_mm / 2, 1),
        ),
        material=load_library().solids[material], paint_srgb=paint,
        holding=holding,  # type: ignore[arg-type]
    )


def _solid(kind: str, size: float) -> Solid:
    s = round(size, 1)
    makers: dict[str, Solid] = {
        "fish": Fish(kind="fish", length_mm=s, height_mm=round(0.26 * s, 1),
                     thick_mm=round(0.13 * s, 1), bend_deg=10),
        "eel": Eel(kind="eel", length_mm=s, thick_mm=round(0.09 * s, 1) + 0.5,
                   wave_mm=round(0.08 * s, 1)),
        "hull": Hull(kind="hull", length_mm=s + 4, beam_mm=round(0.34 * s, 1) + 2,
                     depth_mm=round(0.2 * s, 1) + 1, sheer_mm=round(0.05 * s, 1), wall_mm=1),
        "wagon": Wagon(kind="wagon", length_mm=s, width_mm=round(0.58 * s, 1),
                       height_mm=round(0.62 * s, 1), wall_mm=0.8),
        "plank": Box(kind="box", centre_mm=[0, 0, 1], size_mm=[s, max(1.0, round(0.14 * s, 1)), 2]),
        "post": Capsule(kind="capsule", from_mm=[0, 0, round(0.06 * s, 1)],
                        to_mm=[0, 0, s], radius_mm=max(0.5, round(0.05 * s, 1))),
        "ladder": Ladder(kind="ladder", length_mm=s, width_mm=max(2.0, round(0.2 * s, 1)),
                         rail_mm=max(0.5, round(0.03 * s, 1)), rungs_count=8),
        "sphere": Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, s / 2], radii_mm=[s / 2] * 3),
        "ring": Ring(kind="ring", outer_mm=s, thick_mm=round(0.18 * s, 1)),
        "tuft": Tuft(kind="tuft", height_mm=s, spread_mm=round(0.6 * s, 1),
                     blade_mm=max(0.5, round(0.05 * s, 1)), blades_count=12),
    }
    return makers[kind]
