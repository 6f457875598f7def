"""What can be told of dam and bed: bulge, thin layers, rim, release, seal."""

from __future__ import annotations

from collections.abc import Sequence
from math import ceil, inf

from ..dam import DamFacts
from ..dam.facts import LAW_HOLDS_TO, MOST_BULGE_MM, RELEASES_BY_ITSELF
from ..scene import Scene
from .flag import Edit, Flag, Remedy, Severity


def dam_flags(scene: Scene, dam: DamFacts, depths_mm: Sequence[float]) -> list[Flag]:
    """Flags of the dam's strength, of layers too thin to cover, and of walls that will not let go.

    depths_mm  of each pour's liquid
    """
    return [*_bulge_flags(scene, dam), *_thin_flags(scene, dam, depths_mm), *_release_flags(scene)]


def _bulge_flags(scene: Scene, dam: DamFacts) -> list[Flag]:
    if not dam.loads or (scene.tank.walls_stay and scene.tank.wall.material.id == "glass"):
        return []
    worst = max(dam.loads, key=lambda load: load.bulge_high_mm if load.bulge_high_mm is not None else inf)
    high, low = worst.bulge_high_mm, worst.bulge_low_mm
    if high is not None and high <= MOST_BULGE_MM:
        return []
    thickness = scene.tank.wall.thickness_mm
    warm = f" at {dam.wall_peak_c:.0f} °C" if dam.wall_peak_c else ""
    ribs = f"{worst.ribs_count} ribs" if worst.ribs_count > 1 else "a rib"
    if low is None:
        title = f"The {worst.name} let go, or have to be braced"
        words = f"Pour {worst.pour_number} bends them past half the sheet{warm}, firm joints or soft"
    elif high is None:
        title = f"The {worst.name} need bracing unless every joint is firm"
        words = (
            f"Pour {worst.pour_number} bends them {low:.1f} mm with firm joints, past half the sheet with soft "
            f"ones{warm}"
        )
    else:
        title = f"The {worst.name} may bulge {high:.1f} mm"
        words = f"{low:.1f} mm with firm joints, {high:.1f} mm with soft ones{warm}"
    bar = "" if worst.braced_mm is None else f", a stiff bar along the top keeps it to {worst.braced_mm:.2f} mm"
    return [
        Flag(
            code="dam_bulges",
            severity=Severity.STOP if low is None else (
                Severity.WATCH if high is None or low > MOST_BULGE_MM else Severity.NOTE
            ),
            title=title,
            sentence=f"{words}; {ribs} would hold it{bar}.",
            number=high if high is not None else thickness * LAW_HOLDS_TO,
            limit=MOST_BULGE_MM,
            unit="mm",
            depth_mm=0.0,
            at_h=None,
            pour_number=worst.pour_number,
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


def _thin_flags(scene: Scene, dam: DamFacts, depths_mm: Sequence[float]) -> list[Flag]:
    found = []
    for number, (pour, depth) in enumerate(zip(scene.pours, depths_mm, strict=True), start=1):
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
                number=round(float(depth), 2),
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
