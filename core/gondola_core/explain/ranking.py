"""Which cause it was: what the record says of each, times how well each makes the faults that were found."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log

from ..errors import GondolaError
from ..words import Words, words
from . import causes  # noqa: F401  (registers them)
from .case import Case
from .fault import Fault
from .registry import CAUSES, Cause, Weighed
from .repairs import Repair, repairs_for

LEFT_OVER = 0.03
"""Share of pieces that show a fault which their cause does not make. Source: assumed"""
UNSEEN = 0.8
"""Share of the weight of a fault that was not found: people do not mark all. Source: assumed"""
OTHER_CHANCE, OTHER_MAKES = 0.03, 0.12
"""Of a cause that is not in the register. Source: assumed"""
NEAR, FAR = 1.6, 0.6
"""By where the fault lies, if that was said. Source: assumed"""
NEAR_MM = 12.0
SET = 0.9
SHARP = 1.5
"""Power on all odds, so that what is said to be 90 in 100 is so in seeded histories. Source: assumed, tested"""
UNTOLD = 0.35
"""Below this nothing is said to be the cause. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """One cause with its probability and all that is said of it."""

    id: str
    name: Words
    probability: float
    struck: bool
    with_it: float | None
    without_it: float | None
    quantity: str
    speaks: list[Words]
    against: list[Words]
    open: list[Words]
    next_time: Words | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Explanation:
    """Causes by their probability; set_90: those that hold it in about nine of ten; what would decide; repairs."""

    words: Words
    told: bool
    candidates: list[Candidate]
    set_90: list[str]
    decides: list[Words]
    repairs: list[Repair]


def explain(case: Case, struck: Sequence[str] = ()) -> Explanation:
    """The causes of a case, ranked; those that the person struck out count no more.

        P(c) ~ chance(c) prod_f p(f|c) prod_not f (1 - p(f|c))^0.8

    GondolaError where no fault is marked.
    Source: bayes1763; the shares are assumed
    """
    if not case.faults:
        raise GondolaError(words("explain.no_fault"), "faults")
    weighed = {one.id: one.weigh(case) for one in CAUSES.values()}
    logs = {
        one.id: log(weighed[one.id].chance / (1 - weighed[one.id].chance)) + fits(case, one)
        for one in CAUSES.values() if one.id not in struck
    }
    kinds = {fault.kind for fault in case.faults}
    logs["other"] = log(OTHER_CHANCE / (1 - OTHER_CHANCE)) + len(kinds) * log(OTHER_MAKES)
    logs = {id_: SHARP * one for id_, one in logs.items()}
    top = max(logs.values())
    total = sum(exp(one - top) for one in logs.values())
    shares = {id_: exp(one - top) / total for id_, one in logs.items()}
    ranked = sorted(shares, key=lambda one: -shares[one])
    held = _nine_in_ten(ranked, shares)
    told = ranked[0] != "other" and shares[ranked[0]] >= UNTOLD
    return Explanation(
        words=_words(ranked, shares, told), told=told,
        candidates=[_candidate(one, shares.get(one, 0.0), weighed.get(one), one in struck)
                    for one in [*ranked, *struck] if one == "other" or one in CAUSES],
        set_90=held, decides=[said for id_ in held if id_ in weighed for said in weighed[id_].open][:3],
        repairs=[repair for fault in _each_kind(case.faults) for repair in repairs_for(case, fault)],
    )


def _nine_in_ten(ranked: Sequence[str], shares: dict[str, float]) -> list[str]:
    """The likeliest causes whose shares come nearest to nine in ten together."""
    held, whole = [ranked[0]], shares[ranked[0]]
    for id_ in ranked[1:]:
        if abs(whole + shares[id_] - SET) >= abs(whole - SET):
            break
        held.append(id_)
        whole += shares[id_]
    return held


def fits(case: Case, one: Cause) -> float:
    """Logarithm of how well a cause makes the faults that were found, and none else."""
    kinds = {fault.kind for fault in case.faults}
    found = sum(log(max(one.makes.get(kind, 0.0), LEFT_OVER)) for kind in kinds)
    missing = sum(UNSEEN * log(1 - share) for kind, share in one.makes.items() if kind not in kinds)
    places = [_near(case, fault) for fault in case.faults if fault.spot is not None and fault.kind in one.makes]
    placed = 0.0
    if one.near and places:
        placed = log(NEAR if any(one.near in each for each in places) else FAR)
    return found + missing + placed


def _near(case: Case, fault: Fault) -> set[str]:
    """What a fault lies near: bed, a figure, a line, a wall, the top."""
    assert fault.spot is not None
    spot, tank = fault.spot, case.happened.tank
    found = set()
    if fault.figure_id:
        found.add("figure")
    if spot.depth_mm >= case.was.whole.bed_top_depth_mm - NEAR_MM:
        found.add("bed")
    if any(abs(spot.depth_mm - pour.top_depth_mm) < NEAR_MM / 4 for pour in case.happened.pours[:-1]):
        found.add("line")
    if min(spot.x_mm, case.was.whole.outer_width_mm - spot.x_mm) < NEAR_MM:
        found.add("wall")
    if spot.depth_mm < NEAR_MM / 2:
        found.add("top")
    for figure in case.happened.figures:
        if abs(figure.place.x_mm - spot.x_mm) < 4 * NEAR_MM and abs(
            tank.fill_height_mm - figure.place.height_mm - spot.depth_mm
        ) < 2 * NEAR_MM:
            found.add("figure")
    return found


def _each_kind(faults: Sequence[Fault]) -> list[Fault]:
    """The largest of each kind."""
    largest: dict[str, Fault] = {}
    for fault in faults:
        if fault.kind not in largest or (fault.size_mm or 0.0) > (largest[fault.kind].size_mm or 0.0):
            largest[fault.kind] = fault
    return list(largest.values())


def _words(ranked: Sequence[str], shares: dict[str, float], told: bool) -> Words:
    first = ranked[0]
    if not told:
        likeliest = [words(f"explain.name_{one}") for one in ranked[:3] if one != "other"]
        return words("explain.cannot_tell", names=likeliest)
    second = next(one for one in ranked[1:])
    which = "explain.most_likely" if shares[second] < 0.1 else "explain.likely_or"
    return words(which, name=words(f"explain.name_{first}"), share=min(99.0, 100 * shares[first]),
                 other=words(f"explain.name_{second}"))


def _candidate(id_: str, share: float, said: Weighed | None, struck: bool) -> Candidate:
    return Candidate(
        id=id_, name=words(f"explain.name_{id_}"), probability=round(share, 4), struck=struck,
        with_it=None if said is None or said.with_it is None else round(said.with_it, 3),
        without_it=None if said is None or said.without_it is None else round(said.without_it, 3),
        quantity="plain" if said is None else said.quantity, speaks=[] if said is None else said.speaks,
        against=[] if said is None else said.against, open=[] if said is None else said.open,
        next_time=None if said is None else said.next_time,
    )
