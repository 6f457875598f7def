"""The outcome document: everything that Gondola says of a scene, every number with its unit."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from .answers.clarity import CLARITY, PourClarity
from .answers.cups import STOCKS
from .answers.curves import AUDIT, HISTORY, PROFILE, ROOM, RoomTrace
from .answers.dam import DAM
from .answers.figure_facts import FIGURE_FACTS
from .answers.filling import FILLING, Filling
from .answers.limits import LIMITS, HeatLimit
from .answers.lines import LINES, Line
from .answers.order import WORK, WorkStep
from .answers.pours import POURS, PourOutcome
from .answers.setting import BUBBLES
from .answers.water import SIGHTS, WATER
from .answers.whole import WHOLE, Whole
from .bench.stocks import Stock
from .checks import FLAGS, Flag
from .cure.bubbles import BubbleProfile
from .cure.moments import CureHistory, HeatProfile, MarchAudit
from .dam import DamFacts
from .holding.facts import FigureFacts
from .tint import FigureSight, WaterProfile
from .views.section import SECTION, Section


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What will happen, as far as Gondola can tell; each field with the answer that it is asked of."""

    scene_digest: str
    grade: str
    whole: Annotated[Whole, WHOLE]
    pours: Annotated[list[PourOutcome], POURS]
    heat: Annotated[HeatProfile, PROFILE]
    limits: Annotated[list[HeatLimit], LIMITS]
    history: Annotated[CureHistory, HISTORY]
    bubbles: Annotated[BubbleProfile, BUBBLES]
    clarity: Annotated[list[PourClarity], CLARITY]
    lines: Annotated[list[Line], LINES]
    water: Annotated[WaterProfile, WATER]
    sights: Annotated[list[FigureSight], SIGHTS]
    section: Annotated[Section, SECTION]
    filling: Annotated[Filling, FILLING]
    figures: Annotated[list[FigureFacts], FIGURE_FACTS]
    dam: Annotated[DamFacts, DAM]
    room: Annotated[RoomTrace, ROOM]
    stocks: Annotated[list[Stock], STOCKS]
    work: Annotated[list[WorkStep], WORK]
    flags: Annotated[list[Flag], FLAGS]
    march: Annotated[MarchAudit, AUDIT]
