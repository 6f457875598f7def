"""What patches of tinted resin in a photograph tell of a colourant: strength, scatter, hue, and how surely."""

from __future__ import annotations

from dataclasses import dataclass
from math import log
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from scipy.optimize import least_squares

from ..materials import Colourant
from ..part import Part, bounded
from ..tint.attenuation import absorbance_per_cm, absorption_of_drop, scatter_of_drop
from ..tint.colour import linear_srgb
from ..tint.spectrum import WAVELENGTHS_NM, observer
from ..units import CM, MM
from ..words import Words, words
from .belief import COVERS

Array = NDArray[np.float64]
Srgb = Annotated[str, Field(title="colour", pattern=r"^#[0-9a-fA-F]{6}$")]
Card = Literal["white", "grey", "black"]

CARDS: dict[str, float] = {"white": 0.85, "grey": 0.18, "black": 0.04}
"""Reflectance of usual cards. Source: own_learning"""
STRENGTH_SD, SHIFT_SD_NM, SCATTER_SD = 0.4, 8.0, 0.7
SHAPE_SD, SHAPE_NODES, SHAPE_OVER_NM = 0.10, 13, 28.0
GAIN_SD, GAIN_SD_WITHOUT_WHITE, EXPONENT_SD, LIGHT_SD = 0.05, 0.15, 0.10, 0.03
NOISE, DEVICE_NOISE = 0.008, 0.005
DARK, BRIGHT = 0.03, 0.985
"""Channels outside tell nothing. Source: own_learning"""
SLANT, BACK = 1.1, 0.55
"""Of absorption and of scatter backward in a patch seen in room light. Source: own_learning, kubelka_munk1931"""
CANNOT = 0.6
"""Deviation over the prior's above which a picture cannot tell. Source: own_learning"""


class Patch(Part):
    """Tinted resin of a depth over a card, and the colour that a picture shows of it."""

    depth_mm: float = bounded("depth of a patch", "mm", 0.5, 200)
    dose_drops_per_100g: float = bounded("dose of a patch", "drops per 100 g", 0.001, 200)
    card: Card = "white"
    srgb: Srgb


class SwatchRead(Part):
    """Patches, and the bare cards beside them; by a camera, or by a device whose colours are true."""

    patches: Annotated[list[Patch], Field(title="patches", min_length=1, max_length=40)]
    white_srgb: Srgb | None = None
    grey_srgb: Srgb | None = None
    by: Literal["camera", "device"] = "camera"


@dataclass(frozen=True, slots=True, kw_only=True)
class SwatchFit:
    """A colourant as its patches show it.

    strength     eye-weighted, over the library's: middle and nine in ten
    shift_nm     of its hue to longer waves, None where a picture cannot tell; scatter likewise
    absorbances_per_cm   31 of 1 drop in 100 g, with shift and shape
    """

    strength: float
    strength_low: float
    strength_high: float
    strength_sd: float
    shift_nm: float | None
    shift_sd_nm: float
    scatter: float | None
    absorbances_per_cm: list[float]
    scatter_per_mm: float
    misfit: float
    words: list[Words]

    def colourant(self, like: Colourant) -> Colourant:
        """The row with what was learnt in it."""
        return like.model_copy(update={
            "bands": [], "absorbances_per_cm": self.absorbances_per_cm, "scatter_per_mm": self.scatter_per_mm,
        })


SHAPE = slice(3, 3 + SHAPE_NODES)
GAINS = slice(3 + SHAPE_NODES, 6 + SHAPE_NODES)
EXPONENT = 6 + SHAPE_NODES
LIGHT = 7 + SHAPE_NODES
"""Where the unknowns stand, after strength, shift and scatter; the light on each patch and card comes last."""


@dataclass(frozen=True, slots=True)
class _Model:
    """Colours that the picture should show: unknowns are ln strength, shift, ln scatter, shape, gains, exponent,
    and the light on each patch and card."""

    read: SwatchRead
    like: Colourant

    def absorption(self, off: Array) -> Array:
        """Of 1 drop in 100 g [1/m], (31,)."""
        moved = np.interp(WAVELENGTHS_NM - off[1], WAVELENGTHS_NM, absorption_of_drop(self.like))
        nodes = np.linspace(WAVELENGTHS_NM[0], WAVELENGTHS_NM[-1], SHAPE_NODES)
        shape = np.interp(WAVELENGTHS_NM, nodes, off[SHAPE])
        return np.asarray(moved * np.exp(off[0] + shape))

    def seen(self, off: Array) -> Array:
        """(patches + cards, 3) encoded, 0 to 1."""
        absorbed = self.absorption(off)
        scattered = scatter_of_drop(self.like) * (1 - self.like.scatter_cosine) * np.exp(off[2])
        spectra = [
            patch_reflectance(absorbed * one.dose_drops_per_100g, scattered * one.dose_drops_per_100g,
                              one.depth_mm * MM, CARDS[one.card])
            for one in self.read.patches
        ]
        spectra += [np.full(len(WAVELENGTHS_NM), CARDS[card]) for card, srgb in self.cards if srgb]
        light = np.exp(off[LIGHT:])[:, None]
        linear = linear_srgb(np.array(spectra)) * np.exp(off[GAINS]) * light
        return np.asarray(encoded(linear) ** np.exp(off[EXPONENT]))

    @property
    def cards(self) -> list[tuple[str, str | None]]:
        """The bare cards beside the patches."""
        return [("white", self.read.white_srgb), ("grey", self.read.grey_srgb)]

    def given(self) -> Array:
        """The same as read."""
        codes = [one.srgb for one in self.read.patches] + [srgb for _, srgb in self.cards if srgb]
        return np.array([[int(code[at:at + 2], 16) / 255 for at in (1, 3, 5)] for code in codes])


def encoded(linear: Array) -> Array:
    """sRGB's own curve, 0 to 1, smooth and without its cut at 1. Source: iec61966"""
    held = np.maximum(linear, 0.0)
    return np.asarray(np.where(held <= 0.0031308, 12.92 * held, 1.055 * np.maximum(held, 1e-9) ** (1 / 2.4) - 0.055))


def patch_reflectance(absorbed: Array, back: Array, depth: float, card: float) -> Array:
    """Of a plate of tinted resin over a card.

        al = 1.1 a + 0.55 b', be = 0.55 b', k^2 = al^2 - be^2
        r = be sh/D, t = k/D, D = k ch + al sh (of k d),  R = r + t^2 c/(1 - r c)

    absorbed, back  absorption and scattering that is not forward [1/m]; depth [m]; card, its reflectance
    Source: kubelka_munk1931, own_learning

    >>> float(patch_reflectance(np.zeros(1), np.zeros(1), 0.01, 0.85)[0])
    0.85
    """
    al, be = SLANT * absorbed + BACK * back, BACK * back
    k = np.sqrt(np.maximum(al**2 - be**2, 1e-12))
    sh, ch = np.sinh(np.minimum(k * depth, 50.0)), np.cosh(np.minimum(k * depth, 50.0))
    divisor = k * ch + al * sh
    r, t = be * sh / divisor, k / divisor
    return np.asarray(r + t**2 * card / (1 - r * card))


def _sds(model: _Model) -> Array:
    """Root of the prior's covariance: (p, p)."""
    read = model.read
    device = read.by == "device"
    references = sum(1 for _, srgb in model.cards if srgb)
    count = LIGHT + len(read.patches) + references
    root = np.zeros((count, count))
    scatters = model.like.scatter_per_mm > 0
    root[0, 0], root[1, 1], root[2, 2] = STRENGTH_SD, SHIFT_SD_NM, SCATTER_SD if scatters else 1e-6
    nodes = np.linspace(WAVELENGTHS_NM[0], WAVELENGTHS_NM[-1], SHAPE_NODES)
    alike = np.exp(-0.5 * ((nodes[:, None] - nodes[None]) / SHAPE_OVER_NM) ** 2) + 1e-6 * np.eye(SHAPE_NODES)
    root[SHAPE, SHAPE] = SHAPE_SD * np.linalg.cholesky(alike)
    gain = GAIN_SD if read.white_srgb else GAIN_SD_WITHOUT_WHITE
    root[GAINS, GAINS] = np.eye(3) * (1e-3 if device else gain)
    root[EXPONENT, EXPONENT] = 1e-3 if device else EXPONENT_SD
    lights = np.arange(LIGHT, count)
    root[lights, lights] = DEVICE_NOISE if device else LIGHT_SD
    return root


def fit_swatch(read: SwatchRead, like: Colourant) -> SwatchFit:
    """Strength, shift and scatter of a colourant, and its 31 absorbances, from patches.

    like  the row that it is compared with
    Source: own_learning, levenberg1944
    """
    model = _Model(read, like)
    root, given = _sds(model), model.given()
    clear = (given > DARK) & (given < BRIGHT)
    noise = DEVICE_NOISE if read.by == "device" else NOISE

    def residuals(turned: Array) -> Array:
        away = (model.seen(root @ turned) - given)[clear] / noise
        return np.concatenate([away, turned])

    fits = []
    for start in (0.0, 1.5, -1.5):
        begin = np.zeros(len(root))
        begin[0] = start
        fits.append(least_squares(residuals, begin, method="trf", xtol=1e-6, ftol=1e-6, max_nfev=60))
    found = min(fits, key=lambda one: float(one.cost))
    count = int(clear.sum())
    misfit = float((found.fun[:count] ** 2).sum()) / max(count, 1)
    spread = np.linalg.inv(found.jac.T @ found.jac) * max(1.0, misfit)
    return _told(model, root @ found.x, root @ spread @ root.T, misfit, root)


def eye_weights() -> Array:
    """(31,) how much an eye makes of each band. Source: own_learning, cie15"""
    return np.asarray(observer().sum(axis=1))


def _told(model: _Model, off: Array, covariance: Array, misfit: float, root: Array) -> SwatchFit:
    weights, usual = eye_weights(), absorption_of_drop(model.like)

    def strength_of(at: Array) -> float:
        return float(np.log((weights @ model.absorption(at)) / (weights @ usual)))

    here = strength_of(off)
    slope = np.zeros(len(off))
    for at in range(GAINS.start):
        moved = off.copy()
        moved[at] += 1e-3
        slope[at] = (strength_of(moved) - here) / 1e-3
    sd = float(np.sqrt(slope @ covariance @ slope))
    shift_sd = float(np.sqrt(covariance[1, 1]))
    shift = float(off[1]) if shift_sd < CANNOT * SHIFT_SD_NM else None
    scatter_told = model.like.scatter_per_mm > 0 and float(np.sqrt(covariance[2, 2])) < CANNOT * SCATTER_SD
    fitted = model.absorption(off) * CM / log(10.0)
    low, middle, high = (float(np.exp(here + way * COVERS * sd)) for way in (-1, 0, 1))
    return SwatchFit(
        strength=round(middle, 3), strength_low=round(low, 3), strength_high=round(high, 3),
        strength_sd=round(sd, 4), shift_nm=None if shift is None else round(shift, 1), shift_sd_nm=round(shift_sd, 1),
        scatter=round(float(np.exp(off[2])), 2) if scatter_told else None,
        absorbances_per_cm=[round(float(one), 6) for one in np.clip(fitted, 0.0, 50.0)],
        scatter_per_mm=round(model.like.scatter_per_mm * (float(np.exp(off[2])) if scatter_told else 1.0), 6),
        misfit=round(misfit, 3), words=_words(model, (low, middle, high), shift, scatter_told),
    )


def _words(model: _Model, strength: tuple[float, float, float], shift: float | None, scatter: bool) -> list[Words]:
    low, middle, high = (100 * one for one in strength)
    said = [words("learning.strength", middle=middle, low=low, high=high)]
    if shift is None:
        said.append(words("learning.no_shift"))
    elif abs(shift) >= 2.0:
        said.append(words("learning.shifted", by=abs(shift), to="longer" if shift > 0 else "shorter"))
    if model.like.scatter_per_mm > 0 and not scatter:
        said.append(words("learning.no_scatter"))
    if model.read.by == "camera" and not model.read.grey_srgb:
        said.append(words("learning.no_grey" if model.read.white_srgb else "learning.no_white"))
    dark = sum(_optical(model.like, one) > 0.8 for one in model.read.patches)
    pale = all(_optical(model.like, one) < 0.1 for one in model.read.patches)
    if dark:
        said.append(words("learning.dark_patches", patches=dark))
    if pale:
        said.append(words("learning.pale_patches"))
    return said


def _optical(like: Colourant, patch: Patch) -> float:
    """One-way absorbance of a patch at the colourant's peak."""
    return float(absorbance_per_cm(like).max()) * patch.dose_drops_per_100g * patch.depth_mm / 10


@dataclass(frozen=True, slots=True, kw_only=True)
class Compared:
    """The strength of one bottle over another, and whether they differ as far as this shows."""

    ratio: float
    low: float
    high: float
    differ: bool
    words: Words


def compared(first: SwatchFit, second: SwatchFit) -> Compared:
    """Two bottles by their swatches; different if their logarithms lie more than two deviations apart.

    Source: own_learning
    """
    gap = log(first.strength) - log(second.strength)
    sd = float(np.hypot(first.strength_sd, second.strength_sd))
    differ = abs(gap) > 2 * sd
    low, high = float(np.exp(gap - COVERS * sd)), float(np.exp(gap + COVERS * sd))
    return Compared(
        ratio=round(float(np.exp(gap)), 3), low=round(low, 3), high=round(high, 3), differ=differ,
        words=words("learning.bottles_differ" if differ else "learning.bottles_alike",
                    ratio=100 * float(np.exp(gap)), low=100 * low, high=100 * high),
    )


