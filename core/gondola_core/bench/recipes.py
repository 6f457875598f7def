"""Mixes of the bench by parts: coats and floods of resin, gels, pastes, glues and sprays, for an area or an amount."""

from __future__ import annotations

import functools
import tomllib
from dataclasses import dataclass
from importlib import resources
from typing import Annotated, Literal

from pydantic import Field

from ..errors import GondolaError
from ..materials import Resin
from ..part import Part, bounded
from ..words import words
from .mixing import allowance_ml, mass_ratio, mix_for

By = Literal["resin", "volume", "mass"]
Over = Literal["bed", "faces", "surface", "none"]
MOST_ML = 100_000.0
"""More is mixed at no bench. Source: assumed"""


class Share(Part):
    """One of the things that go in."""

    name: str
    parts: float = bounded("parts", "", 0.001, 1000)
    density_g_ml: float = bounded("density", "g/ml", 0.02, 20)


class Recipe(Part):
    """A mix by parts.

    by             how the parts are counted; "resin": the chosen resin in its own ratio
    thickness_mm   at which it usually lies
    over           what it goes onto
    """

    id: str
    name: str
    by: By
    thickness_mm: float = bounded("thickness of a mix", "mm", 0.01, 50)
    over: Over
    note: str
    parts: Annotated[list[Share], Field(max_length=8)] = []


@dataclass(frozen=True, slots=True, kw_only=True)
class Amount:
    """So much of one thing."""

    name: str
    volume_ml: float
    mass_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Mixture:
    """A recipe scaled: what goes in, and what it makes; what stays on the cup is in it where it is resin."""

    recipe_id: str
    volume_ml: float
    mass_g: float
    amounts: list[Amount]


@functools.cache
def load_recipes() -> dict[str, Recipe]:
    """All recipes by id."""
    text = resources.files("gondola_core").joinpath("data", "recipes.toml").read_text("utf-8")
    return {key: Recipe(id=key, **fields) for key, fields in tomllib.loads(text).items()}


def volume_over_ml(area_cm2: float, thickness_mm: float) -> float:
    """An area at a thickness [ml]. Source: definition

    >>> volume_over_ml(200.0, 0.5)
    10.0
    """
    return area_cm2 * thickness_mm / 10.0


def scaled(recipe: Recipe, volume_ml: float, resin: Resin) -> Mixture:
    """A recipe for a volume. GondolaError for none, or more than anybody mixes.

    Parts keep their volumes: what sinks into pores of another makes it less, and that is not reckoned with.
    Source: assumed
    """
    if not 0.1 <= volume_ml <= MOST_ML:
        raise GondolaError(words("refusals.mixture", range=(0.1, MOST_ML), given=volume_ml), "volume_ml")
    amounts = _of_resin(volume_ml, resin) if recipe.by == "resin" else _of_parts(recipe, volume_ml)
    return Mixture(
        recipe_id=recipe.id, volume_ml=round(sum(one.volume_ml for one in amounts), 2),
        mass_g=round(sum(one.mass_g for one in amounts), 2), amounts=amounts,
    )


def _of_resin(volume_ml: float, resin: Resin) -> list[Amount]:
    mix = mix_for(volume_ml + allowance_ml(volume_ml, resin, 1), resin)
    return [
        Amount(name=f"part A of {resin.name}", volume_ml=round(mix.part_a_ml, 2), mass_g=round(mix.part_a_g, 2)),
        Amount(
            name=f"part B of {resin.name}", volume_ml=round(mix.part_b_ml, 2),
            mass_g=round(mix.part_a_g * mass_ratio(resin), 2),
        ),
    ]


def _of_parts(recipe: Recipe, volume_ml: float) -> list[Amount]:
    """By volume each takes its share; by mass its share of the mass, the whole having that volume."""
    volumes = [one.parts / (one.density_g_ml if recipe.by == "mass" else 1.0) for one in recipe.parts]
    scale = volume_ml / sum(volumes)
    return [
        Amount(
            name=one.name, volume_ml=round(scale * volume, 2), mass_g=round(scale * volume * one.density_g_ml, 2)
        )
        for one, volume in zip(recipe.parts, volumes, strict=True)
    ]
