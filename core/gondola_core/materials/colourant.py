"""What colours the resin. Absorption is a sum of bands, so it is small, open and smooth."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from ..part import Key, Name, Part, bounded


class AbsorptionBand(Part):
    """One Gaussian band of decadic absorbance for 1 drop in 100 g of mixed resin."""

    centre_nm: float = bounded("centre of an absorption band", "nm", 300, 800)
    width_nm: float = bounded("width (sigma) of an absorption band", "nm", 2, 200)
    absorbance_per_cm: float = bounded("height of an absorption band", "1/cm", 0, 50)


class Colourant(Part):
    """A colourant by value: an ink that only absorbs, or a paste or white that scatters too.

    absorbances_per_cm   as measured at 400, 410 ... 700 nm, in place of bands; empty where not
    scatter_per_mm  of 1 drop in 100 g at 550 nm; falls with wavelength by `scatter_power`
    """

    id: Key
    name: Name
    form: Annotated[
        Literal["ink", "paste", "white", "mica", "craft_paint"], Field(title="form of the colourant")
    ] = "ink"
    drop_g: float = bounded("mass of one drop", "g", 0.001, 0.5)
    bands: Annotated[list[AbsorptionBand], Field(title="absorption bands", max_length=12)] = []
    absorbances_per_cm: Annotated[
        list[Annotated[float, Field(ge=0, le=50)]], Field(title="measured absorbances", max_length=31)
    ] = []
    scatter_per_mm: float = bounded("scatter of one drop per 100 g", "1/mm", 0, 5, default=0.0)
    scatter_power: float = bounded("fall of scatter with wavelength", "", 0, 4, default=1.0)
    scatter_cosine: float = bounded("mean cosine of scatter", "", 0, 0.98, default=0.7)
    modelled: bool = True
    note: str = ""

    @field_validator("absorbances_per_cm")
    @classmethod
    def _whole_or_none(cls, values: list[float]) -> list[float]:
        if len(values) not in (0, 31):
            raise ValueError(
                "measured absorbances have to be 31 numbers, at 400, 410 to 700 nm, or none; there "
                f"are {len(values)}"
            )
        return values
