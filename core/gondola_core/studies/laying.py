"""Lays pours: equal ones of one resin, each begun when its maker is free, into the tack of the last where it can be."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from math import ceil

from ..answers.kept import Keeper
from ..checks import Flag, Severity
from ..checks.recoat import EDGE_SHARE
from ..cure.moments import PourCure
from ..evaluate import DRAFT, KEEPER, evaluate
from ..outcome import Outcome
from ..scene import Brief, Dose, Pour, Scene
from ..scene.edits import USUAL_WAIT_H
from ..scene.schedule import free_moment_h, next_free_h
from ..shape import Meshes

Told = Callable[[float], None]

MOST_POURS = 14
"""More than this is no plan any more. Source: assumed"""
SETTLE = 3
"""Marches in which waits settle into the tack windows."""
SETTLED_H = 0.6
"""Waits that move by less are settled [h]."""
HOT_CODES = frozenset({"too_hot", "figure_hot", "may_crack"})
"""Stops that more pours can answer."""
HEAT_CODES = HOT_CODES | {"too_early", "never_hard"}
"""Stops that pours and waits can answer."""
COOLEST_MIX_C, WARMEST_MIX_C = 18.0, 30.0
"""A mix is brought to the room, within this [degrees C]. Source: assumed"""
LONGEST_WAIT_H = 720.0
"""As long as a document holds."""
STEP_H = 0.25
"""Waits are told to the quarter of an hour."""


def untold(_: float) -> None:
    """Nobody asks how far it is."""


def lay_pours(
    scene: Scene, resin_id: str, meshes: Meshes | None = None, keeper: Keeper = KEEPER, told: Told = untold,
    over_label: float = 1.0,
) -> tuple[Scene, Outcome]:
    """The scene with the fewest equal pours that heat stops nowhere, or the best that was found, and its outcome.

    over_label  deepest pour that is tried, in depths of the label
    """
    for count in range(fewest_pours(scene, resin_id, over_label), MOST_POURS + 1):
        settled, outcome = settle_waits(cut_pours(scene, resin_id, count), meshes, keeper, told)
        # where only waits or a stalled cure are left, more pours would not help
        if count == MOST_POURS or not any(flag.code in HOT_CODES for flag in stops_of(outcome)):
            break
    return settled, outcome


def fewest_pours(scene: Scene, resin_id: str, over_label: float = 1.0) -> int:
    """Equal pours of a resin that are no deeper than so many depths of its label; at most as many as anyone makes."""
    resin = next(one for one in scene.resins if one.id == resin_id)
    return min(MOST_POURS, max(1, ceil(scene.tank.fill_height_mm / (over_label * resin.most_pour_mm))))


def usual_mix_c(scene: Scene) -> float:
    """A mix is brought to the room, as far as that does it good [degrees C]."""
    return min(WARMEST_MIX_C, max(COOLEST_MIX_C, scene.brief.room.mean_c))


def cut_pours(scene: Scene, resin_id: str, count: int) -> Scene:
    """The scene in so many pours of one depth, each with the doses that the plan had there."""
    fill = scene.tank.fill_height_mm
    tops = [round(fill * (1 - (n + 1) / count), 1) for n in range(count - 1)] + [0.0]
    mix_c = usual_mix_c(scene)
    pours = [
        Pour(
            id=f"pour-{n + 1}", top_depth_mm=top, resin_id=resin_id, mix_c=mix_c,
            wait_h=0.0 if n == 0 else USUAL_WAIT_H, doses=doses_between(scene, top, bottom),
        )
        for n, (top, bottom) in enumerate(zip(tops, [fill, *tops], strict=False))
    ]
    return scene.model_copy(update={"pours": pours})


def doses_between(scene: Scene, top_mm: float, bottom_mm: float) -> list[Dose]:
    """Doses that keep what the plan has between two depths: the mean over its pours there, by their thickness."""
    lines = [scene.tank.fill_height_mm, *(pour.top_depth_mm for pour in scene.pours)]
    held: dict[str, float] = {}
    for pour, below in zip(scene.pours, lines, strict=False):
        within = min(below, bottom_mm) - max(pour.top_depth_mm, top_mm)
        if within > 0:
            for dose in pour.doses:
                share = within / (bottom_mm - top_mm)
                held[dose.colourant_id] = held.get(dose.colourant_id, 0.0) + share * dose.dose_drops_per_100g
    return [Dose(colourant_id=key, dose_drops_per_100g=round(drops, 4)) for key, drops in held.items() if drops > 0]


def settle_waits(
    scene: Scene, meshes: Meshes | None, keeper: Keeper, told: Told
) -> tuple[Scene, Outcome]:
    """Its waits as they suit tack and free hours, over some marches: a layer cools and cures by what follows it."""
    outcome = evaluate(scene, DRAFT, keeper, told, meshes)
    for _ in range(SETTLE):
        cures = [pour.heat.cure for pour in outcome.pours[:-1]]
        waits = waits_for(scene.brief, cures, [pour.wait_h for pour in scene.pours])
        if max(abs(wait - pour.wait_h) for wait, pour in zip(waits, scene.pours, strict=True)) < SETTLED_H:
            break
        pours = [
            pour.model_copy(update={"wait_h": wait}) for pour, wait in zip(scene.pours, waits, strict=True)
        ]
        scene = scene.model_copy(update={"pours": pours})
        outcome = evaluate(scene, DRAFT, keeper, told, meshes)
    return scene, outcome


def waits_for(
    brief: Brief, cures: Iterable[PourCure | None], planned_h: list[float], aim: float = 0.5
) -> list[float]:
    """Wait of each pour: to the free moment in the tack of the one below that is nearest to where it is wished.

    Where no free hour meets that tack, to the first one after it is hard: it is then abraded first.
    planned_h  what stays where the march knows no window
    aim        share of the tack at which it is wished; over 1: after the layer below is hard, to be abraded
    """
    waits, start = [0.0], 0.0
    for cure, planned in zip(cures, planned_h[1:], strict=True):
        at = _begins_h(brief, start, cure, aim)
        wait = planned if at is None else min(LONGEST_WAIT_H, round((at - start) / STEP_H) * STEP_H)
        waits.append(wait)
        start += wait
    return waits


def _begins_h(brief: Brief, start_h: float, cure: PourCure | None, aim: float) -> float | None:
    if cure is None or cure.tack_opens_h is None or cure.tack_closes_h is None:
        return None
    opens, closes = start_h + cure.tack_opens_h, start_h + cure.tack_closes_h
    edge, wished = EDGE_SHARE * (closes - opens), opens + aim * (closes - opens)
    for low, high in ((opens + edge, closes - edge), (opens, closes)) if aim <= 1 else ():
        at = free_moment_h(brief.first_pour_at, brief.free, low, high, wished)
        if at is not None:
            return at
    hard = cure.hard_h if cure.hard_h is not None else cure.tack_closes_h
    return next_free_h(brief.first_pour_at, brief.free, start_h + max(hard, cure.tack_closes_h))


def stops_of(outcome: Outcome) -> list[Flag]:
    """What heat and waits stop."""
    return [flag for flag in outcome.flags if flag.severity is Severity.STOP and flag.code in HEAT_CODES]
