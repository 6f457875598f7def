"""Parameters of a resin from what its data sheet says: pot life of a mass, most depth, temperatures."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from ..cure.cells import whole_box
from ..cure.cup import stand_cup
from ..cure.losses import Surroundings
from ..cure.march import TimedPour, Tolerance, march_pours, steady_room
from ..errors import GondolaError
from ..materials import Resin
from ..part import Key, Name, Part, bounded
from ..units import DAY, MM
from ..words import words
from .cup_model import FILM_MM

POT_LIFE_OFF = 0.10
"""How far a stated pot life is off. Source: own_march"""
PEAK_OFF_K = 3.0
"""How far the peak meant by a most depth is off. Source: own_march"""
SAFE_PEAK_C = 60.0
"""What a label means by its most depth: this peak in a 150 x 100 mm box at 23 °C. Source: own_march"""
LIFE_MISSED, PEAK_MISSED_K = 0.15, 15.0
"""Logarithm of the pot life, and K of the peak, by which a fit may miss its sheet. Source: assumed"""
SMALLEST, LARGEST = 0.05, 20.0
"""Factors on the class within which a sheet is believed. Source: assumed"""


class DataSheet(Part):
    """What a label or data sheet states; all else comes from the class of resin."""

    id: Key
    name: Name
    pot_life_min: float = bounded("pot life", "min", 2, 1500)
    pot_mass_g: float = bounded("mass of the pot life", "g", 20, 2000, default=100.0)
    pot_c: float = bounded("temperature of the pot life", "°C", 15, 35, default=25.0)
    most_pour_mm: float = bounded("most depth of one pour", "mm", 1, 150)
    most_mix_g: float = bounded("most mass mixed at once", "g", 10, 50000, default=1000.0)
    viscosity_mpa_s: float = bounded("viscosity at 25 °C", "mPa s", 20, 50000)
    least_room_c: float = bounded("least room temperature", "°C", 0, 40, default=18.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetFit:
    """A resin that answers its sheet, and how well.

    rate_factor, heat_factor   on the class's own rate and heat of cure
    pot_life_min, peak_c       what the fitted resin gives where the sheet was read
    """

    resin: Resin
    rate_factor: float
    heat_factor: float
    rate_spread_fraction: float
    heat_spread_fraction: float
    pot_life_min: float
    peak_c: float
    words: str


def from_sheet(sheet: DataSheet, like: Resin, around: Surroundings) -> SheetFit:
    """A resin of a class whose rate and heat are moved until it answers its data sheet.

    like    the class it belongs to
    around  the sheet and base of the box that a most depth is meant in

    Thin films say only how rate times heat behave; for them the heat stays that of the class.
    GondolaError if no rate answers the sheet.
    """
    fit = _Fit(sheet, _labelled(sheet, like), around)
    logs, jacobian = fit.found()
    life, peak = fit.told(logs)
    if abs(np.log(life / sheet.pot_life_min)) > LIFE_MISSED or (not fit.thin and peak > SAFE_PEAK_C + PEAK_MISSED_K):
        raise GondolaError(
            words("refusals.no_such_resin", name=like.name, life=sheet.pot_life_min, deep=sheet.most_pour_mm),
            "pot_life_min",
        )
    rate, heat = float(np.exp(logs[0])), float(np.exp(logs[1]))
    spread, story = _spread(jacobian, fit.thin), _story(sheet, like, rate, heat, fit.thin)
    resin = fit.given.scaled(rate, heat).model_copy(
        update={"rate_spread_fraction": spread[0], "heat_spread_fraction": spread[1], "derived": story}
    )
    return SheetFit(
        resin=Resin.model_validate(resin.model_dump()), rate_factor=round(rate, 3),
        heat_factor=round(heat, 3), rate_spread_fraction=spread[0], heat_spread_fraction=spread[1],
        pot_life_min=round(life, 1), peak_c=round(peak, 1), words=story,
    )


def _labelled(sheet: DataSheet, like: Resin) -> Resin:
    """The class with all that the label itself says."""
    return like.model_copy(
        update={
            "id": sheet.id, "name": sheet.name, "viscosity_mpa_s": sheet.viscosity_mpa_s,
            "most_pour_mm": sheet.most_pour_mm, "most_mix_g": sheet.most_mix_g,
            "least_room_c": sheet.least_room_c, "working_min": sheet.pot_life_min,
        }
    )


@dataclass(frozen=True, slots=True)
class _Fit:
    """Factors on rate and heat of a class, by their logarithms, against what a sheet says."""

    sheet: DataSheet
    given: Resin
    around: Surroundings

    @property
    def thin(self) -> bool:
        """True for a resin of films, whose heat the sheet does not tell."""
        return self.sheet.most_pour_mm < FILM_MM

    def told(self, logs: np.ndarray) -> tuple[float, float]:
        """Pot life [min] and peak at most depth [degrees C] with these factors."""
        sheet = self.sheet
        resin = self.given.scaled(float(np.exp(logs[0])), float(np.exp(logs[1])) if not self.thin else 1.0)
        cup = stand_cup(
            resin, sheet.pot_mass_g, sheet.pot_c, sheet.pot_c,
            hours=max(2.0, 4 * sheet.pot_life_min / 60),
        )
        life = cup.working_min if cup.working_min is not None else 4 * sheet.pot_life_min
        return life, _box_peak(resin, sheet.most_pour_mm, self.around)

    def away(self, moved: np.ndarray) -> np.ndarray:
        """Residuals in sigmas, and a weak pull to the class."""
        logs = moved - 1.0
        life, peak = self.told(logs)
        first = np.log(max(life, 0.1) / self.sheet.pot_life_min) / POT_LIFE_OFF
        pull = 0.05 * (logs if not self.thin else logs[:1])
        if self.thin:
            return np.array([first, *pull])
        return np.array([first, (min(peak, 140.0) - SAFE_PEAK_C) / PEAK_OFF_K, *pull])

    def found(self) -> tuple[np.ndarray, np.ndarray]:
        """Logarithms of rate and heat, and the slopes of the residuals there."""
        reach = (np.log(SMALLEST), np.log(LARGEST))
        start = np.ones(1 if self.thin else 2)  # logs about 1: a relative difference step then has a size
        low = [reach[0]] if self.thin else [reach[0], np.log(0.4)]
        high = [reach[1]] if self.thin else [reach[1], np.log(1.9)]
        found = least_squares(
            self.away, start, bounds=(np.add(low, 1), np.add(high, 1)), diff_step=0.02,
            xtol=1e-4, ftol=1e-5, max_nfev=25,
        )
        return (found.x - 1.0 if not self.thin else np.array([found.x[0] - 1.0, 0.0])), found.jac


def _story(sheet: DataSheet, like: Resin, rate: float, heat: float, thin: bool) -> str:
    """Where the resin comes from; it stays with the resin, so it is told in the document's own units."""
    story = (
        f"class {like.name}, rate x {rate:.2f}, heat x {heat:.2f}, from a pot life of "
        f"{sheet.pot_life_min:g} min for {sheet.pot_mass_g:g} g at {sheet.pot_c:g} °C"
    )
    if thin:
        return story + "; a thin film does not tell its heat, which stays the class's"
    return story + f" and {SAFE_PEAK_C:g} °C at {sheet.most_pour_mm:g} mm in a 150 x 100 mm box"


def _box_peak(resin: Resin, depth_mm: float, around: Surroundings) -> float:
    marched = march_pours(
        whole_box((0.15, 0.10), [depth_mm * MM], 0.010, 4), around, [resin],
        [TimedPour(start=0.0, mix_c=23.0, resin=0)], steady_room(23.0, 2 * DAY), 2 * DAY,
        Tolerance(temperature_k=0.2, degree=2e-3),
    )
    return float(np.nanmax(marched.peak_c))


def _spread(jacobian: np.ndarray, thin: bool) -> tuple[float, float]:
    """One sigma of rate and heat from what the sheet leaves open; residuals are in sigmas."""
    if thin:
        return 0.3, 0.3
    covariance = np.linalg.pinv(jacobian.T @ jacobian)
    rate, heat = np.sqrt(np.clip(np.diag(covariance), 0, None))
    return round(float(min(rate, 1.0)), 3), round(float(min(heat, 0.5)), 3)


