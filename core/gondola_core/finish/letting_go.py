"""How the dam comes off: in which order, by what, and with how much force."""

from __future__ import annotations

from dataclasses import dataclass

from ..scene import Tank
from ..words import Words, words

PEEL_J_M2 = {"none": 120.0, "wax": 4.0, "petroleum_jelly": 2.0, "silicone_spray": 2.0, "tape": 8.0}
"""Energy that lets a face go, by what is between. Source: assumed"""
LETS_GO_BY_ITSELF = {"polypropylene", "silicone-mould"}
"""Walls that resin does not hold to, and what holds them. Source: assumed"""
OWN_PEEL_J_M2 = 6.0
BY_JOINT = {
    "hot-glue": "alcohol", "silicone": "blade", "tape": "peel", "wood-glue": "wedge", "instant-glue": "wedge",
    "light-cured-seam": "wedge",
}
THIN_PLASTIC_MM = 2.0
BREAKS = {"glass"}
WARM_MOST_C = 60.0
"""As warm as a sheet is made to let go. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Release:
    """One thing to do to the dam, in order; `force_n` of a face that is peeled off from its edge."""

    id: str
    title: Words
    words: Words
    caution: Words | None
    force_n: float | None


def peel_force_n(peel_j_m2: float, width_mm: float) -> float:
    """Force that peels a face off from one edge, at right angles.

        F = G b

    Source: kendall1975

    >>> peel_force_n(4.0, 200.0)
    0.8
    """
    return peel_j_m2 * width_mm / 1000


def letting_go(tank: Tank, width_mm: float, height_mm: float) -> list[Release]:
    """The order of work for a dam: joints, then faces, sheet that breaks last; empty where its walls stay."""
    if tank.walls_stay:
        return []
    found = []
    seal = "" if tank.seal is None else tank.seal.material.id
    if seal in BY_JOINT:
        way = BY_JOINT[seal]
        caution = words("finish.alcohol_caution") if way == "alcohol" else words("finish.blade_caution")
        found.append(Release(
            id=f"joint_{way}", title=words("finish.joints_off"), words=words(f"finish.joint_{way}"), caution=caution,
            force_n=None,
        ))
    if tank.wall.material.id == "pvc-foam" or tank.wall.thickness_mm <= THIN_PLASTIC_MM:
        found.append(Release(
            id="warm", title=words("finish.warm_off"), words=words("finish.warm"),
            caution=words("finish.warm_caution", most=WARM_MOST_C), force_n=None,
        ))
    own = tank.wall.material.id in LETS_GO_BY_ITSELF
    energy = min(OWN_PEEL_J_M2, PEEL_J_M2[tank.release]) if own else PEEL_J_M2[tank.release]
    force = peel_force_n(energy, max(width_mm, height_mm))
    missed = tank.release == "none" and not own
    found.append(Release(
        id="faces_missed" if missed else "faces", title=words("finish.faces_off"),
        words=words("finish.faces_missed" if missed else "finish.faces", force=force),
        caution=words("finish.sharp_caution"), force_n=round(force, 2),
    ))
    if missed and tank.wall.material.id in BREAKS:
        found.append(Release(
            id="break", title=words("finish.break_off"), words=words("finish.break"),
            caution=words("finish.break_caution"), force_n=None,
        ))
    return found
