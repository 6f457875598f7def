"""The few plans that are shown: one for each thing that may matter, checked on fine cells, with its reason."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ...answers.book import Book
from ...answers.figure_facts import FIGURE_FACTS
from ...answers.heat import HEAT
from ...answers.kept import Keeper
from ...answers.whole import WHOLE
from ...checks import FLAGS, Flag, Remedy, Severity, reader_units, told_remedy
from ...errors import GondolaError
from ...evaluate import DRAFT, FINE, KEEPER, Grade
from ...scene import Pour, Scene
from ...scene.edits import Edit, Operation, instead, replaced, spare_pour_ids, stage_pours
from ...shape import Meshes
from ...words import ReaderUnits, Words, words
from ..chances import chances
from .freeing import Freed, freeing
from .screen import NEVER_D, Screened, disturbance_de00, weighed
from .search import GOALS, PLANS, Goal, Search
from .way import laid, way_of

Told = Callable[[float], None]

LEAST_SHOWN, MOST_SHOWN, MOST_TRIED = 3, 5, 6
"""Plans that are shown, one deep pour not counted, and ways that are checked on fine cells for them."""
UNLIKELY = 0.2
"""Chance of a stop up to which a way is offered, where there is one. Source: assumed"""
DRAWS = 64
"""Draws by which the chance of a shown plan is told."""
TRIES = 3
"""Ways that are checked on fine cells for one goal before the next is taken."""
ALIKE, LEAST_SCALE = 0.05, 0.2
"""Two plans are alike if none of their five numbers differs by more than this share, or that of a least scale.
Source: assumed"""
SEARCHED_SHARE = 0.7
"""Of the progress that is told."""
NOT_BY_POURING = frozenset({"milky", "liner_locked", "figure_above", "figure_outside", "out_of_order"})
"""Stops that no way of pouring answers."""
OVER_LABEL = frozenset({"too_deep", "too_much"})
"""What is only watched in a plan of one's own, and nothing that Gondola proposes."""
HOLDS = ("stem", "wire", "pin", "line", "glue_spot")
"""Ways of holding, in the order in which they are tried for a figure that a plan leaves without one."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """One way of pouring, as it is held against others.

    key            "own", "one_deep", or the goal that it serves best
    goals          all goals that it is best at among the shown
    reason, gives_up   why it stands here, and what is given up for it
    stop_fraction  chance that something stops it, over draws
    stops, stops_by   titles and sentences of what stops it
    cost           of the resin in the person's money, or its kilograms
    remedy         how the scene becomes it; None for the scene as it is
    """

    key: str
    name: str
    goals: list[Goal]
    reason: str
    gives_up: str
    pours_count: int
    days_d: float | None
    sessions_count: int
    stop_fraction: float
    clarity_de00: float
    cost: float
    clear: bool
    stops: list[str]
    stops_by: list[str]
    remedy: Remedy | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Front:
    """Plans on the front, the person's own and one deep pour among them.

    cost_is      "money" where a price is told, else "mass"
    binds        what stops the way that fewest things stop; empty where some way clears all
    frees        changes of the scene that were tried then, those that free it first
    """

    plans_count: int
    cost_is: str
    plans: list[Plan]
    binds: list[str]
    frees: list[Freed]


def front_for(
    scene: Scene, resin_ids: list[str], matters: Sequence[Goal] = (), seed: int = 1, *, meshes: Meshes | None = None,
    keeper: Keeper = KEEPER, told: Told = lambda _: None, count: int = PLANS,
) -> Front:
    """Three to five plans that really differ, the scene's own, and one deep pour.

    matters  goals that are served first
    seed     the same one finds the same plans

    GondolaError names a resin that the scene does not hold.
    """
    units = reader_units(scene.brief.units)
    held = {resin.id for resin in scene.resins}
    for resin_id in resin_ids:
        if resin_id not in held:
            raise GondolaError(words("refusals.no_resin", id=resin_id), "resin_ids")
    first_side = scene.brief.model_copy(update={"viewing_sides": scene.brief.viewing_sides[:1]})
    base = Book(scene.model_copy(update={"brief": first_side}), keeper=keeper, meshes=meshes)
    search = Search(base.scene, base, list(dict.fromkeys(resin_ids)), seed)
    search.run(count, lambda share: told(SEARCHED_SHARE * share))
    showing = _Showing(scene, search, meshes, keeper, seed, told)
    own, deep = showing.own(), showing.one_deep()
    made = showing.best(matters)
    shown = named(made, own, matters, units)
    clear = any(one.clear for one in [*shown, own])
    frees: list[Freed] = [] if clear else freeing(scene, base, resin_ids, told)
    told(1.0)
    return Front(
        plans_count=len(search.seen), cost_is="mass" if scene.brief.price_per_kg is None else "money",
        plans=_reasoned([own, *shown, *([deep] if deep is not None else [])], units),
        binds=[] if clear else _binding([*shown, own]), frees=frees,
    )


class _Showing:
    """Turns screened ways into plans: on fine cells, with figures held, and with chances."""

    def __init__(
        self, scene: Scene, search: Search, meshes: Meshes | None, keeper: Keeper, seed: int, told: Told
    ) -> None:
        self.scene, self.search, self.meshes, self.keeper, self.seed = scene, search, meshes, keeper, seed
        self._told, self._share = told, SEARCHED_SHARE

    def _hear(self, share: float) -> None:
        self._share = SEARCHED_SHARE + (1 - SEARCHED_SHARE) * share
        self._told(self._share)

    def _still_there(self, _: float) -> None:
        """Nothing new, from within a plan; whoever listens may end it all by raising."""
        self._told(self._share)

    def best(self, matters: Sequence[Goal]) -> list[Plan]:
        """For each goal the best way that is clear on fine cells; then those that are most unlike what is there."""
        ways = likely(list(self.search.seen.values()))
        goals = [goal for goal in dict.fromkeys([*matters, *GOALS]) if tells(ways, goal)]
        found: list[Plan] = []
        tried: list[Screened] = []
        for at, goal in enumerate(goals):
            self._hear(at / (len(goals) + 1))
            self._add(found, tried, [one for one in ordered(ways, goal) if not alike_any(one, tried)][:TRIES], goal)
        while len(found) < LEAST_SHOWN and len(tried) < MOST_TRIED:
            unlike = most_unlike(ways, tried)
            if unlike is None:
                break
            self._add(found, tried, [unlike], "other")
        return found

    def _add(self, found: list[Plan], tried: list[Screened], ways: list[Screened], key: str) -> None:
        """The first of some ways that is clear on fine cells, or that is shown because none is."""
        for one in ways:
            if len(found) >= MOST_SHOWN - 1 or len(tried) >= MOST_TRIED:
                return
            tried.append(one)
            plan = self._plan(key, one)
            if plan.clear or one.stops:
                found.append(plan)
                return

    def own(self) -> Plan:
        """The scene as it is planned."""
        return self._of(self.scene, "own", None, DRAFT)

    def one_deep(self) -> Plan | None:
        """All in one pour of the deepest resin at hand; None where the scene is that."""
        if len(self.scene.pours) == 1:
            return None
        resins = [one for one in self.scene.resins if one.id in self.search.resin_ids]
        deepest = max(resins, key=lambda one: one.most_pour_mm)
        own = way_of(self.scene)
        way = replace(own, tops_mm=(0.0,), resin_ids=(deepest.id,))
        scene = laid(self.scene, way)
        return self._of(scene, "one_deep", plan_edit(self.scene, scene, words("front.one_deep")), DRAFT)

    def _plan(self, key: str, one: Screened) -> Plan:
        scene = self._held(poured_as(self.scene, one.scene))
        return self._of(scene, key, plan_edit(self.scene, scene, _pours_words(scene)), FINE)

    def _held(self, scene: Scene) -> Scene:
        """With another way of holding for each figure that this pouring leaves without one."""
        facts = Book(scene, keeper=self.keeper, meshes=self.meshes).ask(FIGURE_FACTS)
        figures = []
        for figure, fact in zip(scene.figures, facts, strict=True):
            holds = {way.way for way in fact.ways if way.holds}
            better = next((way for way in HOLDS if way in holds), None)
            keep = figure.holding in holds or better is None
            figures.append(figure if keep else figure.model_copy(update={"holding": better}))
        return scene.model_copy(update={"figures": figures})

    def _of(self, scene: Scene, key: str, change: Edit | None, grade: Grade) -> Plan:
        units = reader_units(scene.brief.units)
        book = Book(scene, grade, self.keeper, self.meshes, self._still_there)
        way, heat = way_of(scene), book.ask(HEAT)
        made = weighed(self.search.screen.base, way, book, heat)
        stops, fraction = stops_told(book.ask(FLAGS)), 1.0
        if not any(flag.severity is Severity.STOP for flag in stops):
            fraction = chances(
                scene, DRAWS, self.seed, self.meshes, self.keeper, self._still_there
            ).trouble_fraction
        out = book.ask(WHOLE).demould_h
        name = _pours_words(scene) if key == "other" else words(f"front.{key}")
        return Plan(
            key=key, name=name.said(units), goals=[], reason="", gives_up="",
            pours_count=len(scene.pours), days_d=None if out is None else round(out / 24, 2),
            sessions_count=made.sessions_count, stop_fraction=round(fraction, 3),
            clarity_de00=round(disturbance_de00(book), 2), cost=round(made.cost, 3), clear=not stops,
            stops=[flag.title for flag in stops], stops_by=[flag.sentence for flag in stops],
            remedy=None if change is None else told_remedy(change, units),
        )


def _pours_words(scene: Scene) -> Words:
    """A plan by its pours: how many, of what."""
    names = list(dict.fromkeys(scene.resin_of(pour).name for pour in scene.pours))
    return words("front.other", pours=len(scene.pours), names=names)


def stops_told(flags: list[Flag]) -> list[Flag]:
    """The stops that a way of pouring could answer, each cause once; over the label counts as one."""
    found: dict[str, Flag] = {}
    for flag in flags:
        stop = flag.severity is Severity.STOP and flag.code not in NOT_BY_POURING
        if stop or flag.code in OVER_LABEL:
            found.setdefault(flag.cause, flag)
    return list(found.values())


def likely(ways: list[Screened]) -> list[Screened]:
    """Ways that rather go well than not; where none does, those that fewest things stop."""
    well = [one for one in ways if one.stop_fraction <= UNLIKELY]
    if well:
        return well
    least = min(len(one.stops) for one in ways)
    return [one for one in ways if len(one.stops) == least]


def tells(ways: list[Screened], goal: Goal) -> bool:
    """True if a goal tells some ways apart."""
    at = GOALS.index(goal)
    values = [one.five[at] for one in ways]
    return max(values) - min(values) >= ALIKE * max(max(values), LEAST_SCALE)


def ordered(ways: list[Screened], goal: Goal) -> list[Screened]:
    """Ways that stop nothing first; by the goal's number, and where that is all but the same by all five."""
    at = GOALS.index(goal)
    five = np.array([one.five for one in ways])
    low, high = five.min(axis=0), five.max(axis=0)
    scaled = (five - low) / np.maximum(high - low, 1e-9)
    whole = scaled.sum(axis=1)
    places = sorted(
        range(len(ways)), key=lambda n: (len(ways[n].stops), round(float(scaled[n, at]), 2), float(whole[n]))
    )
    return [ways[n] for n in places]


def alike(one: Screened, other: Screened) -> bool:
    """True if two ways pour the same resins in as many pours and differ in none of their numbers that is told."""
    if one.way.resin_ids != other.way.resin_ids:
        return False
    pairs = zip(one.five, other.five, strict=True)
    return all(abs(a - b) <= ALIKE * max(abs(a), abs(b), LEAST_SCALE) for a, b in pairs)


def alike_any(one: Screened, others: list[Screened]) -> bool:
    """True if a way is like one of some."""
    return any(alike(one, other) for other in others)


def most_unlike(ways: list[Screened], others: list[Screened]) -> Screened | None:
    """The way whose five numbers are furthest from those of some, the best without any; None where all are alike."""
    left = [one for one in ways if not alike_any(one, others)]
    # another number of pours or other resins are told apart at a glance
    left = [one for one in left if all(one.way.resin_ids != other.way.resin_ids for other in others)] or left
    if not left:
        return None
    five = np.array([one.five for one in [*left, *others]])
    scaled = (five - five.min(axis=0)) / np.maximum(np.ptp(five, axis=0), 1e-9)
    mine, theirs = scaled[: len(left)], scaled[len(left):]
    if not others:
        return left[int(np.argmin(mine.sum(axis=1)))]
    # what is better by as much as it differs goes before what is worse
    apart = np.abs(mine[:, None] - theirs[None]).sum(axis=2).min(axis=1) - mine.sum(axis=1)
    return left[int(np.argmax(apart))]


def poured_as(scene: Scene, other: Scene) -> Scene:
    """A scene with the pours, the air and the seal of another."""
    room = scene.brief.room.model_copy(update={
        "fan": other.brief.room.fan, "warm_box_c": other.brief.room.warm_box_c,
    })
    return scene.model_copy(update={
        "pours": other.pours, "brief": scene.brief.model_copy(update={"room": room}),
        "bed": scene.bed.model_copy(update={"sealed": other.bed.sealed}),
    })


def plan_edit(scene: Scene, planned: Scene, label: Words) -> Edit:
    """What makes the scene the planned one: pours, fan, seal, and how figures are held."""
    more: list[Operation] = []
    for path, was, value in (
        ("/brief/room/fan", scene.brief.room.fan, planned.brief.room.fan),
        ("/brief/room/warm_box_c", scene.brief.room.warm_box_c, planned.brief.room.warm_box_c),
        ("/bed/sealed", scene.bed.sealed, planned.bed.sealed),
    ):
        if was != value:
            more.append(replaced(path, value))
    for at, (figure, held) in enumerate(zip(scene.figures, planned.figures, strict=True)):
        if figure.holding != held.holding:
            more.append(Operation(op="test", path=f"/figures/{at}/id", value=figure.id))
            more += instead(f"/figures/{at}/holding", figure.holding, held.holding)
    return stage_pours(scene, label, _with_own_ids(scene, planned.pours), *more)


def _with_own_ids(scene: Scene, pours: list[Pour]) -> list[Pour]:
    """Pours keep the ids of those whose number they have."""
    held = [pour.id for pour in scene.pours][: len(pours)]
    keys = [*held, *spare_pour_ids(scene, len(pours) - len(held))]
    return [pour.model_copy(update={"id": key}) for pour, key in zip(pours, keys, strict=True)]


_NUMBERS: dict[Goal, Callable[[Plan], float]] = {
    "soonest": lambda one: NEVER_D if one.days_d is None else one.days_d,
    "fewest": lambda one: float(one.sessions_count),
    "surest": lambda one: one.stop_fraction,
    "clearest": lambda one: one.clarity_de00,
    "cheapest": lambda one: one.cost,
}


def _binding(plans: list[Plan]) -> list[str]:
    """What stops the plan that fewest things stop."""
    least = min(plans, key=lambda one: len(one.stops))
    return [f"{title}. {by}" for title, by in zip(least.stops, least.stops_by, strict=True)]


def named(plans: list[Plan], own: Plan, matters: Sequence[Goal], units: ReaderUnits) -> list[Plan]:
    """Plans as they came out on fine cells, each under the goal that it is best at, the others by their pours.

    No plan bears the name of a goal at which the person's own is as good.
    """
    found: list[Plan] = []
    for goal in dict.fromkeys([*matters, *GOALS]):
        number = _NUMBERS[goal]
        values = [number(one) for one in plans]
        if not plans or max(values) - min(values) < ALIKE * max(max(values), LEAST_SCALE):
            continue
        best = min(plans, key=number)
        if any(best.remedy is one.remedy for one in found) or (own.clear and number(own) <= number(best)):
            continue
        found.append(replace(best, key=goal, name=words(f"front.{goal}").said(units)))
    left = [
        one for one in plans if all(one.remedy is not other.remedy for other in found)
        and not any(all(number(two) <= number(one) for number in _NUMBERS.values()) for two in plans if two is not one)
    ]
    return found + [replace(one, key="other", name=one.remedy.label if one.remedy else one.name) for one in left]


def _reasoned(plans: list[Plan], units: ReaderUnits) -> list[Plan]:
    """Plans with the goals that each is best at, its reason, and what it gives up most."""
    clear = [one for one in plans if one.clear and one.key != "one_deep"] or plans
    best = {goal: min(number(one) for one in clear) for goal, number in _NUMBERS.items()}
    worst = {goal: max(number(one) for one in clear) for goal, number in _NUMBERS.items()}
    found = []
    for one in plans:
        goals = [goal for goal, number in _NUMBERS.items() if one in clear and number(one) <= best[goal] + 1e-9]
        reason = words("front.stopped", stops=one.stops) if one.stops else words(
            f"front.{one.key}_reason", days=one.days_d or NEVER_D, sessions=one.sessions_count,
            stop=one.stop_fraction, clarity=one.clarity_de00, cost=one.cost,
        )
        gives = _given_up(one, best, worst)
        found.append(replace(one, goals=goals, reason=reason.said(units), gives_up=gives.said(units)))
    return found


def _given_up(one: Plan, best: dict[Goal, float], worst: dict[Goal, float]) -> Words:
    """That of the five in which a plan is furthest from the best, between the best and the worst that is shown."""
    lost = {
        goal: (number(one) - best[goal]) / (worst[goal] - best[goal])
        for goal, number in _NUMBERS.items() if worst[goal] - best[goal] > ALIKE * max(worst[goal], LEAST_SCALE)
    }
    most = max(lost, key=lambda goal: lost[goal], default=None)
    if most is None or lost[most] <= 0:
        return words("front.gives_nothing")
    own = _NUMBERS[most](one)
    more = own - best[most]
    return words(f"front.gives_{most}", own=own, best=best[most], more=round(more) if most == "fewest" else more)
