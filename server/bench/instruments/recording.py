"""Readings of a thermometer become events of the runs that are going on, one a minute of their clocks."""

from __future__ import annotations

import threading
import time
import uuid
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.contrib.auth import get_user_model
from django.contrib.auth.models import AnonymousUser
from django.db import OperationalError, close_old_connections
from people.ways import scenes_for

from gondola_core.bench.happened import pour_logs

from .. import actions
from ..models import Run
from .hub import Hub
from .protocol import CHANNELS, Temperature

EVERY = timedelta(minutes=1)
LOOK_S = 1.0
"""seconds of ours between two looks for runs to record"""
LATEST = timedelta(days=40)
"""Runs that began longer ago are not recorded any more."""
RESIN, ROOM = CHANNELS


class Recorder:
    """Keeps, by run, when each channel was recorded last."""

    def __init__(self) -> None:
        self._last: dict[tuple[UUID, int], datetime] = {}
        self._looked: dict[tuple[int, int], float] = {}
        self._lock = threading.Lock()

    def heard(self, owner_id: int, reading: Temperature) -> None:
        """A reading: recorded where a minute has gone by since the last one."""
        key, now = (owner_id, reading.channel), time.monotonic()
        if reading.measured_c is None or now - self._looked.get(key, 0.0) < LOOK_S:
            return
        self._looked[key] = now
        try:
            self.record(owner_id, reading)
        except OperationalError:
            return  # the next reading comes at once
        finally:
            close_old_connections()

    def record(self, owner_id: int, reading: Temperature) -> None:
        """The same, in whichever thread asks."""
        with self._lock:
            for run in self._going_on(owner_id):
                self._record(run, reading)

    @staticmethod
    def _going_on(owner_id: int) -> Any:
        """Runs of the scenes that the owner of a device works on."""
        owner = get_user_model().objects.filter(pk=owner_id, is_active=True).first() or AnonymousUser()
        return Run.objects.filter(scene__in=scenes_for(owner, "work"), ended_at=None).defer("packed")

    def _record(self, run: Run, reading: Temperature) -> None:
        now, key = actions.now_of(run), (run.pk, reading.channel)
        last = self._last.get(key)
        if (last is not None and now - last < EVERY) or now - run.started_at > LATEST:  # type: ignore[operator]
            return
        self._last[key] = now
        body = {
            "id": str(uuid.uuid4()), "at": now.isoformat(), "kind": "measured", "device": actions.THERMOMETER,
            "what": "room" if reading.channel == ROOM else "resin", "measured_c": reading.measured_c,
        }
        if reading.channel == RESIN:
            pour_id = _last_pour(run)
            if pour_id is None:
                return
            body["pour_id"] = pour_id
        actions.take(run=run, bodies=[body])


def _last_pour(run: Run) -> str | None:
    """The pour that ran in last: the probe stands in it."""
    scene, events = actions.document_of(run), actions.events_of(run)
    begun = [pour.id for pour, log in zip(scene.pours, pour_logs(scene, events), strict=True) if log.start is not None]
    return begun[-1] if begun else None


RECORDER = Recorder()
HUB = Hub(RECORDER.heard)
"""The hub of this process."""
