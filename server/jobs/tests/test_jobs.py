"""Jobs as the page asks for them, and what becomes of those whose worker was lost."""

import asyncio
import dataclasses
import functools
import json
import threading
import time
import zlib
from unittest import mock

from django.contrib.auth.models import User
from django.test import AsyncClient, TransactionTestCase
from scenes.tests.scene_case import SceneCase

from gondola_core.errors import GondolaError
from gondola_core.samples import ferry_landing, quarry_pool
from gondola_core.studies.front import front_for
from jobs import actions, kinds, queue
from jobs.models import Job
from jobs.queue import Ended, Store, Telling, huey


def quick(_scene, parameters, told):
    """A study that tells and is done."""
    told(0.5)
    return json.dumps(parameters).encode()


def one_kind(study):
    of = dataclasses.replace(kinds.KINDS["fine_march"], study=study)
    return mock.patch.dict(kinds.KINDS, {"fine_march": of})


class Asked(SceneCase):
    def ask(self, path="fine-march", body=None):
        with self.captureOnCommitCallbacks(execute=True):
            return self.send("post", f"/api/jobs/{path}", body or {"scene": self.document()})

    def state(self, job):
        return self.client.get(f"/api/jobs/{job['id']}").json()

    def test_a_fine_march_leaves_its_outcome(self):
        job = self.ask().json()
        self.assertEqual((self.state(job)["state"], self.state(job)["progress_fraction"]), ("done", 1.0))
        outcome = self.client.get(f"/api/jobs/{job['id']}/fine-march").json()
        self.assertEqual((outcome["grade"], len(outcome["pours"])), ("fine", 4))
        self.assertEqual(self.client.get(f"/api/jobs/{job['id']}/stagings").status_code, 404)

    def test_stagings_of_the_ferry(self):
        body = {"scene": ferry_landing().model_dump(mode="json"), "resin_id": "deep", "rooms_c": [23]}
        job = self.ask("stagings", body).json()
        here, wide = self.client.get(f"/api/jobs/{job['id']}/stagings").json()
        self.assertTrue(here["clear"])
        self.assertGreaterEqual(wide["pours_count"], here["pours_count"])
        refused = self.ask("stagings", body | {"resin_id": "honey"}).json()
        self.assertIn("does not hold the resin 'honey'", self.state(refused)["message"])

    def test_chances_are_the_same_for_a_seed(self):
        body = {"scene": self.document(), "draws_count": 16, "seed": 7}
        job = self.ask("chances", body).json()
        told = self.client.get(f"/api/jobs/{job['id']}/chances").json()
        self.assertEqual((told["draws_count"], len(told["pours"])), (16, 4))
        self.assertTrue(all(0 < one["chance_fraction"] <= 1 for one in told["troubles"]))
        again = self.ask("chances", body | {"seed": 7}).json()
        self.assertEqual(self.client.get(f"/api/jobs/{again['id']}/chances").json(), told)
        refused = self.ask("chances", body | {"draws_count": 100}).json()
        self.assertIn("power of two", self.state(refused)["message"])

    def test_plans_are_found_by_the_queue(self):
        few = functools.partial(front_for, count=12)
        with mock.patch.object(kinds, "front_for", few):
            body = {"scene": self.document(), "resin_ids": ["deep"], "matters": ["surest"]}
            job = self.ask("plans", body).json()
            told = self.client.get(f"/api/jobs/{job['id']}/plans").json()
        self.assertEqual(told["plans_count"], 12)
        self.assertEqual((told["plans"][0]["key"], told["plans"][-1]["key"]), ("own", "one_deep"))
        self.assertEqual(self.ask("plans", body | {"matters": ["luck"]}).status_code, 422)

    def test_a_room_that_is_refused_is_said_in_the_units_of_the_brief(self):
        scene = self.document(brief__units={"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"})
        job = self.ask("stagings", {"scene": scene, "resin_id": "deep", "rooms_c": [90]}).json()
        self.assertIn("from 50 to 104 °F; this says 194", self.state(job)["message"])

    def test_the_same_question_is_not_worked_twice(self):
        with one_kind(quick):
            first = self.ask().json()["id"]
        with one_kind(mock.Mock(side_effect=AssertionError("worked again"))):
            self.assertEqual(self.ask().json()["id"], first)
        with one_kind(quick):
            self.assertNotEqual(self.ask(body={"scene": self.document(pours__1__wait_h=27)}).json()["id"], first)

    def test_a_fault_of_our_own_is_said_without_a_traceback_and_can_be_asked_again(self):
        with one_kind(mock.Mock(side_effect=ZeroDivisionError)), self.assertLogs("jobs.queue", "ERROR"):
            job = self.ask().json()
        self.assertEqual(self.state(job)["state"], "failed")
        self.assertIn("fault of Gondola's own", self.state(job)["message"])
        self.assertEqual(self.client.get(f"/api/jobs/{job['id']}/fine-march").status_code, 404)
        with one_kind(quick):
            self.assertNotEqual(self.ask().json()["id"], job["id"])

    def test_a_refusal_of_the_core_is_its_message(self):
        with one_kind(mock.Mock(side_effect=GondolaError("no more"))):
            self.assertEqual(self.state(self.ask().json())["message"], "no more")

    def test_somebody_elses_job_is_not_there(self):
        with one_kind(quick):
            job = self.ask().json()
        self.client.force_login(self.other)
        for tail in ("", "/events", "/fine-march", "/stagings"):
            with self.subTest(tail):
                self.assertEqual(self.client.get(f"/api/jobs/{job['id']}{tail}").status_code, 404)
        self.assertEqual(self.send("post", f"/api/jobs/{job['id']}/cancel", {}).status_code, 404)

    def test_only_the_latest_are_kept(self):
        with one_kind(quick), mock.patch.object(actions, "KEPT", 2):
            for wait in (26, 27, 28, 29, 30):
                self.state(self.ask(body={"scene": self.document(pours__1__wait_h=wait)}).json())
        self.assertLessEqual(Job.objects.count(), 4)


class InTheQueue(TransactionTestCase):
    """With the queue held back: attempts are worked by hand."""

    def setUp(self):
        self.owner = User.objects.create_user("owner")
        self.sent = []
        hold = mock.patch.object(actions, "work", lambda *words: self.sent.append(words))
        hold.start()
        self.addCleanup(hold.stop)
        self.store = Store(huey)

    def ask(self):
        return actions.start(owner=self.owner, kind="fine_march", document=quarry_pool())

    def work(self, words):
        return queue.work.call_local(*words)

    def test_progress_is_told_while_it_runs_and_cancel_ends_it_within_a_second(self):
        job, began, ended = self.ask(), threading.Event(), []

        def slow(_scene, _parameters, told):
            for step in range(1000):
                told(step / 1000)
                began.set()
                time.sleep(0.02)

        def run():
            self.work(self.sent[0])
            ended.append(time.monotonic())

        with one_kind(slow):
            thread = threading.Thread(target=run)
            thread.start()
            began.wait(5)
            time.sleep(0.3)
            self.assertEqual(actions.refresh(job).state, "running")
            self.assertGreater(job.progress_fraction, 0)
            asked = time.monotonic()
            actions.cancel(job)
            thread.join(5)
        self.assertLess(ended[0] - asked, 1.0)
        self.assertEqual(actions.refresh(job).state, "cancelled")

    def test_cancel_before_anybody_takes_it_is_at_once_and_nobody_works_it(self):
        job = self.ask()
        self.assertEqual(actions.cancel(job).state, "cancelled")
        with one_kind(mock.Mock(side_effect=AssertionError("worked"))):
            self.work(self.sent[0])

    def test_a_second_consumer_repeated_live_work(self):
        self.ask()
        count = mock.Mock(return_value=b"{}")
        with one_kind(count):
            self.work(self.sent[0])
            self.work(self.sent[0])
        self.assertEqual(count.call_count, 1)

    def test_a_job_whose_worker_is_silent_is_taken_up_and_the_lost_one_ends(self):
        job, keeping = self.ask(), actions.Keeping()
        self.assertTrue(self.store.take(str(job.pk), 0))
        with mock.patch.object(actions, "SILENT_FOR", 0.05):
            keeping.step()
            time.sleep(0.1)
            self.store.beat(str(job.pk), 0)
            keeping.step()
            self.assertEqual(len(self.sent), 1)
            time.sleep(0.1)
            keeping.step()
        self.assertEqual([words[1] for words in self.sent], [0, 1])
        with one_kind(quick):
            self.work(self.sent[1])
        with self.assertRaises(Ended):
            Telling(self.store, str(job.pk), 0)(0.9)
        self.assertFalse(self.store.finish(str(job.pk), {"state": "failed"}))
        keeping.step()
        job.refresh_from_db()
        self.assertEqual((job.state, job.attempt), ("done", 1))

    def test_what_the_queue_forgot_is_sent_again(self):
        self.ask()
        keeping = actions.Keeping()
        with mock.patch.object(actions, "SILENT_FOR", 0.05):
            keeping.step()
            time.sleep(0.1)
            keeping.step()
        self.assertEqual([words[1] for words in self.sent], [0, 0])

    def test_a_job_that_kills_its_workers_is_not_tried_for_ever(self):
        job = self.ask()
        for attempt in range(actions.MOST_ATTEMPTS):
            self.store.take(str(job.pk), attempt)
            actions.take_up(job)
        self.assertEqual(job.state, "failed")
        self.assertIn("Workers were lost on this 3 times", job.message)


class Followed(TransactionTestCase):
    def test_a_hundred_streams_cost_no_thread(self):
        owner = User.objects.create_user("owner")
        with mock.patch.object(actions, "work"):
            job = actions.start(owner=owner, kind="fine_march", document=quarry_pool())
        client = AsyncClient()
        client.force_login(owner)
        before = threading.active_count()

        async def listen():
            answer = await client.get(f"/api/jobs/{job.pk}/events")
            return [part.decode() async for part in answer.streaming_content]

        async def all_of_them():
            listeners = [asyncio.create_task(listen()) for _ in range(100)]
            await asyncio.sleep(1.0)
            threads = threading.active_count()
            Store(huey).tell(str(job.pk), 0.25, "")
            await asyncio.sleep(0.6)
            Store(huey).finish(str(job.pk), {"state": "failed", "message": "over"})
            return threads, await asyncio.gather(*listeners)

        threads, heard = asyncio.run(all_of_them())
        self.assertLess(threads - before, 10)
        for parts in heard:
            states = [json.loads(part.removeprefix("data: ")) for part in parts if part.startswith("data")]
            self.assertEqual([one["state"] for one in states][-1], "failed")
            self.assertIn(0.25, [one["progress_fraction"] for one in states])

    def test_the_payload_stands_alone(self):
        owner = User.objects.create_user("owner")
        sent = []
        with mock.patch.object(actions, "work", lambda *words: sent.append(words)):
            actions.start(owner=owner, kind="fine_march", document=quarry_pool())
        _, _, kind, document, parameters = sent[0]
        self.assertEqual((kind, parameters), ("fine_march", {}))
        self.assertEqual(json.loads(document)["name"], quarry_pool().name)
        self.assertTrue(zlib.decompress(Job.objects.get().document))
