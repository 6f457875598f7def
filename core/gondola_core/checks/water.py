"""What will go wrong with the look of the water: figures lost, milk, lines that show."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from ..scene import Dose, Scene
from ..tint import FigureSight, Seam
from ..tint.attenuation import absorption_of_drop
from ..tint.spectrum import luminance
from .flag import Edit, Flag, Remedy, Severity
from .remedies import even_dose

LOST_DE00 = 3.0
"""Colour difference below which a figure is lost before its background. Source: own_light"""
BACK_DE00 = 4.0
"""Difference that a remedy has to bring it back to. Source: own_light"""
SHARES = (0.75, 0.5, 0.25, 0.0)
"""Thinner doses that are tried, over the one that hides."""

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
    lost = [at for at, sight in enumerate(sights) if sight.difference_de00 < LOST_DE00]
    if not lost:
        return []
    together = _thinner(scene, sights, lost, look)
    if together is not None:
        return [_lost(sights, lost, together)]
    return [_lost(sights, [at], _thinner(scene, sights, [at], look)) for at in lost]


def _lost(
    sights: Sequence[FigureSight], lost: list[int], thinner: tuple[Remedy, str, int] | None
) -> Flag:
    worst = min((sights[at] for at in lost), key=lambda sight: sight.difference_de00)
    names = [sights[at].name for at in lost]
    who = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    differs = "It differs" if len(names) == 1 else "They differ"
    return Flag(
        code="figure_lost",
        severity=Severity.WATCH,
        title=f"{who[:1].upper()}{who[1:]} {'is' if len(names) == 1 else 'are'} lost in the water",
        sentence=(
            f"{differs} from what stands behind by {worst.difference_de00:.1f}; below {LOST_DE00:.0f} "
            f"nothing is made out.{' ' + thinner[1] if thinner else ''}"
        ),
        number=worst.difference_de00,
        limit=LOST_DE00,
        unit="dE00",
        depth_mm=round(0.5 * (worst.top_depth_mm + worst.bottom_depth_mm), 1),
        at_h=None,
        pour_number=thinner[2] if thinner else None,
        figure_id=worst.figure_id,
        remedies=[thinner[0]] if thinner else [],
    )


def _thinner(
    scene: Scene, sights: Sequence[FigureSight], lost: list[int], look: Look
) -> tuple[Remedy, str, int] | None:
    """The least thinning of one dose that brings figures back, by trying.

    Doses are tried from the one that takes most light on the way to those figures and from them.
    """
    names = {one.id: one.name for one in scene.colourants}
    for number, place in _takers(scene, [sights[at] for at in lost]):
        pour = scene.pours[number - 1]
        dose = pour.doses[place]
        for share in SHARES:
            less = round(dose.dose_drops_per_100g * share, 3)
            doses = list(pour.doses)
            doses[place] = Dose(colourant_id=dose.colourant_id, dose_drops_per_100g=less)
            pours = list(scene.pours)
            pours[number - 1] = pour.model_copy(update={"doses": doses})
            seen = look(scene.model_copy(update={"pours": pours}))
            if min(seen[at].difference_de00 for at in lost) < BACK_DE00:
                continue
            name = names[dose.colourant_id]
            remedy = Remedy(
                label=f"only {less:g} of {name}",
                edits=[
                    Edit(
                        op="replace",
                        path=f"/pours/{number - 1}/doses/{place}/dose_drops_per_100g", value=less,
                    )
                ],
            )
            plural = "them" if len(lost) > 1 else "it"
            words = f"{dose.dose_drops_per_100g:g} drops of {name} per 100 g in pour {number} hide {plural}."
            return remedy, words, number
    return None


def _takers(scene: Scene, sights: Sequence[FigureSight]) -> list[tuple[int, int]]:
    """(pour number, place of the dose), from the one that takes most light of these figures."""
    inks = {one.id: one for one in scene.colourants}
    floor = scene.tank.fill_height_mm
    found = []
    for number, pour in enumerate(scene.pours, start=1):
        bottom = scene.pours[number - 2].top_depth_mm if number > 1 else floor
        way = 0.0
        for sight in sights:
            middle = 0.5 * (sight.top_depth_mm + sight.bottom_depth_mm)
            way += max(0.0, min(bottom, middle) - pour.top_depth_mm)
            if pour.top_depth_mm <= middle < bottom:
                way += scene.tank.inner_behind_mm
        for place, dose in enumerate(pour.doses):
            one_drop = float(luminance() @ absorption_of_drop(inks[dose.colourant_id]))
            taken = dose.dose_drops_per_100g * one_drop
            if taken * way > 0:
                found.append((taken * way, number, place))
    return [(number, place) for _, number, place in sorted(found, reverse=True)]


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
