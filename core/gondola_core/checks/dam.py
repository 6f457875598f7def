"""What can be told of the dam: bulge, thin layers, rim, release."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil, inf

from ..answers.dam import DAM
from ..answers.fills import VOLUMES, Volumes
from ..dam import DamFacts, PanelLoad
from ..dam.facts import LAW_HOLDS_TO, MOST_BULGE_MM, RELEASES_BY_ITSELF
from ..scene import Scene
from ..scene.edits import Edit, thicker_sheet, walls_stay, wax_walls
from ..words import words
from .flag import Finding, Severity, Where
from .registry import check

LEAST_HEADROOM_MM = 6.0
"""Wall above the fill line that the climb of the resin and a tilt use up. Source: assumed"""
THICKEST_MM = 40.0
"""Sheet that is still bought. Source: assumed"""
STIFF_ENOUGH = "glass"
"""A ready container of this does not bulge."""


@check("dam_bulges", stage="tank", needs=(DAM,), source="own_plates", remedies=(thicker_sheet,))
def dam_bulges(scene: Scene, dam: DamFacts) -> Iterator[Finding]:
    """The panel that bends most; a stop where it lets go even with firm joints."""
    tank = scene.tank
    if not dam.loads or (tank.walls_stay and tank.wall.material.id == STIFF_ENOUGH):
        return
    worst = max(dam.loads, key=lambda load: load.bulge_high_mm if load.bulge_high_mm is not None else inf)
    if worst.bulge_high_mm is not None and worst.bulge_high_mm <= MOST_BULGE_MM:
        return
    severity, title, sentence = _how_bad(worst)
    yield Finding(
        severity=severity, where=Where(depth_mm=0.0, pour_number=worst.pour_number),
        number=worst.bulge_high_mm if worst.bulge_high_mm is not None else tank.wall.thickness_mm * LAW_HOLDS_TO,
        limit=MOST_BULGE_MM, quantity="length", title=title, sentence=sentence,
        values={
            "panel": worst.name, "pour": worst.pour_number, "low": worst.bulge_low_mm, "high": worst.bulge_high_mm,
            "warm": words("flags.dam_bulges.warm", peak_c=dam.wall_peak_c) if dam.wall_peak_c else "",
            "ribs": max(1, worst.ribs_count),
            "bar": "" if worst.braced_mm is None else words("flags.dam_bulges.bar", braced=worst.braced_mm),
        },
        remedies=[_thicker(scene, max(load.least_loose_mm for load in dam.loads))],
    )


def _how_bad(load: PanelLoad) -> tuple[Severity, str, str]:
    if load.bulge_low_mm is None:
        return Severity.STOP, "title_lets_go", "sentence_lets_go"
    if load.bulge_high_mm is None:
        return Severity.WATCH, "title_soft", "sentence_soft"
    return Severity.WATCH if load.bulge_low_mm > MOST_BULGE_MM else Severity.NOTE, "title", "sentence"


def _thicker(scene: Scene, least_mm: float) -> Edit:
    return thicker_sheet(scene, min(THICKEST_MM, ceil(least_mm * 2) / 2))


@check("draws_back", stage="pours", needs=(DAM, VOLUMES), source="degennes2004")
def draws_back(scene: Scene, dam: DamFacts, volumes: Volumes) -> Iterator[Finding]:
    """Layers too thin to cover by themselves."""
    for number, (pour, depth) in enumerate(zip(scene.pours, volumes.depth_mm.tolist(), strict=True), start=1):
        if depth < dam.self_covering_mm:
            yield Finding(
                severity=Severity.WATCH, where=Where(depth_mm=pour.top_depth_mm, pour_number=number),
                number=round(depth, 2), limit=dam.self_covering_mm, quantity="length",
                values={"pour": number, "off": dam.level_error_mm},
            )


@check("no_release", stage="tank", source="own_plates", remedies=(wax_walls, walls_stay))
def no_release(scene: Scene) -> Iterator[Finding]:
    """Walls that will not let go."""
    tank = scene.tank
    if tank.walls_stay or tank.release != "none" or tank.wall.material.id in RELEASES_BY_ITSELF:
        return
    yield Finding(
        severity=Severity.WATCH, where=Where(), number=0.0, limit=0.0, quantity="plain",
        values={"wall": tank.wall.material.name}, remedies=[wax_walls(scene), walls_stay(scene)],
    )


@check("near_rim", stage="tank", source="assumed")
def near_rim(scene: Scene) -> Iterator[Finding]:
    """Too little wall above the fill line."""
    headroom = scene.tank.wall_height_mm - scene.tank.fill_height_mm
    if headroom < LEAST_HEADROOM_MM:
        yield Finding(
            severity=Severity.WATCH, where=Where(depth_mm=0.0), number=headroom, limit=LEAST_HEADROOM_MM,
            quantity="length",
        )
