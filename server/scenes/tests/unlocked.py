"""Nobody waits for what others compute: in every test of a scene, an answer that is asked for within a transaction
fails, and so does a march that a view asks for outside its turn."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from typing import Any
from unittest import mock

from django.core.handlers.base import BaseHandler
from django.db import connection

from gondola_core.answers import march
from gondola_core.answers.book import Book
from gondola_core.answers.heat import BAND_CURES, MARCH
from gondola_core.cure.march import hearing
from gondola_core.learning.cup_model import CupModel


@contextmanager
def nothing_computed_while_writing() -> Iterator[None]:
    """Fails what is computed inside a transaction that was not there when this was entered."""
    depth = len(connection.atomic_blocks)

    def outside(plain: Any) -> Any:
        def asked(*given: Any, **more: Any) -> Any:
            if len(connection.atomic_blocks) > depth:
                raise AssertionError(f"{plain.__qualname__} was asked while others wait to write.")
            return plain(*given, **more)

        return asked

    with ExitStack() as held:
        held.enter_context(mock.patch.object(Book, "ask", outside(Book.ask)))
        held.enter_context(mock.patch.object(CupModel, "__init__", outside(CupModel.__init__)))
        held.enter_context(mock.patch.object(march, "march_pours", outside(march.march_pours)))
        yield


def marches(answer: Any) -> bool:
    """True if a march has to be there for an answer."""
    return answer is MARCH or answer is BAND_CURES or any(marches(one) for one in answer.needs)


@contextmanager
def nothing_marched_out_of_turn() -> Iterator[None]:
    """Fails what needs a march, kept or not, for a request that takes no turn: it would not end with its asker."""
    requests: list[str] = []
    answered, asked, marched = BaseHandler.get_response, Book.ask, march.march_pours

    def get_response(self: BaseHandler, request: Any) -> Any:
        requests.append(f"{request.method} {request.path}")
        try:
            return answered(self, request)
        finally:
            requests.pop()

    def ask(self: Book, answer: Any) -> Any:
        if marches(answer):
            in_turn(answer.name)
        return asked(self, answer)

    def march_pours(*given: Any, **more: Any) -> Any:
        in_turn("a march")
        return marched(*given, **more)

    def in_turn(what: str) -> None:
        if requests and hearing.LISTENER.get() is None:
            raise AssertionError(f"{requests[-1]} asks for {what} out of turn.")

    with ExitStack() as held:
        held.enter_context(mock.patch.object(BaseHandler, "get_response", get_response))
        held.enter_context(mock.patch.object(Book, "ask", ask))
        held.enter_context(mock.patch.object(march, "march_pours", march_pours))
        yield
