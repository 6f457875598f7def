"""Reads the generic materials that ship with Gondola from `data/*.csv`."""

from __future__ import annotations

import csv
import functools
import tomllib
from collections import defaultdict
from dataclasses import dataclass
from importlib import resources
from typing import Any

from .colourant import Colourant
from .resin import Resin
from .solid import SolidMaterial


@dataclass(frozen=True, slots=True, kw_only=True)
class Library:
    """All generic materials by id; `uses` holds what each solid may be used as, in the order of the shelf."""

    resins: dict[str, Resin]
    colourants: dict[str, Colourant]
    solids: dict[str, SolidMaterial]
    uses: dict[str, list[str]]


def read_rows(table: str) -> list[dict[str, str]]:
    """The rows of `data/<table>.csv`, as text by column name."""
    text = resources.files("gondola_core").joinpath("data", f"{table}.csv").read_text("utf-8")
    return list(csv.DictReader(text.splitlines()))


def read_sources() -> dict[str, dict[str, str]]:
    """The works cited by key in docstrings and tables."""
    text = resources.files("gondola_core").joinpath("data", "sources.toml").read_text("utf-8")
    return tomllib.loads(text)


def _numbers(row: dict[str, str], words: set[str]) -> dict[str, Any]:
    return {
        column: cell if column in words else float(cell)
        for column, cell in row.items()
        if column != "source" and cell != ""
    }


_LIGHT = ("penetration_mm", "critical_mj_cm2", "lamp_mw_cm2")


@functools.cache
def load_library() -> Library:
    """Every generic resin, colourant and solid; a value out of its range fails here."""
    resins = {}
    for row in read_rows("resins"):
        fields = _numbers(row, {"id", "name", "ratio_by", "note", "derived"})
        fields["ratio"] = {
            "by": fields.pop("ratio_by"),
            "part_a": fields.pop("ratio_a"),
            "part_b": fields.pop("ratio_b"),
        }
        light = {name: fields.pop(name, None) for name in _LIGHT}
        if light["penetration_mm"] is not None:
            fields["light"] = light
        resins[row["id"]] = Resin.model_validate(fields)
    bands: dict[str, list[dict[str, float]]] = defaultdict(list)
    for row in read_rows("colourant_bands"):
        bands[row["colourant_id"]].append(_numbers(row, {"colourant_id"}))
    for rows in bands.values():
        for band in rows:
            band.pop("colourant_id")
    colourants = {
        row["id"]: Colourant.model_validate(
            {
                **_numbers(row, {"id", "name", "note", "form", "modelled"}),
                "bands": bands[row["id"]], "modelled": row["modelled"] == "true",
            }
        )
        for row in read_rows("colourants")
    }
    solids = {
        row["id"]: SolidMaterial.model_validate(_numbers(row, {"id", "name", "note"}))
        for row in read_rows("solids")
    }
    uses: dict[str, list[str]] = defaultdict(list)
    for row in read_rows("uses"):
        uses[row["use"]].append(row["solid_id"])
    return Library(resins=resins, colourants=colourants, solids=solids, uses=dict(uses))
