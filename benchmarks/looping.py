"""The loop: a cup's fit, a running pour, why a piece went wrong, and the log with ten thousand entries."""

from __future__ import annotations

import os
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np

from gondola_core.answers.kept import Keeper
from gondola_core.evaluate import evaluate
from gondola_core.explain.case import Case
from gondola_core.explain.fault import Fault
from gondola_core.explain.ranking import explain
from gondola_core.learning.belief import row_belief
from gondola_core.learning.cup_fit import CupSetting, cup_prior, fit_cup
from gondola_core.learning.cup_model import ROOM_STEP, Cup, CupModel
from gondola_core.learning.temperature_log import read_log
from gondola_core.materials import load_library
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.studies.pour_fit import Heard, fit_pour
from gondola_core.studies.watching import Reading
from gondola_core.units import HOUR

ENTRIES, PHOTOGRAPHS = 10_000, 2_000
STOCK = "strings prints marks dry bubbles warm cool wall bed pour line dust milk leak glue drop stir wait"
COVERED = 40
"""Seeded logs of which the share that the interval covers is printed."""


def _ms(work: Callable[[], object], times: int = 5) -> float:
    work()
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        taken.append(1e3 * (time.perf_counter() - began))
    return sorted(taken)[times // 2]


def _told(what: str, took: float, plain: float, of: str, asked: float) -> None:
    print(f"  {what:37s}{took:6.0f} ms, {took / plain:5.2f} of {of} ({asked:.0f} ms asked)")


def cup_text(seed: int, every: float, hours: float) -> tuple[str, np.ndarray]:
    """A seeded log of 300 g of deep resin, all that is not known exactly drawn."""
    row = load_library().resins["deep"]
    prior, draw = cup_prior(row_belief(row), room_logged=False), np.random.default_rng(seed)
    off = prior.mean + prior.root @ draw.standard_normal(len(prior.mean))
    at = np.arange(every, hours * HOUR, every)
    room = np.full(round(hours * HOUR / ROOM_STEP) + 13, 23.0)
    model = CupModel(cup=Cup(resin=row, mass_g=300.0, mix_c=23.0), at=at, room_c=room)
    read = np.round((model.curve(off) + 0.3 * draw.standard_normal(len(at))) / 0.1) * 0.1
    rows = "\n".join(f"{when:.0f},{value:.1f}" for when, value in zip(at, read, strict=True))
    return f"time_s,cup_c\n{rows}", off


def learning() -> None:
    """A 12 h log at 10 s; a running pour; coverage over seeds."""
    row, scene = load_library().resins["deep"], quarry_pool()
    setting = CupSetting(mass_g=300.0, mix_c=23.0, room_c=23.0)
    whole = _ms(lambda: evaluate(scene, keeper=Keeper()))
    text, _ = cup_text(1, 10.0, 12.0)
    fit = _ms(lambda: fit_cup(read_log(text), setting, row), 3)
    hours = np.linspace(0, 8, 480)
    readings = [Reading(at_h=float(at), measured_c=float(22 + 9 * at / 5 * np.exp(1 - at / 5))) for at in hours]
    heard = Heard(readings=readings, looks=[], room_logged=True)
    pour = _ms(lambda: fit_pour(scene, 1, heard, row_belief(row), keeper=Keeper()), 3)
    _told("cup of 12 h at 10 s, read and fitted", fit, whole, "a whole outcome", 5000)
    _told("a running pour, 480 readings", pour, whole, "a whole outcome", 2000)
    inside = np.zeros(2)
    for seed in range(COVERED):
        text, off = cup_text(100 + seed, 60.0, 12.0)
        found = fit_cup(read_log(text), setting, row)
        inside += np.abs(np.array(found.mean) - off[:2]) < 1.645 * found.belief.sd
    rate, heat = 100 * inside / COVERED
    print(f"  nine in ten cover the truth in       {rate:.0f} (rate), {heat:.0f} (heat) of 100 (85 to 95 asked)")


def explaining() -> None:
    """The Ferry Landing with three faults."""
    scene = SAMPLES["ferry-landing"]()
    faults = [Fault(kind="yellow"), Fault(kind="crack", size_mm=90.0), Fault(kind="bubbles")]
    took = _ms(lambda: explain(Case(scene, scene, [], faults, None, Keeper())), 2)
    print(f"  why the Ferry Landing went wrong     {took:6.0f} ms")


def logging() -> None:
    """Search and story over ten thousand entries and two thousand photographs."""
    with tempfile.TemporaryDirectory() as folder:
        settings = {"GONDOLA_DATA": folder, "GONDOLA_SECRET_KEY": "bench"}
        os.environ.update(settings, DJANGO_SETTINGS_MODULE="gondola_server.settings")
        sys.path.insert(0, str(Path(__file__).resolve().parent.parent / "server"))
        import django

        django.setup()
        from django.contrib.auth.models import User
        from django.core.management import call_command
        from log import actions
        from log.models import Entry, Photograph
        from scenes.actions import create_scene

        call_command("migrate", verbosity=0)
        owner = User.objects.create_user("bench")
        scene = create_scene(owner=owner, document=quarry_pool())
        draw = np.random.default_rng(1)
        stock = STOCK.split()
        now = scene.created_at
        rows = [
            Entry(owner=owner, scene=scene, at=now, text=" ".join(draw.choice(stock, 12)),
                  kind="photograph" if at < PHOTOGRAPHS else "note")
            for at in range(ENTRIES)
        ]
        Entry.objects.bulk_create(rows)
        kept = list(Entry.objects.all())
        Photograph.objects.bulk_create([
            Photograph(entry=one, name=f"{one.pk}.jpg", form="JPEG", digest="0" * 64, bytes_count=9, width_px=9,
                       height_px=9, small=bytes(60_000)) for one in kept[:PHOTOGRAPHS]
        ])
        for one in kept:
            actions.index(one)
        plain = _ms(lambda: list(Entry.objects.filter(owner=owner).values_list("text", flat=True)))
        found = _ms(lambda: actions.search(owner=owner, asked="bubbles gl"))
        told = _ms(lambda: actions.story(scene))
        _told(f"search in {ENTRIES} entries", found, plain, "reading them all", 200)
        _told(f"story with {PHOTOGRAPHS} photographs", told, plain, "reading them all", 200)


def main() -> None:
    """All of it."""
    learning()
    explaining()
    logging()


if __name__ == "__main__":
    main()
