"""What can be done with stock: count it, read it less what the bench used, hold a plan against it."""

from __future__ import annotations

from collections import defaultdict
from datetime import UTC, datetime
from typing import Any, TypeVar

from bench import actions as bench
from bench.models import Run
from django.db import transaction
from shapes.actions import meshes_for

from gondola_core.answers.book import Book
from gondola_core.answers.needs import NEEDS
from gondola_core.bench.events import ColourDropped, PartWeighed, standing
from gondola_core.bench.shopping import Held, Kit, shopping
from gondola_core.errors import SceneError
from gondola_core.scene import Scene, read_as
from gondola_core.tables import csv_of
from gondola_core.words import ReaderUnits, speaker_of

from .models import StockBook
from .schemas import ShoppingList, StockState, StockWritten

M = TypeVar("M", Held, Kit, StockWritten)


@transaction.atomic
def count(*, owner: Any, stock: StockWritten) -> None:
    """All of it as it is counted now; what was used before is in that already."""
    body = stock.model_dump(mode="json")
    StockBook.objects.update_or_create(owner=owner, defaults={**body, "counted_at": datetime.now(UTC)})


def state(owner: Any) -> StockState:
    """The shelf now."""
    book = StockBook.objects.filter(owner=owner).first()
    if book is None:
        return StockState(counted_at=None, used={})
    priced, odd = _rows(StockWritten, [{"currency": book.currency}], "The currency")
    counted, refused = _rows(Held, book.held)
    kits, more = _rows(Kit, book.kits)
    used, unread = used_since(owner, book.counted_at)
    held = [
        one.model_copy(update={"amount": round(max(0.0, one.amount - used.get(one.key, 0.0)), 3)}) for one in counted
    ]
    return StockState(
        currency=(priced or [StockWritten()])[0].currency, held=held, kits=kits, counted_at=book.counted_at, used=used,
        refused=[*odd, *refused, *more, *unread],
    )


def _rows(model: type[M], kept: Any, nameless: str = "Something") -> tuple[list[M], list[str]]:
    """What is still taken of what was counted, and a sentence for each that is not."""
    taken, refused = [], []
    for one in kept if isinstance(kept, list) else [kept]:
        try:
            taken.append(read_as(model, one))
        except SceneError as flaw:
            name = one.get("name", "") if isinstance(one, dict) else ""
            refused.append(f"{name or nameless} on the shelf is no longer taken, and is left out: {flaw.message}")
    return taken, refused


def used_since(owner: Any, moment: datetime) -> tuple[dict[str, float], list[str]]:
    """What the runs have taken since, by kind of stock [g]: what was undone is back, rehearsals take nothing. And a
    sentence for each that cannot be read."""
    found: dict[str, float] = defaultdict(float)
    unread = []
    for run in Run.objects.filter(owner=owner, rehearsal=False, events__taken_at__gte=moment).distinct():
        try:
            scene, events = bench.document_of(run), bench.events_of(run)
        except SceneError as flaw:
            unread.append(
                f"What the run of {run.started_at:%d %B %Y} of '{run.scene.name}' took is not taken off: {flaw.message}"
            )
            continue
        resins = {pour.id: pour.resin_id for pour in scene.pours}
        drops = {one.id: one.drop_g for one in scene.colourants}
        for one in standing(events):
            if one.at < moment:
                continue
            if isinstance(one, PartWeighed) and one.pour_id in resins:
                found[f"{one.part}:{resins[one.pour_id]}"] += one.mass_g
            elif isinstance(one, ColourDropped):
                found[f"ink:{one.colourant_id}"] += one.neat_drops * drops.get(one.colourant_id, 0.0)
    return {key: round(amount, 4) for key, amount in found.items()}, unread


def list_of(*, owner: Any, scene: Scene) -> ShoppingList:
    """What a plan needs against the shelf."""
    shelf = state(owner)
    needs = Book(scene, meshes=meshes_for(owner=owner, document=scene)).ask(NEEDS)
    held: list[Held] = shelf.held
    today = datetime.now(UTC).date()
    return ShoppingList(currency=shelf.currency, shopping=shopping(scene, needs, held, shelf.kits, today))


def as_csv(told: ShoppingList, units: ReaderUnits) -> str:
    """The list as a table: what is missing, then the kits."""
    speak = speaker_of(units)
    lines: list[list[str | int | float]] = [
        [
            speak.say(one.name), one.need, one.have, one.missing, one.unit, "" if one.cost is None else one.cost,
            "" if one.old is None else speak.say(one.old),
        ]
        for one in told.shopping.lines
    ]
    kits: list[list[str | int | float]] = [
        [kit.name, "", "", kit.count, "kits", kit.cost, ""] for kit in told.shopping.kits
    ]
    return csv_of(["what", "need", "have", "buy", "unit", f"cost {told.currency}", "note"], [*lines, *kits])
