"""Whether what was mixed sets as its label says."""

from __future__ import annotations

from collections.abc import Iterator

from ..bench.correcting import NOTICED, SOFT
from ..cure.kinetics import glass_temperature_c
from ..scene import Scene
from .flag import Finding, Severity, Where
from .registry import check


@check("ratio_off", stage="bench", source="own_geometry")
def ratio_off(scene: Scene) -> Iterator[Finding]:
    """A pour whose parts were mixed in another ratio than the label's."""
    for number, pour in enumerate(scene.pours, start=1):
        resin = scene.resin_of(pour)
        error = resin.mixed_error_fraction
        if abs(error) < NOTICED:
            continue
        soft = abs(error) >= SOFT
        yield Finding(
            severity=Severity.STOP if soft else Severity.WATCH,
            where=Where(depth_mm=pour.top_depth_mm, pour_number=number),
            number=round(abs(error), 4), limit=SOFT if soft else NOTICED, quantity="plain",
            sentence="sentence_soft" if soft else "sentence",
            values={
                "pour": number, "by": abs(error), "which": "A" if error < 0 else "B",
                "glass_c": float(glass_temperature_c(1.0, resin)), "room_c": scene.brief.room.day_c,
            },
        )
