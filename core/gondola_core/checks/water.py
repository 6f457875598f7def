"""What will go wrong with the look of the water: figures lost, milk, lines that show."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ..scene import Dose, Scene
from ..tint import FigureSight, Seam
from .flag import Edit, Flag, Remedy, Severity
from .remedies import even_dose

LOST_DE00 = 3.0
"""Colour difference below which a figure is lost before its background. Source: own_light"""
BACK_DE00 = 4.0
"""Difference that a remedy has to bring it back to. Source: own_light"""
SHARES = (0.75, 0.5, 0.25, 0.0)

Look = Callable[[Scene], Sequence[FigureSight]]


def water_flags(
    scene: Scene, sights: Sequence[FigureSight], steps: Sequence[Seam], look: Look
) -> list[Flag]:
    """Flags of the water's look.

    look  the sights of a changed scene, for trying thinner doses
    """
    return [*_milk_flags(scene), *_sight_flags(scene, sights, look), *_seam_flags(scene, steps)]


def _milk_flags(scene: Scene) -> list[Flag]:
    names = {one.id: one.name for one in scene.colourants if one.form == "craft_paint"}
    found = []
    for number, pour in enumerate(scene.pours, start=1):
        for dose in pour.doses:
            if dose.colourant_id not in names or dose.dose_drops_per_100g <= 0:
                continue
            rest = [one.model_dump(mode="json") for one in pour.doses if one is not dose]
            found.append(
                Flag(
                    code="milky",
                    severity=Severity.STOP,
                    title=f"{names[dose.colourant_id].capitalize()} turns pour {number} to milk",
                    sentence=(
                        "Craft paint scatters in every direction: a drop in 15 ml is milk 20 mm deep, "
                        "and the water in it spoils the cure. It is no colourant for clear water."
                    ),
                    number=dose.dose_drops_per_100g,
                    limit=0.0,
                    unit="drops per 100 g",
                    depth_mm=pour.top_depth_mm,
                    at_h=None,
                    pour_number=number,
                    figure_id=None,
                    remedies=[
                        Remedy(
                            label="take it out",
                            edits=[Edit(op="replace", path=f"/pours/{number - 1}/doses", value=rest)],
                        )
                    ],
                )
            )
    return found


def _sight_flags(scene: Scene, sights: Sequence[FigureSight], look: Look) -> list[Flag]:
    found = []
    for at, sight in enumerate(sights):
        if sight.difference_de00 >= LOST_DE00:
            continue
        remedy = _thinner(scene, at, look)
        cause = f" {remedy[1]}" if remedy else ""
        found.append(
            Flag(
                code="figure_lost",
                severity=Severity.WATCH,
                title=f"The {sight.name} is lost in the water",
                sentence=(
                    f"It differs from what stands behind it by {sight.difference_de00:.1f}; below "
                    f"{LOST_DE00:.0f} it is not made out.{cause}"
                ),
                number=sight.difference_de00,
                limit=LOST_DE00,
                unit="dE00",
                depth_mm=round(0.5 * (sight.top_depth_mm + sight.bottom_depth_mm), 1),
                at_h=None,
                pour_number=remedy[2] if remedy else None,
                figure_id=sight.figure_id,
                remedies=[remedy[0]] if remedy else [],
            )
        )
    return found


def _thinner(scene: Scene, figure: int, look: Look) -> tuple[Remedy, str, int] | None:
    """The smallest thinning of one colourant in one pour that brings a figure back, by trying."""
    names = {one.id: one.name for one in scene.colourants}
    best: tuple[float, Remedy, str, int] | None = None
    for number, pour in enumerate(scene.pours, start=1):
        for place, dose in enumerate(pour.doses):
            for share in SHARES:
                taken = dose.dose_drops_per_100g * (1 - share)
                if taken <= 0 or (best is not None and taken >= best[0]):
                    continue
                less = round(dose.dose_drops_per_100g * share, 3)
                doses = list(pour.doses)
                doses[place] = Dose(colourant_id=dose.colourant_id, dose_drops_per_100g=less)
                pours = list(scene.pours)
                pours[number - 1] = pour.model_copy(update={"doses": doses})
                if look(scene.model_copy(update={"pours": pours}))[figure].difference_de00 < BACK_DE00:
                    continue
                name = names[dose.colourant_id]
                remedy = Remedy(
                    label=f"{name} in pour {number}: {less:g}, not {dose.dose_drops_per_100g:g}",
                    edits=[
                        Edit(
                            op="replace",
                            path=f"/pours/{number - 1}/doses/{place}/dose_drops_per_100g", value=less,
                        )
                    ],
                )
                words = f"{dose.dose_drops_per_100g:g} drops of {name} per 100 g in pour {number} hide it."
                best = (taken, remedy, words, number)
                break
    return None if best is None else best[1:]


def _seam_flags(scene: Scene, steps: Sequence[Seam]) -> list[Flag]:
    return [
        Flag(
            code="seam_shows",
            severity=Severity.WATCH if step.seen == "a band" else Severity.NOTE,
            title=f"A line will show at {step.depth_mm:g} mm",
            sentence=(
                f"The colour steps by {step.seam_de00:.1f} between pour {number} and {number + 1}: "
                f"{step.seen} on the back wall."
            ),
            number=step.seam_de00,
            limit=2.0,
            unit="dE00",
            depth_mm=step.depth_mm,
            at_h=None,
            pour_number=number,
            figure_id=None,
            remedies=[even_dose(scene, number)],
        )
        for number, step in enumerate(steps, start=1)
        if step.seen in ("seen", "a band")
    ]
