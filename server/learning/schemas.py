"""What the API takes and gives of learning."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import BaseModel, Field

from gondola_core.learning.cup_fit import CupSetting, LogFit
from gondola_core.learning.drops import DropMass, DropsWeighed
from gondola_core.learning.swatch import SwatchFit, SwatchRead
from gondola_core.scene import Scene as SceneDocument
from gondola_core.studies.forecast import PourForecast

LogText = Annotated[str, Field(title="log of the thermometer", min_length=1, max_length=8 * 2**20)]
Key = Annotated[str, Field(max_length=40)]


class CupBrought(Schema):
    """A cup test: which bottle, how it stood, and the thermometer's file."""

    resin_id: Key
    setting: CupSetting
    log: LogText
    scale: Literal["c", "f"] | None = None


class SwatchBrought(Schema):
    """Patches of a colourant."""

    colourant_id: Key
    read: SwatchRead


class DropsBrought(Schema):
    """Drops of a colourant on a scale."""

    colourant_id: Key
    weighed: DropsWeighed


class TestsAsked(Schema):
    """What tests of a bottle would tell of this scene."""

    document: SceneDocument
    resin_id: Key


class PourAsked(Schema):
    """Learn from a pour of a run; `keep` it in the bottle."""

    pour_number: Annotated[int, Field(ge=1, le=200)]
    keep: bool = False
    place: Literal["middle", "wall"] = "middle"


class BottleLogRow(BaseModel):
    """One log of a bottle, with its own answer."""

    id: int
    kind: str
    title: str
    place: str
    made_at: datetime
    withdrawn: bool
    log: LogFit | None
    swatch: SwatchFit | None
    drops: DropMass | None


class BottleWhole(BaseModel):
    """A bottle: what is held of it, from what, and where each number of its row is from.

    rate, heat   factor on the row that it began from: middle and nine in ten
    """

    kind: str
    key: str
    name: str
    rate: list[float] | None
    heat: list[float] | None
    derived: str
    numbers: dict[str, list[float]]
    logs: list[BottleLogRow]


class PourLearnt(BaseModel):
    """A pour as it tells of its bottle, and the plan with and without it; `kept` where it is in the bottle."""

    fit: LogFit
    resin_id: str
    now: list[PourForecast]
    after: list[PourForecast]
    kept: bool
    disagrees: bool


class BottleRow(Schema):
    """A bottle in the list."""

    kind: str
    key: str
    name: str
    logs_count: int
