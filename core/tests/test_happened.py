"""What happened in place of what was meant: ratio, times, temperatures, doses, lines."""

import unittest
from zoneinfo import ZoneInfo

from told import poured, told

from gondola_core.bench.events import standing
from gondola_core.bench.happened import as_happened, pour_logs
from gondola_core.bench.mixed import as_mixed
from gondola_core.bench.mixing import mass_ratio
from gondola_core.cure.kinetics import glass_temperature_c
from gondola_core.errors import GondolaError
from gondola_core.evaluate import evaluate
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene.schedule import ROOM_STEP_H, room_samples_c

DEEP = load_library().resins["deep"]
SCENE = quarry_pool()


class AsMixed(unittest.TestCase):
    def test_what_is_short_decides_what_reacts(self):
        b = mass_ratio(DEEP)
        for error in (-0.10, -0.03, 0.03, 0.10, 0.173):
            with self.subTest(error=error):
                mixed = as_mixed(DEEP, error)
                grams_b = b * (1 + error)
                reacted = min(1.0, 1 + error)  # grams of A that find their B, of 1 g of A
                heat = DEEP.heat_of_cure_j_g * reacted * (1 + b) / (1 + grams_b)
                self.assertAlmostEqual(mixed.heat_of_cure_j_g, heat, places=6)
                self.assertGreater(mixed.gel_degree, DEEP.gel_degree)
                self.assertLess(mixed.tg_full_c, DEEP.tg_full_c)
                self.assertAlmostEqual(mixed.mixed_error_fraction, error)

    def test_its_glass_temperature_is_that_of_the_net_that_could_form(self):
        for error in (-0.06, 0.06):
            mixed, short = as_mixed(DEEP, error), min(1 + error, 1 / (1 + error))
            for degree in (0.0, 0.4, 0.8, 1.0):
                with self.subTest(error=error, degree=degree):
                    self.assertAlmostEqual(
                        float(glass_temperature_c(degree, mixed)), float(glass_temperature_c(short * degree, DEEP)),
                        places=9,
                    )

    def test_what_nobody_notices_leaves_the_resin_alone(self):
        self.assertIs(as_mixed(DEEP, 0.004), DEEP)


class AsHappened(unittest.TestCase):
    def test_nothing_told_is_as_planned(self):
        self.assertEqual(as_happened(SCENE, []), SCENE)

    def test_starts_become_waits_and_the_first_pour_its_own_clock(self):
        first, second = SCENE.pours[0].id, SCENE.pours[1].id
        made = as_happened(SCENE, poured(first, 2.0) + poured(second, 30.5), ZoneInfo("Europe/Oslo"))
        self.assertEqual(made.brief.first_pour_at.isoformat(), "2027-03-05T12:00:00")
        self.assertAlmostEqual(made.pours[1].wait_h, 28.5)
        self.assertEqual(made.pours[2].wait_h, SCENE.pours[2].wait_h)

    def test_a_pour_that_was_not_told_of_is_taken_as_planned(self):
        made = as_happened(SCENE, poured(SCENE.pours[1].id, 40.0))
        self.assertAlmostEqual(made.pours[1].wait_h, SCENE.pours[1].wait_h)

    def test_masses_give_the_ratio_and_drops_the_dose(self):
        pour = SCENE.pours[0]
        ratio = mass_ratio(SCENE.resin_of(pour))
        ink = pour.doses[0].colourant_id
        events = poured(pour.id, 0.0, a=100.0, b=100.0 * ratio * 0.94) + told(
            (-0.25, "dropped", {"pour_id": pour.id, "cup": 1, "colourant_id": ink, "neat_drops": 1.0}),
            (-0.1, "measured", {"what": "mix", "pour_id": pour.id, "measured_c": 28.5}),
        )
        made = as_happened(SCENE, events)
        self.assertAlmostEqual(made.resin_of(made.pours[0]).mixed_error_fraction, -0.06, places=4)
        self.assertEqual(made.pours[1].resin_id, SCENE.pours[1].resin_id)
        self.assertEqual(made.pours[0].mix_c, 28.5)
        doses = {one.colourant_id: one.dose_drops_per_100g for one in made.pours[0].doses}
        self.assertAlmostEqual(doses[ink], 100.0 / (100 + 94 * ratio), places=4)
        for other in pour.doses[1:]:
            self.assertEqual(doses[other.colourant_id], other.dose_drops_per_100g)

    def test_a_cup_put_right_is_right(self):
        pour = SCENE.pours[0]
        ratio = mass_ratio(SCENE.resin_of(pour))
        events = poured(pour.id, 0.0, a=112.0, b=100 * ratio) + told(
            (-0.15, "weighed", {"pour_id": pour.id, "cup": 1, "part": "b", "mass_g": 12 * ratio}),
        )
        self.assertEqual(as_happened(SCENE, events).pours[0].resin_id, pour.resin_id)

    def test_the_worst_cup_speaks_for_its_pour(self):
        pour = SCENE.pours[0]
        ratio = mass_ratio(SCENE.resin_of(pour))
        events = poured(pour.id, 0.0, a=100.0, b=100 * ratio) + told(
            (-0.25, "weighed", {"pour_id": pour.id, "cup": 2, "part": "a", "mass_g": 50.0}),
            (-0.2, "weighed", {"pour_id": pour.id, "cup": 2, "part": "b", "mass_g": 50 * ratio * 1.08}),
        )
        made = as_happened(SCENE, events)
        self.assertAlmostEqual(made.resin_of(made.pours[0]).mixed_error_fraction, 0.08, places=4)

    def test_the_room_follows_its_readings(self):
        events = poured(SCENE.pours[0].id, 0.0) + told(
            *((hours, "measured", {"what": "room", "measured_c": 17.0}) for hours in (0.0, 1.0, 1.1, 5.0)),
        )
        made = as_happened(SCENE, events)
        self.assertEqual([one.at_h for one in made.brief.room.measured], [0.0, 1.0, 5.0])
        cold, planned = (
            room_samples_c(SCENE.brief.first_pour_at, one.brief.room, 60.0) for one in (made, SCENE)
        )
        for hours in (0.0, 1.0, 5.0):
            self.assertAlmostEqual(cold[round(hours / ROOM_STEP_H)], 17.0)
        self.assertAlmostEqual(cold[-1], planned[-1], delta=0.2)
        self.assertLess(evaluate(made).pours[0].heat.cure.peak_c, evaluate(SCENE).pours[0].heat.cure.peak_c - 2)

    def test_a_line_that_was_measured_moves_and_the_last_one_moves_the_fill_line(self):
        first, last = SCENE.pours[0], SCENE.pours[-1]
        made = as_happened(SCENE, poured(first.id, 0.0, line_depth_mm=first.top_depth_mm + 2))
        self.assertAlmostEqual(made.pours[0].top_depth_mm, first.top_depth_mm + 2)
        made = as_happened(SCENE, poured(last.id, 100.0, line_depth_mm=3.0))
        self.assertAlmostEqual(made.tank.fill_height_mm, SCENE.tank.fill_height_mm - 3)
        self.assertAlmostEqual(made.pours[0].top_depth_mm, first.top_depth_mm - 3)
        self.assertEqual(made.pours[-1].top_depth_mm, 0)

    def test_what_contradicts_the_plan_is_refused_in_a_sentence(self):
        first, second = SCENE.pours[0].id, SCENE.pours[1].id
        rows = [
            (poured(first, 10.0) + poured(second, 5.0), "begun before pour 1"),
            (poured(first, 0.0, line_depth_mm=1.0), "cannot be at"),
        ]
        for events, said in rows:
            with self.subTest(said), self.assertRaisesRegex(GondolaError, said):
                as_happened(SCENE, events)

    def test_what_is_undone_counts_no_more_and_redone_counts_again(self):
        events = poured(SCENE.pours[0].id, 0.0)
        begun = next(one for one in events if one.kind == "pouring")
        undone = told((0.2, "undone", {"event_id": begun.id}))
        again = told((0.3, "undone", {"event_id": undone[0].id}))
        self.assertIsNone(pour_logs(SCENE, events + undone)[0].began)
        self.assertEqual(pour_logs(SCENE, events + undone + again)[0].began, begun.at)
        self.assertEqual(len(standing(events + events)), len(events))

    def test_an_error_of_six_percent_is_a_stop_and_three_a_watch(self):
        pour = SCENE.pours[1]
        ratio = mass_ratio(SCENE.resin_of(pour))
        for error, severity in ((0.01, None), (-0.03, "watch"), (-0.06, "stop"), (0.173, "stop")):
            with self.subTest(error=error):
                made = as_happened(SCENE, poured(pour.id, 30.0, a=500.0, b=500 * ratio * (1 + error)))
                flags = [one for one in evaluate(made).flags if one.code == "ratio_off"]
                self.assertEqual([one.severity for one in flags], [severity] if severity else [])
                for one in flags:
                    self.assertEqual(one.pour_number, 2)
                    self.assertIn("soft", one.sentence)


if __name__ == "__main__":
    unittest.main()
