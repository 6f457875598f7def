"""Whole plans: causes, staging, directions, heat pictures, both schools, what empties a pocket."""

import unittest

from taken import taken

from gondola_core.answers.joints import Meets
from gondola_core.answers.kept import Keeper
from gondola_core.checks import Severity
from gondola_core.errors import GondolaError
from gondola_core.evaluate import evaluate
from gondola_core.materials import load_library
from gondola_core.samples import ferry_landing, quarry_pool
from gondola_core.studies.schools import schools
from gondola_core.studies.stager import stage_for
from gondola_core.studies.why import why_hot
from gondola_core.views.heat_picture import heat_plane, place_curve

SOLIDS = load_library().solids


def with_room(scene, day, night, **more):
    room = scene.brief.room.model_copy(update={"day_c": day, "night_c": night, **more})
    return scene.model_copy(update={"brief": scene.brief.model_copy(update={"room": room})})


def hottest(scene):
    return evaluate(scene, keeper=Keeper()).whole.hottest_c


class Ferry(unittest.TestCase):
    def test_coating_resin_60_mm_deep_runs_away_with_flags_for_glue_paint_and_crack(self):
        outcome = evaluate(ferry_landing(), keeper=Keeper())
        self.assertGreater(outcome.whole.hottest_c, 120)
        words = " ".join(flag.title + " " + flag.sentence for flag in outcome.flags)
        for word in ("runs away", "hot glue", "paint", "crack"):
            with self.subTest(word):
                self.assertIn(word, words)

    def test_staged_in_deep_pour_resin_nothing_stops_it(self):
        scene = ferry_landing()
        cold, warm, wide = stage_for(scene, "deep", [15.0, 23.0], keeper=Keeper())
        self.assertTrue(warm.clear)
        self.assertEqual(warm.stops, [])
        self.assertLess(warm.hottest_c, 90)
        self.assertIsNotNone(warm.demould_d)
        self.assertGreater(wide.pours_count, warm.pours_count - 1)
        # a 15 degree room never gets it hard enough to come out: that is said, not hidden
        self.assertFalse(cold.clear)
        self.assertIn("does not get hard", " ".join(cold.stops))
        again = evaluate(taken(scene, warm.remedy), keeper=Keeper())
        heat = [flag.title for flag in again.flags
                if flag.severity is Severity.STOP and flag.code in ("too_hot", "too_early")]
        self.assertEqual(heat, [])

    def test_bad_questions(self):
        with self.assertRaisesRegex(GondolaError, "does not hold the resin"):
            stage_for(quarry_pool(), "honey", [23.0])
        with self.assertRaisesRegex(GondolaError, "from 10 to 40"):
            stage_for(quarry_pool(), "deep", [90.0])


class Directions(unittest.TestCase):
    """Each by the size that the models tell."""

    def test_foam_base_and_larger_footprint(self):
        scene = quarry_pool()
        flat = scene.model_copy(update={
            "figures": [], "bed": scene.bed.model_copy(update={"heights_mm": [[1.0, 1.0]] * 2}),
            "tank": scene.tank.model_copy(update={
                "inner_width_mm": 150.0, "inner_behind_mm": 100.0, "fill_height_mm": 50.0,
                "wall_height_mm": 62.0,
            }),
            "pours": [scene.pours[-1].model_copy(update={"wait_h": 0.0, "mix_c": 23.0})],
        })
        flat = with_room(flat, 23, 23)
        wood = hottest(flat)
        foam = hottest(flat.model_copy(update={
            "tank": flat.tank.model_copy(update={
                "base": flat.tank.base.model_copy(update={
                    "material": SOLIDS["foam"], "thickness_mm": 25.0})})}))
        wide = hottest(flat.model_copy(update={
            "tank": flat.tank.model_copy(update={"inner_width_mm": 400.0, "inner_behind_mm": 250.0})}))
        self.assertAlmostEqual(wood, 58, delta=4)
        self.assertAlmostEqual(foam - wood, 30, delta=12)
        self.assertAlmostEqual(wide - wood, 60, delta=10)

    def test_winter_night_against_summer_and_one_pour_against_four(self):
        scene = quarry_pool()
        winter, summer = with_room(scene, 18, 14), with_room(scene, 29, 26)
        cold, warm = evaluate(winter, keeper=Keeper()), evaluate(summer, keeper=Keeper())
        self.assertLess(cold.whole.hottest_c, warm.whole.hottest_c - 20)
        self.assertGreater(cold.pours[3].heat.cure.tack_opens_h, 1.5 * warm.pours[3].heat.cure.tack_opens_h)
        single = scene.model_copy(update={"pours": [scene.pours[-1].model_copy(update={"wait_h": 0.0})]})
        self.assertGreater(hottest(single), hottest(scene) + 30)

    def test_fan_and_warm_box(self):
        scene = quarry_pool()
        fan = with_room(scene, 26, 22, fan=True)
        self.assertLess(hottest(fan), hottest(scene) - 5)
        box = evaluate(with_room(scene, 16, 12, warm_box_c=30.0), keeper=Keeper())
        room = evaluate(with_room(scene, 16, 12), keeper=Keeper())
        self.assertLess(box.pours[3].heat.cure.tack_opens_h, room.pours[3].heat.cure.tack_opens_h)
        self.assertEqual({*box.room.room_c}, {30.0})

    def test_why_names_depth_room_and_the_pour_below(self):
        why = why_hot(quarry_pool(), 2, keeper=Keeper())
        causes = {cause.name: cause.adds_k for cause in why.causes}
        self.assertGreater(causes["its depth"], 15)
        self.assertGreater(causes["the room and the mix"], 15)
        self.assertIn("the warm pour below", causes)
        self.assertIn("Of 66 °C", why.sentence)

    def test_recoat_too_early_in_the_window_and_too_late(self):
        document = quarry_pool().model_dump(mode="json")
        from gondola_core.scene import scene_from

        for wait, joint, code in ((8.0, Meets.TOO_EARLY, "too_early"), (25.0, Meets.BONDS, None),
                                  (60.0, Meets.TOO_LATE, "too_late")):
            with self.subTest(wait):
                document["pours"][2]["wait_h"] = wait
                outcome = evaluate(scene_from(document), keeper=Keeper())
                self.assertEqual(outcome.pours[2].joint.meets, joint)
                codes = [flag.code for flag in outcome.flags if flag.pour_number == 3]
                self.assertEqual(code in codes if code else False, code is not None)


class Pictures(unittest.TestCase):
    def test_plane_and_curve_agree_with_the_profile(self):
        scene, keeper = quarry_pool(), Keeper()
        outcome = evaluate(scene, keeper=keeper)
        second = outcome.pours[1]
        at = second.clock.start_h + second.heat.cure.peak_at_h
        plane = heat_plane(scene, at, keeper=keeper)
        warm = max(value for row in plane.temperature_c for value in row if value is not None)
        self.assertAlmostEqual(warm, second.heat.cure.peak_c, delta=2.5)
        place = second.heat.cure.peak_place
        curve = place_curve(scene, place.x_mm, place.depth_mm, keeper=keeper)
        self.assertAlmostEqual(
            max(value for value in curve.temperature_c if value is not None), warm, delta=1.5
        )
        self.assertEqual(keeper.computed["march"], 1)

    def test_nothing_where_nothing_is_poured(self):
        scene = quarry_pool()
        plane = heat_plane(scene, 5.0)
        self.assertTrue(all(value is None for value in plane.temperature_c[0]))
        self.assertIsNotNone(plane.temperature_c[-1][-1])


class Schools(unittest.TestCase):
    def test_staged_costs_days_and_lines_held_costs_heat(self):
        staged, held = schools(quarry_pool(), keeper=Keeper())
        self.assertGreater(staged.days_d, held.days_d)
        self.assertGreater(staged.seams_count, held.seams_count)
        self.assertGreater(held.hottest_c, staged.hottest_c + 20)
        self.assertGreater(held.held_count, staged.held_count)
