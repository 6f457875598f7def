"""The devices of a person: real ones on loopback, or simulated ones that stand in for them."""

from __future__ import annotations

from typing import Any

import numpy as np
from django.conf import settings
from django.db import close_old_connections

from gondola_core.bench.happened import pour_logs
from gondola_core.errors import GondolaError
from gondola_core.scene.schedule import room_samples_c
from gondola_core.studies.watching import watched

from . import actions
from .instruments.protocol import Kind
from .instruments.recording import HUB
from .instruments.serving import Device, Served
from .instruments.simulated import Scale, Thermometer, Truth
from .models import Run
from .schemas import InstrumentState

A_SECOND = {"scale": 10.0, "thermometer": 1.0}
"""readings of a simulated one"""


def states(owner: Any) -> list[InstrumentState]:
    """All of them, as they are now."""
    return [InstrumentState(**one) for one in HUB.told(owner.pk)]


def connect(*, owner: Any, kind: Kind, port: int | None, run: Run | None) -> None:
    """Listen to a device at a port; without one, to a simulated one.

    GondolaError where that needs a run, or for a port that is none of a device: other programs of the server's own
    machine are nobody's to talk to.
    """
    if port is not None:
        first, last = settings.DEVICE_PORTS
        if not first <= port <= last:
            raise GondolaError(f"Devices are at ports from {first} to {last}; this says {port}.", "port")
        HUB.connect(owner.pk, kind, port)
        return
    if run is None:
        raise GondolaError("A simulated device belongs to a run: open one first.", "run_id")
    device: Device = Scale(seed=run.seed) if kind == "scale" else Thermometer(follow(run), seed=run.seed)
    served = Served(device, a_second=A_SECOND[kind]).start()
    HUB.connect(owner.pk, kind, served.port, served)


def follow(run: Run) -> Truth:
    """What probes show as a run goes on: its own room, and the march of the pour that is in."""
    held: dict[str, Any] = {"number": 0, "at": None, "band": None}

    def truth(_: float) -> tuple[float | None, float | None]:
        close_old_connections()
        run.refresh_from_db()
        events, planned = actions.events_of(run), actions.document_of(run)
        now = actions.now_of(run)
        logs = pour_logs(planned, events)
        begun = [number for number, log in enumerate(logs, start=1) if log.start is not None]
        room_c = float(room_samples_c(actions.local_of(run), planned.brief.room, 0.0)[0])
        if not begun:
            return None, room_c
        if held["number"] != begun[-1]:
            band = watched(actions.happened_of(run, events), begun[-1])
            held.update(number=begun[-1], at=np.array(band.at_h), band=np.array(band.middle_c))
        hours = (now - logs[begun[-1] - 1].start).total_seconds() / 3600  # type: ignore[operator]
        return (float(np.interp(hours, held["at"], held["band"])) if len(held["at"]) else None), room_c

    return truth
