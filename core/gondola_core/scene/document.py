"""The scene: one typed, versioned document."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..errors import Flaw
from ..materials import Colourant, Resin
from ..part import Key, Name, Part
from ..words import words
from .bed import Bed
from .brief import Brief
from .figure import Figure, MeshSolid
from .order import KeptStep
from .pour import Finish, Pour
from .tank import Tank

FORMAT: Literal["gondola-scene"] = "gondola-scene"
VERSION: Literal[3] = 3


class ScaleTrue(Part):
    """Water as a real one would look at this scale."""

    kind: Literal["scale_true"]
    water_type: Annotated[
        Literal["I", "IB", "II", "III", "1C", "3C", "5C", "7C", "9C"], Field(title="type of water")
    ]
    exaggeration: Annotated[float, Field(title="exaggeration", ge=0.1, le=12)] = 1.0
    haze: Annotated[bool, Field(title="haze for true contrast")] = False


class PickedColour(Part):
    """The back wall wished in a colour at a depth."""

    depth_mm: Annotated[float, Field(title="depth of a wished colour", ge=0, le=600)]
    srgb: Annotated[str, Field(title="wished colour", pattern=r"^#[0-9a-f]{6}$")]


class ByEye(Part):
    """Water by colours picked at depths."""

    kind: Literal["by_eye"]
    picks: Annotated[list[PickedColour], Field(title="wished colours", min_length=2, max_length=8)]


class Wish(Part):
    """How the water should look, and what the doses may be.

    graded  doses grow from the surface to the bed, in steps of equal colour difference
    """

    look: Annotated[ScaleTrue | ByEye, Field(discriminator="kind", title="wished look")]
    most_colourants: Annotated[int, Field(title="most colourants", ge=1, le=7)] = 4
    graded: Annotated[bool, Field(title="graded from the surface down")] = False
    keep_figure: Annotated[Key | None, Field(title="figure to keep in sight")] = None
    keep_contrast: Annotated[float, Field(title="contrast to keep", ge=0, le=1)] = 0.5
    most_step_de00: Annotated[float | None, Field(title="most step at a line", ge=0.2, le=30)] = None


MOST_FIGURES = 60
"""Figures of a scene, and meshes that they point at."""


class MeshBody(Part):
    """A mesh that travels in a scene file, packed as `geometry.mesh.pack_mesh` does."""

    id: Key
    packed_base64: Annotated[str, Field(title="packed mesh", max_length=48 * 1024 * 1024)]


class Scene(Part):
    """One piece as planned. Resins and colourants stand in it by value, so a file stands alone."""

    format: Literal["gondola-scene"] = FORMAT
    version: Literal[3] = VERSION
    name: Annotated[Name, Field(title="name of the scene")]
    brief: Brief
    tank: Tank
    bed: Bed
    figures: Annotated[list[Figure], Field(title="figures", max_length=MOST_FIGURES)] = []
    resins: Annotated[list[Resin], Field(title="resins", min_length=1, max_length=52)]
    colourants: Annotated[list[Colourant], Field(title="colourants", max_length=24)] = []
    pours: Annotated[list[Pour], Field(title="pours", min_length=1, max_length=40)]
    wish: Wish | None = None
    finish: Finish = Finish()
    order: Annotated[list[KeptStep], Field(title="order of the work", max_length=200)] = []
    meshes: Annotated[list[MeshBody], Field(title="meshes", max_length=MOST_FIGURES)] = []

    @model_validator(mode="after")
    def _hangs_together(self) -> Scene:
        _refuse_twice("resin", [resin.id for resin in self.resins])
        _refuse_twice("colourant", [colourant.id for colourant in self.colourants])
        _refuse_twice("figure", [figure.id for figure in self.figures])
        _refuse_twice("pour", [pour.id for pour in self.pours])
        resins = {resin.id for resin in self.resins}
        colourants = {colourant.id for colourant in self.colourants}
        above = self.tank.fill_height_mm
        for number, pour in enumerate(self.pours, start=1):
            if pour.resin_id not in resins:
                raise ValueError(
                    f"pour {number} uses the resin '{pour.resin_id}', which the scene does not "
                    f"hold; it holds {', '.join(sorted(resins))}"
                )
            for dose in pour.doses:
                if dose.colourant_id not in colourants:
                    raise ValueError(
                        f"pour {number} uses the colourant '{dose.colourant_id}', which the "
                        f"scene does not hold; it holds {', '.join(sorted(colourants)) or 'none'}"
                    )
            if pour.top_depth_mm >= above:
                where = "the tank floor" if number == 1 else f"the line of pour {number - 1}"
                raise Flaw(words("refusals.line_order", pour=number, line=pour.top_depth_mm, where=where, above=above))
            above = pour.top_depth_mm
        if above != 0:
            raise Flaw(words("refusals.last_line", below=above))
        return self

    def mesh_ids(self) -> list[str]:
        """The meshes that bed and figures point at, each once."""
        solids = [solid for figure in self.figures for solid in figure.solids]
        found = [solid.mesh_id for solid in solids if isinstance(solid, MeshSolid)]
        if self.bed.mesh is not None:
            found.append(self.bed.mesh.mesh_id)
        return list(dict.fromkeys(found))

    def resin_of(self, pour: Pour) -> Resin:
        """The resin that a pour uses."""
        return next(resin for resin in self.resins if resin.id == pour.resin_id)


def _refuse_twice(what: str, ids: list[str]) -> None:
    for key in ids:
        if ids.count(key) > 1:
            raise ValueError(f"two {what}s are called '{key}': give each an id of its own")
