"""How each number is known, and a sentence for each word of the trade, from `data/known.toml` and `data/trade.toml`."""

from __future__ import annotations

import functools
import tomllib
from dataclasses import dataclass
from importlib import resources

from ..materials.library import read_sources

ASSUMED = "our own judgement"


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """How one number is known: formula, inputs, source, limits, how sure."""

    id: str
    word: str
    formula: str
    inputs: str
    source: str
    limits: str
    sure: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TradeWord:
    """A word of the trade in a sentence."""

    word: str
    sentence: str


def _table(name: str) -> dict[str, object]:
    return tomllib.loads(resources.files("gondola_core").joinpath("data", f"{name}.toml").read_text("utf-8"))


@functools.cache
def load_known() -> list[Known]:
    """Every number that the page can explain; a source that no key names fails here."""
    sources = read_sources()
    return [
        Known(**{**row, "id": key, "source": _cited(row["source"], sources)})  # type: ignore[dict-item, index]
        for key, row in _table("known").items()
    ]


def _cited(key: str, sources: dict[str, dict[str, str]]) -> str:
    if key in ("assumed", "definition"):
        return ASSUMED if key == "assumed" else "by definition"
    work = sources[key]
    return f"{work['title']}, {work['authors']} {work['year']}" if "authors" in work else work["title"]


@functools.cache
def load_trade() -> list[TradeWord]:
    """The words of the trade, by the alphabet."""
    return [TradeWord(word=word, sentence=str(text)) for word, text in sorted(_table("trade").items())]
