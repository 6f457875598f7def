"""The pour days step by step, as the bench run follows them and as the pour sheet prints them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from ..materials import Resin
from ..materials.resin import LABEL_C, LABEL_G
from ..scene import Figure, Pour, Scene
from ..words import Words, words
from .correcting import weighed
from .doses import Measured
from .hands import stirring_min
from .stocks import Stock

Kind = Literal[
    "room", "level", "gloves", "tight", "dust", "lamp_test", "stock", "feel", "abrade", "figure", "weigh_a",
    "colour", "weigh_b", "stir", "change", "rest", "temper", "pour", "brush", "leaks", "flame", "lamp", "cover",
]
Asks = Literal["", "room", "level", "sealed", "feels", "mass", "drops", "mix", "line"]
After = Literal["", "before", "poured"]
FIRST_STIR = 2 / 3
"""Share of the stirring in the first cup; the rest in the second. Source: assumed"""
LEAK_MIN = 10.0
"""After this a joint that holds will hold. Source: assumed"""
LEAST_TRAPPED_ML, LEAST_UNDER_CM2 = 0.05, 1.0
"""Air and flat undersides that are worth a brush. Source: assumed"""
MOST_PIECES = 24
"""More pieces than this are poured as one step. Source: assumed"""
BEFORE = "before"


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchStep:
    """One thing to do.

    chain        steps of one chain follow each other; chains run beside each other once the mixing is done
    pour_id      "" before the first pour; pour_number 0; below_id of the pour that is felt or abraded
    target_g     what is to be weighed, to the scale's step; target_ml the same in a marked cup
    drops        of a stock or neat; neat_drops what that is of the colourant itself, stock_a_g the part A in it
    clock_min    how long it takes, or when it is due, counted from `after`: the step before, or the end of the pour
    asks         what is entered with it
    line_depth_mm   where it is poured to; surface_cm2 of its liquid there
    """

    id: str
    kind: Kind
    chain: str
    title: Words
    under: Words | None = None
    caution: Words | None = None
    pour_id: str = ""
    below_id: str = ""
    pour_number: int = 0
    cup: int = 0
    cups_count: int = 0
    piece: int = 0
    target_g: float | None = None
    target_ml: float | None = None
    colourant_id: str = ""
    figure_id: str = ""
    drops: int | None = None
    neat_drops: float | None = None
    stock_a_g: float = 0.0
    clock_min: float | None = None
    after: After = ""
    asks: Asks = ""
    line_depth_mm: float | None = None
    surface_cm2: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class PourWork:
    """What the answers say of one pour, for its steps.

    part_a_g, plain_part_a_g   of all its pieces; the second without what comes with stocks
    figures                    that are set before it
    places                     of the water where it is poured, as words; one where it is all in one
    surface_cm2                of its liquid at the line
    """

    number: int
    pour: Pour
    resin: Resin
    cups_count: int
    mix_g: float
    part_a_g: float
    plain_part_a_g: float
    doses: Sequence[Measured]
    figures: Sequence[Figure]
    places: Sequence[Words]
    surface_cm2: float
    joint: Words
    abrade: bool
    trapped_ml: float
    undersides_cm2: float
    passes_min: Sequence[float]
    lamp_min: float | None


def label_words(working_min: float) -> Words:
    """What the label's working time is of."""
    return words("steps.label", working_h=working_min / 60, mass=LABEL_G, at_c=LABEL_C)


def bench_steps(scene: Scene, stocks: Sequence[Stock], work: Sequence[PourWork]) -> list[BenchStep]:
    """Every step from the warm room to the last cover."""
    found = list(_before(scene, stocks))
    for one in work:
        found += [*_ready(scene, one), *_mixing(scene, one), *_pouring(scene, one)]
    return found


def _before(scene: Scene, stocks: Sequence[Stock]) -> Iterator[BenchStep]:
    def step(kind: Kind, under: str = "", asks: Asks = "", **values: object) -> BenchStep:
        return BenchStep(
            id=kind, kind=kind, chain=BEFORE, title=words(f"steps.{kind}"), asks=asks,
            under=words(f"steps.{under or f'{kind}_under'}", **values),
            caution=words("steps.gloves_caution") if kind == "gloves" else None,
        )

    yield step("room", room_c=scene.brief.room.mean_c, asks="room")
    yield step("level", asks="level")
    yield step("gloves")
    for figure in scene.figures:
        if figure.lamp is not None:
            yield BenchStep(
                id=f"lamp:{figure.id}", kind="lamp_test", chain=BEFORE, figure_id=figure.id,
                title=words("steps.lamp_test", name=figure.name), under=words("steps.lamp_test_under"),
                caution=words("steps.lamp_test_caution"),
            )
    yield step("tight", under="tight_under" if scene.bed.sealed else "tight_open", asks="sealed")
    yield step("dust")
    for stock in stocks:
        if stock.factor > 1:
            yield BenchStep(
                id=f"stock:{stock.colourant_id}", kind="stock", chain=BEFORE, colourant_id=stock.colourant_id,
                title=words("steps.bottle", name=stock.name), under=stock.words, target_g=stock.part_a_g,
                drops=stock.neat_drops,
            )


def _step(work: PourWork, kind: Kind, name: str, title: Words, **more: object) -> BenchStep:
    """A step of a pour; those after the resin is in stand in the chain of their piece."""
    pour = work.pour
    fields: dict[str, object] = {
        "chain": pour.id, "pour_id": pour.id, "pour_number": work.number, "cups_count": work.cups_count, **more,
    }
    return BenchStep(id=f"{pour.id}:{name}", kind=kind, title=title, **fields)  # type: ignore[arg-type]


def _ready(scene: Scene, work: PourWork) -> Iterator[BenchStep]:
    below = work.number - 1
    if below:
        under = scene.pours[below - 1].id
        yield _step(
            work, "feel", "feel", words("steps.feel", below=below), asks="feels", below_id=under,
            under=words("steps.feel_under", joint=work.joint),
        )
        if work.abrade:
            yield _step(
                work, "abrade", "abrade", words("steps.abrade", below=below), below_id=under,
                under=words("steps.abrade_under"),
                caution=words("steps.abrade_caution"),
            )
    for figure in work.figures:
        kind = "lay" if figure.holding == "staged" and below else "fix"
        yield _step(
            work, "figure", f"figure:{figure.id}", words(f"steps.{kind}", name=figure.name, below=below),
            figure_id=figure.id, under=words(f"steps.{kind}_under"),
        )


def _mixing(scene: Scene, work: PourWork) -> Iterator[BenchStep]:
    habits, count = scene.brief.habits, work.cups_count
    stir = stirring_min(work.mix_g / count)
    for cup in range(1, count + 1):
        yield from _parts(scene, work, cup)
        yield _step(
            work, "stir", f"cup{cup}:stir", words("steps.stir"), cup=cup, after="before",
            under=words("steps.stir_under"), clock_min=round(FIRST_STIR * stir, 1),
        )
        yield _step(
            work, "change", f"cup{cup}:change", words("steps.change"), cup=cup, after="before",
            under=words("steps.change_under"), clock_min=round((1 - FIRST_STIR) * stir, 1),
        )
        if habits.rest_min > 0:
            yield _step(
                work, "rest", f"cup{cup}:rest", words("steps.rest"), cup=cup, after="before",
                under=words("steps.rest_under"), clock_min=habits.rest_min,
            )
        if cup == 1:
            yield _step(
                work, "temper", "temper", words("steps.temper"), cup=cup, asks="mix",
                under=words("steps.temper_under", mix_c=work.pour.mix_c),
            )
        if cup < count:
            yield _step(
                work, "pour", f"cup{cup}:pour", words("steps.pour_cup", cup=cup, cups=count), cup=cup,
                under=words("steps.pour_cup_under"),
            )


def _parts(scene: Scene, work: PourWork, cup: int) -> Iterator[BenchStep]:
    """Part A, its colours, part B of one cup: A to the scale's step, B from that A with what the stocks bring."""
    step_g, count = scene.brief.habits.scale_step_g, work.cups_count
    stock_a = (work.part_a_g - work.plain_part_a_g) / count
    plain = max(step_g, round(work.plain_part_a_g / count / step_g) * step_g)
    target, ratio = weighed(work.resin, plain + stock_a, step_g), work.resin.ratio
    yield _step(
        work, "weigh_a", f"cup{cup}:a", words("steps.weigh_a"), cup=cup, asks="mass", target_g=round(plain, 3),
        target_ml=round(plain / work.resin.density_a_g_ml, 1),
        under=words(
            "steps.weigh_a_under" if count > 1 else "steps.weigh_a_one", cup=cup, cups=count, resin=work.resin.name,
            mix_c=work.pour.mix_c, a=ratio.part_a, b=ratio.part_b, by=ratio.by,
        ),
    )
    for dose in work.doses:
        yield _colour(work, dose, cup)
    yield _step(
        work, "weigh_b", f"cup{cup}:b", words("steps.weigh_b"), cup=cup, asks="mass", target_g=target.part_b_g,
        target_ml=round(target.part_b_g / work.resin.density_b_g_ml, 1), under=words("steps.weigh_b_under"),
        caution=words("steps.warm_cup"),
    )


def _colour(work: PourWork, dose: Measured, cup: int) -> BenchStep:
    """Its drops are shared out among the cups, whole ones."""
    count = work.cups_count
    drops = dose.drops // count + (1 if cup <= dose.drops % count else 0)
    per_drop = dose.neat_drops * (1 + dose.off_fraction) / dose.drops
    kind = "weighed" if dose.weighed else "stock" if dose.factor > 1 else "drops"
    mass = dose.stock_g / count
    return _step(
        work, "colour", f"cup{cup}:{dose.colourant_id}", words("steps.colour", name=dose.name), cup=cup,
        colourant_id=dose.colourant_id, asks="drops", drops=None if dose.weighed else drops,
        target_g=round(mass, 3) if dose.weighed else None,
        neat_drops=round(dose.neat_drops / count if dose.weighed else drops * per_drop, 4),
        stock_a_g=round(dose.part_a_g * (1 / count if dose.weighed else drops / dose.drops), 4),
        under=words(f"steps.colour_{kind}", drops=drops, factor=dose.factor, mass=mass), caution=dose.risk,
    )


def _pouring(scene: Scene, work: PourWork) -> Iterator[BenchStep]:
    """The last cup to the line, and what follows until it is covered: of each piece."""
    pieces = scene.brief.pieces_count
    for piece in range(1, pieces + 1) if 1 < pieces <= MOST_PIECES else (1,):
        yield from _piece(scene, work, piece)


def _piece(scene: Scene, work: PourWork, piece: int) -> Iterator[BenchStep]:
    single = scene.brief.pieces_count == 1 or scene.brief.pieces_count > MOST_PIECES

    def step(kind: Kind, title: Words, under: Words, name: str = "", **more: object) -> BenchStep:
        ident = (name or kind) if single else f"{name or kind}:{piece}"
        chain = work.pour.id if single else f"{work.pour.id}/{piece}"
        return _step(work, kind, ident, title, under=under, chain=chain, piece=piece, **more)

    line = work.pour.top_depth_mm
    under = words("steps.pour_under" if line > 0 else "steps.pour_fill", line=line)
    more = len(work.places) > 1
    yield step(
        "pour", words("steps.pour") if single else words("steps.pour_piece", piece=piece),
        under if not more else words("steps.pour_in", under=under, count=len(work.places), places=work.places),
        cup=work.cups_count, asks="line", line_depth_mm=line, surface_cm2=work.surface_cm2,
    )
    trapped = work.trapped_ml >= LEAST_TRAPPED_ML
    if trapped or work.undersides_cm2 >= LEAST_UNDER_CM2:
        yield step("brush", words("steps.brush"), words(
            "steps.brush_under" if trapped else "steps.brush_flat", trapped=work.trapped_ml, under=work.undersides_cm2
        ))
    after = [
        step("flame", words("steps.flame"), words("steps.flame_under"), f"flame{at:g}", clock_min=at, after="poured",
             caution=words("steps.flame_caution"))
        for at in work.passes_min
    ]
    after.append(
        step("leaks", words("steps.leaks"), words("steps.leaks_under"), clock_min=LEAK_MIN, after="poured")
    )
    yield from sorted(after, key=lambda one: one.clock_min or 0.0)
    if work.lamp_min is not None:
        yield step(
            "lamp", words("steps.light", lamp_min=work.lamp_min), words("steps.light_under"), clock_min=work.lamp_min,
            after="before", caution=words("steps.light_caution"),
        )
    covered = "cover" if scene.brief.habits.covered else "keep"
    yield step("cover", words(f"steps.{covered}"), words(f"steps.{covered}_under"))
