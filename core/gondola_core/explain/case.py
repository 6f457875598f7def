"""A case: what was meant, what happened, what was recorded of it, and what both come to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property

from ..answers.kept import Keeper
from ..bench.events import (
    Abraded,
    AnyEvent,
    Degassed,
    Demoulded,
    Noted,
    Placed,
    Sealed,
    TemperatureRead,
    standing,
)
from ..bench.happened import PourLog, pour_logs
from ..evaluate import DRAFT, KEEPER, evaluate
from ..outcome import Outcome
from ..scene import Scene
from ..scene.schedule import pour_starts_h
from ..shape import Meshes
from .fault import Fault


@dataclass(frozen=True)
class Case:
    """A piece that went wrong.

    planned, happened   the scene as meant, and with what the bench recorded
    """

    planned: Scene
    happened: Scene
    events: Sequence[AnyEvent]
    faults: Sequence[Fault]
    meshes: Meshes | None = None
    keeper: Keeper = KEEPER

    @cached_property
    def told(self) -> list[AnyEvent]:
        """Events that count, in order."""
        return standing(self.events)

    @cached_property
    def logs(self) -> list[PourLog]:
        """What was recorded of each pour."""
        return pour_logs(self.planned, self.events)

    @cached_property
    def meant(self) -> Outcome:
        """What the plan comes to."""
        return self.outcome_of(self.planned)

    @cached_property
    def was(self) -> Outcome:
        """What happened comes to."""
        return self.outcome_of(self.happened)

    def outcome_of(self, scene: Scene) -> Outcome:
        """A scene marched again; kept, so that what was asked is free."""
        return evaluate(scene, DRAFT, self.keeper, None, self.meshes)

    @cached_property
    def first(self) -> datetime | None:
        """When the first pour ran."""
        return next((log.start for log in self.logs if log.start is not None), None)

    def hours(self, moment: datetime) -> float | None:
        """From the first pour."""
        return None if self.first is None else (moment - self.first).total_seconds() / 3600

    @cached_property
    def starts_h(self) -> list[float]:
        """Of each pour as it happened, from the first."""
        return pour_starts_h(self.happened.pours)

    @cached_property
    def weighed(self) -> bool:
        """Whether every pour's cups were weighed."""
        return all(log.whole_cups for log in self.logs)

    @cached_property
    def dropped(self) -> bool:
        """Whether drops were counted."""
        return any(log.neat_drops for log in self.logs)

    @cached_property
    def room_read(self) -> bool:
        """Whether the room was read, more than once."""
        return sum(isinstance(one, TemperatureRead) and one.what == "room" for one in self.told) > 1

    @cached_property
    def sealed_told(self) -> bool:
        """Whether the bench said how the bed is."""
        return any(isinstance(one, Sealed) for one in self.told)

    @cached_property
    def demoulded_h(self) -> float | None:
        """When the dam came off, from the first pour."""
        return next((self.hours(one.at) for one in self.told if isinstance(one, Demoulded)), None)

    @cached_property
    def degassed_dam(self) -> int | None:
        """Number of the pour over which a vacuum was drawn in the dam; None where that was not told."""
        ids = [pour.id for pour in self.planned.pours]
        return next((ids.index(one.pour_id) + 1 for one in self.told
                     if isinstance(one, Degassed) and one.vessel == "dam" and one.pour_id in ids), None)

    @cached_property
    def degassed_told(self) -> bool:
        """Whether a vacuum was told of at all."""
        return any(isinstance(one, Degassed) for one in self.told)

    @cached_property
    def placed_h(self) -> dict[str, float]:
        """When each figure was set, from the first pour."""
        found = {}
        for one in self.told:
            hours = self.hours(one.at) if isinstance(one, Placed) and not one.left_out else None
            if isinstance(one, Placed) and hours is not None:
                found[one.figure_id] = hours
        return found

    def abraded(self, number: int) -> bool:
        """Whether the face under a pour was roughened."""
        below = self.planned.pours[number - 2].id if number >= 2 else ""
        return any(isinstance(one, Abraded) and one.pour_id == below for one in self.told)

    def notes(self, *stems: str) -> list[str]:
        """Free words that were written of something."""
        found = [one.text for one in self.told if isinstance(one, Noted)]
        return [text for text in found if any(stem in text.lower() for stem in stems)]
