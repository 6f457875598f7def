"""What can be done with bottles: teach them a log, take one back, ask what a pour tells.

What is computed is computed before the transaction that stores it.
"""

from __future__ import annotations

import json
from datetime import UTC, datetime
from typing import Any

import numpy as np
from bench import actions as bench
from bench.models import Run
from django.db import transaction
from django.http import Http404
from library.actions import drop_row, keep_row, library_of, row_from
from library.models import OwnRow
from pydantic import TypeAdapter
from shapes.actions import meshes_for
from studio.apart import apart

from gondola_core.bench.events import AnyEvent, Felt, TemperatureRead, standing
from gondola_core.bench.happened import pour_logs
from gondola_core.bench.mixed import as_mixed
from gondola_core.errors import GondolaError
from gondola_core.learning.belief import (
    CUP_SCATTER,
    DISAGREES,
    POUR_SCATTER,
    Belief,
    distance2,
    factored,
    rebased,
    row_belief,
    taught,
)
from gondola_core.learning.cup_fit import LogFit, fit_cup
from gondola_core.learning.drops import DropMass, drop_mass
from gondola_core.learning.looks import looks_of
from gondola_core.learning.swatch import SwatchFit, fit_swatch
from gondola_core.learning.temperature_log import read_log
from gondola_core.materials import Colourant, Resin
from gondola_core.studies.forecast import forecast, forecast_table
from gondola_core.studies.pour_fit import Heard, fit_pour
from gondola_core.words import words

from .models import Bottle, BottleLog
from .schemas import (
    BottleLogRow,
    BottleRow,
    BottleWhole,
    CupBrought,
    DropsBrought,
    PourAsked,
    PourLearnt,
    SwatchBrought,
)

SCATTERS = {"cup": CUP_SCATTER, "pour": POUR_SCATTER}
TOLD = {
    "cup": TypeAdapter(LogFit), "pour": TypeAdapter(LogFit), "swatch": TypeAdapter(SwatchFit),
    "drops": TypeAdapter(DropMass),
}
COUNTED = {"swatch": ("absorbances_per_cm", "scatter_per_mm"), "drops": ("drop_g",)}
"""What of the answer of a log its row takes."""
NOT_COUNTED = "the answer of a log cannot be counted"
MOST_LOGS = 200
"""Logs that a bottle keeps."""
DAYS_A_MONTH = 30.44
"""Of a year of twelve."""
ROOM_READINGS = 2
"""Of the room from which it counts as logged."""


def bottles(owner: Any) -> list[BottleRow]:
    """All bottles that learnt something."""
    return [
        BottleRow(kind=one.kind, key=one.key, name=str(one.before["name"]), logs_count=one.logs.count())
        for one in Bottle.objects.filter(owner=owner).prefetch_related("logs")
    ]


def own_bottle(*, owner: Any, kind: str, key: str) -> Bottle:
    """The way to a bottle; Http404 for a row that there is not. It begins as its row."""
    found = Bottle.objects.filter(owner=owner, kind=kind, key=key).first()
    if found is not None:
        return found
    library = library_of(owner=owner)
    rows: dict[str, Any] = {"resin": library.resins, "colourant": library.colourants}.get(kind, {})
    if key not in rows:
        raise Http404
    own = OwnRow.objects.filter(owner=owner, kind=kind, key=key).first()
    return Bottle(
        owner=owner, kind=kind, key=key, before=rows[key].model_dump(mode="json"), before_own=own is not None,
        before_source=own.source if own is not None else "",
    )


def row_before(bottle: Bottle) -> Any:
    """Its row as it was before anything was learnt. SceneError where it is no longer taken."""
    return row_from(bottle.kind, bottle.before)


def check_kept(bottle: Bottle) -> None:
    """ValueError for a bottle that could not be listed, whatever else its row is taken for."""
    if not isinstance(bottle.before, dict) or not isinstance(bottle.before.get("name"), str):
        raise ValueError("a bottle has no name")


def check_log(log: BottleLog) -> None:
    """ValueError or KeyError for a log whose answer could not be counted."""
    if log.kind in SCATTERS:
        _belief_in(log.told)
        _belief_in(log.prior)
    elif not all(np.isfinite(np.array(log.told[name], dtype=float)).all() for name in COUNTED[log.kind]):
        raise ValueError(NOT_COUNTED)


def _belief_in(kept: dict[str, Any]) -> Belief:
    """A belief as a log keeps it."""
    mean, covariance = np.array(kept["mean"], dtype=float), np.array(kept["covariance"], dtype=float)
    if mean.shape != (2,) or covariance.shape != (2, 2) or not np.isfinite([*mean, *covariance.ravel()]).all():
        raise ValueError(NOT_COUNTED)
    return Belief(mean=mean, covariance=covariance)


def standing_logs(bottle: Bottle) -> list[BottleLog]:
    """Logs that count, in order."""
    return [] if bottle.pk is None else list(bottle.logs.filter(withdrawn_at=None))


def belief_of(bottle: Bottle, but_for: str | None = None) -> Belief:
    """What is held of a bottle of resin: its row, then each log that counts; it ages between them.

    but_for  place of a pour whose own log is left out
    """
    held, last = row_belief(row_before(bottle)), None
    for log in standing_logs(bottle):
        if log.kind not in SCATTERS or (but_for is not None and log.place == but_for):
            continue
        if last is not None:
            held = held.aged((log.made_at - last).days / DAYS_A_MONTH)
        scatter, last = SCATTERS[log.kind], log.made_at
        held = taught(held, rebased(_belief_in(log.told), _belief_in(log.prior), held.scattered(scatter)), scatter)
    return held


def cup_told(*, owner: Any, brought: CupBrought) -> tuple[Bottle, LogFit]:
    """What a cup says; nothing is kept."""
    bottle = own_bottle(owner=owner, kind="resin", key=brought.resin_id)
    log = apart(read_log, brought.log, brought.scale, what="the log")
    prior = belief_of(bottle).scattered(CUP_SCATTER)
    return bottle, fit_cup(log, brought.setting, row_before(bottle), prior)


def keep_cup(*, owner: Any, brought: CupBrought) -> Bottle:
    """Teach a bottle its cup. GondolaError for one that does not fit it: nothing is changed then."""
    bottle, fit = cup_told(owner=owner, brought=brought)
    if not fit.merges:
        raise GondolaError(fit.words[0], "log")
    prior = belief_of(bottle).scattered(CUP_SCATTER)
    title = f"cup of {brought.setting.mass_g:g} g"
    if brought.setting.wrap_mm:
        title += f" in {brought.setting.wrap_mm:g} mm of foam"
    return _keep(bottle, "cup", title, brought.model_dump(mode="json"), fit, prior)


def pour_told(*, run: Run, asked: PourAsked, but_for: str | None = None) -> tuple[Bottle, PourLearnt, Belief]:
    """What a pour of a run says of its bottle, and the plan with and without that.

    but_for  place of the pour, where what it told before is left out
    """
    events = bench.events_of(run)
    happened = bench.happened_of(run, events)
    if asked.pour_number > len(happened.pours):
        raise GondolaError(words("refusals.no_pour", most=len(happened.pours), number=asked.pour_number), "pour_number")
    pour = bench.document_of(run).pours[asked.pour_number - 1]
    bottle = own_bottle(owner=run.owner, kind="resin", key=pour.resin_id)
    held = belief_of(bottle, but_for)
    heard = _heard(run, events, asked)
    meshes = meshes_for(owner=run.owner, document=happened)
    base = row_before(bottle)
    bottled = {
        was.resin_id for meant, was in zip(bench.document_of(run).pours, happened.pours, strict=True)
        if meant.resin_id == pour.resin_id
    }
    document = happened.model_copy(update={
        "resins": [_as_row(one, base) if one.id in bottled else one for one in happened.resins]
    })
    fit = fit_pour(document, asked.pour_number, heard, held, meshes)
    disagrees = fit.merges and distance2(held, fit.belief, POUR_SCATTER) > DISAGREES
    after = taught(held, fit.belief, POUR_SCATTER) if fit.merges else held
    table = forecast_table(document, pour.resin_id, held, meshes)
    learnt = PourLearnt(
        fit=fit, resin_id=pour.resin_id, now=forecast(table, held), after=forecast(table, after), kept=False,
        disagrees=disagrees,
    )
    return bottle, learnt, held.scattered(POUR_SCATTER)


def _as_row(used: Resin, base: Resin) -> Resin:
    """The resin that was poured by the row that its bottle began from, in the ratio in which it was mixed."""
    return as_mixed(base, used.mixed_error_fraction).model_copy(update={"id": used.id})


def _heard(run: Run, events: list[AnyEvent], asked: PourAsked) -> Heard:
    """Readings and looks of a pour from its start, and whether the room was read."""
    document, number = bench.document_of(run), asked.pour_number
    readings = bench.readings_of(document, events, number)
    start, told = pour_logs(document, events)[number - 1].start, standing(events)
    if start is None:
        return Heard(readings=[], looks=[], room_logged=False, place=asked.place)
    felt = [
        ((one.at - start).total_seconds() / 3600, str(one.feels)) for one in told
        if isinstance(one, Felt) and one.pour_id == document.pours[number - 1].id and one.at > start
    ]
    rooms = sum(isinstance(one, TemperatureRead) and one.what == "room" and one.at >= start for one in told)
    return Heard(readings=readings, looks=looks_of(felt), room_logged=rooms >= ROOM_READINGS, place=asked.place)


def learn_pour(*, run: Run, asked: PourAsked) -> PourLearnt:
    """What a pour tells; kept in its bottle where that is asked and it fits. A rehearsal teaches nothing."""
    if not asked.keep:
        return pour_told(run=run, asked=asked)[1]
    if run.rehearsal:
        raise GondolaError("A rehearsal is no pour: its bottle learns nothing from it.", "keep")
    place = f"run {run.pk} pour {asked.pour_number}"
    bottle, learnt, prior = pour_told(run=run, asked=asked, but_for=place)
    if not learnt.fit.merges:
        raise GondolaError(learnt.fit.words[0], "keep")
    title = f"pour {asked.pour_number} of {run.scene.name}"[:120]
    with transaction.atomic():
        if bottle.pk is not None:
            # the same pour, heard for longer, stands in for what it told before
            bottle.logs.filter(place=place, withdrawn_at=None).update(withdrawn_at=datetime.now(UTC))
        _keep(bottle, "pour", title, asked.model_dump(mode="json"), learnt.fit, prior, place)
    return learnt.model_copy(update={"kept": True})


def swatch_told(*, owner: Any, brought: SwatchBrought) -> tuple[Bottle, SwatchFit]:
    """What patches say of a colourant; nothing is kept."""
    bottle = own_bottle(owner=owner, kind="colourant", key=brought.colourant_id)
    return bottle, fit_swatch(brought.read, row_before(bottle))


def keep_swatch(*, owner: Any, brought: SwatchBrought) -> Bottle:
    """Teach a colourant its swatch."""
    bottle, fit = swatch_told(owner=owner, brought=brought)
    count = len(brought.read.patches)
    return _keep(bottle, "swatch", f"swatch of {count} patches", brought.model_dump(mode="json"), fit, None)


def keep_drops(*, owner: Any, brought: DropsBrought) -> Bottle:
    """Teach a colourant the mass of its drops."""
    bottle = own_bottle(owner=owner, kind="colourant", key=brought.colourant_id)
    count = brought.weighed.drops_count * len(brought.weighed.masses_g)
    return _keep(bottle, "drops", f"{count} drops weighed", brought.model_dump(mode="json"), drop_mass(brought.weighed),
                 None)


@transaction.atomic
def _keep(
    bottle: Bottle, kind: str, title: str, asked: dict[str, Any], told: Any, prior: Belief | None, place: str = ""
) -> Bottle:
    if bottle.pk is None:
        # another log may have begun it while this one was computed
        bottle = Bottle.objects.filter(owner=bottle.owner, kind=bottle.kind, key=bottle.key).first() or bottle
        bottle.save()
    if bottle.logs.count() >= MOST_LOGS:
        raise GondolaError(f"A bottle keeps {MOST_LOGS} logs; this one is full: give the new one its own row.", "")
    BottleLog.objects.create(
        bottle=bottle, kind=kind, title=title, asked=asked, told=json.loads(TOLD[kind].dump_json(told)), place=place,
        prior={} if prior is None else {"mean": prior.mean.tolist(), "covariance": prior.covariance.tolist()},
        made_at=datetime.now(UTC),
    )
    return rewrite(bottle)


@transaction.atomic
def withdraw(*, owner: Any, log_id: int, withdrawn: bool) -> Bottle:
    """Take a log back, or let it count again; the row follows."""
    log = BottleLog.objects.select_related("bottle").filter(bottle__owner=owner, pk=log_id).first()
    if log is None:
        raise Http404
    log.withdrawn_at = datetime.now(UTC) if withdrawn else None
    log.save(update_fields=["withdrawn_at"])
    return rewrite(log.bottle)


def rewrite(bottle: Bottle) -> Bottle:
    """The row from what stands; without any log it is as it was before."""
    logs = standing_logs(bottle)
    if not logs:
        if bottle.before_own:
            keep_row(owner=bottle.owner, kind=bottle.kind, body=bottle.before, source=bottle.before_source)
        else:
            drop_row(owner=bottle.owner, kind=bottle.kind, key=bottle.key)
        return bottle
    row = _resin(bottle, logs) if bottle.kind == "resin" else _colourant(bottle, logs)
    keep_row(owner=bottle.owner, kind=bottle.kind, body=row.model_dump(mode="json"), source=_story(bottle, logs))
    return bottle


def _story(bottle: Bottle, logs: list[BottleLog]) -> str:
    names = "; ".join(log.title for log in logs[-6:])
    return f"learnt at the bench, from {bottle.before['name']}: {names}"[:300]


def _resin(bottle: Bottle, logs: list[BottleLog]) -> Resin:
    held = belief_of(bottle)
    spread = held.scattered(POUR_SCATTER).sd
    rate, heat = np.exp(held.mean)
    told = f"{_story(bottle, logs)}; rate x {rate:.3f}, heat x {heat:.3f}"
    return factored(row_before(bottle), held.mean).model_copy(update={
        "rate_spread_fraction": round(float(min(1.0, spread[0])), 4), "derived": told,
        "heat_spread_fraction": round(float(min(0.5, spread[1])), 4),
        "working_min": round(row_before(bottle).working_min / float(rate), 1),
    })


def _colourant(bottle: Bottle, logs: list[BottleLog]) -> Colourant:
    row: Colourant = row_before(bottle)
    for log in logs:
        if log.kind == "drops":
            row = row.model_copy(update={"drop_g": log.told["drop_g"]})
        elif log.kind == "swatch":
            fit = log.told
            row = row.model_copy(update={
                "bands": [], "absorbances_per_cm": fit["absorbances_per_cm"], "scatter_per_mm": fit["scatter_per_mm"],
            })
    return row


def whole(bottle: Bottle) -> BottleWhole:
    """A bottle with all its logs, and each number that its row gained."""
    before = row_before(bottle)
    logs = [] if bottle.pk is None else list(bottle.logs.all())
    found: dict[str, list[float]] = {}
    rate = heat = None
    derived = ""
    if bottle.kind == "resin":
        held = belief_of(bottle)
        rate, heat = ([round(float(np.exp(held.mean[at])), 4), *(round(one, 4) for one in held.between(at))]
                      for at in (0, 1))
    own = OwnRow.objects.filter(owner=bottle.owner, kind=bottle.kind, key=bottle.key).first()
    if own is not None and standing_logs(bottle):
        derived = own.source
        for name, value in own.body.items():
            was = bottle.before.get(name)
            if isinstance(value, int | float) and isinstance(was, int | float) and value != was:
                found[name] = [float(was), float(value)]
    return BottleWhole(
        kind=bottle.kind, key=bottle.key, name=before.name, rate=rate, heat=heat, derived=derived, numbers=found,
        logs=[_row(one) for one in logs],
    )


def _row(log: BottleLog) -> BottleLogRow:
    told = {name: log.told if log.kind in kinds else None for name, kinds in
            (("log", ("cup", "pour")), ("swatch", ("swatch",)), ("drops", ("drops",)))}
    return BottleLogRow.model_construct(
        id=log.pk, kind=log.kind, title=log.title, place=log.place, made_at=log.made_at,
        withdrawn=log.withdrawn_at is not None, **told,
    )
