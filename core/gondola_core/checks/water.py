"""What will go wrong with the look of the water: figures lost, milk, lines that show."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..answers.bodies import BODIES, FigureBody
from ..answers.lines import LINES, Line
from ..answers.water import SIGHTS
from ..scene import Dose, Scene
from ..scene.edits import Edit, cover_it, even_dose, take_dose_out, thinner_dose
from ..tint import FigureSight, figure_sights
from ..tint.attenuation import absorption_of_drop
from ..tint.spectrum import luminance
from ..words import Words, words
from .flag import Finding, Severity, Where
from .registry import check

LOST_DE00 = 3.0
"""Colour difference below which a figure is lost before its background. Source: own_light"""
BACK_DE00 = 4.0
"""Difference that a remedy has to bring it back to. Source: own_light"""
SHARES = (0.75, 0.5, 0.25, 0.0)
"""Thinner doses that are tried, over the one that hides."""
MILK_ML, MILK_MM = 15.0, 20.0
"""A drop of white paint in so much resin is milk over so much depth: optical depth 27. Source: own_light"""
SEEN_DE00 = 2.0
"""Step across a line from which it is seen. Source: own_light"""


@check("milky", stage="water", source="own_light", remedies=(take_dose_out,))
def milky(scene: Scene) -> Iterator[Finding]:
    """Craft paint in a pour."""
    names = {one.id: one.name for one in scene.colourants if one.form == "craft_paint"}
    for number, pour in enumerate(scene.pours, start=1):
        for dose in pour.doses:
            if dose.colourant_id in names and dose.dose_drops_per_100g > 0:
                yield Finding(
                    severity=Severity.STOP, where=Where(depth_mm=pour.top_depth_mm, pour_number=number),
                    number=dose.dose_drops_per_100g, limit=0.0, quantity="drops",
                    values={"pour": number, "name": names[dose.colourant_id], "volume": MILK_ML, "deep": MILK_MM},
                    remedies=[take_dose_out(scene, number, dose.colourant_id)],
                )


@check("figure_lost", stage="water", needs=(SIGHTS, BODIES), source="own_light", remedies=(thinner_dose,))
def figure_lost(scene: Scene, sights: list[FigureSight], bodies: list[FigureBody]) -> Iterator[Finding]:
    """Figures that nobody makes out, and the one dose that hides them."""
    lost = [at for at, sight in enumerate(sights) if sight.difference_de00 < LOST_DE00]
    if not lost:
        return
    together = _thinner(scene, sights, lost, bodies)
    if together is not None:
        yield _lost(scene, sights, lost, together)
        return
    for at in lost:
        yield _lost(scene, sights, [at], _thinner(scene, sights, [at], bodies))


def _lost(
    scene: Scene, sights: Sequence[FigureSight], lost: list[int], thinner: tuple[Edit, Words, int] | None
) -> Finding:
    worst = min((sights[at] for at in lost), key=lambda sight: sight.difference_de00)
    names = {figure.id: figure.name for figure in scene.figures}
    many = "_many" if len(lost) > 1 else ""
    return Finding(
        severity=Severity.WATCH,
        where=Where(
            depth_mm=round(0.5 * (worst.top_depth_mm + worst.bottom_depth_mm), 1),
            pour_number=thinner[2] if thinner else None, figure_id=worst.figure_id,
        ),
        number=worst.difference_de00, limit=LOST_DE00, quantity="de00", title=f"title{many}",
        sentence=f"sentence{many}",
        values={
            "names": [names[sights[at].figure_id] for at in lost], "hidden": thinner[1] if thinner else "",
        },
        remedies=[thinner[0]] if thinner else [],
    )


def _thinner(
    scene: Scene, sights: Sequence[FigureSight], lost: list[int], bodies: list[FigureBody]
) -> tuple[Edit, Words, int] | None:
    """The least thinning of one dose that brings figures back, by trying.

    Doses are tried from the one that takes most light on the way to those figures and from them.
    """
    extents = [(body.least, body.most) for body in bodies]
    names = {one.id: one.name for one in scene.colourants}
    for number, place in _takers(scene, [sights[at] for at in lost]):
        dose = scene.pours[number - 1].doses[place]
        for share in SHARES:
            less = round(dose.dose_drops_per_100g * share, 3)
            seen = figure_sights(_dosed(scene, number, place, less), extents)
            if min(seen[at].difference_de00 for at in lost) < BACK_DE00:
                continue
            hidden = words(
                "flags.figure_lost.hidden_many" if len(lost) > 1 else "flags.figure_lost.hidden",
                drops=dose.dose_drops_per_100g, name=names[dose.colourant_id], pour=number,
            )
            return thinner_dose(scene, number, place, less), hidden, number
    return None


def _dosed(scene: Scene, number: int, place: int, drops: float) -> Scene:
    pour = scene.pours[number - 1]
    doses = list(pour.doses)
    doses[place] = Dose(colourant_id=doses[place].colourant_id, dose_drops_per_100g=drops)
    pours = list(scene.pours)
    pours[number - 1] = pour.model_copy(update={"doses": doses})
    return scene.model_copy(update={"pours": pours})


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


@check("seam_shows", stage="water", needs=(LINES,), source="own_light", remedies=(even_dose, cover_it), by_grid=False)
def seam_shows(scene: Scene, lines: list[Line]) -> Iterator[Finding]:
    """Lines between pours that show, and what draws them."""
    for line in lines:
        if line.worst not in ("seen", "band"):
            continue
        side = max(line.sides, key=lambda one: one.de00)
        most = side.parts[0].name
        remedies = {"colour": [even_dose(scene, line.pour_number)], "dust": [cover_it(scene)]}
        yield Finding(
            severity=Severity.WATCH if line.worst == "band" else Severity.NOTE,
            where=Where(depth_mm=line.depth_mm, pour_number=line.pour_number), number=side.de00, limit=SEEN_DE00,
            quantity="de00", sentence=f"sentence_{most}",
            values={
                "line": line.depth_mm, "pour": line.pour_number, "above": line.pour_number + 1,
                "seen": words(f"seams.{side.seen}"), "side": words(f"lines.from_{side.side}"),
            },
            remedies=remedies.get(most, []),
        )
