"""The causes there are. Each runs what happened again without itself where that is more than a guess."""

from __future__ import annotations

from math import ceil, exp, log
from typing import Any

from ..answers.book import Book
from ..answers.grades import DRAFT
from ..answers.heat import RUNAWAY_C, coarse_cells, coarse_heat
from ..scene import Pour, Scene
from ..scene.edits import spare_pour_ids
from ..scene.schedule import room_samples_c
from ..words import Words, words
from .case import Case
from .registry import BAD, FINE, UNRECORDED, Weighed, cause

HOT_MARGIN_K = 6.0
"""Over which a peak goes from harmless to harmful. Source: assumed"""
RATIO_MATTERS, RATIO_WIDTH = 0.05, 0.012
DARKER, DARKER_WIDTH = 1.35, 0.10
EARLY_WIDTH_H, WINDOW_WIDTH_H, SET_WIDTH_H = 3.0, 1.5, 0.5
COLD_WIDTH_K = 1.0
"""Widths over which a cause becomes likely. Source: assumed"""
LIFT_WIDTH = 0.1
TRAPPED_ML = 0.15
MOST_PARTS, PART_WAIT_H = 60, 7.0
"""Into how many pours one that was too hot is split to compare, and how far apart. Source: assumed"""


def likely(by: float) -> float:
    """From fine to bad as something passes its limit by so many widths. Source: assumed"""
    return FINE + (BAD - FINE) / (1.0 + exp(-max(-30.0, min(30.0, 2.0 * by))))


def _as_meant(case: Case, **parts: Any) -> Scene:
    """What happened with some of it as it was meant."""
    return case.happened.model_copy(update=parts)


@cause("overheat", {"yellow": 0.8, "crack": 0.55, "bubbles": 0.3, "wall_print": 0.1, "moved_figure": 0.05})
def overheat(case: Case) -> Weighed:
    """A pour came hotter than its resin stands: the hottest, of those alike to a kelvin the first."""
    pours = [one for one in case.was.pours if one.heat.cure is not None]
    worst = max(pours, key=lambda one: round(one.heat.cure.peak_c) if one.heat.cure else 0)
    assert worst.heat.cure is not None
    peak, limit = worst.heat.cure.peak_c, case.happened.resin_of(case.happened.pours[worst.number - 1]).limit_c
    room = case.happened.brief.room.model_copy(update={"measured": []})
    pours_meant = [
        pour.model_copy(update={"mix_c": meant.mix_c, "wait_h": meant.wait_h})
        for pour, meant in zip(case.happened.pours, case.planned.pours, strict=True)
    ]
    meant = case.outcome_of(_as_meant(
        case, pours=pours_meant, resins=case.planned.resins if _same_resins(case) else case.happened.resins,
        brief=case.happened.brief.model_copy(update={"room": room}),
    )).pours[worst.number - 1].heat.cure
    ran = peak >= RUNAWAY_C
    said = words("explain.ran_away" if ran else "explain.overheat", pour=worst.number, peak=peak, limit=limit,
                 over=RUNAWAY_C)
    cooler = None if meant is None else meant.peak_c
    if peak > limit and (cooler is None or cooler > limit):
        cooler = _staged_peak(case)
    hot = peak > limit
    return Weighed(
        chance=likely((peak - limit) / HOT_MARGIN_K), with_it=peak, without_it=cooler,
        quantity="temperature", speaks=[said] if hot else [], against=[] if hot else [said],
        open=[] if case.room_read else [words("explain.open_room")],
        next_time=_cooler(case, worst.number),
    )


def _cooler(case: Case, number: int) -> Words:
    """What to do another time: keep to the label's depth where it was passed, else split or cool."""
    pour = case.happened.pours[number - 1]
    most = case.happened.resin_of(pour).most_pour_mm
    below = case.happened.pours[number - 2].top_depth_mm if number > 1 else case.happened.tank.fill_height_mm
    if below - pour.top_depth_mm > most:
        return words("explain.overheat_deep", deep=below - pour.top_depth_mm, most=most)
    return words("explain.overheat_next", pour=number)


def _staged_peak(case: Case) -> float | None:
    """Hottest of the piece if each pour had been made in as many as its label asks for, on coarse cells."""
    scene = case.happened
    pours: list[Pour] = []
    ids = iter(spare_pour_ids(scene, MOST_PARTS))
    below = scene.tank.fill_height_mm
    for pour in scene.pours:
        parts = ceil((below - pour.top_depth_mm) / scene.resin_of(pour).most_pour_mm)
        if len(pours) + parts > MOST_PARTS:
            return None
        for at in range(parts):
            line = round(below - (below - pour.top_depth_mm) * (at + 1) / parts, 2)
            first = {"top_depth_mm": line if at < parts - 1 else pour.top_depth_mm}
            later = {} if at == 0 else {"id": next(ids), "wait_h": PART_WAIT_H}
            pours.append(pour.model_copy(update={**first, **later}))
        below = pour.top_depth_mm
    book = Book(_as_meant(case, pours=pours), DRAFT, case.keeper, case.meshes)
    heat = coarse_heat(book, coarse_cells(book))
    return max((one.peak_c for one in heat.cures if one is not None), default=None)


def _same_resins(case: Case) -> bool:
    return {pour.resin_id for pour in case.happened.pours} <= {one.id for one in case.planned.resins}


@cause("unsealed_bed", {"bubbles": 0.92, "floated_bed": 0.2, "flecks": 0.08, "void": 0.06}, near="bed")
def unsealed_bed(case: Case) -> Weighed:
    """A porous bed that was not sealed gave its air to the resin."""
    gas = sum(pour.fill.gas_ml for pour in case.was.pours)
    bed = case.happened.bed
    tight = bed.material.porosity_fraction <= 0
    if bed.sealed or tight:
        said = words("explain.bed_tight" if tight else "explain.bed_sealed")
        return Weighed(chance=FINE if case.sealed_told or tight else UNRECORDED, with_it=gas, without_it=gas,
                       quantity="volume", against=[said], open=[] if case.sealed_told else [words("explain.open_seal")],
                       next_time=words("explain.unsealed_next"))
    left = sum(one.fill.gas_ml for one in case.outcome_of(
        _as_meant(case, bed=bed.model_copy(update={"sealed": True}))).pours)
    return Weighed(
        chance=BAD, with_it=gas, without_it=left, quantity="volume",
        speaks=[words("explain.unsealed", material=bed.material.name, gas=gas)],
        next_time=words("explain.unsealed_next"),
    )


@cause("early_demould", {"soft": 0.6, "wall_print": 0.6, "crack": 0.2, "leak": 0.05})
def early_demould(case: Case) -> Weighed:
    """The dam came off before the resin could stand without it."""
    ready, off = case.was.whole.demould_h, case.demoulded_h
    later = words("explain.demould_next", ready=ready or 0.0) if ready is not None else words("explain.demould_never")
    if off is None:
        return Weighed(chance=UNRECORDED, without_it=ready, quantity="hours", open=[words("explain.open_demould")],
                       next_time=later)
    early = (ready if ready is not None else off + 24.0) - off
    said = words("explain.demoulded" if early > 0 else "explain.demoulded_late", off=off, early=abs(early))
    return Weighed(
        chance=likely(early / EARLY_WIDTH_H), with_it=off, without_it=ready, quantity="hours",
        speaks=[said] if early > 0 else [], against=[said] if early <= 0 else [], next_time=later,
    )


@cause("wrong_ratio", {"soft": 0.92, "milky": 0.3, "flecks": 0.1, "yellow": 0.05})
def wrong_ratio(case: Case) -> Weighed:
    """A pour was mixed in another ratio than its label's."""
    errors = [(abs(case.happened.resin_of(pour).mixed_error_fraction), number)
              for number, pour in enumerate(case.happened.pours, start=1)]
    worst, number = max(errors)
    glass = case.happened.resin_of(case.happened.pours[number - 1]).tg_full_c
    meant = case.planned.resin_of(case.planned.pours[number - 1]).tg_full_c
    if not case.weighed and worst < RATIO_MATTERS:
        return Weighed(chance=UNRECORDED, without_it=meant, quantity="temperature",
                       open=[words("explain.open_ratio")], next_time=words("explain.ratio_next"))
    off = worst > RATIO_MATTERS
    said = words("explain.ratio" if off else "explain.ratio_fine", pour=number, by=worst, glass=glass, meant=meant)
    return Weighed(
        chance=likely((worst - RATIO_MATTERS) / RATIO_WIDTH), with_it=glass, without_it=meant, quantity="temperature",
        speaks=[said] if off else [], against=[] if off else [said], next_time=words("explain.ratio_next"),
    )


@cause("missed_window", {"line": 0.92, "crack": 0.12, "dust": 0.1}, near="line")
def missed_window(case: Case) -> Weighed:
    """A pour came when the one below had lost its tack, and was not roughened."""
    latest, number = -1e9, 2
    for at, pour in enumerate(case.happened.pours[1:], start=2):
        below = case.was.pours[at - 2].heat.cure
        if below is None or below.tack_closes_h is None or case.abraded(at):
            continue
        late = pour.wait_h - below.tack_closes_h
        if late > latest:
            latest, number = late, at
    if latest < -1e8:
        return Weighed(chance=FINE, against=[words("explain.window_abraded")])
    wait = case.happened.pours[number - 1].wait_h
    known = case.logs[number - 1].start is not None
    said = words("explain.window" if latest > 0 else "explain.window_kept", pour=number, wait=wait, late=abs(latest))
    return Weighed(
        chance=likely(latest / WINDOW_WIDTH_H) if known else UNRECORDED, with_it=wait,
        without_it=wait - max(latest, 0.0), quantity="hours", speaks=[said] if latest > 0 and known else [],
        against=[said] if latest <= 0 else [],
        open=[] if known else [words("explain.open_times")],
        next_time=words("explain.window_next", pour=number, closes=wait - latest),
    )


@cause("trapped_air", {"void": 0.92, "bubbles": 0.2}, near="figure")
def trapped_air(case: Case) -> Weighed:
    """Air could not leave as the level rose."""
    held = max(case.was.figures, key=lambda one: one.trapped_ml, default=None)
    most = 0.0 if held is None else held.trapped_ml
    if held is None or most < TRAPPED_ML / 3:
        return Weighed(chance=FINE, with_it=most, without_it=0.0, quantity="volume",
                       against=[words("explain.no_trap")], next_time=words("explain.trap_next"))
    name = next(one.name for one in case.happened.figures if one.id == held.figure_id)
    return Weighed(
        chance=likely(log(max(most, 1e-3) / TRAPPED_ML)), with_it=most, without_it=0.0, quantity="volume",
        speaks=[words("explain.trap", name=name, volume=most)], next_time=words("explain.trap_next"),
    )


@cause("floated_figure", {"moved_figure": 0.96, "void": 0.05}, near="figure")
def floated_figure(case: Case) -> Weighed:
    """A figure was lifted off what held it."""
    worst, name, lift, pulls, limit, quantity = -1.0, "", 0.0, 0.0, 0.0, "force"
    for one in case.was.figures:
        figure = next(other for other in case.happened.figures if other.id == one.figure_id)
        way = next((other for other in one.ways if other.way == figure.holding), None)
        if one.lift_gf <= 0 or way is None:
            continue
        over = max(way.number, 1e-6) / max(way.limit, 1e-6)
        over = min(over, 0.9) if way.holds else max(over, 1.1)
        if over > worst:
            worst, name, lift = over, figure.name, one.lift_gf
            pulls, limit, quantity = way.number, way.limit, way.quantity
    if worst < 0:
        return Weighed(chance=FINE, against=[words("explain.all_sink")], next_time=words("explain.float_next"))
    said = words("explain.float" if worst > 1 else "explain.held", name=name, lift=lift)
    return Weighed(
        chance=likely(log(worst) / LIFT_WIDTH), with_it=pulls, without_it=limit, quantity=quantity,
        speaks=[said] if worst > 1 else [], against=[said] if worst <= 1 else [],
        next_time=words("explain.float_next"),
    )


@cause("over_tint", {"too_dark": 0.97, "milky": 0.04})
def over_tint(case: Case) -> Weighed:
    """More colour went in than was meant."""
    worst, number = 0.0, 1
    for at, (pour, plan) in enumerate(zip(case.happened.pours, case.planned.pours, strict=True), start=1):
        doses = {one.colourant_id: one.dose_drops_per_100g for one in plan.doses}
        for dose in pour.doses:
            factor = dose.dose_drops_per_100g / max(doses.get(dose.colourant_id, 0.0), 1e-6)
            if factor > worst:
                worst, number = factor, at
    left, meant = (min(one.water.light_fraction) for one in (case.was, case.meant))
    if not case.dropped:
        return Weighed(chance=UNRECORDED, without_it=meant, quantity="percent", open=[words("explain.open_drops")],
                       next_time=words("explain.tint_next"))
    over = worst > DARKER
    said = words("explain.tint" if over else "explain.tint_fine", pour=number, times=worst, left=left, meant=meant)
    return Weighed(
        chance=likely((worst - DARKER) / DARKER_WIDTH), with_it=left, without_it=meant, quantity="percent",
        speaks=[said] if over else [], against=[] if over else [said], next_time=words("explain.tint_next"),
    )


@cause("cold_room", {"soft": 0.6, "milky": 0.4, "bubbles": 0.45})
def cold_room(case: Case) -> Weighed:
    """The room was colder than the resin needs."""
    span = case.starts_h[-1] + 24.0
    samples = room_samples_c(case.happened.brief.first_pour_at, case.happened.brief.room, span)
    coldest = float(samples.min())
    least = max(case.happened.resin_of(pour).least_room_c for pour in case.happened.pours)
    if not case.room_read:
        return Weighed(chance=UNRECORDED, without_it=least, quantity="temperature",
                       open=[words("explain.open_room")], next_time=words("explain.cold_next", least=least))
    cold = coldest < least
    said = words("explain.cold" if cold else "explain.warm_enough", coldest=coldest, least=least)
    return Weighed(
        chance=likely((least - 1.0 - coldest) / COLD_WIDTH_K), with_it=coldest, without_it=least,
        quantity="temperature", speaks=[said] if cold else [], against=[] if cold else [said],
        next_time=words("explain.cold_next", least=least),
    )


@cause("leaked_joint", {"leak": 0.95, "line": 0.25, "void": 0.08}, near="wall")
def leaked_joint(case: Case) -> Weighed:
    """A joint of the dam let go or was never tight."""
    hot = [one for one in case.was.limits if one.what == "seal"]
    worst = max(hot, key=lambda one: one.reached - one.limit_c, default=None)
    noted = case.notes("leak", "drip", "seep", "puddle")
    short = [number for number, log in enumerate(case.logs, start=1)
             if log.line_depth_mm is not None and log.line_depth_mm > case.planned.pours[number - 1].top_depth_mm + 1.5]
    speaks: list[Words] = [words("explain.leak_noted", text=text) for text in noted[:2]]
    speaks += [words("explain.leak_short", pour=number) for number in short[:1]]
    softened = worst is not None and worst.reached > worst.limit_c
    if worst is not None and softened:
        speaks.append(words("explain.leak_hot", name=worst.name, reached=worst.reached, limit=worst.limit_c))
    chance = BAD if noted else 0.4 if short else 0.25 if softened else UNRECORDED
    return Weighed(
        chance=chance, with_it=worst.reached_c if worst else None, without_it=worst.limit_c if worst else None,
        quantity="temperature", speaks=speaks, open=[] if speaks else [words("explain.open_leak")],
        next_time=words("explain.leak_next"),
    )


@cause("moisture", {"milky": 0.8, "flecks": 0.25, "bubbles": 0.3, "soft": 0.08})
def moisture(case: Case) -> Weighed:
    """Water in figures, bed, cups or the air clouded the resin."""
    noted = case.notes("damp", "wet", "moist", "humid", "fresh paint", "rain")
    return Weighed(
        chance=BAD if noted else UNRECORDED, speaks=[words("explain.noted", text=text) for text in noted[:2]],
        open=[] if noted else [words("explain.open_moisture")], next_time=words("explain.moisture_next"),
    )


@cause("dust", {"dust": 0.95, "flecks": 0.35, "line": 0.04}, near="line")
def dust(case: Case) -> Weighed:
    """Dust or loose grains came into it."""
    noted = case.notes("dust", "lint", "hair", "cat", "sanded", "uncovered", "loose grain")
    return Weighed(
        chance=BAD if noted else UNRECORDED, speaks=[words("explain.noted", text=text) for text in noted[:2]],
        open=[] if noted else [words("explain.open_cover", hours=case.starts_h[-1])],
        next_time=words("explain.dust_next"),
    )


@cause("vacuum_in_dam", {"bubbles": 0.8, "void": 0.35, "moved_figure": 0.25, "floated_bed": 0.35})
def vacuum_in_dam(case: Case) -> Weighed:
    """A vacuum was drawn on the filled dam: bed and figures gave up their air, and it foamed."""
    number = case.degassed_dam
    if number is None:
        return Weighed(chance=FINE if case.degassed_told else UNRECORDED / 3,
                       open=[] if case.degassed_told else [words("explain.open_vacuum")],
                       next_time=words("explain.vacuum_next"))
    gas = sum(pour.fill.gas_ml for pour in case.was.pours)
    return Weighed(chance=BAD, with_it=gas, quantity="volume", speaks=[words("explain.vacuum", pour=number)],
                   next_time=words("explain.vacuum_next"))


@cause("figure_too_early", {"sunk_figure": 0.96, "moved_figure": 0.15}, near="figure")
def figure_too_early(case: Case) -> Weighed:
    """A figure was set on a layer that still flowed."""
    worst, name, soonest, gel = -1e9, "", 0.0, 0.0
    for figure in case.happened.figures:
        at = case.placed_h.get(figure.id)
        if at is None or figure.holding != "staged":
            continue
        below = max((number for number, start in enumerate(case.starts_h, start=1) if start <= at), default=None)
        cure = None if below is None else case.was.pours[below - 1].heat.cure
        if below is None or cure is None or cure.gel_h is None:
            continue
        ready = case.starts_h[below - 1] + cure.gel_h
        if ready - at > worst:
            worst, name, soonest, gel = ready - at, figure.name, at - case.starts_h[below - 1], cure.gel_h
    if worst < -1e8:
        staged = any(figure.holding == "staged" for figure in case.happened.figures)
        return Weighed(chance=UNRECORDED if staged else FINE, next_time=words("explain.early_next"),
                       open=[words("explain.open_placed")] if staged else [])
    said = words("explain.early" if worst > 0 else "explain.early_fine", name=name, after=soonest, gel=gel)
    return Weighed(
        chance=likely(worst / SET_WIDTH_H), with_it=soonest, without_it=gel, quantity="hours",
        speaks=[said] if worst > 0 else [], against=[said] if worst <= 0 else [],
        next_time=words("explain.early_next"),
    )
