import threading
import time

from django.test import SimpleTestCase

from studio.turns import Busy, Turns


class TurnsOfPeople(SimpleTestCase):
    def setUp(self):
        self.turns = Turns()

    def test_one_person_waits_for_themselves_and_nobody_else_does(self):
        entered, leave = threading.Event(), threading.Event()

        def long():
            with self.turns.of("ada"):
                entered.set()
                leave.wait(10)

        thread = threading.Thread(target=long)
        thread.start()
        self.assertTrue(entered.wait(10))
        with self.turns.of("bo", 0.1):
            pass
        with self.assertRaises(Busy), self.turns.of("ada", 0.05):
            self.fail("two questions of one person at once")
        leave.set()
        thread.join()
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

        entered, leave = threading.Event(), threading.Event()

        def long():
            with self.turns.of("ada"):
                entered.set()
                leave.wait(10)

        thread = threading.Thread(target=long)
        thread.start()
        self.assertTrue(entered.wait(10))
        with self.assertRaises(Left), self.turns.of("ada", 10.0, told):
            self.fail("two questions of one person at once")
        leave.set()
        thread.join()
        self.assertEqual(self.turns._locks, {})
