"""Brings an older document up to the version that this Gondola reads, one step at a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from ..errors import SceneError
from .document import FORMAT, VERSION

Migration = Callable[[dict[str, Any]], dict[str, Any]]



def _shape_of_its_own(document: dict[str, Any]) -> dict[str, Any]:
    """1 to 2: a tank's `kind` becomes its `shape`."""
    tank = document.get("tank")
    if not isinstance(tank, dict):
        return document
    tank = {key: value for key, value in tank.items() if key != "kind"}
    tank.setdefault("shape", {"kind": "box"})
    return {**document, "tank": tank}


def _density_of_the_parts(document: dict[str, Any]) -> dict[str, Any]:
    """2 to 3: the density of a mix follows from its parts; one that contradicted them is left out."""
    resins = document.get("resins")
    if not isinstance(resins, list):
        return document
    return {
        **document,
        "resins": [
            {key: value for key, value in one.items() if key != "density_g_ml"} if isinstance(one, dict) else one
            for one in resins
        ],
    }


MIGRATIONS: dict[int, Migration] = {1: _shape_of_its_own, 2: _density_of_the_parts}
"""From a version to the step that makes the next one."""


def migrate(
    document: dict[str, Any],
    migrations: Mapping[int, Migration] = MIGRATIONS,
    newest: int = VERSION,
) -> dict[str, Any]:
    """The document at the newest version; SceneError names a foreign format or version."""
    if document.get("format") != FORMAT:
        raise SceneError(
            [("format", f"This is no Gondola scene: its format has to be '{FORMAT}'.")]
        )
    version = document.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise SceneError(
            [("version", f"The version has to be a whole number from 1 to {newest}.")]
        )
    if version > newest:
        raise SceneError(
            [
                (
                    "version",
                    f"This scene is of version {version}; this Gondola reads up to {newest}. "
                    "Open it with a newer Gondola.",
                )
            ]
        )
    while version < newest:
        document = {**migrations[version](document), "version": version + 1}
        version += 1
    return document
