"""Rehearsals: bad luck from a seed, and what it would have come to."""

import unittest
from datetime import UTC

from told import poured, told

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.bench.events import read_events
from gondola_core.bench.mixing import mass_ratio
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.studies.rehearsal import COUNT, debrief, mishaps_of
from gondola_core.words import METRIC

SCENE = quarry_pool()
STEPS_NOW = Book(SCENE).ask(STEPS)
FIRST, SECOND = SCENE.pours[0], SCENE.pours[1]


def all_mishaps():
    return {one.id: one for seed in range(40) for one in mishaps_of(SCENE, STEPS_NOW, seed)}


class Luck(unittest.TestCase):
    def test_three_strike_the_same_from_the_same_seed(self):
        for name, make in SAMPLES.items():
            scene = make()
            steps = Book(scene).ask(STEPS)
            ids = {one.id for one in steps}
            for seed in (1, 7, 23):
                with self.subTest(name, seed=seed):
                    found = mishaps_of(scene, steps, seed)
                    self.assertEqual(len(found), COUNT)
                    self.assertEqual([one.id for one in found], [one.id for one in mishaps_of(scene, steps, seed)])
                    self.assertTrue({one.step_id for one in found} <= ids)

    def test_every_mishap_comes_some_day_and_its_events_can_be_taken_in(self):
        found = all_mishaps()
        self.assertEqual(set(found), {"too_much_a", "phone", "leak", "floats", "cold", "overslept"})
        for one in found.values():
            for choice in one.choices:
                with self.subTest(one.id, choice=choice.id):
                    self.assertGreater(len(choice.words.said(METRIC)), 3)
                    read_events([
                        {"id": f"mishap-{at:04d}", "at": "2027-03-05T09:00:00Z", **fields}
                        for at, (_, fields) in enumerate(choice.events)
                    ])


class Debriefed(unittest.TestCase):
    def said(self, mishap, choice, *events):
        one = all_mishaps()[mishap]
        struck = told((0.5, "struck", {"mishap": mishap, "choice": choice}))
        found = debrief(SCENE, [one], [*struck, *events], UTC)
        return tuple(" ".join(words.said(METRIC) for words in part) for part in (found.did, found.would, found.better))

    def test_what_was_let_go_is_told_with_what_it_leaves(self):
        ratio = mass_ratio(SCENE.resin_of(FIRST))
        rows = [(1.0, "went on so", "too much A"), (1.12, "put right", "as planned")]
        for share_b, did, would in rows:
            with self.subTest(did):
                events = poured(FIRST.id, 0.0, a=112.0, b=100 * ratio * share_b)
                told_now = self.said("too_much_a", "look", *events)
                self.assertIn(did, told_now[0])
                self.assertIn(would, told_now[1])
                self.assertIn("Let B follow", told_now[2])

    def test_a_cold_room_is_waited_for_or_not(self):
        cold = told(*((hour, "measured", {"what": "room", "measured_c": 15.0}) for hour in range(30)))
        for hours, did in ((24.0, "before the one below"), (60.0, "you waited")):
            with self.subTest(hours=hours):
                events = [*poured(FIRST.id, 0.0), *poured(SECOND.id, hours), *cold]
                found = self.said("cold", "see", *events)
                self.assertIn(did, found[0])
                if hours < 30:
                    self.assertIn("stop", found[1])

    def test_a_figure_that_was_taken_out_is_missed(self):
        name = SCENE.figures[0]
        out = told((0.6, "placed", {"figure_id": name.id, "left_out": True}))
        self.assertIn("would not be in it", self.said("floats", "out", *out)[1])

    def test_nothing_met_is_said_so(self):
        found = debrief(SCENE, [], [], UTC)
        self.assertIn("Nothing went wrong", found.did[0].said(METRIC))
        self.assertIn("as planned", found.would[0].said(METRIC))
        self.assertEqual(found.better, [])

    def test_a_leak_left_alone_and_a_figure_taken_out_are_told(self):
        for mishap, choice, words in (
            ("leak", "leave", "stayed 2 mm low"), ("floats", "out", "was taken out"),
            ("phone", "take", "35 min went by"), ("overslept", "see", "a face that was dry"),
        ):
            with self.subTest(mishap):
                self.assertIn(words, self.said(mishap, choice)[0])


if __name__ == "__main__":
    unittest.main()
