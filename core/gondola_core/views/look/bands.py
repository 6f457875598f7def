"""Bands of light that a ray carries: twelve that were fitted for what is drawn at once, all 31 for a still."""

from __future__ import annotations

import functools
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ...materials import load_library
from ...scene import Scene
from ...tint.attenuation import absorption_of_drop
from ...tint.colour import linear_srgb
from ...tint.spectrum import WAVELENGTHS_NM, luminance, reflectance_basis

Array = NDArray[np.float64]

FITTED_NM = (410, 440, 470, 490, 510, 530, 560, 580, 600, 630, 660, 680)
"""Of all choices of twelve tried, the one whose colours are nearest to 31 bands. Source: own_appearance"""
RECIPES = 4000
LONGEST_M = 0.316
"""The longest way of light of a recipe that the weights are fitted to."""
LIGHTNESS_POWER = 1.6
"""Rows of the fit count by lightness to its inverse: dark colours as much as light ones. Source: own_appearance"""


@dataclass(frozen=True, slots=True, eq=False)
class Bands:
    """Some of the 31 bands.

    picks    which
    to_rgb   (bands, 3) weights that make linear sRGB of a spectrum
    of_rgb   (bands, 3) reflectance of linear sRGB paint
    """

    picks: NDArray[np.int64]
    to_rgb: Array
    of_rgb: Array


@functools.cache
def all_bands() -> Bands:
    """All 31."""
    return Bands(np.arange(31), linear_srgb(np.eye(31)), np.ascontiguousarray(reflectance_basis()))


@functools.cache
def fitted_bands() -> Bands:
    """Twelve, with weights by least squares over recipes of the colourants that ship; white exact."""
    picks = np.searchsorted(WAVELENGTHS_NM, FITTED_NM)
    spectra = _recipes()
    wanted = linear_srgb(spectra)
    lightness = np.maximum(116 * np.cbrt(np.maximum(spectra @ luminance(), 1e-4)) - 16, 2.0)
    row = lightness[:, None] ** -LIGHTNESS_POWER
    # white exactly: the last weight is what the others leave of 1
    own = spectra[:, picks]
    reduced, rest = own[:, :-1] - own[:, -1:], wanted - own[:, -1:]
    weights = np.linalg.lstsq(reduced * row, rest * row, rcond=None)[0]
    whole = np.concatenate([weights, 1 - weights.sum(axis=0, keepdims=True)])
    return Bands(picks, np.ascontiguousarray(whole), np.ascontiguousarray(reflectance_basis()[picks]))


def bands_for(scene: Scene, still: bool) -> Bands:
    """Twelve for what is drawn at once; all for a still, or where a colourant was measured and may be narrow."""
    narrow = any(ink.absorbances_per_cm for ink in scene.colourants)
    return all_bands() if still or narrow else fitted_bands()


def _recipes() -> Array:
    """Paint seen through dyed resin, (recipes, 31): the same every time."""
    random = np.random.default_rng(12)
    inks = np.stack([absorption_of_drop(ink) for ink in load_library().colourants.values()])
    dose = random.exponential(0.4, (RECIPES, len(inks))) * (random.random((RECIPES, len(inks))) < 0.35)
    way = np.exp(random.uniform(np.log(0.005), np.log(LONGEST_M), RECIPES))
    paint = random.random((RECIPES, 3)) @ reflectance_basis().T
    return np.asarray(paint * np.exp(-(dose @ inks) * way[:, None]))
