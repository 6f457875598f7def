"""From a few plain answers to a plan: tank, bed, figures, water and pours, and what is still unknown about it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Annotated, Literal, TypeVar

from pydantic import Field, TypeAdapter

from ..answers.book import Book
from ..answers.kept import Keeper
from ..answers.water import SIGHTS
from ..checks import Severity, reader_units
from ..errors import GondolaError
from ..evaluate import DRAFT, KEEPER
from ..materials import Library, load_library
from ..outcome import Outcome
from ..part import Key, Name, Part, bounded
from ..scene import (
    Base,
    Bed,
    BoxShape,
    Brief,
    Dose,
    Figure,
    MeasuredDepth,
    Pour,
    Room,
    ScaleTrue,
    Scene,
    Seal,
    Shape,
    Tank,
    Units,
    Wall,
    Wish,
)
from ..scene.brief import FreeHours, Habits, Side, check_year
from ..scene.schedule import next_free_h
from ..shape.bedform import bed_grid, measured_heights, starter_heights
from ..shape.templates import new_figure
from ..tint.solver import solve_water
from ..words import Words, words
from .fill_line import stiffened, usual_wall_mm
from .laying import lay_pours, settle_waits, untold
from .placing import Spot, place_figure

LEVEL_SHARE = 0.08
"""Height of a level bed, in depths of the water. Source: assumed"""
ALLOWANCE = 1.1
"""Resin to buy for what the plan pours: a cup that spills, a second look. Source: assumed"""
WATERS: dict[str, tuple[str, ...]] = {
    "clear": (), "blue": ("II", "IB", "III"), "green": ("3C", "5C", "1C"), "murky": ("9C", "7C"),
}
"""Looks of water by the natural type that they are solved for, first the nearest."""
GOLDEN = 0.618
"""Ratio by whose steps spots stay apart however many there are."""
MOST_TOLD = 3
"""Flags that the summary names."""

WaterLook = Literal["clear", "blue", "green", "murky"]


class Wanted(Part):
    """So many figures of a kind."""

    kind: Key
    count: Annotated[int, Field(title="number of figures", ge=1, le=12)] = 1


class Usual(Part):
    """What a person has and does in every piece, until one says otherwise."""

    units: Units = Units()
    resin_id: Annotated[Key, Field(title="resin at hand")] = "deep"
    owned: Annotated[list[Key], Field(title="colourants owned", max_length=24)] = [
        "turquoise-ink", "deep-blue-ink", "leaf-green-ink", "burnt-umber-ink",
    ]
    wall: Annotated[Key, Field(title="sheet of the dam")] = "acrylic"
    seal: Annotated[Key, Field(title="seal of the dam")] = "silicone"
    base: Annotated[Key, Field(title="base")] = "wood"
    room_day_c: float = bounded("room by day", "°C", 5, 45, default=22.0)
    room_night_c: float = bounded("room by night", "°C", 0, 45, default=20.0)
    free: Annotated[FreeHours | None, Field(title="free hours")] = FreeHours()
    habits: Habits = Habits()
    price_per_kg: Annotated[
        float | None, Field(title="price of the mixed resin", ge=0, le=10000, json_schema_extra={"unit": "per kg"})
    ] = None


class Beginning(Part):
    """Answers to five plain questions. What is left out has a usual answer."""

    name: Name = "A new piece"
    usual: Usual = Usual()
    shape: Annotated[Shape, Field(title="shape of the tank")] = BoxShape(kind="box")
    scale: Annotated[float, Field(title="scale, 1 to", ge=1, le=1000)] = 48.0
    width_mm: float = bounded("inner width of the tank", "mm", 15, 1200, default=140.0)
    behind_mm: float = bounded("inner size from the glass to the back", "mm", 15, 1200, default=100.0)
    deep_mm: float = bounded("depth of the water", "mm", 3, 600, default=100.0)
    viewing_sides: Annotated[list[Side], Field(title="sides that are seen", min_length=1, max_length=5)] = [
        "front", "above",
    ]
    walls_stay: Annotated[bool, Field(title="walls stay as part of the piece")] = False
    bed: Literal["level", "slope", "bowl", "ledge", "channel", "reef"] = "slope"
    measured: Annotated[list[MeasuredDepth], Field(title="measured depths", max_length=400)] = []
    bed_material: Annotated[Key, Field(title="material of the bed")] = "plaster"
    water: WaterLook = "green"
    figures: Annotated[list[Wanted], Field(title="figures", max_length=8)] = [Wanted(kind="fish", count=3)]
    begins_on: Annotated[date | None, Field(title="first day on which it may be poured", strict=False)] = None
    deadline: Annotated[date | None, Field(title="day by which it is wanted", strict=False)] = None
    budget: Annotated[float | None, Field(title="most that the resin may cost", ge=0, le=1_000_000)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Summary:
    """The plan in sentences: when hands are needed, cost, what can go wrong, what to buy, what is not known."""

    waits: list[Words]
    cost: list[Words]
    wrong: list[Words]
    buy: list[Words]
    unknown: list[Words]


@dataclass(frozen=True, slots=True, kw_only=True)
class Begun:
    """A scene to begin with, its summary, and how many stops it has."""

    scene: Scene
    summary: Summary
    stops_count: int


def begin(
    beginning: Beginning, today: datetime, shelf: Library | None = None, keeper: Keeper = KEEPER
) -> Begun:
    """A whole scene from a few answers, laid within the free hours; GondolaError names an answer that nothing fits.

    today  by the clock of the room; the first pour is in a free hour after it
    shelf  what there is to choose from; None: the generic rows
    """
    check_year(today, "now")
    scene = _ground(beginning, today, shelf or load_library())
    wanted = [one.kind for one in beginning.figures for _ in range(one.count)]
    spots = [_spread(scene.tank, at) for at in range(len(wanted))]

    def figures(laid: Scene, at: int) -> tuple[Figure, Spot]:
        return new_figure(laid, wanted[at]), spots[at]

    return plan(scene, beginning.usual.resin_id, len(wanted), figures, keeper)


def plan(
    scene: Scene, resin_id: str, count: int, figures: Callable[[Scene, int], tuple[Figure, Spot | None]],
    keeper: Keeper = KEEPER,
) -> Begun:
    """A plan for a tank and its bed: pours laid, figures placed, water tinted, sheet stiff enough.

    figures  of the scene so far and a number below `count`: the next figure and its spot; None leaves it where it is
    """
    scene, _ = lay_pours(scene, resin_id, None, keeper)
    for at in range(count):
        figure, spot = figures(scene, at)
        placed = figure if spot is None else place_figure(scene, figure, spot, keeper=keeper)
        scene = scene.model_copy(update={"figures": [*scene.figures, placed]})
    scene, outcome = settle_waits(_tinted(scene, keeper), None, keeper, untold)
    stiff = stiffened(scene, outcome)
    if stiff != scene:
        scene, outcome = settle_waits(stiff, None, keeper, untold)
    stops = sum(flag.severity is Severity.STOP for flag in outcome.flags)
    return Begun(scene=scene, summary=summary(scene, outcome), stops_count=stops)


def _spread(tank: Tank, at: int) -> Spot:
    """Spots that lie apart: steps of the golden ratio across, and of its square to the back."""
    u, v = (0.5 + GOLDEN * at) % 1.0, (0.5 + GOLDEN**2 * at) % 1.0
    return Spot(
        x_mm=tank.inner_width_mm * (0.12 + 0.76 * u), behind_mm=tank.inner_behind_mm * (0.25 + 0.5 * v),
        depth_mm=tank.fill_height_mm * (0.25 + 0.4 * v),
    )


T = TypeVar("T")


def _from(rows: dict[str, T], key: str, where: str) -> T:
    """A row of the shelf; GondolaError if there is none."""
    if key not in rows:
        raise GondolaError(words("refusals.not_on_shelf", id=key), where)
    return rows[key]


def _ground(beginning: Beginning, today: datetime, shelf: Library) -> Scene:
    """Tank and bed, with one pour of what is at hand."""
    usual = beginning.usual
    resin = _from(shelf.resins, usual.resin_id, "usual.resin_id")
    tank = _tank(beginning, shelf)
    return Scene(
        name=beginning.name,
        brief=Brief(
            scale=beginning.scale, viewing_sides=beginning.viewing_sides, units=usual.units, owned=usual.owned,
            room=Room(day_c=usual.room_day_c, night_c=usual.room_night_c), free=usual.free, habits=usual.habits,
            price_per_kg=usual.price_per_kg, deadline=beginning.deadline, budget=beginning.budget,
            first_pour_at=_first_pour(beginning, today),
        ),
        tank=tank,
        bed=Bed(
            heights_mm=_heights(beginning, tank), measured=beginning.measured,
            material=_from(shelf.solids, beginning.bed_material, "bed_material"), sealed=True,
        ),
        resins=[resin, *(one for one in shelf.resins.values() if one.id != resin.id)],
        colourants=[_from(shelf.colourants, key, "usual.owned") for key in usual.owned],
        pours=[Pour(id="pour-1", top_depth_mm=0, resin_id=resin.id, mix_c=22, wait_h=0)],
        wish=_wish(beginning.water, WATERS[beginning.water][:1]),
    )


def _heights(beginning: Beginning, tank: Tank) -> list[list[float]]:
    if beginning.measured:
        return measured_heights(beginning.measured, tank)
    if beginning.bed == "level":
        x, y = bed_grid(tank)
        return [[round(LEVEL_SHARE * tank.fill_height_mm, 1)] * len(x) for _ in y]
    return starter_heights(beginning.bed, tank)


def _tank(beginning: Beginning, shelf: Library) -> Tank:
    usual, solids = beginning.usual, shelf.solids
    return Tank(
        shape=beginning.shape,
        inner_width_mm=beginning.width_mm, inner_behind_mm=beginning.behind_mm,
        wall_height_mm=usual_wall_mm(beginning.deep_mm), fill_height_mm=beginning.deep_mm,
        wall=Wall(material=_from(solids, usual.wall, "usual.wall"), thickness_mm=3.0),
        seal=None if beginning.walls_stay else Seal(material=_from(solids, usual.seal, "usual.seal")),
        base=Base(material=_from(solids, usual.base, "usual.base"), thickness_mm=18.0), walls_stay=beginning.walls_stay,
    )


def _first_pour(beginning: Beginning, today: datetime) -> datetime:
    """The first free hour from the morning of the day on which it may begin."""
    day = beginning.begins_on or (today.date() + timedelta(days=1))
    morning = datetime(day.year, day.month, day.day, 9)
    return morning + timedelta(hours=next_free_h(morning, beginning.usual.free, 0.0))


def _wish(water: str, types: tuple[str, ...]) -> Wish | None:
    if water == "clear":
        return None
    return Wish(look=ScaleTrue(kind="scale_true", water_type=types[0]), most_colourants=3)  # type: ignore[arg-type]


def _tinted(scene: Scene, keeper: Keeper) -> Scene:
    """With the doses that its wished water asks for; clear where nothing is wished or nothing is owned."""
    if scene.wish is None or not scene.brief.owned:
        return scene
    seen = Book(scene, DRAFT, keeper).ask(SIGHTS)
    solved = solve_water(scene, seen)
    held = {one.id: one for one in scene.colourants} | {one.id: one for one in solved.colourants}
    pours = [
        pour.model_copy(update={"doses": [
            Dose(colourant_id=one.colourant_id, dose_drops_per_100g=one.dose_drops_per_100g) for one in doses
        ]})
        for pour, doses in zip(scene.pours, solved.pours, strict=True)
    ]
    return scene.model_copy(update={"colourants": list(held.values()), "pours": pours})


def summary(scene: Scene, outcome: Outcome) -> Summary:
    """The plan of a scene in sentences."""
    return Summary(
        waits=list(_waits(scene, outcome)), cost=list(_cost(scene, outcome)), wrong=list(_wrong(outcome)),
        buy=list(_buy(scene, outcome)), unknown=list(_unknown(scene, outcome)),
    )


def _clock(moment: datetime) -> str:
    return moment.strftime("%a %-d %b, %H:%M")


def _waits(scene: Scene, outcome: Outcome) -> Iterator[Words]:
    for pour, planned in zip(outcome.pours, scene.pours, strict=True):
        at = _clock(scene.brief.first_pour_at + timedelta(hours=pour.clock.start_h))
        sentence = "begin.first" if pour.number == 1 else "begin.next"
        yield words(sentence, pour=pour.number, at=at, wait_h=planned.wait_h, mass=pour.cup.mix.mix_g)
    if outcome.whole.demould_at is not None:
        yield words("begin.out", at=_clock(datetime.fromisoformat(outcome.whole.demould_at)))


def _cost(scene: Scene, outcome: Outcome) -> Iterator[Words]:
    mass, price = outcome.whole.all_pieces_mix_g, scene.brief.price_per_kg
    if price is not None:
        yield words("begin.cost", mass=mass, cost=price * mass / 1000)


def _wrong(outcome: Outcome) -> Iterator[Words]:
    flags = [flag for flag in outcome.flags if flag.severity is not Severity.NOTE]
    for flag in flags[:MOST_TOLD]:
        yield words("begin.wrong", title=flag.title, sentence=flag.sentence)
    if len(flags) > MOST_TOLD:
        yield words("begin.more", more=len(flags) - MOST_TOLD)


def _buy(scene: Scene, outcome: Outcome) -> Iterator[Words]:
    for resin in scene.resins:
        mixes = [
            pour.cup.mix for pour, planned in zip(outcome.pours, scene.pours, strict=True)
            if planned.resin_id == resin.id
        ]
        if mixes:
            times = ALLOWANCE * scene.brief.pieces_count
            yield words(
                "begin.resin", name=resin.name, a=times * sum(mix.part_a_g for mix in mixes),
                b=times * sum(mix.part_b_g for mix in mixes),
            )
    drops: dict[str, float] = {}
    for pour, planned in zip(outcome.pours, scene.pours, strict=True):
        for dose in planned.doses:
            neat = dose.dose_drops_per_100g * pour.cup.mix.mix_g / 100
            drops[dose.colourant_id] = drops.get(dose.colourant_id, 0.0) + neat
    for colourant in scene.colourants:
        if drops.get(colourant.id, 0.0) > 0:
            yield words("begin.ink", name=colourant.name, drops=drops[colourant.id] * scene.brief.pieces_count)
    tank = scene.tank
    if not tank.walls_stay:
        area = sum(panel.width_mm * panel.height_mm for panel in outcome.dam.cuts.panels) / 100
        yield words("begin.sheet", name=tank.wall.material.name, thick=tank.wall.thickness_mm, area=area)
    if scene.bed.sealed:
        yield words("begin.seal", area=outcome.whole.bed_area_cm2)


def _unknown(scene: Scene, outcome: Outcome) -> Iterator[Words]:
    """What the plan rests on and nobody has measured."""
    bands = [(pour.heat.peak_band, pour.number) for pour in outcome.pours if pour.heat.peak_band is not None]
    if bands:
        band, number = max(bands, key=lambda one: one[0].high_c)
        yield words("begin.generic", pour=number, band=(band.low_c, band.high_c))
    yield words("begin.room", spread=scene.brief.room.spread_k)
    if scene.bed.material.porosity_fraction > 0:
        yield words("begin.pores", name=scene.bed.material.name, pores=scene.bed.material.porosity_fraction)
    guessed = sum(figure.mass_g is None for figure in scene.figures)
    if guessed:
        yield words("begin.unweighed", count=guessed)
    if scene.brief.price_per_kg is None:
        yield words("begin.price")


def begun_json(begun: Begun) -> bytes:
    """As JSON, its sentences in the units of its brief."""
    return _BEGUN.dump_json(begun, context={"units": reader_units(begun.scene.brief.units)})


_BEGUN = TypeAdapter(Begun)
