"""The clock of the server's machine jumps in the middle of a run: nothing that was taken in is lost or told late."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from unittest import mock

from bench import actions
from bench.models import Run
from bench.tests.test_runs import RunCase, event


@contextmanager
def clock_off(by: timedelta) -> Iterator[None]:
    """The server's clock shows another time."""

    class Off(datetime):
        @classmethod
        def now(cls, tz=None):
            return datetime.now(tz) + by

    with mock.patch.object(actions, "datetime", Off):
        yield


class Jumps(RunCase):
    def test_back_and_forth_nothing_is_lost(self):
        for name, by in (("an hour back", -timedelta(hours=1)), ("a day on", timedelta(days=1)),
                         ("a year on", timedelta(days=365)), ("to 1970", datetime(1970, 1, 1, tzinfo=UTC)
                                                              - datetime.now(UTC))):
            with self.subTest(name):
                run = self.begin()
                key = run["run"]["id"]
                self.assertEqual(self.tell(run, event("noted", text="before")).json()["number"], 1)
                meanwhile = event("noted", text="meanwhile")
                with clock_off(by):
                    for path in ("", "/now", "/happened", "/next"):
                        self.assertEqual(self.client.get(f"/api/runs/{key}{path}").status_code, 200, path)
                    answer = self.tell(run, meanwhile)
                    if by < timedelta(0):
                        self.assertContains(answer, "clock is ahead of the server", status_code=422)
                # a device sends again what was not taken in
                self.assertEqual(self.tell(run, meanwhile).json()["number"], 2)
                told = actions.events_of(Run.objects.get(pk=key))
                self.assertEqual([one.text for one in told], ["before", "meanwhile"])
                late = [abs((one.at - datetime.now(UTC)).total_seconds()) for one in told]
                self.assertLess(max(late), 60)
                self.assertEqual(self.client.get(f"/api/runs/{key}/now").status_code, 200)
