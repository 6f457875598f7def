"""The book of one question: a scene, a grade, and the answers that were asked so far."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from contextvars import copy_context
from functools import partial
from typing import Any, TypeVar, overload

from ..digests import digest
from ..scene import Scene
from ..shape import Meshes, meshes_held
from .answer import Answer, EachAnswer, depends_on
from .grades import DRAFT, Grade
from .kept import Keeper

T = TypeVar("T")

KEEPER = Keeper(most=400)
"""The keeper of this process: of a few pieces that are worked on at once, some 100 answers each. Source: assumed"""


class Book:
    """Answers of one scene at one grade; each is computed at most once, and kept for other books.

    told  called with the share that is done, by answers that take long; what it raises ends them
    """

    def __init__(
        self, scene: Scene, grade: Grade = DRAFT, keeper: Keeper = KEEPER, meshes: Meshes | None = None,
        told: Callable[[float], None] | None = None,
    ) -> None:
        self.scene, self.grade, self.keeper = scene, grade, keeper
        self.meshes = meshes_held(scene, meshes)
        self._told, self._share = told, 0.0
        self._keys: dict[str, Any] = {}
        self._extracts: dict[str, Any] = {}
        self._values: dict[str, Any] = {}

    @overload
    def ask(self, answer: Answer[T]) -> T: ...

    @overload
    def ask(self, answer: EachAnswer[T]) -> list[T]: ...

    def ask(self, answer: Answer[Any] | EachAnswer[Any]) -> Any:
        """The answer, from the keeper where it is kept."""
        if answer.name not in self._values:
            made = self._each(answer) if isinstance(answer, EachAnswer) else self._one(answer)
            self._values[answer.name] = made
        return self._values[answer.name]

    def key(self, answer: Answer[Any] | EachAnswer[Any]) -> str:
        """Hash of what an answer reads and of the keys of what it needs."""
        if answer.name not in self._keys:
            needed = [self.key(one) for one in answer.needs]
            if isinstance(answer, EachAnswer):
                self._keys[answer.name] = digest(self._each_keys(answer, needed))
            else:
                extract, values = answer.reads(self.scene)
                self._extracts[answer.name] = extract
                graded = self.grade.name if answer.graded else ""
                self._keys[answer.name] = digest([values, needed, graded])
        return str(self._keys[answer.name])

    def other(self, scene: Scene, grade: Grade | None = None) -> Book:
        """A book of another scene that points at the same bodies, with the same keeper."""
        return Book(scene, grade or self.grade, self.keeper, self.meshes)

    def supposing(self, answer: Answer[T], value: T) -> Book:
        """The same book with another value for one answer; what follows from it is computed and not kept."""
        return _Supposed(self, answer, value)

    def _one(self, answer: Answer[Any]) -> Any:
        key = self.key(answer)
        return self.keeper.keep(answer.name, key, lambda: self._computed(answer), answer.most)

    def _computed(self, answer: Answer[Any]) -> Any:
        needs = self._needs(answer)
        more: dict[str, Any] = {}
        if answer.graded:
            more["grade"] = self.grade
        if answer.meshes:
            more["meshes"] = self.meshes
        if answer.told:
            more["told"] = self._listener(answer.told)
        if answer.asks:
            more["book"] = self
        return answer.by(self._extracts[answer.name], *needs, **more)

    def _listener(self, how: str) -> Callable[[float], None] | None:
        if self._told is None:
            return None
        return self._hear if how == "share" else self._still_there

    def _hear(self, share: float) -> None:
        """The share that is done, by the one answer that leads."""
        self._share = share
        self._still_there()

    def _still_there(self, _: float = 0.0) -> None:
        """Nothing new, from an answer beside it; whoever listens may end it all by raising."""
        if self._told is not None:
            self._told(self._share)

    def _needs(self, answer: Answer[Any]) -> list[Any]:
        """What an answer needs, that which may be computed beside the rest begun first."""
        waiting = [
            one for one in answer.needs
            if one.beside and one.name not in self._values and not self.keeper.has(one.name, self.key(one))
        ]
        if not waiting:
            return [self.ask(one) for one in answer.needs]
        for one in waiting:
            for below in one.needs:
                self.ask(below)
        with ThreadPoolExecutor(max_workers=1) as pool:
            begun: list[Future[Any]] = [pool.submit(copy_context().run, partial(self.ask, one)) for one in waiting]
            for one in answer.needs:
                if one not in waiting:
                    self.ask(one)
            for future in begun:
                future.result()
        return [self.ask(one) for one in answer.needs]

    def _each(self, answer: EachAnswer[Any]) -> list[Any]:
        self.key(answer)
        needs = [self.ask(one) for one in answer.needs]
        own = [self.ask(one) for one in answer.own]
        keys, parts, shared = self._extracts[answer.name]
        more = {"meshes": self.meshes} if answer.meshes else {}
        found = []
        for at, (key, part) in enumerate(zip(keys, parts, strict=True)):
            inputs = (part, shared, *(values[at] for values in own), *needs)
            found.append(self.keeper.keep(answer.name, key, partial(answer.by, *inputs, **more)))
        return found

    def _each_keys(self, answer: EachAnswer[Any], needed: list[str]) -> list[str]:
        shared, shared_values = answer.shared(self.scene)
        keys, parts = [], []
        for one in answer.own:
            self.key(one)
        for at, one in enumerate(getattr(self.scene, answer.of)):
            part, values = answer.reads(one)
            own = [self._extracts[before.name][0][at] for before in answer.own]
            keys.append(digest([values, shared_values, own, needed]))
            parts.append(part)
        self._extracts[answer.name] = (keys, parts, shared)
        return keys


class _Supposed(Book):
    """A book in which one answer is another than it is."""

    def __init__(self, base: Book, answer: Answer[Any], value: Any) -> None:
        super().__init__(base.scene, base.grade, base.keeper, base.meshes)
        self._base, self._supposed = base, answer
        self._values[answer.name] = value
        # the scene is the same: what is read of it is, too
        self._keys, self._extracts = base._keys, base._extracts

    def ask(self, answer: Any) -> Any:
        if answer.name in self._values:
            return self._values[answer.name]
        if not depends_on(answer, self._supposed):
            return self._base.ask(answer)
        self.key(answer)
        self._values[answer.name] = self._computed(answer)
        return self._values[answer.name]
