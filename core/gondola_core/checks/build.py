"""What can be told of dam and bed: bulge, thin layers, rim, release, seal."""

from __future__ import annotations

from math import ceil

from ..dam import DamFacts
from ..dam.facts import MOST_BULGE_MM
from ..scene import Scene
from .flag import Edit, Flag, Remedy, Severity

RELEASES_BY_ITSELF = ("polypropylene", "silicone-mould", "tape-on-frame")


def dam_flags(scene: Scene, dam: DamFacts) -> list[Flag]:
    """Flags of the dam's strength, of layers too thin to cover, and of walls that will not let go."""
    return [*_bulge_flags(scene, dam), *_thin_flags(scene, dam), *_release_flags(scene)]


def _bulge_flags(scene: Scene, dam: DamFacts) -> list[Flag]:
    if not dam.loads or (scene.tank.walls_stay and scene.tank.wall.material.id == "glass"):
        return []
    worst = max(dam.loads, key=lambda load: load.bulge_high_mm)
    if worst.bulge_high_mm <= MOST_BULGE_MM:
        return []
    thickness = scene.tank.wall.thickness_mm
    over = worst.bulge_high_mm > thickness / 2
    warm = f" at {dam.wall_peak_c:.0f} °C" if dam.wall_peak_c else ""
    tail = f"more than half the sheet: brace it ({worst.ribs_count} ribs)" if over else (
        f"a stiff bar along the top keeps it to {worst.braced_mm:.2f} mm"
    )
    return [
        Flag(
            code="dam_bulges",
            severity=Severity.WATCH if worst.bulge_low_mm > MOST_BULGE_MM or over else Severity.NOTE,
            title=f"The {worst.name} may bulge {worst.bulge_high_mm:.1f} mm",
            sentence=(
                f"{worst.bulge_low_mm:.1f} mm with firm joints, {worst.bulge_high_mm:.1f} mm with "
                f"soft ones{warm}; {tail}."
            ),
            number=worst.bulge_high_mm,
            limit=MOST_BULGE_MM,
            unit="mm",
            depth_mm=0.0,
            at_h=None,
            pour_number=None,
            figure_id=None,
            remedies=[_thicker(max(load.least_thickness_mm for load in dam.loads))],
        )
    ]


def _thicker(least_mm: float) -> Remedy:
    thick = min(40.0, ceil(least_mm * 2) / 2)
    return Remedy(
        label=f"sheet of {thick:g} mm",
        edits=[Edit(op="replace", path="/tank/wall/thickness_mm", value=thick)],
    )


def _thin_flags(scene: Scene, dam: DamFacts) -> list[Flag]:
    found = []
    below = scene.tank.fill_height_mm
    for number, pour in enumerate(scene.pours, start=1):
        depth = below - pour.top_depth_mm
        below = pour.top_depth_mm
        if depth >= dam.self_covering_mm:
            continue
        found.append(
            Flag(
                code="draws_back",
                severity=Severity.WATCH,
                title=f"Pour {number} is too thin to cover by itself",
                sentence=(
                    f"A layer under {dam.self_covering_mm:.1f} mm draws back from a greasy spot or "
                    f"the rim; this one is {depth:.1f} mm, and the floor may be "
                    f"{dam.level_error_mm:.1f} mm off from edge to edge."
                ),
                number=round(depth, 2),
                limit=dam.self_covering_mm,
                unit="mm",
                depth_mm=pour.top_depth_mm,
                at_h=None,
                pour_number=number,
                figure_id=None,
                remedies=[],
            )
        )
    return found


def _release_flags(scene: Scene) -> list[Flag]:
    tank = scene.tank
    if tank.walls_stay or tank.release != "none":
        return []
    if tank.wall.material.id in RELEASES_BY_ITSELF:
        return []
    return [
        Flag(
            code="no_release",
            severity=Severity.WATCH,
            title="Nothing lets the dam go",
            sentence=(
                f"Resin bonds to {tank.wall.material.name}: wax, tape or spray it before the pour, "
                "or say that the walls stay."
            ),
            number=0.0,
            limit=0.0,
            unit="",
            depth_mm=None,
            at_h=None,
            pour_number=None,
            figure_id=None,
            remedies=[
                Remedy(
                    label="wax the walls",
                    edits=[Edit(op="replace", path="/tank/release", value="wax")],
                ),
                Remedy(
                    label="the walls stay",
                    edits=[Edit(op="replace", path="/tank/walls_stay", value=True)],
                ),
            ],
        )
    ]
