"""Pours, numbered from the bottom in the order of work, and the finish."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..part import Key, Note, Part, bounded


class Dose(Part):
    """Drops of one colourant for each 100 g of mixed resin."""

    colourant_id: Key
    dose_drops_per_100g: float = bounded("dose", "drops per 100 g", 0, 60)


class Inclusion(Part):
    """Grains stirred into a pour."""

    kind: Annotated[
        Literal["glitter", "mica", "sand", "coffee_grounds"], Field(title="kind of grains")
    ]
    diameter_mm: float = bounded("size of the grains", "mm", 0.005, 3)


class Pour(Part):
    """One filling, up to its layer line."""

    id: Key
    top_depth_mm: float = bounded("layer line", "mm below the fill line", 0, 600)
    resin_id: Key
    mix_c: float = bounded("temperature of the poured mix", "°C", 5, 60)
    wait_h: float = bounded("wait after the pour before", "h", 0, 720)
    hands_min: Annotated[
        float | None,
        Field(title="hands-on time", ge=0.5, le=600, json_schema_extra={"unit": "min"}),
    ] = None
    doses: Annotated[list[Dose], Field(title="doses", max_length=8)] = []
    inclusions: Annotated[list[Inclusion], Field(title="grains", max_length=6)] = []


GRITS = (120, 180, 240, 320, 400, 600, 800, 1000, 1500, 2000, 3000)
"""Of sanding papers, coarse to fine. Source: assumed"""


class RippledTop(Part):
    """The top as it is finished: calm, or with ripples of gel, and white water on a share of it."""

    ripple_mm: float = bounded("height of the ripples", "mm", 0, 3, default=0.0)
    ripple_length_mm: float = bounded("length of the ripples", "mm", 4, 200, default=15.0)
    white_fraction: float = bounded("share of the top under white water", "", 0, 1, default=0.0)


class Finish(Part):
    """What is done after the dam comes off."""

    sand_to_grit: int = bounded("finest sanding grit", "grit", 80, 20000, default=3000)
    edge_coat: bool = False
    top: Annotated[RippledTop, Field(title="top of the piece")] = RippledTop()
    note: Note = ""
