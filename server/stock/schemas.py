"""What the API takes and gives of stock."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from ninja import Schema
from pydantic import Field

from gondola_core.bench.shopping import Held, Kit, Shopping


class StockWritten(Schema):
    """Everything on the shelf as it is counted now."""

    currency: Annotated[str, Field(pattern=r"^[A-Z]{3}$")] = "EUR"
    held: Annotated[list[Held], Field(max_length=400)] = []
    kits: Annotated[list[Kit], Field(max_length=100)] = []


class StockState(StockWritten):
    """The shelf now: what was counted, less what the bench has used since.

    used     by kind of stock
    refused  what was counted or used, and is left out: rows that are no longer taken, runs that cannot be read
    """

    counted_at: datetime | None
    used: dict[str, float]
    refused: list[str] = []


@dataclass(frozen=True, slots=True, kw_only=True)
class ShoppingList:
    """The list of a scene in the person's currency."""

    currency: str
    shopping: Shopping
