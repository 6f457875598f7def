"""What is said when something typed or brought cannot be used."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from .words import METRIC, ReaderUnits, Words


class GondolaError(Exception):
    """One thing that has to be changed before Gondola can compute.

    message  a sentence that names the thing, the limit and what was given
    field    path of the field in the scene document, such as `pours.1.top_depth_mm`, or ""
    """

    def __init__(self, message: str | Words, field: str = "") -> None:
        super().__init__(_said(message, METRIC))
        self.sentence = message
        self.field = field

    def __reduce__(self) -> tuple[Any, ...]:
        """So that it comes whole from a process that reads a file apart."""
        return type(self), (self.sentence, self.field)

    @property
    def message(self) -> str:
        """The sentence in metric units."""
        return _said(self.sentence, METRIC)

    def said(self, units: ReaderUnits) -> str:
        """The sentence in the reader's units."""
        return _said(self.sentence, units)


class Flaw(ValueError):
    """What a validator of the document found, as words that are said later."""

    def __init__(self, sentence: Words) -> None:
        super().__init__(sentence.said(METRIC))
        self.sentence = sentence


class SceneError(GondolaError):
    """A scene document that cannot be read; `flaws` holds each (field, sentence)."""

    def __init__(self, flaws: Sequence[tuple[str, str | Words]]) -> None:
        field, sentence = flaws[0]
        super().__init__(sentence, field)
        self.flaws = list(flaws)

    def __reduce__(self) -> tuple[Any, ...]:
        return type(self), (self.flaws,)

    @property
    def problems(self) -> list[tuple[str, str]]:
        """Each (field, sentence) in metric units."""
        return self.problems_said(METRIC)

    def problems_said(self, units: ReaderUnits) -> list[tuple[str, str]]:
        """Each (field, sentence) in the reader's units."""
        return [(field, _said(sentence, units)) for field, sentence in self.flaws]


def _said(sentence: str | Words, units: ReaderUnits) -> str:
    return sentence.said(units) if isinstance(sentence, Words) else sentence
