"""The order of the work: what usually comes before what, what a swap costs, and how it is put right."""

import unittest

from changed import changed
from taken import taken

from gondola_core.answers.book import Book
from gondola_core.answers.kept import Keeper
from gondola_core.answers.order import ORDER, WORK
from gondola_core.bench.order import leak_ml_h
from gondola_core.checks import CHECKS
from gondola_core.checks.telling import found_in
from gondola_core.errors import SceneError
from gondola_core.evaluate import evaluate
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.scene import scene_from
from gondola_core.scene.edits import apply_edit


def steps(scene):
    return [step.id for step in Book(scene, keeper=Keeper()).ask(ORDER).steps]


def swapped(scene, first, then):
    """The scene with one step kept right after another."""
    ids = [one for one in steps(scene) if one != first]
    ids.insert(ids.index(then) + 1, first)
    return scene.model_copy(update={"order": scene_from(
        quarry_pool().model_dump(mode="json") | {"order": [{"id": one} for one in ids]}
    ).order})


def findings(scene):
    return [finding for _, finding in found_in(Book(scene, keeper=Keeper()), [CHECKS["out_of_order"]])]


class Usual(unittest.TestCase):
    def test_the_usual_order_breaks_no_rule(self):
        for name, sample in SAMPLES.items():
            with self.subTest(name):
                self.assertEqual(findings(sample()), [])

    def test_each_step_is_there_once_and_stands_at_its_pour(self):
        scene = quarry_pool()
        work = Book(scene, keeper=Keeper()).ask(WORK)
        self.assertEqual(len({step.id for step in work}), len(work))
        starts = {step.id: step.at_h for step in work}
        self.assertEqual(starts["pour:pour-2"], 26.0)
        self.assertEqual(starts["figure:pike"], 26.0)
        self.assertEqual(starts["cuts"], 0.0)

    def test_seal_dam_and_lamp_are_steps_where_the_scene_has_them(self):
        self.assertNotIn("seal", steps(quarry_pool()))
        self.assertIn("seal", steps(changed(bed__sealed=True)))
        self.assertNotIn("dam", steps(changed(tank__seal=None)))
        lit = changed(figures__0__lamp={"wire_to": "bed"})
        self.assertIn("lamp:wagon", steps(lit))


class Swapped(unittest.TestCase):
    def test_each_swap_is_flagged_with_the_step_to_move_and_what_it_costs(self):
        sealed = changed(bed__sealed=True)
        for scene, first, then, cost in (
            (sealed, "paint", "seal", "lifts"),
            (sealed, "seal", "dam", "ml of gas"),
            (quarry_pool(), "cuts", "base", "overlap"),
            (quarry_pool(), "dam", "figure:pike", "in the way of the walls"),
            (quarry_pool(), "figure:pike", "pour:pour-2", "no longer goes in"),
            (quarry_pool(), "flame", "plants", "burns them"),
            (quarry_pool(), "faces", "ripples", "clouds"),
            (quarry_pool(), "leaks", "pour:pour-1", "of the first pour in an hour"),
        ):
            with self.subTest(first, then=then):
                late = swapped(scene, first, then)
                told = evaluate(late, keeper=Keeper()).flags
                mine = [flag for flag in told if flag.code == "out_of_order"]
                self.assertTrue(any(cost in flag.sentence for flag in mine), [flag.sentence for flag in mine])
                remedied = taken(late, mine[0].remedies[0])
                self.assertLess(len(findings(remedied)), len(findings(late)))

    def test_an_untested_lamp_that_is_buried_stops(self):
        lit = changed(figures__0__lamp={"wire_to": "bed"})
        late = swapped(lit, "lamp:wagon", "pour:pour-2")
        self.assertEqual({finding.severity.value for finding in findings(late)}, {"stop"})

    def test_foliage_above_the_water_waits_for_the_last_flame(self):
        moss = changed(figures__0__cut_at_fill=True)
        self.assertLess(steps(moss).index("flame"), steps(moss).index("figure:wagon"))
        late = swapped(moss, "flame", "figure:wagon")
        self.assertEqual(len(findings(late)), 1)


class Kept(unittest.TestCase):
    def test_a_step_of_ones_own_keeps_its_place_and_breaks_nothing(self):
        scene = quarry_pool()
        kept = [{"id": "cuts"}, {"id": "own:1", "name": "warm the bottles"}, {"id": "base"}]
        own = changed(order=kept)
        self.assertEqual(steps(own)[:3], ["cuts", "own:1", "base"])
        self.assertEqual(len(steps(own)), len(steps(scene)) + 1)
        self.assertEqual(findings(own), [])

    def test_what_is_gone_from_the_scene_leaves_the_order_and_what_is_new_comes_to_its_place(self):
        kept = [{"id": one} for one in steps(quarry_pool())]
        fewer = changed(order=kept, bed__sealed=True)
        self.assertLess(steps(fewer).index("paint"), steps(fewer).index("seal"))
        gone = changed(order=[{"id": "figure:whale"}, *kept])
        self.assertEqual(steps(gone), steps(quarry_pool()))

    def test_moved_steps_keep_their_names(self):
        own = changed(order=[{"id": "paint"}, {"id": "own:1", "name": "warm the bottles"}, {"id": "bed"}])
        change = findings(own)[0].remedies[0]
        names = {one.id: one.name for one in apply_edit(own, change.operations, change.digest).order}
        self.assertEqual(names["own:1"], "warm the bottles")

    def test_a_wrong_step_is_refused(self):
        with self.assertRaises(SceneError):
            scene_from(quarry_pool().model_dump(mode="json") | {"order": [{"id": "No such step!"}]})


class Leak(unittest.TestCase):
    def test_a_slit_by_its_closed_form(self):
        """A tenth of a millimetre, 300 mm long, at 50 mm of head, 0.7 Pa s, 3 mm through: 23 ml/h."""
        long = changed(
            tank__inner_width_mm=100.0, tank__inner_behind_mm=50.0, resins__0__viscosity_mpa_s=700.0,
            pours__0__top_depth_mm=70.0, resins__0__density_a_g_ml=1.1, resins__0__density_b_g_ml=1.1,
            resins__0__measured_density_g_ml=None, figures=[], pours__1__top_depth_mm=40.0,
        )
        expected = 0.3 * 1100 * 9.80665 * 0.05 * 1e-12 / (12 * 0.7 * 3e-3) * 1e6 * 3600
        self.assertAlmostEqual(leak_ml_h(long), expected, delta=0.02 * expected)
