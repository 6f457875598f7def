"""The steps of the pour days: in order, with what is weighed, counted, timed and asked."""

import unittest

from changed import changed

from gondola_core.answers.book import Book
from gondola_core.answers.steps import STEPS
from gondola_core.bench.mixing import mass_ratio
from gondola_core.checks import reader_units
from gondola_core.evaluate import evaluate
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.words import METRIC

SCENE = quarry_pool()
STEPS_OF = {name: Book(make()).ask(STEPS) for name, make in SAMPLES.items()}


def steps(scene=SCENE):
    return Book(scene).ask(STEPS)


class Steps(unittest.TestCase):
    def test_ids_are_their_own_and_every_sentence_can_be_said(self):
        for name, found in STEPS_OF.items():
            with self.subTest(name):
                ids = [one.id for one in found]
                self.assertEqual(len(ids), len(set(ids)))
                for one in found:
                    for said in (one.title, one.under, one.caution):
                        if said is not None:
                            self.assertGreater(len(said.said(METRIC)), 3)

    def test_the_work_goes_in_its_order(self):
        for name, found in STEPS_OF.items():
            scene = SAMPLES[name]()
            for pour in scene.pours:
                kinds = [one.kind for one in found if one.pour_id == pour.id]
                wanted = ["weigh_a", "weigh_b", "stir", "change", "rest", "temper", "pour", "leaks", "cover"]
                with self.subTest(name, pour=pour.id):
                    places = [kinds.index(one) for one in wanted]
                    self.assertEqual(places, sorted(places))

    def test_what_is_weighed_adds_up_to_the_pour(self):
        """Plain A, what the stocks bring and B make the mix, to the steps of the scale."""
        for name, make in SAMPLES.items():
            scene, outcome = make(), evaluate(make())
            for pour in outcome.pours:
                mine = [one for one in STEPS_OF[name] if one.pour_id == pour.id]
                a = sum(one.target_g for one in mine if one.kind == "weigh_a")
                b = sum(one.target_g for one in mine if one.kind == "weigh_b")
                stock = sum(one.part_a_g for one in pour.cup.measured.doses)
                ratio = mass_ratio(scene.resin_of(scene.pours[pour.number - 1]))
                with self.subTest(name, pour=pour.number):
                    self.assertAlmostEqual(a + stock, pour.cup.mix.part_a_g, delta=0.06 * pour.cup.mix.cups_count)
                    self.assertAlmostEqual(b, (a + stock) * ratio, delta=0.06 * (1 + ratio) * pour.cup.mix.cups_count)

    def test_drops_are_shared_out_whole_and_none_is_lost(self):
        outcome = evaluate(SAMPLES["ferry-landing"]())
        for pour in outcome.pours:
            for dose in pour.cup.measured.doses:
                mine = [
                    one for one in STEPS_OF["ferry-landing"]
                    if one.pour_id == pour.id and one.colourant_id == dose.colourant_id
                ]
                with self.subTest(pour=pour.number, ink=dose.name):
                    self.assertEqual(len(mine), pour.cup.mix.cups_count)
                    if not dose.weighed:
                        self.assertEqual(sum(one.drops for one in mine), dose.drops)
                    self.assertAlmostEqual(
                        sum(one.neat_drops for one in mine), dose.neat_drops, delta=0.3 * dose.neat_drops + 0.01
                    )

    def test_steps_follow_what_the_scene_needs(self):
        rows = [
            ({}, "feel", 3), ({}, "abrade", 0), ({"pours__2__wait_h": 90.0}, "abrade", 1),
            ({"brief__habits__rest_min": 0.0}, "rest", 0), ({"brief__pieces_count": 3}, "cover", 12),
            ({"brief__pieces_count": 60}, "cover", 4),
        ]
        for changes, kind, count in rows:
            with self.subTest(kind, **changes):
                self.assertEqual(sum(one.kind == kind for one in steps(changed(**changes))), count)

    def test_a_batch_is_mixed_for_all_its_pieces(self):
        def mixed(found):
            return sum(one.target_g for one in found if one.kind == "weigh_b")

        self.assertAlmostEqual(mixed(steps(changed(brief__pieces_count=3))) / mixed(steps()), 3.0, delta=0.01)

    def test_cautions_stand_at_the_step(self):
        said = {one.kind: one.caution.said(METRIC) for one in STEPS_OF["eelgrass"] if one.caution is not None}
        self.assertIn("safety data sheet", said["gloves"])
        self.assertIn("shallow tray outdoors", said["weigh_b"])
        if "flame" in said:
            self.assertIn("No flame near alcohol", said["flame"])

    def test_inches_are_said_all_through(self):
        us = changed(brief__units={"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"})
        units = reader_units(us.brief.units)
        for one in steps(us):
            for said in (one.title, one.under):
                text = said.said(units) if said is not None else ""
                with self.subTest(one.id):
                    self.assertNotRegex(text, r"\d (mm|ml|g|°C)\b")


if __name__ == "__main__":
    unittest.main()
