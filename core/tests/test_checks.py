import unittest

import jsonpatch_lite

from gondola_core.checks import Severity
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from


def document(**changes):
    made = quarry_pool().model_dump(mode="json")
    for path, value in changes.items():
        spot = made
        *way, last = [int(part) if part.isdigit() else part for part in path.split("__")]
        for part in way:
            spot = spot[part]
        spot[last] = value
    return made


def flags_of(made):
    return evaluate(scene_from(made)).flags


class Flags(unittest.TestCase):
    def test_what_each_change_calls_out(self):
        rows = [
            ("near too hot", {}, "too_hot", Severity.WATCH, 2),
            ("too hot", {"pours__1__resin_id": "casting"}, "too_hot", Severity.STOP, 2),
            ("cracks", {"pours__1__resin_id": "coating"}, "may_crack", Severity.STOP, 2),
            ("deeper than the label", {}, "too_deep", Severity.WATCH, 2),
            ("bed open", {}, "bed_not_sealed", Severity.WATCH, None),
            ("too early", {"pours__2__wait_h": 6.0}, "too_early", Severity.STOP, 3),
            ("too late", {"pours__3__wait_h": 90.0}, "too_late", Severity.WATCH, 4),
            ("cold", {"brief__room__night_c": 12, "brief__room__day_c": 15}, "cold_room",
             Severity.WATCH, 1),
            ("more than one cup", {"resins__0__most_mix_g": 400.0}, "too_much",
             Severity.WATCH, 2),
            ("through the wall", {"figures__0__place__x_mm": 175}, "figure_outside",
             Severity.STOP, None),
            ("out of the water", {"figures__2__place__height_mm": 119}, "figure_above",
             Severity.NOTE, None),
            ("at the rim", {"tank__wall_height_mm": 122.0}, "near_rim", Severity.WATCH, None),
            ("a green fish far back in green water",
             {"figures__1__paint_srgb": "#6cc090", "figures__1__place__behind_mm": 100,
              "pours__1__doses__0__dose_drops_per_100g": 20.0}, "figure_lost",
             Severity.WATCH, 2),
            ("a dark layer under a clear one", {"pours__0__doses__2__dose_drops_per_100g": 2.0},
             "seam_shows", Severity.WATCH, 1),
        ]
        for name, changes, code, severity, pour in rows:
            with self.subTest(name):
                found = [flag for flag in flags_of(document(**changes)) if flag.code == code]
                self.assertTrue(found, f"no {code}")
                self.assertIn((severity, pour), [(f.severity, f.pour_number) for f in found])

    def test_stops_come_first(self):
        grades = [flag.severity for flag in flags_of(document())]
        order = [Severity.STOP, Severity.WATCH, Severity.NOTE]
        self.assertEqual(grades, sorted(grades, key=order.index))

    def test_coating_resin_poured_deep_runs_away(self):
        made = document(**{f"pours__{n}__resin_id": "coating" for n in range(4)})
        hot = [flag for flag in flags_of(made) if flag.code == "too_hot"]
        self.assertIn("Pour 2 runs away, over 100 °C", [flag.title for flag in hot])


class Remedies(unittest.TestCase):
    def test_each_remedy_makes_a_sound_scene_that_answers_its_flag(self):
        rows = [
            ({}, "too_deep"), ({}, "bed_not_sealed"),
            ({"pours__2__wait_h": 6.0}, "too_early"), ({"pours__3__wait_h": 90.0}, "too_late"),
            ({"brief__room__night_c": 15}, "cold_room"),
            ({"pours__0__doses__2__dose_drops_per_100g": 0.6}, "seam_shows"),
        ]
        for changes, code in rows:
            with self.subTest(code):
                made = document(**changes)
                flag = next(flag for flag in flags_of(made) if flag.code == code)
                tried = jsonpatch_lite.apply(made, flag.remedies[0].edits)
                after = [
                    other for other in flags_of(tried)
                    if other.code == code and other.pour_number == flag.pour_number
                ]
                if code == "seam_shows":
                    self.assertTrue(all(other.number < flag.number for other in after))
                else:
                    self.assertEqual(after, [])

    def test_splitting_the_hot_pour_lowers_its_peak(self):
        made = document()
        flag = next(flag for flag in flags_of(made) if flag.code == "too_hot")
        before = evaluate(scene_from(made)).pours[1].cure.peak_c
        tried = evaluate(scene_from(jsonpatch_lite.apply(made, flag.remedies[0].edits)))
        self.assertEqual(len(tried.pours), 5)
        self.assertLess(max(pour.cure.peak_c for pour in tried.pours), before - 15)
