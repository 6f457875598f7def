"""Jobs through a real Redis and workers that know no database: a hundred of them, one worker killed."""

import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from unittest import mock, skipUnless

from django.contrib.auth.models import User
from django.test import TransactionTestCase

from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from jobs import actions, queue
from jobs.models import Job

JOBS = 100


def free_port():
    with socket.socket() as asked:
        asked.bind(("127.0.0.1", 0))
        return asked.getsockname()[1]


def small_scene(number):
    """A puddle that marches in a moment, with a wait of its own."""
    document = quarry_pool().model_dump(mode="json")
    document["tank"].update(inner_width_mm=40, inner_behind_mm=30, fill_height_mm=8, wall_height_mm=16)
    document["bed"]["heights_mm"] = [[0, 0], [0, 0]]
    document["figures"] = []
    document["pours"] = [document["pours"][-1] | {"wait_h": 0.0, "mix_c": 20 + number / 50}]
    return scene_from(document)


@skipUnless(shutil.which("redis-server"), "needs redis-server from Debian's packages")
class ThroughRedis(TransactionTestCase):
    def setUp(self):
        folder = tempfile.mkdtemp()
        self.addCleanup(shutil.rmtree, folder, ignore_errors=True)
        port = free_port()
        self.url = f"redis://127.0.0.1:{port}/0"
        redis = subprocess.Popen(
            ["redis-server", "--port", str(port), "--bind", "127.0.0.1", "--dir", folder, "--save", "",
             "--appendonly", "no"], stdout=subprocess.DEVNULL,
        )
        self.addCleanup(self.end, redis)
        remote = queue.huey_from({"GONDOLA_REDIS_URL": self.url})
        for _ in range(100):
            try:
                remote.storage.conn.ping()
                break
            except Exception:
                time.sleep(0.05)
        for name, other in (("huey", remote), ("work", remote.task()(queue.work.func))):
            there = mock.patch.object(actions, name, other)
            there.start()
            self.addCleanup(there.stop)
        self.redis = remote.storage.conn
        self.owner = User.objects.create_user("owner")

    def end(self, process, how=signal.SIGTERM):
        if process.poll() is None:
            process.send_signal(how)
            process.wait(10)

    def worker(self):
        environment = {key: value for key, value in os.environ.items() if not key.startswith(("DJANGO", "GONDOLA"))}
        process = subprocess.Popen(
            [sys.executable, "-m", "gondola_core", "worker"], env=environment | {"GONDOLA_REDIS_URL": self.url},
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.end, process)
        return process

    def ask(self, number):
        return actions.start(owner=self.owner, kind="fine_march", document=small_scene(number))

    def keep_until(self, keeping, done, most_s):
        until = time.monotonic() + most_s
        while not done() and time.monotonic() < until:
            keeping.step()
            time.sleep(0.1)

    def count(self, state):
        return Job.objects.filter(state=state).count()

    def test_a_hundred_jobs_and_a_worker_killed_in_the_middle(self):
        workers = [self.worker(), self.worker()]
        with mock.patch.object(actions, "KEPT", 2 * JOBS), mock.patch.object(actions, "SILENT_FOR", 4.0):
            for number in range(JOBS):
                self.ask(number)
            keeping = actions.Keeping()
            self.keep_until(keeping, lambda: self.count("done") >= JOBS // 4, 120)
            self.end(workers[0], signal.SIGKILL)
            self.keep_until(keeping, lambda: self.count("done") == JOBS, 180)
        self.assertEqual(self.count("done"), JOBS)
        self.assertIsNone(workers[1].poll())
        for job in Job.objects.all():
            self.assertIn(b'"grade":"fine"', actions.result_of(job))
        lost = sum(job.attempt for job in Job.objects.all())
        self.assertLessEqual(lost, 2)
        leases = [key for key in self.redis.hkeys("huey.results.gondola") if key.startswith(b"lease-")]
        self.assertEqual(len(leases), JOBS + lost)

    def test_cancel_reaches_a_worker_on_another_machine_within_a_second(self):
        self.worker()
        job = actions.start(owner=self.owner, kind="fine_march", document=quarry_pool())
        until = time.monotonic() + 60
        while actions.refresh(job).progress_fraction < 0.02 and time.monotonic() < until:
            time.sleep(0.02)
        asked = time.monotonic()
        actions.cancel(job)
        while not actions.refresh(job).is_over and time.monotonic() < asked + 10:
            time.sleep(0.02)
        self.assertEqual(job.state, "cancelled")
        self.assertLess(time.monotonic() - asked, 1.0)
