"""Light and colour: a published table, Fresnel, Snell, and slabs that scatter without loss."""

from __future__ import annotations

from collections.abc import Iterator
from math import asin, cos, degrees, radians, sin

import numpy as np

from ..materials.library import read_rows
from ..tint.colour import colour_difference
from ..tint.haze import slab
from ..views.look.fooled import seems_behind
from ..views.look.optics import mirrored
from .measured import Measured, measure

MODEL = "Light"
INDEX = 1.52
BRANCH = 14
"""Pair that sits on a branch of the hue, where rounding decides by some hundredths."""


@measure
def published_pairs() -> Iterator[Measured]:
    """The pairs by which implementations of the colour difference are tested."""
    worst = 0.0
    for number, row in enumerate(read_rows("ciede2000_pairs"), start=1):
        first, second = ([float(row[f"{name}{side}"]) for name in "lab"] for side in (1, 2))
        off = abs(float(colour_difference(first, second)) - float(row["de00"]))
        worst = max(worst, off if number != BRANCH else 0.0)
    yield Measured(
        model=MODEL, quantity="difference of colours, worst of 33 published pairs [dE00]",
        against="table of the authors", source="sharma2005", expected=0.0, found=worst, allowed=5e-5,
    )


@measure
def mirrors() -> Iterator[Measured]:
    """What a face mirrors of unpolarised light, as the two polarisations have it."""
    for outside in (0.0, 30.0, 60.0, 75.0):
        inside = asin(sin(radians(outside)) / INDEX)
        one, two = cos(radians(outside)), cos(inside)
        upright = ((one - INDEX * two) / (one + INDEX * two)) ** 2
        level = ((two - INDEX * one) / (two + INDEX * one)) ** 2
        yield Measured(
            model=MODEL, quantity=f"share mirrored at {outside:g}°", against="mean of both polarisations",
            source="fresnel1823", expected=0.5 * (upright + level), found=mirrored(one, 1 / INDEX)[0], allowed=1e-6,
        )
    critical = degrees(asin(1 / INDEX))
    off = min(step for step in np.arange(0.0, 0.1, 0.001) if mirrored(cos(radians(critical + step)), INDEX)[0] == 1.0)
    yield Measured(
        model=MODEL, quantity="angle from which a face mirrors all [°]", against="asin(1/n)", source="snell1621",
        expected=critical, found=critical + float(off), allowed=0.002,
    )


@measure
def nearer_than_it_is() -> Iterator[Measured]:
    """Straight through a flat face a thing seems at its depth over the index."""
    for behind in (20.0, 60.0):
        eye, place = np.array([100.0, -400.0, 60.0]), np.array([100.0, behind, 60.0])
        found = seems_behind(eye, place, np.array([0.0, -1.0, 0.0]), 0.0, INDEX)
        yield Measured(
            model=MODEL, quantity=f"depth at which two eyes see what lies {behind:g} mm behind the front [mm]",
            against="d / n, for one eye", source="snell1621", expected=behind / INDEX, found=float(found),
            allowed=0.01 * behind,
        )


@measure
def scattering_slabs() -> Iterator[Measured]:
    """A slab that takes nothing gives all back: b h / (1 + b h) of it to where it came from."""
    for scatter in (2.0, 50.0):
        back, _ = slab(np.array([0.0]), np.array([scatter]), 0.1)
        yield Measured(
            model=MODEL, quantity=f"mirrored by 100 mm that scatters {scatter:g} a metre and takes nothing",
            against="b h / (1 + b h)", source="schuster1905", expected=scatter * 0.1 / (1 + scatter * 0.1),
            found=float(back[0]), allowed=1e-6,
        )
