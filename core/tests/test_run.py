"""Steps and events folded: what is next, what runs, what a cup still needs, what two devices did at once."""

import unittest
from datetime import timedelta

from changed import changed
from told import at, told

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.bench.mixing import mass_ratio
from gondola_core.bench.run import fold
from gondola_core.samples import quarry_pool

SCENE = quarry_pool()
STEPS_NOW = Book(SCENE).ask(STEPS)
FIRST = SCENE.pours[0]


def done(*ids, start=0.0):
    return told(*((start + n / 60, "done", {"step_id": key}) for n, key in enumerate(ids)))


def upto(step_id, steps=STEPS_NOW, start=-1.0):
    """Everything before a step is done."""
    ids = [one.id for one in steps]
    return done(*ids[: ids.index(step_id)], start=start)


class Folded(unittest.TestCase):
    def test_it_goes_through_every_step_in_order(self):
        events, seen = [], []
        for _ in STEPS_NOW:
            state = fold(SCENE, STEPS_NOW, events, at(1000.0))
            seen.append(state.current)
            events += done(state.current, start=len(seen))
        self.assertEqual(seen, [one.id for one in STEPS_NOW])
        self.assertEqual(fold(SCENE, STEPS_NOW, events, at(1000.0)).current, "")

    def test_a_step_that_was_undone_is_next_again(self):
        events = upto(f"{FIRST.id}:cup1:b")
        back = told((5.0, "undone", {"event_id": events[1].id}))
        self.assertEqual(fold(SCENE, STEPS_NOW, events + back, at(5)).current, STEPS_NOW[1].id)

    def test_stirring_runs_from_the_step_before_and_the_working_time_from_the_meeting(self):
        events = upto(f"{FIRST.id}:cup1:stir") + told((0.5, "met", {"pour_id": FIRST.id, "cup": 1}))
        state = fold(SCENE, STEPS_NOW, events, at(0.51))
        stir = next(one for one in STEPS_NOW if one.id == state.current)
        self.assertEqual(stir.kind, "stir")
        working, stirring = state.clocks
        self.assertEqual(working.from_at, at(0.5))
        self.assertEqual(stirring.until_at - stirring.from_at, timedelta(minutes=stir.clock_min))
        warm = told((0.6, "measured", {"what": "mix", "pour_id": FIRST.id, "measured_c": 32.0}))
        sooner = fold(SCENE, STEPS_NOW, events + warm, at(0.7)).clocks[0]
        self.assertLess(sooner.until_at, working.until_at)

    def test_what_comes_after_the_pour_waits_for_its_time(self):
        events = upto(f"{FIRST.id}:leaks") + told((0.0, "poured", {"pour_id": FIRST.id}))
        early, late = (fold(SCENE, STEPS_NOW, events, at(hours)) for hours in (0.05, 0.5))
        self.assertEqual((early.current, early.waits_until), (f"{FIRST.id}:leaks", at(10 / 60)))
        self.assertEqual(late.current, early.current)
        self.assertEqual(early.poured, [FIRST.id])

    def test_pieces_are_poured_in_turn_while_their_clocks_run(self):
        scene = changed(brief__pieces_count=2)
        steps = Book(scene).ask(STEPS)
        first, second = f"{FIRST.id}:pour:1", f"{FIRST.id}:pour:2"
        events = upto(first, steps)
        self.assertEqual(fold(scene, steps, events, at(0.1)).current, first)
        events += done(first, start=0.2) + told((0.2, "poured", {"pour_id": FIRST.id, "piece": 1}))
        after = [one for one in steps if one.chain == f"{FIRST.id}/1"][1]
        state = fold(scene, steps, events, at(0.21))
        if after.clock_min:
            self.assertEqual(state.current, second)
            events += done(second, start=0.25) + told((0.25, "poured", {"pour_id": FIRST.id, "piece": 2}))
            state = fold(scene, steps, events, at(0.3))
            self.assertEqual(len([one for one in state.clocks if one.step_id]), 2)
            self.assertEqual(state.current, after.id)
        # no step of the next pour is offered while a piece still waits
        self.assertFalse(state.current.startswith(SCENE.pours[1].id))

    def test_b_is_asked_for_by_the_a_that_is_really_there(self):
        ratio = mass_ratio(SCENE.resin_of(FIRST))
        target = next(one for one in STEPS_NOW if one.id == f"{FIRST.id}:cup1:a").target_g
        for poured, corrected in ((target, False), (target + 6.0, True)):
            with self.subTest(poured=poured):
                events = told((0.0, "weighed", {"pour_id": FIRST.id, "cup": 1, "part": "a", "mass_g": poured}))
                events += told((0.1, "dropped", {
                    "pour_id": FIRST.id, "cup": 1, "colourant_id": "red-ink", "neat_drops": 0.1, "part_a_g": 0.5,
                }))
                cup = fold(SCENE, STEPS_NOW, events, at(1)).cups[0]
                self.assertAlmostEqual(cup.part_a_g, poured + 0.5)
                self.assertAlmostEqual(cup.target_b_g, (poured + 0.5) * ratio, delta=0.051)
                self.assertEqual(cup.correction is not None, corrected)

    def test_too_much_b_is_put_right_with_a(self):
        target = next(one for one in STEPS_NOW if one.id == f"{FIRST.id}:cup1:a").target_g
        ratio = mass_ratio(SCENE.resin_of(FIRST))
        events = told(
            (0.0, "weighed", {"pour_id": FIRST.id, "cup": 1, "part": "a", "mass_g": target}),
            (0.1, "weighed", {"pour_id": FIRST.id, "cup": 1, "part": "b", "mass_g": 1.1 * target * ratio}),
        )
        told_now = fold(SCENE, STEPS_NOW, events, at(1)).cups[0].correction
        self.assertEqual(told_now.add, "a")
        self.assertAlmostEqual(told_now.add_g, 0.1 * target, delta=0.2)

    def test_two_devices_that_did_not_know_of_each_other_are_told_of(self):
        step = f"{FIRST.id}:cup1:a"

        def weighed(device, number, seen):
            return told((0.0, "weighed", {
                "pour_id": FIRST.id, "cup": 1, "part": "a", "mass_g": 80.0, "step_id": step, "device": device,
                "number": number, "seen": seen,
            }))

        rows = [
            ("blind", weighed("tablet", 5, 4) + weighed("phone", 6, 4), 1),
            ("knew of it", weighed("tablet", 5, 4) + weighed("phone", 6, 5), 0),
            ("one device", weighed("tablet", 5, 4) + weighed("tablet", 6, 4), 0),
        ]
        for name, events, count in rows:
            with self.subTest(name):
                found = fold(SCENE, STEPS_NOW, events, at(1)).conflicts
                self.assertEqual(len(found), count)
                for one in found:
                    self.assertEqual(set(one.event_ids), {event.id for event in events})

    def test_the_line_is_told_from_the_rim_at_each_corner(self):
        wall, fill, line = SCENE.tank.wall_height_mm, SCENE.tank.fill_height_mm, FIRST.top_depth_mm
        rows = [((0.0, 0.0), (0, 0, 0, 0)), ((4.0, 0.0), (2, -2, 2, -2)), ((0.0, 2.0), (-1, -1, 1, 1))]
        for (right, front), off in rows:
            with self.subTest(right=right, front=front):
                events = upto(f"{FIRST.id}:pour") + told(
                    (-2.0, "levelled", {"right_lower_mm": right, "front_lower_mm": front}),
                )
                rim = fold(SCENE, STEPS_NOW, events, at(0)).rim
                found = (rim.front_left_mm, rim.front_right_mm, rim.back_left_mm, rim.back_right_mm)
                for one, more in zip(found, off, strict=True):
                    self.assertAlmostEqual(one, wall - fill + line + more, delta=0.051)

    def test_too_many_drops_and_a_short_pour_are_told_at_their_step(self):
        ink = next(one for one in STEPS_NOW if one.kind == "colour" and one.pour_number == 1)
        events = upto(f"{FIRST.id}:cup1:b") + told((0.0, "dropped", {
            "pour_id": FIRST.id, "cup": 1, "colourant_id": ink.colourant_id, "neat_drops": 2 * ink.neat_drops,
        }))
        dark = fold(SCENE, STEPS_NOW, events, at(0.1)).dark
        self.assertEqual([one.colourant_id for one in dark], [ink.colourant_id])
        self.assertAlmostEqual(dark[0].over_fraction, 1.0, delta=0.01)
        line = next(one for one in STEPS_NOW if one.id == f"{FIRST.id}:pour")
        short = upto(f"{FIRST.id}:leaks") + told(
            (0.0, "poured", {"pour_id": FIRST.id, "line_depth_mm": line.line_depth_mm + 1.5}),
        )
        state = fold(SCENE, STEPS_NOW, short, at(0.1))
        self.assertAlmostEqual(state.top_up.volume_ml, line.surface_cm2 * 0.15, delta=0.1)
        self.assertEqual(state.dark, [])


if __name__ == "__main__":
    unittest.main()
