"""What will go wrong with figures: floating, air under them, heat, lamps, liners."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..holding.facts import FigureFacts
from ..scene import Figure, Scene
from ..shape.bodies.frame import figure_matrix
from ..shape.pockets import AirTrap, DryBasin
from .flag import Edit, Flag, Remedy, Severity
from .heat import PAINT_C

FLAT_TOLD_CM2 = 1.0
"""Flat underside from which it is said. Source: own_geometry"""
TRAP_WATCH_ML = 0.3
"""Pocket of air from which it is watched, not noted. Source: own_geometry"""
COVERED_LIMIT = 0.02
"""Share of a removable figure that resin may lie over. Source: own_holding"""
VENT_MM = 3.0
"""Hole through which resin and air pass each other. Source: own_geometry"""
LEAST_DRAFT_DEG, GOOD_DRAFT_DEG = 1.0, 2.0
"""Draft by which a cavity lets go. Source: own_holding"""
LIGHT_LIFT_GF = 0.05
"""Lift below which a figure that is laid down stays by its own wetting. Source: own_holding"""


def figure_flags(
    scene: Scene,
    facts: Sequence[FigureFacts],
    traps: Sequence[AirTrap],
    basins: Sequence[DryBasin],
    covered: Sequence[float],
) -> list[Flag]:
    """Flags of every figure, and of hollows in bed and figures.

    covered  share of each figure's plan that resin lies over
    """
    found: list[Flag] = []
    for figure, fact, over in zip(scene.figures, facts, covered, strict=True):
        found += _hold_flags(scene, figure, fact)
        found += _hot_flags(scene, figure, fact)
        found += _guess_flags(scene, figure, fact)
        found += _lamp_flags(scene, figure)
        found += _liner_flags(scene, figure, over)
        if fact.flat_underside_cm2 >= FLAT_TOLD_CM2 and (fact.ways[0].number > 1.0):
            found.append(_flat_flag(scene, figure, fact))
    found += [_trap_flag(scene, trap) for trap in traps]
    found += [_basin_flag(basin) for basin in basins]
    return found


def _path(scene: Scene, figure_id: str) -> str:
    at = next(i for i, figure in enumerate(scene.figures) if figure.id == figure_id)
    return f"/figures/{at}"


def _middle(scene: Scene, figure: Figure) -> float:
    return float(np.clip(
        round(scene.tank.fill_height_mm - figure.place.height_mm, 1), 0, scene.tank.fill_height_mm
    ))


def _flag(
    code: str, severity: Severity, title: str, sentence: str, number: float, limit: float,
    unit: str, depth_mm: float | None, figure_id: str | None, remedies: list[Remedy],
) -> Flag:
    return Flag(
        code=code, severity=severity, title=title, sentence=sentence, number=number, limit=limit,
        unit=unit, depth_mm=depth_mm, at_h=None, pour_number=None, figure_id=figure_id,
        remedies=remedies,
    )


def _hold_flags(scene: Scene, figure: Figure, fact: FigureFacts) -> list[Flag]:
    chosen = next(way for way in fact.ways if way.way == figure.holding)
    if chosen.holds:
        return []
    laid = figure.holding in ("on_bed", "staged") and fact.behaves != "sinks"
    if laid and abs(fact.lift_gf) < LIGHT_LIFT_GF:
        return []
    floats = fact.lift_gf > 0
    others = [way for way in fact.ways if way.holds]
    remedies = [
        Remedy(
            label=f"hold it: {way.name}",
            edits=[Edit(op="replace", path=f"{_path(scene, figure.id)}/holding", value=way.way)],
        )
        for way in others[:2]
    ]
    if figure.holding == "on_bed" and fact.rests_mm is not None and not floats:
        remedies.insert(
            0,
            Remedy(
                label="drop it to the bed",
                edits=[
                    Edit(
                        op="replace", path=f"{_path(scene, figure.id)}/place/height_mm",
                        value=round(fact.rests_mm, 1),
                    )
                ],
            ),
        )
    verb = f"floats up with {fact.lift_gf:.2g} gf" if floats else (
        f"sinks with {-fact.lift_gf:.2g} gf"
    )
    return [
        _flag(
            "not_held", Severity.STOP if floats else Severity.WATCH,
            f"The {figure.name} {verb}",
            f"{chosen.name[:1].upper()}{chosen.name[1:]} does not hold it: {chosen.sentence}.",
            chosen.number, chosen.limit, chosen.unit, _middle(scene, figure), figure.id, remedies,
        )
    ]


def _hot_flags(scene: Scene, figure: Figure, fact: FigureFacts) -> list[Flag]:
    if fact.peak_c is None:
        return []
    limits = [(figure.material.limit_c, figure.material.name), (PAINT_C, "paint on it")]
    if figure.lamp is not None:
        limits.append((figure.lamp.limit_c, "lamp"))
    limit, what = min(limits)
    if fact.peak_c < limit:
        return []
    return [
        _flag(
            "figure_hot", Severity.STOP, f"The {figure.name} gets {fact.peak_c:.0f} °C",
            f"The {what} stands {limit:.0f} °C; the hottest resin that touches it is above that.",
            fact.peak_c, limit, "°C", _middle(scene, figure), figure.id, [],
        )
    ]


def _guess_flags(scene: Scene, figure: Figure, fact: FigureFacts) -> list[Flag]:
    """A figure whose solid is a guess, and which may float if it is larger than it was taken to be."""
    if not fact.lift_gf <= 0 < fact.lift_gf + fact.lift_spread_gf:
        return []
    return [
        _flag(
            "may_float", Severity.WATCH, f"The {figure.name} may float after all",
            f"Its mesh does not close and its volume is a guess, {fact.volume_ml:.1f} ml give or take "
            f"{fact.volume_spread_ml:.1f}: it sinks with {-fact.lift_gf:.2g} gf or floats with "
            f"{fact.lift_gf + fact.lift_spread_gf:.2g}. Weigh it, or hold it as if it floated.",
            fact.lift_gf + fact.lift_spread_gf, 0.0, "gf", _middle(scene, figure), figure.id, [],
        )
    ]


def _lamp_flags(scene: Scene, figure: Figure) -> list[Flag]:
    if figure.lamp is None or figure.lamp.tested:
        return []
    return [
        _flag(
            "lamp_untested", Severity.WATCH, f"Test the {figure.name} before it is buried",
            f"Its wire leaves by the {figure.lamp.wire_to}; once it is cast in, no repair is "
            "possible. Low voltage only; mains is work for a licensed electrician.",
            0.0, 0.0, "", _middle(scene, figure), figure.id,
            [
                Remedy(
                    label="tested, it lights",
                    edits=[
                        Edit(
                            op="replace", path=f"{_path(scene, figure.id)}/lamp/tested", value=True
                        )
                    ],
                )
            ],
        )
    ]


def _liner_flags(scene: Scene, figure: Figure, covered: float) -> list[Flag]:
    if figure.liner is None:
        return []
    if covered > COVERED_LIMIT:
        return [
            _flag(
                "liner_locked", Severity.STOP, f"The {figure.name} cannot be drawn out",
                f"Resin lies over {covered:.0%} of it: raise it until all of it reaches the fill "
                "line, or give up the liner.",
                round(covered, 3), COVERED_LIMIT, "", _middle(scene, figure), figure.id, [],
            )
        ]
    if figure.liner.draft_deg < LEAST_DRAFT_DEG:
        return [
            _flag(
                "liner_draft", Severity.WATCH, f"The liner of the {figure.name} has no draft",
                f"A cavity with upright sides grips what is in it: give it {GOOD_DRAFT_DEG:g}°.",
                figure.liner.draft_deg, LEAST_DRAFT_DEG, "°", _middle(scene, figure), figure.id,
                [
                    Remedy(
                        label=f"draft of {GOOD_DRAFT_DEG:g}°",
                        edits=[
                            Edit(
                                op="replace",
                                path=f"{_path(scene, figure.id)}/liner/draft_deg",
                                value=GOOD_DRAFT_DEG,
                            )
                        ],
                    )
                ],
            )
        ]
    return []


def _flat_flag(scene: Scene, figure: Figure, fact: FigureFacts) -> Flag:
    return _flag(
        "flat_underside", Severity.NOTE,
        f"The {figure.name} has {fact.flat_underside_cm2:.1f} cm² of flat underside",
        "It traps no pocket, but holds a sheet of small bubbles: brush it wet, or tilt it 10°.",
        fact.flat_underside_cm2, FLAT_TOLD_CM2, "cm²", _middle(scene, figure), figure.id, [],
    )


def prefill(scene: Scene, figure_id: str) -> Remedy:
    """Brush the hollows of a figure full before the pour."""
    return Remedy(
        label="brush it full first",
        edits=[Edit(op="replace", path=f"{_path(scene, figure_id)}/prefilled", value=True)],
    )


def vent_at(scene: Scene, trap: AirTrap) -> Remedy:
    """A hole upward from the highest point of a pocket."""
    figure = next(one for one in scene.figures if one.id == trap.figure_id)
    top = np.array([
        trap.x_mm, trap.behind_mm, scene.tank.fill_height_mm - trap.depth_mm - 0.3
    ])
    place = np.array([figure.place.x_mm, figure.place.behind_mm, figure.place.height_mm])
    own = figure_matrix(figure).T @ (top - place)
    vent = {"at_mm": [round(float(value), 2) for value in own], "width_mm": VENT_MM}
    vents = [*(one.model_dump(mode="json") for one in figure.vents), vent]
    return Remedy(
        label=f"drill a {VENT_MM:g} mm vent at its top",
        edits=[Edit(op="replace", path=f"{_path(scene, figure.id)}/vents", value=vents)],
    )


def _trap_flag(scene: Scene, trap: AirTrap) -> Flag:
    remedies = []
    if trap.figure_id is not None:
        remedies = [prefill(scene, trap.figure_id), vent_at(scene, trap)]
    return _flag(
        "air_trap", Severity.WATCH if trap.volume_ml >= TRAP_WATCH_ML else Severity.NOTE,
        f"{trap.volume_ml:.2g} ml of air stays under the {trap.name}",
        f"The level seals it at {trap.lip_depth_mm:.0f} mm; it sits up to {trap.depth_mm:.0f} mm "
        "deep.",
        trap.volume_ml, 0.0, "ml", trap.depth_mm, trap.figure_id, remedies,
    )


def _basin_flag(basin: DryBasin) -> Flag:
    if basin.sealed:
        title = f"A closed hollow of {basin.volume_ml:.1f} ml stays empty"
        words = "Nothing reaches it: it lifts like a float, and its air grows with heat."
    else:
        title = f"A hollow of {basin.volume_ml:.1f} ml fills late"
        words = (
            f"It stays dry until the level passes {basin.rim_depth_mm:.0f} mm, then takes all of "
            "it at once: have it in the cup."
        )
    return _flag(
        "dry_basin", Severity.NOTE, title, words, basin.volume_ml, 0.0, "ml", basin.rim_depth_mm,
        None, [],
    )
