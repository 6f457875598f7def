"""What the pours do to the dam."""

from __future__ import annotations

from typing import Any

from ..dam import DamFacts, PourOnDam, dam_facts
from .answer import Answer
from .fills import lines_mm
from .heat import HEAT, Heat
from .reading import Reading

READS = Reading("tank", "pours.top_depth_mm", "pours.resin_id", "resins")


def pours_on_dam(scene: Any, heat: Heat) -> list[PourOnDam]:
    """Each pour as the dam meets it."""
    lines = lines_mm(scene)
    return [
        PourOnDam(
            number=number, floor_mm=lines[number - 1], line_mm=lines[number],
            density_g_ml=scene.resin_of(pour).density_g_ml, wall_c=place.sheet_c,
        )
        for number, (pour, place) in enumerate(zip(scene.pours, heat.places, strict=True), start=1)
    ]


def dam_under(scene: Any, heat: Heat) -> DamFacts:
    """The dam under these pours."""
    return dam_facts(scene.tank, pours_on_dam(scene, heat))


DAM = Answer(name="dam", reads=READS, needs=(HEAT,), by=dam_under)
