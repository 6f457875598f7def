"""What heat spoils: where it sits, what it stands, and how hot it gets there."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf
from typing import Any, Literal

from ..cure.moments import PourCure, PourPlaces
from .answer import Answer
from .heat import HEAT, Heat
from .reading import Reading

PAINT_C = 80.0
"""degrees C; acrylic paint yellows from here. Source: own_march"""

LIMIT_READS = Reading("tank.wall.material", "tank.seal", "bed.material", "pours.id", "pours.resin_id", "resins")


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatLimit:
    """Something that heat spoils, where it sits, and how hot it gets there.

    pour_id    None if it stands beside every pour
    reached_c  hottest there, of the pour or of all; None where the march tells nothing
    """

    what: Literal["wall", "bed", "paint", "resin", "seal"]
    name: str
    limit_c: float
    pour_id: str | None
    reached_c: float | None

    @property
    def reached(self) -> float:
        """The same to compare by: colder than anything where nothing is told [degrees C]."""
        return -inf if self.reached_c is None else self.reached_c


def limits_of_pour(scene: Any, number: int, cure: PourCure | None, place: PourPlaces) -> list[HeatLimit]:
    """The limits that one pour can break."""
    wall, bed, pour = scene.tank.wall.material, scene.bed.material, scene.pours[number - 1]
    resin = scene.resin_of(pour)
    limits = [
        HeatLimit(what="wall", name=wall.name, limit_c=wall.limit_c, pour_id=None, reached_c=place.sheet_c),
        HeatLimit(what="bed", name=bed.name, limit_c=bed.limit_c, pour_id=None, reached_c=place.bed_c),
        HeatLimit(what="paint", name="paint", limit_c=PAINT_C, pour_id=None, reached_c=place.bed_c),
        HeatLimit(
            what="resin", name=resin.name, limit_c=resin.limit_c, pour_id=pour.id,
            reached_c=cure.peak_c if cure else None,
        ),
    ]
    if scene.tank.seal is not None:
        seal = scene.tank.seal.material
        limits.append(
            HeatLimit(what="seal", name=seal.name, limit_c=seal.limit_c, pour_id=None, reached_c=place.joint_c)
        )
    return limits


def _limits(scene: Any, heat: Heat) -> list[HeatLimit]:
    """What the dam, the bed and each pour's resin stand, each at its own hottest place."""
    limits = [
        limit
        for number, (cure, place) in enumerate(zip(heat.cures, heat.places, strict=True), start=1)
        for limit in limits_of_pour(scene, number, cure, place)
    ]
    whole: dict[str, HeatLimit] = {}
    for limit in limits:
        seen = whole.get(limit.what)
        if limit.pour_id is None and (seen is None or limit.reached > seen.reached):
            whole[limit.what] = limit
    return [*whole.values(), *(limit for limit in limits if limit.pour_id is not None)]


LIMITS = Answer(name="limits", reads=LIMIT_READS, needs=(HEAT,), by=_limits)
