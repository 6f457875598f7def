"""Words by their id and values, and how they are said at last."""

from __future__ import annotations

import functools
import string
import tomllib
from dataclasses import dataclass
from importlib import resources
from typing import Any

from pydantic import SerializationInfo
from pydantic_core import core_schema

from .quantities import METRIC, QUANTITIES, ReaderUnits, said_quantity


@dataclass(frozen=True, slots=True)
class Words:
    """A sentence by its id, with the values that stand in it; values may be words themselves."""

    id: str
    values: dict[str, Any]

    def said(self, units: ReaderUnits = METRIC) -> str:
        """The sentence in the units of its reader."""
        return speaker_of(units).say(self)

    def __str__(self) -> str:
        return self.said()

    def __contains__(self, part: str) -> bool:
        """True if the sentence in metric units holds a part."""
        return part in self.said()

    @classmethod
    def __get_pydantic_core_schema__(cls, *_: Any) -> core_schema.CoreSchema:
        """In JSON it is a sentence, in the `units` of the context that it is written with."""
        return core_schema.is_instance_schema(
            cls, serialization=core_schema.plain_serializer_function_ser_schema(
                _written, info_arg=True, return_schema=core_schema.str_schema()
            ),
        )

    @classmethod
    def __get_pydantic_json_schema__(cls, *_: Any) -> dict[str, str]:
        return {"type": "string"}


def _written(sentence: Words, info: SerializationInfo) -> str:
    return sentence.said((info.context or {}).get("units", METRIC))


def words(id_: str, **values: Any) -> Words:
    """Words to be said later; KeyError for an id that no sentence has."""
    if id_ not in _sentences():
        raise KeyError(f"no sentence is called '{id_}'")
    return Words(id_, values)


def sentence_ids() -> set[str]:
    """All ids that there are."""
    return set(_sentences())


@functools.cache
def _sentences() -> dict[str, str]:
    """The sentences of all tables here, by `table.id`; nested tables by dots."""
    found: dict[str, str] = {}
    for table in resources.files("gondola_core.words").iterdir():
        if table.name.endswith(".toml"):
            _gather(table.name.removesuffix(".toml"), tomllib.loads(table.read_text("utf-8")), found)
    return found


@functools.cache
def _pieces(id_: str) -> tuple[tuple[str, str | None, str], ...]:
    """A sentence as pieces of text, each with the name of the value that follows it and how that is said."""
    return tuple((text, name, spec or "") for text, name, spec, _ in string.Formatter().parse(_sentences()[id_]))


def _gather(prefix: str, part: dict[str, Any], found: dict[str, str]) -> None:
    for key, value in part.items():
        name = f"{prefix}.{key}"
        if isinstance(value, dict):
            _gather(name, value, found)
        else:
            found[name] = str(value)


class Speaker:
    """Says words in one reader's units.

    In a sentence `{depth:length.1}` is a quantity, `{name:capital}` begins a sentence, `{holes:count hole holes}`
    counts, `{limits:range length}` is "5 to 60 mm", `{given:bare length}` a number without its unit,
    `{names:and}` joins a list, `{names:And}` begins a sentence; nested words are said in their place.
    """

    def __init__(self, units: ReaderUnits) -> None:
        self.units = units

    def say(self, said: Words | str) -> str:
        """Words in full."""
        if isinstance(said, str):
            return said
        return "".join(
            text if name is None else text + self.format_field(said.values[name], spec)
            for text, name, spec in _pieces(said.id)
        )

    def format_field(self, value: Any, spec: str) -> str:
        if spec.startswith(("range ", "bare ")):
            return self._without_units(value, *spec.split(" "))
        if isinstance(value, list | tuple):
            parts = [self.say(one) if isinstance(one, Words) else str(one) for one in value]
            return _joined(parts, spec)
        if isinstance(value, Words):
            value = self.say(value)
        kind, _, rest = spec.partition(" ")
        if kind.partition(".")[0] in QUANTITIES:
            return said_quantity(value, kind, self.units)
        if kind == "capital":
            text = str(value)
            return text[:1].upper() + text[1:]
        if kind == "count":
            one, many = rest.split(" ")
            return f"{value} {one if value == 1 else many}"
        if kind == "plural":
            one, many = rest.split(" ")
            return one if value == 1 else many
        return format(value, spec) if value is not None else ""


    def _without_units(self, value: Any, how: str, quantity: str) -> str:
        """A range as "5 to 60 °C", or a number bare of its unit."""
        if how == "bare":
            return said_quantity(value, quantity, self.units).rpartition(" ")[0]
        low, high = (said_quantity(one, quantity, self.units) for one in value)
        number, _, unit = low.rpartition(" ")
        return f"{number if high.endswith(f' {unit}') else low} to {high}"


def _joined(parts: list[str], how: str) -> str:
    if how in ("and", "And"):
        listed = " and ".join([", ".join(parts[:-1]), parts[-1]]) if len(parts) > 1 else parts[0]
        return listed if how == "and" else listed[:1].upper() + listed[1:]
    return (how if how in ("; ", " ") else ", ").join(parts)


@functools.cache
def speaker_of(units: ReaderUnits) -> Speaker:
    """The one who speaks in these units."""
    return Speaker(units)
