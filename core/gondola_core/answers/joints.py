"""How each pour meets the one below it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from ..cure.bond import Bond, bond_below
from ..tint import Seam
from ..words import Words, words
from .answer import Answer
from .grades import DRAFT, Grade
from .heat import HEAT, Cures, Heat
from .reading import Reading
from .water import SEAMS


class Meets(StrEnum):
    """How a pour meets the one below."""

    ON_BED = "on_bed"
    TOO_EARLY = "too_early"
    BONDS = "bonds"
    TOO_LATE = "too_late"
    TOO_CLOSE = "too_close"


@dataclass(frozen=True, slots=True, kw_only=True)
class PourJoint:
    """The joint under a pour; `bond` and `seam` are None under the first. `words` say how it meets."""

    meets: Meets
    words: Words
    bond: Bond | None
    seam: Seam | None


def _joints(scene: Any, heat: Heat, seams: list[Seam], grade: Grade) -> list[PourJoint]:
    """A draft says so where its cells cannot decide."""
    sides = [heat.doubted(way).cures for way in (1, -1)] if grade.name == DRAFT.name else []
    found = []
    for index in range(len(scene.pours)):
        meets = _meets(scene, index, heat.cures)
        if any(_meets(scene, index, cures) != meets for cures in sides):
            meets = Meets.TOO_CLOSE
        below = scene.resin_of(scene.pours[max(0, index - 1)])
        found.append(
            PourJoint(
                meets=meets, words=words(f"joints.{meets}"), bond=bond_below(heat.marched, index, below),
                seam=seams[index - 1] if index else None,
            )
        )
    return found


def _meets(scene: Any, index: int, cures: Cures) -> Meets:
    below = cures[index - 1] if index else None
    if below is None:
        return Meets.ON_BED
    wait = scene.pours[index].wait_h
    if below.tack_opens_h is None or wait < below.tack_opens_h:
        return Meets.TOO_EARLY
    if below.tack_closes_h is not None and wait > below.tack_closes_h:
        return Meets.TOO_LATE
    return Meets.BONDS


JOINTS = Answer(
    name="joints", reads=Reading("pours.wait_h", "pours.resin_id", "resins"), needs=(HEAT, SEAMS), by=_joints,
    graded=True,
)
