"""An answer declares what it reads and which answers it needs; its key follows, and it gets no more."""

from __future__ import annotations

import functools
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Generic, Literal, TypeVar

from .reading import Reading

T = TypeVar("T")


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Answer(Generic[T]):
    """One thing that is said of a scene.

    name     of its own among all answers
    reads    fields of the scene; its key holds their values, `by` gets only these
    needs    answers that come before it; `by` gets their values, in this order
    by       computes it from (extract, *needs)
    graded   True if it depends on the grade of the march, which `by` then gets as `grade`
    meshes   True if `by` wants the bodies that the scene points at, as `meshes`
    told     "share" if it takes long and tells how far it is, by `told`; "check" if it only calls it
    asks     True if it asks the book itself, which `by` then gets as `book`: the checks do, on behalf of each
    beside   True if it may be computed in a thread beside what needs it
    most     how many are kept at a time; None: as many as there is room for
    """

    name: str
    reads: Reading
    by: Callable[..., T]
    needs: Needs = ()
    graded: bool = False
    meshes: bool = False
    told: Literal["", "share", "check"] = ""
    asks: bool = False
    beside: bool = False
    most: int | None = None


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class EachAnswer(Generic[T]):
    """One answer a part of a list of the scene, each kept by what that part alone says.

    of       name of the list, such as "figures"
    reads    fields of one of its parts
    shared   fields of the scene that all of them read besides
    own      other answers of the same list, of which it needs the one of the same part
    by       computes one from (extract of the part, extract of the scene, *own, *needs)
    """

    name: str
    of: str
    reads: Reading
    by: Callable[..., T]
    shared: Reading = field(default_factory=Reading)
    own: tuple[EachAnswer[Any], ...] = ()
    needs: Needs = ()
    meshes: bool = False
    beside: bool = False


Needs = tuple[Answer[Any] | EachAnswer[Any], ...]


@functools.cache
def depends_on(answer: Answer[Any] | EachAnswer[Any], on: Answer[Any]) -> bool:
    """True if an answer is another, or needs it in the end."""
    return answer is on or any(depends_on(one, on) for one in (*answer.needs, *getattr(answer, "own", ())))
