"""The order of the work as a person keeps it: ids of steps that follow from the scene, and steps of their own."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..part import Part

StepId = Annotated[str, Field(title="step of the work", pattern=r"^[a-z0-9][a-z0-9:._-]{0,79}$")]
OWN = "own:"
"""How ids of steps begin that the person added."""


class KeptStep(Part):
    """A step at its place in the list; `name` where it is the person's own."""

    id: StepId
    name: Annotated[str, Field(title="name of a step", max_length=80)] = ""
