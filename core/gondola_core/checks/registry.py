"""The register of checks: each says what it needs, what it rests on, and finds."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from ..answers.answer import Answer, EachAnswer

Needed = tuple[Answer[Any] | EachAnswer[Any], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """One check.

    stage     where its subject is worked on
    needs     answers whose values `find` gets after the scene
    source    key in `data/sources.toml` of what it rests on, or "assumed"
    remedies  names of the edits that it may offer
    by_grid   False if what the size of the cells errs decides nothing in it, though it rests on heat
    find      from (scene, *needs) to findings
    """

    code: str
    stage: str
    needs: Needed
    source: str
    remedies: tuple[str, ...]
    find: Callable[..., Iterable[Any]]
    by_grid: bool = True

    @property
    def about(self) -> str:
        """What it looks for, in a line."""
        return (self.find.__doc__ or "").strip().splitlines()[0]


CHECKS: dict[str, Check] = {}


def check(
    code: str, *, stage: str, needs: Needed = (), source: str, remedies: tuple[Callable[..., Any], ...] = (),
    by_grid: bool = True,
) -> Callable[[Callable[..., Iterable[Any]]], Callable[..., Iterable[Any]]]:
    """Register a check under its code; ValueError if two have one code."""

    def registered(find: Callable[..., Iterable[Any]]) -> Callable[..., Iterable[Any]]:
        if code in CHECKS:
            raise ValueError(f"two checks are called '{code}'")
        CHECKS[code] = Check(
            code=code, stage=stage, needs=needs, source=source,
            remedies=tuple(one.__name__ for one in remedies), find=find, by_grid=by_grid,
        )
        return find

    return registered
