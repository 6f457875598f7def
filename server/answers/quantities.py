"""Reads a quantity that somebody typed."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema
from studio.schemas import Refusal

from gondola_core.entry import read_quantity

router = Router(tags=["quantities"])


class Quantity(Schema):
    """A number in the document's unit."""

    value: float


@router.get("/quantity", response={200: Quantity, 422: Refusal}, operation_id="read_quantity")
def read(request: HttpRequest, text: str, quantity: str, unit: str) -> Quantity:
    """`text` in any mixed form; `unit` is that of a bare number."""
    return Quantity(value=read_quantity(text, quantity, unit))
