"""Runs over HTTP: events taken in once, undone and kept, planned anew, nobody else's."""

from __future__ import annotations

import json
import uuid
from datetime import UTC, datetime, timedelta
from unittest import mock

from django.contrib.auth.models import User
from django.test import TestCase
from scenes.actions import create_scene, state_of
from scenes.tests.unlocked import nothing_computed_while_writing, nothing_marched_out_of_turn

from bench import actions, remembered
from bench.models import Run, RunEvent
from gondola_core.bench.events import kept_events
from gondola_core.bench.mixing import mass_ratio
from gondola_core.samples import quarry_pool


def event(kind, at=None, **fields):
    moment = at or datetime.now(UTC)
    return {"id": str(uuid.uuid4()), "at": moment.isoformat(), "kind": kind, **fields}


class RunCase(TestCase):
    def setUp(self):
        self.enterContext(nothing_computed_while_writing())
        self.enterContext(nothing_marched_out_of_turn())
        self.owner = User.objects.create_user("owner")
        self.client.force_login(self.owner)
        self.scene = create_scene(owner=self.owner, document=quarry_pool())
        self.first, self.second = (pour.id for pour in quarry_pool().pours[:2])

    def post(self, path, body=None, **more):
        return self.client.post(f"/api{path}", json.dumps(body or {}), content_type="application/json", **more)

    def begin(self, **more):
        answer = self.post(f"/scenes/{self.scene.pk}/runs", {"zone": "Europe/Oslo", **more})
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def tell(self, run, *events):
        return self.post(f"/runs/{run['run']['id']}/events", {"events": list(events)})


class Runs(RunCase):
    def test_the_newest_is_the_first_in_the_list(self):
        # a count in a query drops the order that its model names
        now = datetime.now(UTC)
        for hours in (3, 1, 5, 2, 4):
            Run.objects.create(owner=self.owner, scene=self.scene, packed=b"", started_at=now - timedelta(hours=hours))
        told = [one["started_at"] for one in self.client.get(f"/api/scenes/{self.scene.pk}/runs").json()]
        self.assertEqual(told, sorted(told, reverse=True))

    def test_it_begins_with_its_first_step_and_goes_on_with_what_is_done(self):
        run = self.begin()
        steps = [one["id"] for one in run["steps"]]
        self.assertEqual(run["run"]["state"]["current"], steps[0])
        told = self.tell(run, event("done", step_id=steps[0])).json()
        self.assertEqual(told["state"]["current"], steps[1])
        self.assertEqual(told["number"], 1)
        again = self.client.get(f"/api/runs/{run['run']['id']}").json()["run"]
        self.assertEqual(again["state"]["current"], steps[1])

    def test_an_event_that_comes_twice_is_taken_once(self):
        run, one = self.begin(), event("noted", text="dust on the bed")
        for _ in range(3):
            self.assertEqual(self.tell(run, one, one).json()["number"], 1)
        self.assertEqual(RunEvent.objects.count(), 1)

    def test_what_is_undone_stays(self):
        run = self.begin()
        step = run["steps"][0]["id"]
        done = event("done", step_id=step)
        self.tell(run, done)
        told = self.tell(run, event("undone", event_id=done["id"])).json()
        self.assertEqual(told["state"]["current"], step)
        self.assertEqual([one["kind"] for one in told["events"]], ["done", "undone"])

    def test_bad_events_are_refused_in_a_sentence_and_none_is_taken(self):
        run = self.begin()
        good = event("noted", text="fine")
        later = datetime.now(UTC) + timedelta(hours=1)
        rows = [
            (event("weighed", pour_id=self.first, cup=1, part="a", mass_g=1e9), "mass_g"),
            (event("weighed", pour_id=self.first, cup=1, part="c", mass_g=1.0), "part"),
            (event("exploded"), ""), ({"kind": "done"}, "id"), (event("done", at=later), "at"),
        ]
        for bad, field in rows:
            with self.subTest(field=field, bad=bad):
                answer = self.tell(run, good, bad)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(field, answer.json()["problems"][0]["field"])
                self.assertGreater(len(answer.json()["message"]), 10)
        self.assertEqual(RunEvent.objects.count(), 0)

    def test_what_was_entered_without_knowing_of_the_end_is_taken_in(self):
        run = self.begin()
        self.post(f"/runs/{run['run']['id']}/end")
        Run.objects.filter(pk=run["run"]["id"]).update(ended_at=datetime.now(UTC) - timedelta(minutes=30))
        Run.objects.filter(pk=run["run"]["id"]).update(started_at=datetime.now(UTC) - timedelta(hours=1))
        late = event("noted", at=datetime.now(UTC) - timedelta(minutes=5), text="the cup was warm")
        self.assertEqual(self.tell(run, late).json()["number"], 1)

    def test_moments_out_of_all_bounds_are_refused_and_the_run_goes_on(self):
        run = self.begin(rehearsal=True, seed=2)
        key = run["run"]["id"]
        for at in ("0001-01-01T00:00:00+00:00", "9999-12-31T23:59:59+00:00"):
            with self.subTest(event=at):
                self.assertEqual(self.tell(run, {**event("noted", text="x"), "at": at}).status_code, 422)
        for until in ("9999-12-31T23:59:59+00:00", "2027-03-05T09:00:00"):
            with self.subTest(until=until):
                self.assertEqual(self.post(f"/runs/{key}/ahead", {"until": until}).status_code, 422)
        self.assertEqual(self.client.get(f"/api/runs/{key}/now").status_code, 200)

    def test_it_is_nobody_elses(self):
        run = self.begin()["run"]["id"]
        self.client.force_login(User.objects.create_user("other"))
        for path in ("", "/now", "/happened", "/next", "/watch?pour_number=1"):
            with self.subTest(path):
                self.assertEqual(self.client.get(f"/api/runs/{run}{path}").status_code, 404)
        for path, body in (
            ("/events", {"events": []}), ("/end", {}), ("/next", {"way": "planned"}), ("/reopen", {}),
            ("/ahead", {"until": datetime.now(UTC).isoformat()}),
        ):
            with self.subTest(path):
                self.assertEqual(self.post(f"/runs/{run}{path}", body).status_code, 404)

    def test_a_zone_that_is_none_is_refused(self):
        answer = self.post(f"/scenes/{self.scene.pk}/runs", {"zone": "Mars/Crater"})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("no time zone", answer.json()["message"])

    def test_its_clock_is_the_servers_and_only_a_rehearsal_may_skip(self):
        run = self.begin()["run"]
        until = (datetime.now(UTC) + timedelta(hours=20)).isoformat()
        self.assertEqual(self.post(f"/runs/{run['id']}/ahead", {"until": until}).status_code, 422)
        rehearsal = self.begin(rehearsal=True, seed=7)["run"]
        told = self.post(f"/runs/{rehearsal['id']}/ahead", {"until": until}).json()
        self.assertGreaterEqual(datetime.fromisoformat(told["now"]), datetime.fromisoformat(until))

    def test_an_ended_run_stands_still_and_can_be_taken_up_again(self):
        run = self.begin()["run"]["id"]
        over = self.post(f"/runs/{run}/end").json()
        self.assertEqual(self.client.get(f"/api/runs/{run}/now").json()["now"], over["now"])
        self.assertIsNone(self.post(f"/runs/{run}/reopen").json()["ended_at"])


class Remembering(RunCase):
    def setUp(self):
        super().setUp()
        # tests are transactions, in which nothing is remembered
        self.enterContext(mock.patch.object(remembered, "_is_settled", lambda: True))
        self.kept = remembered.Remembered()

    def noted(self, run, count):
        self.tell(run, *(event("noted", text=f"note {at}") for at in range(count)))
        return Run.objects.get(pk=run["run"]["id"])

    def test_only_new_events_are_read_again(self):
        run = self.begin()
        for count, asked in ((3, 3), (0, 0), (2, 2)):
            with self.subTest(count), mock.patch.object(remembered, "kept_events", wraps=kept_events) as read:
                kept = self.noted(run, count)
                told = self.kept.of(kept)
                self.assertEqual(len(read.call_args.args[0]), asked)
                self.assertEqual(told, remembered.Remembered().of(kept))

    def test_no_more_are_remembered_than_there_is_room_for(self):
        with mock.patch.object(remembered, "MOST", 5):
            first, second = (self.noted(self.begin(), count) for count in (4, 3))
            for one in (first, second, second):
                self.kept.of(one)
            with mock.patch.object(remembered, "kept_events", wraps=kept_events) as read:
                self.assertEqual((len(self.kept.of(second)), len(self.kept.of(first))), (3, 4))
            self.assertEqual([len(one.args[0]) for one in read.call_args_list], [0, 4])

    def test_what_a_transaction_may_take_back_is_not_remembered(self):
        run = self.noted(self.begin(), 2)
        with mock.patch.object(remembered, "_is_settled", lambda: False):
            self.kept.of(run)
        run.events.filter(number=2).delete()
        self.assertEqual(len(self.kept.of(run)), 1)


class Happening(RunCase):
    def poured(self, hours_ago=1.0, pour_id=None, a=100.0, error=0.0):
        pour_id = pour_id or self.first
        began = datetime.now(UTC) - timedelta(hours=hours_ago)
        ratio = mass_ratio(quarry_pool().resin_of(quarry_pool().pours[0]))
        return [
            event("weighed", began, pour_id=pour_id, cup=1, part="a", mass_g=a),
            event("weighed", began, pour_id=pour_id, cup=1, part="b", mass_g=a * ratio * (1 + error)),
            event("met", began, pour_id=pour_id, cup=1), event("pouring", began, pour_id=pour_id),
            event("poured", began, pour_id=pour_id),
        ]

    def test_as_planned_and_as_it_happened_can_both_be_asked_of(self):
        run = self.begin()
        self.tell(run, *self.poured(error=-0.06))
        both = self.client.get(f"/api/runs/{run['run']['id']}/happened").json()
        codes = {}
        for name in ("planned", "happened"):
            outcome = self.client.post("/api/evaluate", json.dumps(both[name]), content_type="application/json")
            codes[name] = {one["code"] for one in outcome.json()["flags"]}
        self.assertNotIn("ratio_off", codes["planned"])
        self.assertIn("ratio_off", codes["happened"])

    def test_the_next_pour_is_planned_anew_and_the_scene_follows(self):
        run = self.begin()["run"]["id"]
        self.assertIsNone(self.client.get(f"/api/runs/{run}/next").json()["replan"])
        self.tell({"run": {"id": run}}, *self.poured(hours_ago=80.0))
        found = self.client.get(f"/api/runs/{run}/next").json()["replan"]
        self.assertTrue(found["missed"])
        self.assertEqual(self.post(f"/runs/{run}/next", {"way": "planned"}).status_code, 422)
        self.assertEqual(self.post(f"/runs/{run}/next", {"way": "after_hard"}).status_code, 200)
        document = state_of(self.scene).document
        self.assertAlmostEqual(document.pours[1].wait_h, found["ways"][0]["wait_h"], delta=0.05)
        steps = [one["kind"] for one in self.client.get(f"/api/runs/{run}").json()["steps"]]
        self.assertIn("abrade", steps)

    def test_a_way_is_not_taken_where_something_was_told_since_it_was_computed(self):
        run = self.begin()["run"]["id"]
        self.tell({"run": {"id": run}}, *self.poured(hours_ago=80.0))
        before = state_of(self.scene).document
        plain = actions.next_of

        def meanwhile(kept, events):
            found = plain(kept, events)
            actions.take(run=kept, bodies=[event("noted", text="from another device")])
            return found

        with mock.patch.object(actions, "next_of", meanwhile):
            answer = self.post(f"/runs/{run}/next", {"way": "after_hard"})
        self.assertContains(answer, "look again at what comes next", status_code=422)
        self.assertEqual(state_of(self.scene).document, before)

    def test_what_contradicts_itself_is_told_and_nothing_is_lost(self):
        run = self.begin()
        told = self.tell(
            run, *self.poured(hours_ago=1.0), *self.poured(hours_ago=5.0, pour_id=self.second)
        ).json()
        self.assertIn("begun before pour 1", told["trouble"])
        self.assertEqual(told["number"], 10)
        self.assertEqual(self.client.get(f"/api/runs/{run['run']['id']}/happened").status_code, 422)

    def test_a_pour_is_watched(self):
        run = self.begin()["run"]["id"]
        self.tell({"run": {"id": run}}, *self.poured(hours_ago=3.0))
        now = datetime.now(UTC)
        self.tell({"run": {"id": run}}, *(
            event("measured", now - timedelta(hours=hours), what="resin", pour_id=self.first, measured_c=95.0)
            for hours in (0.2, 0.1)
        ))
        watch = self.client.get(f"/api/runs/{run}/watch?pour_number=1").json()
        self.assertTrue(watch["verdict"]["stop"])
        self.assertEqual(len(watch["measured_c"]), 2)
        self.assertEqual(self.client.get(f"/api/runs/{run}/watch?pour_number=9").status_code, 422)

    def test_what_a_thermometer_says_by_itself_does_not_fill_every_answer(self):
        run = self.begin()
        kept = Run.objects.get(pk=run["run"]["id"])
        actions.take(run=kept, bodies=[
            event("measured", what="room", measured_c=21.0, device=actions.THERMOMETER) for _ in range(40)
        ])
        told = self.tell(run, event("noted", text="here")).json()
        self.assertEqual((told["number"], len(told["events"])), (41, 1))


class Rehearsing(RunCase):
    def test_what_befalls_it_is_met_once_and_talked_over(self):
        run = self.begin(rehearsal=True, seed=3)
        key = run["run"]["id"]
        self.assertEqual(len(run["mishaps"]), 3)
        for mishap in run["mishaps"]:
            choice = mishap["choices"][-1]["id"]
            with self.subTest(mishap["id"], choice=choice):
                before = self.post(f"/runs/{key}/mishap", {"mishap": mishap["id"], "choice": choice}).json()
                again = self.post(f"/runs/{key}/mishap", {"mishap": mishap["id"], "choice": choice}).json()
                self.assertEqual(again["number"], before["number"])
        self.assertEqual(self.post(f"/runs/{key}/mishap", {"mishap": "fire", "choice": "run"}).status_code, 422)
        told = self.client.get(f"/api/runs/{key}/debrief").json()
        self.assertEqual((len(told["did"]), len(told["better"])), (3, 3))

    def test_a_real_run_has_no_mishaps(self):
        run = self.begin()
        self.assertEqual(run["mishaps"], [])
        self.assertEqual(self.client.get(f"/api/runs/{run['run']['id']}/debrief").status_code, 422)

    def test_nothing_of_it_touches_the_plan(self):
        run = self.begin(rehearsal=True, seed=3)["run"]["id"]
        before = state_of(self.scene)
        self.post(f"/runs/{run}/mishap", {"mishap": "phone", "choice": "take"})
        self.post(f"/runs/{run}/end")
        self.assertEqual(state_of(self.scene), before)


class Steps(RunCase):
    def test_the_steps_of_a_scene_are_said_in_the_units_of_who_asks(self):
        document = quarry_pool().model_dump(mode="json")
        for units, unit in (("mm,c,ml,g", "°C"), ("in,f,floz,oz", "°F")):
            with self.subTest(units):
                steps = self.post("/bench/steps", document, headers={"Gondola-Units": units}).json()
                self.assertEqual(steps[0]["title"], "Warm the room")
                self.assertIn(unit, steps[0]["under"])
                self.assertEqual({one["pour_number"] for one in steps}, {0, 1, 2, 3, 4})


class Mixes(RunCase):
    def test_a_mix_is_scaled_to_an_area_or_an_amount(self):
        resin = quarry_pool().resins[0].model_dump(mode="json")
        names = {one["id"] for one in self.client.get("/api/recipes").json()}
        for recipe in names:
            with self.subTest(recipe):
                over = self.post("/recipes/scaled", {
                    "recipe_id": recipe, "resin": resin, "area_cm2": 200.0, "thickness_mm": 5.0,
                }).json()
                plain = self.post("/recipes/scaled", {"recipe_id": recipe, "resin": resin, "volume_ml": 100.0}).json()
                self.assertEqual(over, plain)
        for body, status in (({"recipe_id": "soup", "volume_ml": 10}, 404), ({"recipe_id": "thin_glue"}, 422)):
            with self.subTest(status=status):
                self.assertEqual(self.post("/recipes/scaled", {**body, "resin": resin}).status_code, status)
