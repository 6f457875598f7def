"""What can be told of the bed."""

from __future__ import annotations

from collections.abc import Iterator

from ..scene import Scene
from ..scene.edits import seal_bed
from .flag import Finding, Severity, Where
from .registry import check

POROUS_FROM = 0.05
"""Share of pores from which a bed has to be sealed. Source: assumed"""


@check("bed_not_sealed", stage="bed", source="own_geometry", remedies=(seal_bed,))
def bed_not_sealed(scene: Scene) -> Iterator[Finding]:
    """Pores that feed bubbles."""
    bed = scene.bed
    if bed.sealed or bed.material.porosity_fraction < POROUS_FROM:
        return
    highest = max(map(max, bed.heights_mm))
    yield Finding(
        severity=Severity.WATCH, where=Where(depth_mm=round(scene.tank.fill_height_mm - highest, 1)),
        number=bed.material.porosity_fraction, limit=POROUS_FROM, quantity="plain",
        values={"material": bed.material.name}, remedies=[seal_bed(scene)],
    )
