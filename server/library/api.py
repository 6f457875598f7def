"""The generic materials to choose from."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from gondola_core.materials import Colourant, Resin, SolidMaterial, load_library

router = Router(tags=["library"])


class Shelf(Schema):
    """All that is on the shelf."""

    resins: list[Resin]
    colourants: list[Colourant]
    solids: list[SolidMaterial]


@router.get("/library", response=Shelf, operation_id="read_library")
def read_library(request: HttpRequest) -> Shelf:
    library = load_library()
    return Shelf(
        resins=list(library.resins.values()),
        colourants=list(library.colourants.values()),
        solids=list(library.solids.values()),
    )
