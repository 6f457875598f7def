"""Bottles over HTTP: taught, taken back, from a running pour; nobody else's."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta

import numpy as np
from bench.models import Run, RunEvent
from bench.tests.test_runs import RunCase, event
from django.contrib.auth.models import User
from library.actions import keep_row, library_of
from library.models import OwnRow

from gondola_core.bench.mixed import as_mixed
from gondola_core.learning.belief import row_belief
from gondola_core.learning.cup_fit import cup_prior
from gondola_core.learning.cup_model import ROOM_STEP, Cup, CupModel
from gondola_core.materials import load_library
from gondola_core.units import HOUR
from learning import actions


def cup_csv(logs=(0.1, -0.04), resin="deep", mass_g=60.0, hours=18.0, wrap_mm=10.0) -> str:
    """A log of a wrapped cup of a bottle that is so much quicker and hotter than its row."""
    row = load_library().resins[resin]
    at = np.arange(60.0, hours * HOUR, 120.0)
    model = CupModel(
        cup=Cup(resin=row, mass_g=mass_g, mix_c=23.0, wrap_mm=wrap_mm, lid=True), at=at,
        room_c=np.full(round(hours * HOUR / ROOM_STEP) + 13, 23.0),
    )
    off = cup_prior(row_belief(row), room_logged=True).mean
    off[:2] = logs
    rows = "\n".join(f"{t / 60:g},{value:.2f},23.0" for t, value in zip(at, model.curve(off), strict=True))
    return f"min,cup °C,room °C\n{rows}"


class Bottles(RunCase):
    """A bottle of deep resin and one of ink."""

    setting = {"mass_g": 60, "wrap_mm": 10, "lid": True, "mix_c": 23.0}

    def cup(self, **more):
        return {"resin_id": "deep", "setting": self.setting, "log": cup_csv(), **more}

    def row(self):
        return library_of(owner=self.owner).resins["deep"]

    def test_a_cup_teaches_and_taking_it_back_puts_the_row_back(self):
        before = self.row()
        fit = self.post("/learn/cup", self.cup()).json()
        self.assertIn(fit["state"], ("told", "rate_only"))
        self.assertLess(abs(fit["rate"]["middle"] - 1.105), 0.06)
        self.assertEqual(self.row(), before)
        whole = self.post("/bottles/cups", self.cup()).json()
        learnt = self.row()
        self.assertLess(learnt.rate_spread_fraction, before.rate_spread_fraction)
        self.assertGreater(learnt.k1_per_s, before.k1_per_s)
        self.assertIn("k1_per_s", whole["numbers"])
        self.assertIn("cup of 60 g", learnt.derived)
        log = whole["logs"][0]
        self.assertEqual(len(log["log"]["curve"]["at_h"]), len(log["log"]["curve"]["fitted_c"]))
        self.client.delete(f"/api/bottle-logs/{log['id']}")
        self.assertEqual(self.row(), before)
        self.assertFalse(OwnRow.objects.filter(key="deep").exists())
        self.post(f"/bottle-logs/{log['id']}/restore")
        self.assertEqual(self.row(), learnt)

    def test_a_row_of_ones_own_is_put_back_as_it_was(self):
        own = self.row().model_copy(update={"working_min": 222.0})
        keep_row(owner=self.owner, kind="resin", body=own.model_dump(mode="json"), source="my label")
        whole = self.post("/bottles/cups", self.cup()).json()
        self.client.delete(f"/api/bottle-logs/{whole['logs'][0]['id']}")
        kept = OwnRow.objects.get(key="deep")
        self.assertEqual((kept.source, kept.body["working_min"]), ("my label", 222.0))

    def test_two_logs_tell_more_than_one_in_any_order(self):
        self.post("/bottles/cups", self.cup())
        one = self.row()
        whole = self.post("/bottles/cups", self.cup(log=cup_csv((0.08, -0.02)))).json()
        self.assertLess(self.row().rate_spread_fraction, one.rate_spread_fraction)
        self.client.delete(f"/api/bottle-logs/{whole['logs'][0]['id']}")
        self.assertAlmostEqual(self.row().rate_spread_fraction, one.rate_spread_fraction, delta=0.01)

    def test_a_wrong_resin_changes_nothing(self):
        answer = self.post("/bottles/cups", self.cup(log=cup_csv((1.2, 0.0))))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Nothing was changed", answer.json()["message"])
        self.assertFalse(OwnRow.objects.exists())

    def test_a_long_log_is_counted_by_its_reader_and_not_as_a_flood(self):
        answer = self.post("/learn/cup", self.cup(log="h,c,room\n" + "1,20,20\n" * 390_000))
        self.assertEqual(answer.status_code, 422)
        self.assertNotIn("values", answer.json()["message"])

    def test_bad_logs_are_refused_in_a_sentence(self):
        for text in ("hello", "a;b\n\n", "t,c\n" + '"x,1\n' * 30, "t,c\r1,2", "\x00" * 50, "1" * 5000):
            with self.subTest(text[:10]):
                answer = self.post("/learn/cup", self.cup(log=text))
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["message"].endswith("."))

    def test_nobody_elses(self):
        whole = self.post("/bottles/cups", self.cup()).json()
        self.client.force_login(User.objects.create_user("other"))
        self.assertEqual(self.client.delete(f"/api/bottle-logs/{whole['logs'][0]['id']}").status_code, 404)
        self.assertEqual(self.client.get("/api/bottles").json(), [])
        self.assertEqual(self.client.get("/api/bottles/resin/nothing").status_code, 404)

    def test_a_running_pour_narrows_the_next(self):
        run = self.begin()
        began = datetime.now(UTC) - timedelta(hours=12)
        Run.objects.update(started_at=began - timedelta(hours=1))
        model = Run.objects.get()
        bodies = [event("pouring", at=began, pour_id=self.first), event("poured", at=began, pour_id=self.first)]
        for minute in range(0, 700, 10):
            hours = minute / 60
            warm = round(float(22.0 + 9.0 * hours / 5 * np.exp(1 - hours / 5)), 1)
            at = began + timedelta(minutes=minute)
            bodies.append(event("measured", at=at, what="resin", pour_id=self.first, measured_c=warm))
        RunEvent.objects.bulk_create([
            RunEvent(run=model, number=at, event_id=body["id"], body=body) for at, body in enumerate(bodies, start=1)
        ])
        told = self.post(f"/runs/{run['run']['id']}/learn", {"pour_number": 1})
        self.assertEqual(told.status_code, 200, told.content)
        body = told.json()
        self.assertFalse(body["kept"])
        self.assertTrue(body["fit"]["words"])
        self.assertEqual(len(body["now"]), len(body["after"]))
        if body["fit"]["merges"]:
            width = [one["opens_high_h"] - one["opens_low_h"] for one in (body["now"][1], body["after"][1])]
            self.assertLess(width[1], width[0])
        self.assertEqual(self.post(f"/runs/{run['run']['id']}/learn", {"pour_number": 40}).status_code, 422)

    def test_a_rehearsal_teaches_nothing(self):
        run = self.begin(rehearsal=True)
        asked = {"pour_number": 1, "keep": True}
        self.assertEqual(self.post(f"/runs/{run['run']['id']}/learn", asked).status_code, 422)
        self.assertFalse(OwnRow.objects.exists())

    def test_swatch_and_drops_teach_an_ink(self):
        ink = next(one for one in load_library().colourants.values() if one.scatter_per_mm == 0)
        patches = [{"depth_mm": depth, "dose_drops_per_100g": 1.0, "srgb": colour}
                   for depth, colour in ((5.0, "#c8d0e0"), (15.0, "#8090c0"), (30.0, "#4058a0"))]
        read = {"patches": patches, "white_srgb": "#ededed", "grey_srgb": "#767676"}
        self.assertEqual(self.post("/learn/swatch", {"colourant_id": ink.id, "read": read}).status_code, 200)
        whole = self.post("/bottles/swatches", {"colourant_id": ink.id, "read": read}).json()
        weighed = {"drops_count": 20, "masses_g": [0.9, 0.88]}
        self.assertAlmostEqual(self.post("/learn/drops", weighed).json()["drop_g"], 0.0445, places=4)
        whole = self.post("/bottles/drops", {"colourant_id": ink.id, "weighed": weighed}).json()
        row = library_of(owner=self.owner).colourants[ink.id]
        self.assertAlmostEqual(row.drop_g, 0.0445, places=4)
        self.assertEqual(len(row.absorbances_per_cm), 31)
        self.assertEqual([one["kind"] for one in whole["logs"]], ["swatch", "drops"])

    def test_what_a_test_would_tell(self):
        document = json.loads(self.client.get(f"/api/scenes/{self.scene.pk}").content)["document"]
        told = self.post("/learn/tests", {"document": document, "resin_id": "deep"})
        self.assertEqual(told.status_code, 200, told.content)
        self.assertIn("would narrow", told.json()[0]["words"])

    def test_a_pour_that_was_mixed_wrong_teaches_by_its_row_mixed_so(self):
        used = as_mixed(self.row(), -0.1).model_copy(update={"id": "as-mixed-1"})
        again = actions._as_row(used.scaled(1.2, 0.9), self.row())
        self.assertEqual(again, used)
