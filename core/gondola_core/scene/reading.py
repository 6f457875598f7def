"""Reads a scene document, and says what is wrong in it in the practitioner's words."""

from __future__ import annotations

import itertools
import json
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, TypeVar, get_args, get_origin

from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo

from ..errors import Flaw, GondolaError, SceneError
from ..parsed import parsed
from ..words import Words, words
from .document import Scene
from .migrate import migrate

M = TypeVar("M", bound=BaseModel)
LARGEST_FILE = 48 * 1024 * 1024
"""bytes; a scene without meshes is under 2 MB, a mesh of 500,000 triangles some 12 MB"""

MOST_FLAWS = 20
"""Flaws that are told one by one; of more there is only said how many."""

KINDS = frozenset(
    (
        "ellipsoid", "box", "capsule", "fish", "eel", "hull", "wagon", "ladder", "ring", "tuft", "mesh",
        "chamfered", "rounded", "round", "regular", "free", "scale_true", "by_eye",
    )
)
"""Tags that pydantic puts into the path of a flaw; they are no fields."""

_ONE = {
    "points_mm": "corner",
    "sheet_mm": "side",
    "measured": "measured depth",
    "vents": "vent",
    "meshes": "mesh",
    "pours": "pour",
    "figures": "figure",
    "resins": "resin",
    "colourants": "colourant",
    "solids": "solid",
    "bands": "band",
    "doses": "dose",
    "heights_mm": "row",
    "size_mm": "size",
    "radii_mm": "half-axis",
    "centre_mm": "centre",
    "from_mm": "start",
    "to_mm": "end",
}


def read_scene(text: str | bytes) -> Scene:
    """A scene from JSON text. SceneError lists each field with what it allows."""
    if len(text) > LARGEST_FILE:
        raise SceneError(
            [("", f"This file is over {LARGEST_FILE // 2**20} MB; a scene is far smaller.")]
        )
    try:
        document = parsed(text)
    except GondolaError as error:
        raise SceneError([("", error.sentence)]) from None
    return scene_from(document)


def scene_from(document: Any) -> Scene:
    """A scene from parsed JSON; see `read_scene`."""
    if not isinstance(document, dict):
        raise SceneError([("", "A scene file holds one object with a format and a version.")])
    try:
        return Scene.model_validate(migrate(document))
    except ValidationError as flaws:
        raise SceneError(problems_of(flaws.errors())) from None


def read_as(model: type[M], body: Any) -> M:
    """What a model makes of kept or given JSON values. SceneError names each that is out of its range."""
    try:
        return model.model_validate_json(json.dumps(body))
    except ValidationError as flaws:
        raise SceneError(problems_of(flaws.errors(), model)) from None


def problems_of(
    flaws: Iterable[Mapping[str, Any]], root: type[BaseModel] = Scene
) -> list[tuple[str, str | Words]]:
    """Each (path, sentence) of pydantic's own list, naming the field and what it allows.

    The first twenty are told one by one, and then how many more there are.
    """
    problems: list[tuple[str, str | Words]] = []
    flaws = iter(flaws)
    for flaw in itertools.islice(flaws, MOST_FLAWS):
        loc = _without_tags(tuple(flaw["loc"]))
        path = ".".join(str(part) for part in loc)
        label, field = _label(loc, root)
        problems.append((path, _sentence(label, field, dict(flaw))))
    more = sum(1 for _ in flaws)
    if more:
        problems.append(("", f"And {more} more things have to be changed; these are the first {MOST_FLAWS}."))
    return problems


def _without_tags(loc: tuple[int | str, ...]) -> tuple[int | str, ...]:
    return tuple(
        part
        for before, part in zip((None, *loc), loc, strict=False)
        if not (part in KINDS and (isinstance(before, int) or before in ("shape", "look")))
    )


def _label(
    loc: tuple[int | str, ...], root: type[BaseModel]
) -> tuple[str, FieldInfo | None]:
    """The words for a place in the document, and the field whose bounds hold there."""
    parts: list[str] = []
    annotation: Any = root
    field: FieldInfo | None = None
    for part in loc:
        if isinstance(part, int):
            parts = [*parts[:-1], f"{_ONE.get(parts[-1], parts[-1])} {part + 1}" if parts else f"entry {part + 1}"]
            annotation, field = _item_of(annotation)
            continue
        holders = [model for model in _models_in(annotation) if part in model.model_fields]
        field = holders[0].model_fields[part] if holders else None
        annotation = field.annotation if field else None
        parts.append(field.title if field and field.title and part == loc[-1] else part)
    title = field.title if field is not None and loc and isinstance(loc[-1], int) else None
    if title and not parts[-1].startswith(title):
        parts.append(title)
    return ", ".join(word.replace("_", " ") for word in parts), field


def _item_of(annotation: Any) -> tuple[Any, FieldInfo | None]:
    """What a list holds, and the bounds that stand with it."""
    inner = get_args(annotation)
    if not inner:
        return None, None
    if get_origin(annotation) is Annotated:
        return _item_of(inner[0])
    item = inner[0]
    if get_origin(item) is Annotated:
        bounds = [note for note in get_args(item)[1:] if isinstance(note, FieldInfo)]
        return item, bounds[0] if bounds else None
    return item, None


def _models_in(annotation: Any) -> list[type[BaseModel]]:
    """Every kind of part that a field may hold."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    return [model for inner in get_args(annotation) for model in _models_in(inner)]


def _sentence(label: str, field: FieldInfo | None, flaw: dict[str, Any]) -> str | Words:
    kind, context, given = flaw["type"], flaw.get("ctx", {}), flaw.get("input")
    name = label[:1].upper() + label[1:]
    if kind == "value_error":
        error = context.get("error")
        return words("refusals.flaw", flaw=error.sentence if isinstance(error, Flaw) else str(error))
    if kind in ("greater_than_equal", "less_than_equal"):
        return words("refusals.range", name=label, range=_range(field, context), given=_given(field, given))
    if kind in ("too_short", "too_long"):
        return _counted(name, kind == "too_short", context)
    for kinds, said in _SAID.items():
        if kind in kinds or kind.startswith(tuple(one for one in kinds if one.endswith("_"))):
            return f"{name} {said.format(**context)}"
    wanted = _wanted(kind, context)
    if wanted is not None:
        return f"{name} has to be {wanted}; {_shown(given)}."
    return f"{name}: {flaw['msg'][:1].lower()}{flaw['msg'][1:]}; {_shown(given)}."


_SAID = {
    ("string_too_long",): "may have {max_length} characters at most.",
    ("string_too_short",): "is empty.",
    ("missing",): "is missing.",
    ("extra_forbidden",): "is not a field of a scene: take it out or correct its spelling.",
}
"""What is said of a field, whatever stands in it; kinds that end in an underscore are beginnings."""
_WANTED = {
    ("datetime_", "timezone_"): "a date and time such as 2027-03-05T09:00",
    ("bool_",): "true or false",
    ("string_type",): "text",
    ("list_type",): "a list",
    ("model_type", "model_attributes_type", "dict_type"): "an object with fields of its own",
    ("int_type", "int_from_float"): "a whole number",
    ("float_type", "finite_number"): "a number",
}


def _wanted(kind: str, context: dict[str, Any]) -> str | None:
    """What a field has to be."""
    if kind == "string_pattern_mismatch":
        is_colour = "#" in context["pattern"]
        return "a colour such as #8a4b32" if is_colour else "small letters, digits and dashes, 40 at most"
    if kind in ("literal_error", "union_tag_invalid"):
        return str(context.get("expected") or context.get("expected_tags"))
    for kinds, wanted in _WANTED.items():
        if kind in kinds or kind.startswith(tuple(one for one in kinds if one.endswith("_"))):
            return wanted
    return None


def _counted(name: str, short: bool, context: dict[str, Any]) -> str:
    bound = context["min_length" if short else "max_length"]
    noun = "entry" if bound == 1 else "entries"
    return f"{name} has to have {'at least' if short else 'at most'} {bound} {noun}; it has {context['actual_length']}."


def _shown(given: object) -> str:
    if isinstance(given, float):
        return f"it says {_plain(given)}"
    if isinstance(given, int):
        return f"it says {given}"
    if isinstance(given, str):
        return f"it says '{given[:40]}'"
    return "it says otherwise"


QUANTITY_OF = {
    "mm": "length", "°C": "temperature", "K": "difference", "g": "mass", "ml": "volume", "g/ml": "density",
    "cm²": "area", "mm²": "small_area",
}
"""Quantities of a document by the unit of its fields; what is not here is said as it stands."""


def _range(field: FieldInfo | None, context: dict[str, Any]) -> Words:
    low = high = None
    for rule in field.metadata if field is not None else ():
        low = getattr(rule, "ge", low)
        high = getattr(rule, "le", high)
    if low is None or high is None:
        least, most = context.get("ge"), context.get("le")
        return words("refusals.least" if least is not None else "refusals.most", bound=_plain(least or most or 0))
    quantity = QUANTITY_OF.get(_unit(field))
    if quantity is None:
        unit = f" {_unit(field)}".rstrip()
        return words("refusals.from_to", low=_plain(low), high=_plain(high), unit=unit)
    return words(f"refusals.ranges.{quantity}", range=(low, high))


def _unit(field: FieldInfo | None) -> str:
    extra = field.json_schema_extra if field is not None else None
    return str(extra.get("unit", "")) if isinstance(extra, dict) else ""


def _plain(value: float) -> str:
    """Large whole numbers in full, with commas; others in six digits."""
    return f"{value:,.0f}" if 1e5 <= abs(value) < 1e12 and value == round(value) else f"{value:g}"


def _given(field: FieldInfo | None, given: object) -> str | Words:
    quantity = QUANTITY_OF.get(_unit(field))
    if isinstance(given, int | float) and quantity is not None:
        return words(f"refusals.says.{quantity}", given=float(given))
    return _shown(given)
