"""The whole demo as a person starts it: served, stopped in the middle of a job, started again."""

from __future__ import annotations

import time
import unittest

from django.test import tag

from e2e.served import ServedDemo


class Demo(ServedDemo):
    def events(self, job: object) -> str:
        """The stream of a job that is over: one event, then its end."""
        with self.web.open(f"{self.address}/api/jobs/{job}/events", timeout=30) as stream:
            return str(stream.read().decode())

    @tag("long")
    def test_signs_its_owner_in_and_a_restart_loses_no_job(self) -> None:
        demo = self.start()
        self.assertEqual(self.ask("/api/session"), {"name": "demo", "demo": True, "owner": True})
        self.assertEqual({row["name"] for row in self.ask("/api/scenes")},
                         {"Wagon in the Quarry Pool", "Eelgrass and Seahorse", "The Ferry Landing"})
        scene = self.ask("/api/scenes/1")["document"]
        run = self.ask("/api/jobs/fine-march", {"scene": scene})
        self.assertIn(run["state"], ("waiting", "running"))
        self.assertEqual(self.stop(demo), 0)
        again = self.start()
        for _ in range(240):
            state = self.ask(f"/api/jobs/{run['id']}")
            if state["state"] not in ("waiting", "running"):
                break
            time.sleep(0.5)
        self.assertEqual(state["state"], "done")
        outcome = self.ask(f"/api/jobs/{run['id']}/fine-march")
        self.assertEqual(outcome["grade"], "fine")
        self.assertIn('"state": "done"', self.events(run["id"]))
        self.assertEqual(self.stop(again), 0)


if __name__ == "__main__":
    unittest.main()
