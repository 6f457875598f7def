"""What a plan needs against what is there, the kits that cost least, and what that comes to."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

import numpy as np
from pydantic import Field
from scipy.optimize import Bounds, LinearConstraint, milp

from ..part import Key, Name, Part, bounded
from ..scene import Scene
from ..scene.pour import GRITS
from ..words import Words, words
from .mixing import Mix
from .stocks import Stock

Unit = Literal["g", "cm2", "ml", "pairs", "pieces"]
GLOVES_A_POUR, SPARE_GLOVES = 2, 2
"""Pairs a pour: one to mix, one to pour; and some for the bed. Source: assumed"""
CUPS_A_MIX = 2
"""Cups for each that is mixed: it is changed once. Source: assumed"""
SHEET_WASTE = 1.10
"""Sheet bought over the panels cut from it. Source: assumed"""
BEAD_MM2 = 9.0
"""Section of a bead of seal along a joint. Source: assumed"""
"""Papers of a sanding ladder. Source: assumed"""
MOST_KITS = 200
"""Of one kind that anybody buys at once."""
AGED_D = 180
"""Days after which an opened part B counts as old where no shelf life is given. Source: assumed"""


class Held(Part):
    """Something that is there.

    key          what it is: "a:deep", "b:deep", "ink:red-ink", or a consumable's own
    opened_on    of a bottle; shelf_d days that it keeps once opened
    price        of one unit, in the person's currency
    """

    key: Annotated[str, Field(title="kind of stock", pattern=r"^[a-z0-9][a-z0-9:.-]{0,79}$")]
    name: Name
    amount: float = bounded("amount there", "", 0, 1e7)
    unit: Unit = "g"
    opened_on: Annotated[date | None, Field(title="opened", strict=False)] = None
    shelf_d: Annotated[int | None, Field(title="keeps, once opened", ge=1, le=3650)] = None
    price: Annotated[float | None, Field(title="price", ge=0, le=1e6)] = None


class Kit(Part):
    """Two bottles that are sold together."""

    id: Key
    name: Name
    resin_id: Key
    part_a_g: float = bounded("part A of a kit", "g", 1, 1e6)
    part_b_g: float = bounded("part B of a kit", "g", 1, 1e6)
    price: float = bounded("price of a kit", "", 0, 1e6)


@dataclass(frozen=True, slots=True, kw_only=True)
class Need:
    """So much of something."""

    key: str
    name: Words
    amount: float
    unit: Unit


@dataclass(frozen=True, slots=True, kw_only=True)
class ShoppingLine:
    """A need against what is there; `cost` of what is missing, None where no price is known."""

    key: str
    name: Words
    need: float
    have: float
    missing: float
    unit: Unit
    cost: float | None
    old: Words | None


@dataclass(frozen=True, slots=True, kw_only=True)
class KitChoice:
    """So many of a kit, and what is left over of its resin once all is poured."""

    kit_id: str
    name: str
    count: int
    cost: float
    left_a_g: float
    left_b_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Shopping:
    """The list of a plan.

    buy_cost     of kits and of what is missing, as far as prices are known
    piece_cost   of what goes into the piece
    unpriced     what is missing and has no price
    """

    lines: list[ShoppingLine]
    kits: list[KitChoice]
    buy_cost: float
    piece_cost: float
    unpriced: list[Words]


def needs_of(
    scene: Scene, mixes: Sequence[Mix], stocks: Sequence[Stock], sheet_cm2: float, joints_mm: float
) -> list[Need]:
    """Everything that the plan takes: both parts by resin, inks, sheet and seal, cups, gloves, grits.

    sheet_cm2   of panels that are cut
    joints_mm   length of all joints that are sealed
    """
    return [
        *_resin(scene, mixes), *_inks(scene, stocks), *_dam(scene, sheet_cm2, joints_mm),
        Need(key="cups", name=words("shopping.cups"), unit="pieces",
             amount=float(CUPS_A_MIX * sum(mix.cups_count for mix in mixes))),
        Need(key="gloves", name=words("shopping.gloves"), unit="pairs",
             amount=float(GLOVES_A_POUR * len(scene.pours) + SPARE_GLOVES)),
        *_papers(scene),
    ]


def _papers(scene: Scene) -> Iterator[Need]:
    """A sheet of each grit up to the finest; none where the walls stay."""
    count = 0 if scene.tank.walls_stay else sum(grit <= scene.finish.sand_to_grit for grit in GRITS)
    if count:
        name = words("shopping.papers", coarse=GRITS[0], fine=GRITS[count - 1])
        yield Need(key="papers", name=name, amount=float(count), unit="pieces")


def _resin(scene: Scene, mixes: Sequence[Mix]) -> Iterator[Need]:
    pieces = scene.brief.pieces_count
    for resin in scene.resins:
        mine = [mix for mix, pour in zip(mixes, scene.pours, strict=True) if pour.resin_id == resin.id]
        for part in ("a", "b") if mine else ():
            amount = pieces * sum(getattr(mix, f"part_{part}_g") for mix in mine)
            yield Need(
                key=f"{part}:{resin.id}", name=words(f"shopping.part_{part}", name=resin.name), unit="g",
                amount=round(amount, 1),
            )


def _inks(scene: Scene, stocks: Sequence[Stock]) -> Iterator[Need]:
    drop = {one.id: one.drop_g for one in scene.colourants}
    for one in stocks:
        yield Need(
            key=f"ink:{one.colourant_id}", name=words("shopping.ink", name=one.name), unit="g",
            amount=round(one.neat_drops * drop[one.colourant_id] * scene.brief.pieces_count, 2),
        )


def _dam(scene: Scene, sheet_cm2: float, joints_mm: float) -> Iterator[Need]:
    wall = scene.tank.wall
    if sheet_cm2 > 0 and not scene.tank.walls_stay:
        yield Need(
            key=f"sheet:{wall.material.id}", unit="cm2", amount=round(SHEET_WASTE * sheet_cm2, 0),
            name=words("shopping.sheet", name=wall.material.name, thick=wall.thickness_mm),
        )
    if scene.tank.seal is not None:
        yield Need(
            key=f"seal:{scene.tank.seal.material.id}", name=words("shopping.seal", name=scene.tank.seal.material.name),
            unit="ml", amount=round(joints_mm * BEAD_MM2 / 1000, 0),
        )


def cheapest_kits(kits: Sequence[Kit], part_a_g: float, part_b_g: float) -> list[int]:
    """How many of each kit cover both parts at least cost; what costs the same leaves least over.

        min p n + e (a + b) n,  a n >= A, b n >= B, n whole

    Empty where nothing is missing, or no number of kits is enough.
    Source: definition
    """
    if part_a_g <= 0 and part_b_g <= 0:
        return [0] * len(kits)
    if not kits:
        return []
    a, b, price = (np.array([getattr(kit, name) for kit in kits]) for name in ("part_a_g", "part_b_g", "price"))
    tie = 1e-6 * max(1.0, float(price.max())) / float((a + b).max())
    found = milp(
        price + tie * (a + b), integrality=np.ones(len(kits)), bounds=Bounds(0, MOST_KITS),
        constraints=[LinearConstraint(np.stack([a, b]), lb=[max(0.0, part_a_g), max(0.0, part_b_g)])],
    )
    return [] if found.x is None else [round(one) for one in found.x]


def shopping(
    scene: Scene, needs: Sequence[Need], held: Sequence[Held], kits: Sequence[Kit], today: date
) -> Shopping:
    """Needs against what is there, and the kits for what is missing of both parts."""
    there = {one.key: one for one in held}
    lines = [_line(need, there.get(need.key), today) for need in needs]
    missing = {one.key: one.missing for one in lines}
    chosen = [one for resin in scene.resins for one in _kits(resin.id, kits, missing, there, needs)]
    covered = {f"{part}:{kit.resin_id}" for kit in kits for part in "ab" if any(one.kit_id == kit.id for one in chosen)}
    bought = sum(one.cost or 0.0 for one in lines if one.key not in covered) + sum(one.cost for one in chosen)
    return Shopping(
        lines=lines, kits=chosen, buy_cost=round(bought, 2), piece_cost=round(_piece_cost(needs, there, kits), 2),
        unpriced=[one.name for one in lines if one.missing > 0 and one.cost is None and one.key not in covered],
    )


def _line(need: Need, there: Held | None, today: date) -> ShoppingLine:
    have = there.amount if there is not None else 0.0
    missing = round(max(0.0, need.amount - have), 2)
    price = there.price if there is not None else None
    return ShoppingLine(
        key=need.key, name=need.name, need=need.amount, have=round(have, 2), missing=missing, unit=need.unit,
        cost=None if price is None else round(price * missing, 2), old=_old(need.key, there, today),
    )


def _old(key: str, there: Held | None, today: date) -> Words | None:
    """An opened bottle past its time; part B yellows and thickens."""
    if there is None or there.opened_on is None:
        return None
    days, keeps = (today - there.opened_on).days, there.shelf_d or AGED_D
    if days <= keeps:
        return None
    return words("shopping.old_b" if key.startswith("b:") else "shopping.old", days=days, keeps=keeps)


def _kits(
    resin_id: str, kits: Sequence[Kit], missing: dict[str, float], there: dict[str, Held], needs: Sequence[Need]
) -> Iterator[KitChoice]:
    mine = [kit for kit in kits if kit.resin_id == resin_id]
    counts = cheapest_kits(mine, missing.get(f"a:{resin_id}", 0.0), missing.get(f"b:{resin_id}", 0.0))
    need = {one.key: one.amount for one in needs}
    left = {}
    for part in "ab":
        key = f"{part}:{resin_id}"
        have = there[key].amount if key in there else 0.0
        bought = sum(count * getattr(kit, f"part_{part}_g") for count, kit in zip(counts, mine, strict=False))
        left[part] = round(have + bought - need.get(key, 0.0), 1)
    for count, kit in zip(counts, mine, strict=False):
        if count:
            yield KitChoice(
                kit_id=kit.id, name=kit.name, count=count, cost=round(count * kit.price, 2), left_a_g=left["a"],
                left_b_g=left["b"],
            )


def _piece_cost(needs: Sequence[Need], there: dict[str, Held], kits: Sequence[Kit]) -> float:
    """What goes into the piece, at its own price or at that of its cheapest kit by mass."""
    a_gram = {
        resin: min(kit.price / (kit.part_a_g + kit.part_b_g) for kit in kits if kit.resin_id == resin)
        for resin in {kit.resin_id for kit in kits}
    }
    total = 0.0
    for need in needs:
        part, _, resin = need.key.partition(":")
        own = there[need.key].price if need.key in there else None
        price = own if own is not None else a_gram.get(resin) if part in ("a", "b") else None
        total += need.amount * (price or 0.0)
    return total
