"""What is seen of each layer line, from every side that the piece is seen from."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any, Literal

import numpy as np

from ..dam import DamFacts
from ..scene.brief import Side
from ..tint import Seam, Seen, seam_seen, seam_steps, water_of
from ..tint.colour import reflectance_of_hex
from ..tint.lines import (
    Joint,
    climb_de00,
    dust_de00,
    dust_from_above_de00,
    index_de00,
    shrink_de00,
    together,
)
from ..tint.sights import feather_gain
from ..units import MM
from ..words import Words, words
from .answer import Answer
from .bodies import BODIES, FigureBody
from .dam import DAM
from .joints import JOINTS, PourJoint
from .reading import Reading
from .sides import along_mm
from .water import SEAMS, WATER_PATHS

PartName = Literal["colour", "index", "dust", "climb", "shrink"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LinePart:
    """One thing that draws a line, and how strongly by itself."""

    name: PartName
    de00: float
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class LineSide:
    """A line from one side: all that draws it together, how it reads, and the parts, largest first.

    hidden_fraction  of the line's length that figures stand before
    """

    side: Side
    de00: float
    seen: Seen
    words: Words
    hidden_fraction: float
    parts: list[LinePart]


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """The line on top of a pour, where the next one meets it; `worst` is where it shows most."""

    pour_number: int
    depth_mm: float
    worst: Seen
    sides: list[LineSide]


def _lines(
    scene: Any, joints: list[PourJoint], dam: DamFacts, bodies: list[FigureBody], seams: list[Seam]
) -> list[Line]:
    colours = _colours(scene, seams)
    found = []
    for index, (below, above) in enumerate(pairwise(scene.pours)):
        joint = _joint(scene, below, above, joints[index + 1], dam)
        sides = [
            _side(scene, side, below.top_depth_mm, joint, colours[side][index], bodies)
            for side in scene.brief.viewing_sides
        ]
        worst = max(sides, key=lambda one: one.de00)
        found.append(Line(pour_number=index + 1, depth_mm=below.top_depth_mm, worst=worst.seen, sides=sides))
    return found


def _colours(scene: Any, seams: list[Seam]) -> dict[str, list[float]]:
    """Colour step of every line by side, from the bottom up; from above there is none.

    seams  the steps against the back wall, which front and back see
    """
    soft = feather_gain(scene.brief.feather_mm, scene.brief.viewing_mm)
    steps = {float(scene.tank.inner_behind_mm): [one.seam_de00 / soft for one in seams]}
    flat = [0.0] * (len(scene.pours) - 1)
    level = [side for side in scene.brief.viewing_sides if side != "above"]
    others = {along_mm(scene, side) for side in level} - set(steps)
    if others:
        water, wall = water_of(scene), reflectance_of_hex(scene.brief.backdrop_srgb)
        for path_mm in others:
            seen = seam_steps(replace(water, behind=path_mm * MM), wall)[::-1]
            steps[path_mm] = [float(one) / soft for one in seen]
    return {side: steps[along_mm(scene, side)] if side in level else flat for side in scene.brief.viewing_sides}


def _joint(scene: Any, below: Any, above: Any, joint: PourJoint, dam: DamFacts) -> Joint:
    lower, upper = scene.resin_of(below), scene.resin_of(above)
    return Joint(
        index_step=upper.refractive_index - lower.refractive_index, open_h=above.wait_h,
        covered=scene.brief.habits.covered, bond_fraction=joint.bond.bond_fraction if joint.bond else 1.0,
        shrunk=0.0 if joint.bond is None or dam.bonded else max(
            0.0, lower.shrink_fraction / 3 * (joint.bond.below_cured_fraction - lower.gel_degree)
        ),
        climb_mm=dam.lip_mm, viewing_mm=scene.brief.viewing_mm,
    )


def _side(
    scene: Any, side: Side, depth_mm: float, joint: Joint, colour_de00: float, bodies: list[FigureBody]
) -> LineSide:
    path_mm = along_mm(scene, side)
    if side == "above":
        drawn: dict[PartName, float] = {"dust": dust_from_above_de00(joint)}
    else:
        drawn = {
            "colour": colour_de00, "index": index_de00(joint), "dust": dust_de00(joint, path_mm),
            "climb": climb_de00(joint), "shrink": shrink_de00(joint, path_mm, scene.brief.sides == "polished"),
        }
    total = together(list(drawn.values()))
    parts = sorted(drawn.items(), key=lambda one: -one[1])
    seen = seam_seen(total)
    sentence = f"lines.{seen}" if seen == "invisible" else f"lines.{seen}_by"
    return LineSide(
        side=side, de00=round(total, 2), seen=seen, words=words(sentence, by=words(f"lines.{parts[0][0]}")),
        hidden_fraction=_hidden(scene, side, depth_mm, bodies),
        parts=[LinePart(name=name, de00=round(de00, 2), words=words(f"lines.{name}")) for name, de00 in parts],
    )


def _hidden(scene: Any, side: Side, depth_mm: float, bodies: list[FigureBody]) -> float:
    """Share of a line's length in whose way figures are, by their extents; none from above."""
    if side == "above" or not bodies:
        return 0.0
    axis = 0 if side in ("front", "back") else 1
    height = scene.tank.fill_height_mm - depth_mm
    size = scene.tank.inner_width_mm if axis == 0 else scene.tank.inner_behind_mm
    places = (np.arange(100) + 0.5) / 100 * size
    behind = np.zeros(100, dtype=bool)
    for body in bodies:
        if body.least[2] < height < body.most[2]:
            behind |= (places >= body.least[axis]) & (places <= body.most[axis])
    return round(float(behind.mean()), 2)


LINES = Answer(
    name="lines", needs=(JOINTS, DAM, BODIES, SEAMS), by=_lines,
    reads=Reading(
        *WATER_PATHS, "brief.feather_mm", "brief.viewing_mm", "brief.viewing_sides", "brief.habits", "pours.wait_h",
        "resins.refractive_index", "resins.shrink_fraction", "resins.gel_degree",
    ),
)
