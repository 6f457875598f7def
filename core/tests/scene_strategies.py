"""Scenes to try the core with: samples with some of their values moved anywhere within the bounds of their fields."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from hypothesis import strategies as st

from gondola_core.samples import SAMPLES
from gondola_core.scene import Scene

SCHEMA = Scene.model_json_schema()
DOCUMENTS = [make().model_dump(mode="json") for make in SAMPLES.values()]
Spot = tuple[tuple[Any, ...], dict[str, Any]]
KEYS = {"id", "mesh_id", "format", "version", "kind"}
"""What points at something, or says what a part is: other values are refused at once."""


def resolved(schema: dict[str, Any], value: Any) -> dict[str, Any]:
    """The schema that a value follows, among those that a field allows."""
    while "$ref" in schema:
        schema = SCHEMA["$defs"][schema["$ref"].rsplit("/", 1)[-1]]
    for several in ("oneOf", "anyOf"):
        if several in schema:
            found = [resolved(one, value) for one in schema[several]]
            return next((one for one in found if fits(one, value)), found[0])
    return schema


def fits(schema: dict[str, Any], value: Any) -> bool:
    """Whether a value is of the kind that a schema describes."""
    if isinstance(value, dict):
        kind = schema.get("properties", {}).get("kind", {}).get("const")
        return schema.get("type") == "object" and (kind is None or kind == value.get("kind"))
    kinds = {bool: ("boolean",), int: ("integer", "number"), float: ("number",), str: ("string",), list: ("array",)}
    return schema.get("type") in kinds.get(type(value), ("null",)) or "enum" in schema


def spots(value: Any, schema: dict[str, Any], path: tuple[Any, ...] = ()) -> Iterator[Spot]:
    """Every number, word and switch of a document with the schema that it follows."""
    schema = resolved(schema, value)
    if isinstance(value, dict):
        for name, part in schema.get("properties", {}).items():
            if name in value and name not in KEYS and not name.endswith("_id"):
                yield from spots(value[name], part, (*path, name))
    elif isinstance(value, list):
        if schema.get("items"):
            for at, one in enumerate(value[:6]):
                yield from spots(one, schema["items"], (*path, at))
    elif value is not None:
        yield path, schema


def values(schema: dict[str, Any]) -> st.SearchStrategy[Any]:
    """What a field may hold by its own bounds, the bounds themselves often."""
    if "enum" in schema:
        return st.sampled_from(schema["enum"])
    kind = schema.get("type")
    if kind == "boolean":
        return st.booleans()
    if kind in ("number", "integer"):
        low, high = schema.get("minimum", -1e6), schema.get("maximum", 1e6)
        if kind == "integer":
            return st.one_of(st.sampled_from([low, high]), st.integers(low, high))
        return st.one_of(st.sampled_from([float(low), float(high)]), st.floats(low, high))
    if schema.get("format") == "date-time":
        return st.datetimes().map(lambda one: one.isoformat(timespec="minutes"))
    return st.text(max_size=12)


@st.composite
def documents(draw: st.DrawFn, most: int = 6) -> dict[str, Any]:
    """A sample with up to `most` of its values moved; what rules between fields refuse is among them."""
    document = draw(st.sampled_from(DOCUMENTS))
    found = list(spots(document, SCHEMA))
    for path, schema in draw(st.lists(st.sampled_from(found), min_size=1, max_size=most, unique_by=lambda one: one[0])):
        document = replaced(document, path, draw(values(schema)))
    return document


def replaced(part: Any, path: tuple[Any, ...], value: Any) -> Any:
    """A copy of a document with one value in another's place."""
    if not path:
        return value
    first, *rest = path
    if isinstance(part, list):
        return [replaced(one, tuple(rest), value) if at == first else one for at, one in enumerate(part)]
    return {**part, first: replaced(part[first], tuple(rest), value)}
