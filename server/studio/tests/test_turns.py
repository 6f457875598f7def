import os
import threading
import time
from contextlib import contextmanager
from unittest import mock

from django.test import SimpleTestCase

from studio.turns import Busy, Turns, let_others_first


class TurnsOfPeople(SimpleTestCase):
    def setUp(self):
        self.turns = Turns()

    @contextmanager
    def held(self, person):
        """While a question of a person is computed."""
        entered, leave = threading.Event(), threading.Event()

        def long():
            with self.turns.of(person):
                entered.set()
                leave.wait(10)

        thread = threading.Thread(target=long)
        thread.start()
        self.assertTrue(entered.wait(10))
        try:
            yield
        finally:
            leave.set()
            thread.join()

    def test_one_person_waits_for_themselves_and_nobody_else_does(self):
        with self.held("ada"):
            with self.turns.of("bo", 0.1):
                pass
            with self.assertRaises(Busy), self.turns.of("ada", 0.05):
                self.fail("two questions of one person at once")
        with self.turns.of("ada", 0.1):
            pass
        self.assertEqual(self.turns._locks, {})

    def test_many_at_once_never_overlap(self):
        inside, most = [], []

        def ask():
            with self.turns.of("ada"):
                inside.append(1)
                most.append(len(inside))
                time.sleep(0.002)
                inside.pop()

        threads = [threading.Thread(target=ask) for _ in range(30)]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        self.assertEqual((max(most), len(most)), (1, 30))
        self.assertEqual(self.turns._locks, {})

    def test_who_has_gone_waits_no_longer(self):
        class Left(Exception):
            pass

        def told(_):
            raise Left

        with self.held("ada"), self.assertRaises(Left), self.turns.of("ada", 10.0, told):
            self.fail("two questions of one person at once")
        self.assertEqual(self.turns._locks, {})

    def test_who_asked_for_something_long_lets_others_first_for_a_while(self):
        with mock.patch("studio.turns.LONG_S", 0.05):
            with self.turns.of("ada"):
                time.sleep(0.06)
            with self.turns.of("bo"):
                pass
        self.assertEqual([self.turns.asks_long(one) for one in ("ada", "bo")], [True, False])
        with mock.patch("studio.turns.time.monotonic", return_value=time.monotonic() + 61.0):
            self.assertFalse(self.turns.asks_long("ada"))

    def test_a_thread_that_lets_others_first_is_lower_and_its_creator_is_not(self):
        levels = []

        def lower():
            let_others_first()
            levels.append(os.getpriority(os.PRIO_PROCESS, threading.get_native_id()))

        thread = threading.Thread(target=lower)
        thread.start()
        thread.join()
        here = os.getpriority(os.PRIO_PROCESS, threading.get_native_id())
        self.assertGreater(levels[0], here)
