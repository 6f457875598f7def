import json
from unittest import mock

from django.test import TransactionTestCase

from gondola_core.errors import GondolaError
from scenes import actions, tasks
from scenes.models import FineRun

from .scene_case import SceneCase


class Runs(SceneCase):
    def start(self):
        with self.captureOnCommitCallbacks(execute=True):
            return self.send("post", self.url("/fine-runs"), {})

    def test_a_run_goes_through_the_queue_and_leaves_its_outcome(self):
        run = self.start().json()
        state = self.client.get(f"/api/fine-runs/{run['id']}").json()
        self.assertEqual((state["state"], state["progress_fraction"]), ("done", 1.0))
        outcome = self.client.get(f"/api/fine-runs/{run['id']}/outcome").json()
        self.assertEqual(outcome["grade"], "fine")
        self.assertEqual(len(outcome["pours"]), 4)

    def test_the_same_revision_is_not_marched_twice(self):
        first = self.start().json()["id"]
        with mock.patch.object(tasks, "evaluate", side_effect=AssertionError("marched again")):
            self.assertEqual(self.start().json()["id"], first)

    def test_progress_is_told_while_it_runs(self):
        seen = []

        def slow(_scene, _grade, progress, meshes):
            for share in (0.25, 0.5):
                progress(share)
                seen.append(FineRun.objects.get().progress_fraction)
            raise GondolaError("no more")

        with mock.patch.object(tasks, "evaluate", slow), mock.patch.object(tasks, "TELL_EVERY", 0):
            self.start()
        self.assertEqual(seen, [0.25, 0.5])
        run = FineRun.objects.get()
        self.assertEqual((run.state, run.message), ("failed", "no more"))

    def test_a_fault_of_our_own_is_said_without_a_traceback(self):
        with (
            mock.patch.object(tasks, "evaluate", side_effect=ZeroDivisionError),
            self.assertLogs("scenes.tasks", "ERROR"),
        ):
            self.start()
        self.assertIn("fault of Gondola's own", FineRun.objects.get().message)
        self.assertEqual(
            self.client.get(f"/api/fine-runs/{FineRun.objects.get().pk}/outcome").status_code, 404
        )

    def test_somebody_elses_run_is_not_there(self):
        run = self.start().json()
        self.client.force_login(self.other)
        self.assertEqual(self.client.get(f"/api/fine-runs/{run['id']}").status_code, 404)


class AfterARestart(TransactionTestCase):
    def test_waiting_and_half_done_runs_are_taken_up_and_done_ones_left(self):
        from django.contrib.auth.models import User

        from gondola_core.samples import quarry_pool

        owner = User.objects.create_user("owner")
        scene = actions.create_scene(owner=owner, document=quarry_pool())
        head = actions.head_of(scene)
        states = ("waiting", "running", "done", "failed")
        made = [FineRun.objects.create(revision=head, state=state) for state in states]
        with mock.patch.object(tasks, "evaluate") as marched, mock.patch.object(
            tasks, "outcome_json", return_value=json.dumps({}).encode()
        ):
            self.assertEqual(tasks.resume_runs(), 2)
        self.assertEqual(marched.call_count, 2)
        self.assertEqual(
            [FineRun.objects.get(pk=run.pk).state for run in made],
            ["done", "done", "done", "failed"],
        )
