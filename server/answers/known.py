"""How each number is known, and the words of the trade, over HTTP."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from gondola_core.documents.known import Known, TradeWord, load_known, load_trade

router = Router(tags=["known"])


class AllKnown(Schema):
    """Numbers that can be explained, and words of the trade in a sentence each."""

    numbers: list[Known]
    words: list[TradeWord]


@router.get("/known", response=AllKnown, operation_id="read_known")
def read_known(request: HttpRequest) -> AllKnown:
    return AllKnown(numbers=load_known(), words=load_trade())
