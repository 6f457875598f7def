"""Asks the book for every field of the outcome. Page, command and queue all call it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, get_args, get_type_hints

from pydantic import TypeAdapter

from .answers.answer import Answer, EachAnswer
from .answers.book import KEEPER, Book
from .answers.grades import DRAFT, FINE, Grade
from .answers.kept import Keeper
from .digests import digest
from .outcome import Outcome
from .scene import Scene
from .shape import Meshes
from .words import METRIC, ReaderUnits

__all__ = ["DRAFT", "FINE", "KEEPER", "Grade", "evaluate", "outcome_json", "outcome_of"]


def evaluate(
    scene: Scene, grade: Grade = DRAFT, keeper: Keeper = KEEPER, progress: Callable[[float], None] | None = None,
    meshes: Meshes | None = None,
) -> Outcome:
    """The whole outcome of a scene.

    progress  called with the share that is done, for grades that take long
    meshes    those that the scene points at and does not bring along itself
    """
    return outcome_of(Book(scene, grade, keeper, meshes, progress))


def outcome_of(book: Book) -> Outcome:
    """Every field's answer."""
    fields: dict[str, Any] = {name: book.ask(answer) for name, answer in _ANSWERS.items()}
    return Outcome(scene_digest=digest(book.scene), grade=book.grade.name, **fields)


def outcome_json(outcome: Outcome, units: ReaderUnits = METRIC) -> bytes:
    """The outcome document as JSON, its sentences in the reader's units; the same bytes everywhere."""
    return _OUTCOME.dump_json(outcome, context={"units": units})


def _answers() -> dict[str, Answer[Any] | EachAnswer[Any]]:
    """The answer of each field of the outcome that has one."""
    hints = get_type_hints(Outcome, include_extras=True)
    return {
        name: one for name, hint in hints.items() for one in get_args(hint)[1:]
        if isinstance(one, Answer | EachAnswer)
    }


_OUTCOME = TypeAdapter(Outcome)
_ANSWERS = _answers()
