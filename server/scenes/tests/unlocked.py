"""Nobody waits to write while something is computed: in every test of a scene, an answer that is asked for within a
transaction fails."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from typing import Any
from unittest import mock

from django.db import connection

from gondola_core.answers import march
from gondola_core.answers.book import Book
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
