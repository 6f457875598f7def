"""What colours the resin. Absorption is a sum of bands, so it is small, open and smooth."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..part import Key, Name, Part, bounded


class AbsorptionBand(Part):
    """One Gaussian band of decadic absorbance for 1 drop in 100 g of mixed resin."""

    centre_nm: float = bounded("centre of an absorption band", "nm", 300, 800)
    width_nm: float = bounded("width (sigma) of an absorption band", "nm", 2, 200)
    absorbance_per_cm: float = bounded("height of an absorption band", "1/cm", 0, 50)


class Colourant(Part):
    """A clear ink by value. Pigments that scatter are not modelled here."""

    id: Key
    name: Name
    drop_g: float = bounded("mass of one drop", "g", 0.001, 0.5)
    bands: Annotated[list[AbsorptionBand], Field(title="absorption bands", max_length=12)]
    note: str = ""
