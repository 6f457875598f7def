"""Work against working time, and what is left to bond at a joint."""

import unittest

import numpy as np

from gondola_core.answers.book import Book
from gondola_core.answers.heat import HEAT
from gondola_core.answers.kept import Keeper
from gondola_core.bench.hands import HandsOn, hands_on
from gondola_core.bench.mixing import mix_for
from gondola_core.checks.hands import hands_late
from gondola_core.cure.bond import bond_below
from gondola_core.cure.kinetics import isothermal_cure
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from

LIBRARY = load_library()


def quarry(resin="deep", **changes):
    document = quarry_pool().model_dump(mode="json")
    document["resins"] = [LIBRARY.resins[resin].model_dump(mode="json")]
    for pour in document["pours"]:
        pour.update({"resin_id": resin, **changes})
    return scene_from(document)


class Hands(unittest.TestCase):
    def test_minutes_add_up(self):
        resin = LIBRARY.resins["deep"]
        # one cup: min(6, 2 + 0.7 m/100), stream of 150 ml/min, figures, 2 min of looking
        rows = [(100, 0, 2 + 0.7 * 1.1 + 100 / 150 + 2), (100, 3, 2 + 0.7 * 1.1 + 100 / 150 + 5),
                (1500, 1, 6 + 10 + 3)]
        for volume, figures, minutes in rows:
            with self.subTest(volume, figures=figures):
                mix = mix_for(float(volume), resin)
                self.assertEqual(mix.cups_count, 1)
                found = hands_on(quarry(), 0, mix, volume, figures)
                self.assertAlmostEqual(found.planned_min, minutes, delta=0.06)

    def test_a_warmer_mix_leaves_less_time(self):
        mix = mix_for(100.0, LIBRARY.resins["casting"])
        times = [hands_on(quarry("casting", mix_c=c), 0, mix, 100, 0).working_min for c in (20, 25, 30)]
        self.assertEqual(times[1], LIBRARY.resins["casting"].working_min)
        # Arrhenius with 58 kJ/mol: 1.48 at 20, 1/1.47 at 30
        self.assertAlmostEqual(times[0] / times[1], np.exp(58e3 / 8.314462618 * (1 / 293.15 - 1 / 298.15)),
                               delta=0.002)
        self.assertLess(times[2], times[1])

    def test_quick_polyurethane_is_held_against_what_is_planned(self):
        rows = [(None, "stop"), (5.0, "watch"), (2.5, None)]
        for own, severity in rows:
            with self.subTest(own):
                outcome = evaluate(quarry("quick-cast", hands_min=own), DRAFT, Keeper())
                found = [
                    flag.severity.value for flag in outcome.flags
                    if flag.code == "hands_late" and flag.pour_number == 2
                ]
                self.assertEqual(found, [severity] if severity else [])

    def test_cooler_mix_is_offered_where_it_is_warm(self):
        slow = HandsOn(planned_min=9.0, working_min=6.0, own=False)
        for warm, count in ((24.0, 1), (18.0, 0)):
            with self.subTest(warm):
                first = next(iter(hands_late(quarry("quick-cast", mix_c=warm), [slow])))
                self.assertEqual(len(first.remedies), count)

    def test_hands_of_no_time_are_refused(self):
        with self.assertRaisesRegex(Exception, "hands-on time"):
            quarry(hands_min=0.0)


class Bonds(unittest.TestCase):
    def test_the_joint_fades_as_the_wait_grows(self):
        left, degree = [], []
        for wait in (10.0, 22.0, 30.0, 60.0, 140.0):
            outcome = evaluate(quarry(wait_h=wait), DRAFT, Keeper())
            bond = outcome.pours[1].joint.bond
            left.append(bond.bond_fraction)
            degree.append(bond.below_cured_fraction)
        self.assertEqual(left[0], 1.0)  # not yet gelled
        self.assertEqual(left, sorted(left, reverse=True))
        self.assertLess(left[-1], 0.35)
        self.assertEqual(degree, sorted(degree))
        self.assertIsNone(outcome.pours[0].joint.bond)

    def test_it_counts_the_ends_left_over_those_at_gel(self):
        # a thin film in a steady room cures as its isotherm does
        resin = LIBRARY.resins["deep"]
        document = quarry_pool().model_dump(mode="json")
        document["figures"] = []
        document["bed"]["heights_mm"] = [[0, 0], [0, 0]]
        document["tank"].update(fill_height_mm=6, wall_height_mm=20)
        document["brief"]["room"].update(day_c=24, night_c=24)
        pours = document["pours"][:2]
        pours[0].update(top_depth_mm=3, mix_c=24)
        pours[1].update(top_depth_mm=0, mix_c=24, wait_h=40)
        document["pours"] = pours
        bond = evaluate(scene_from(document), DRAFT, Keeper()).pours[1].joint.bond
        degree = float(isothermal_cure(np.full(401, 24.0), 360.0, resin)[-1])
        self.assertAlmostEqual(bond.below_cured_fraction, degree, delta=0.012)
        self.assertAlmostEqual(bond.bond_fraction, (1 - bond.below_cured_fraction) / (1 - 0.58), places=3)

    def test_nothing_below_has_no_joint(self):
        heat = Book(quarry(), DRAFT, Keeper()).ask(HEAT)
        self.assertIsNone(bond_below(heat.marched, 0, LIBRARY.resins["deep"]))


if __name__ == "__main__":
    unittest.main()
