"""A colourant from a measured absorption spectrum, as spectrometers write it."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from pydantic import Field, ValidationError

from ..errors import GondolaError, SceneError
from ..materials import Colourant
from ..part import Name, Part, bounded
from ..scene.reading import problems_of
from ..tables import rows_of
from .spectrum import WAVELENGTHS_NM

MOST_ROWS = 20_000
MOST_GAP_NM = 25.0
"""Widest gap between measured wavelengths that is bridged by a straight line. Source: assumed"""


class MeasuredSpectrum(Part):
    """A spectrum as it was brought, and what was measured.

    text  rows of wavelength [nm] and decadic absorbance; one row of words may head them
    """

    text: Annotated[str, Field(title="spectrum", max_length=1_000_000)]
    name: Annotated[Name, Field(title="name of the colourant")]
    drops_per_100g: float = bounded("dose that was measured", "drops per 100 g", 0.001, 100, default=1.0)
    path_mm: float = bounded("length of the cell", "mm", 0.1, 500, default=10.0)
    drop_g: float = bounded("mass of one drop", "g", 0.001, 0.5, default=0.03)


def colourant_of_spectrum(measured: MeasuredSpectrum, key: str) -> Colourant:
    """An ink whose absorbance was measured in resin or solvent.

    key  its id in a scene

    GondolaError names the row that cannot be read, and gaps that are too wide to bridge.
    Source: beer1852

    >>> rows = "\\n".join(f"{nm},0.2" for nm in range(390, 711, 10))
    >>> ink = colourant_of_spectrum(MeasuredSpectrum(text=rows, name="mine", drops_per_100g=2), "mine")
    >>> ink.absorbances_per_cm[:2]
    [0.1, 0.1]
    """
    wavelengths, absorbances = _columns(measured.text)
    order = np.argsort(wavelengths)
    at, height = wavelengths[order], absorbances[order]
    if (np.diff(at) <= 0).any():
        twice = at[1:][np.diff(at) <= 0][0]
        raise GondolaError(f"The spectrum gives {twice:g} nm twice: keep one row for each wavelength.")
    within = at[(at > 400) & (at < 700)]
    gaps = np.diff(np.concatenate([[max(at[0], 400.0)], within, [min(at[-1], 700.0)]]))
    if at[0] > 405 or at[-1] < 695 or gaps.max() > MOST_GAP_NM:
        raise GondolaError(
            f"The spectrum has to cover 400 to 700 nm with a row at least every {MOST_GAP_NM:g} nm; it "
            f"runs from {at[0]:g} to {at[-1]:g} nm with gaps up to {gaps.max():g} nm."
        )
    heights = np.interp(WAVELENGTHS_NM, at, height) / measured.drops_per_100g / (measured.path_mm / 10)
    try:
        return Colourant(
            id=key, name=measured.name, drop_g=measured.drop_g, note="as measured",
            absorbances_per_cm=[round(float(one), 5) for one in np.maximum(heights, 0)],
        )
    except ValidationError as flaws:
        raise SceneError(problems_of(flaws.errors(), Colourant)) from None


def _columns(text: str) -> tuple[np.ndarray, np.ndarray]:
    found: list[tuple[float, float]] = []
    for number, cells in rows_of(text):
        try:
            values = [float(cell) for cell in cells[:2]]
        except ValueError:
            if not found and number == 1:
                continue
            raise GondolaError(
                f"Row {number} of the spectrum says '{' '.join(cells)[:40]}': give a wavelength in nm and "
                "an absorbance, as numbers."
            ) from None
        if len(values) < 2 or not np.isfinite(values).all():
            raise GondolaError(
                f"Row {number} of the spectrum needs two numbers: a wavelength in nm and an absorbance."
            )
        if not (150 <= values[0] <= 3000 and -0.05 <= values[1] <= 10):
            raise GondolaError(
                f"Row {number} of the spectrum says {values[0]:g} nm and {values[1]:g}: wavelengths go from "
                "150 to 3000 nm, absorbances from 0 to 10."
            )
        found.append((values[0], values[1]))
        if len(found) > MOST_ROWS:
            raise GondolaError(f"The spectrum has more than {MOST_ROWS} rows: keep one for each nm.")
    if len(found) < 13:
        raise GondolaError(
            f"The spectrum has {len(found)} rows of numbers: at least 13 are needed from 400 to 700 nm."
        )
    columns = np.array(found)
    return columns[:, 0], columns[:, 1]
