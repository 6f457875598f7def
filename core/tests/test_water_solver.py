import unittest

import numpy as np

from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint import seams, water_of
from gondola_core.tint.attenuation import DIFFUSE_PATH, absorbance_per_cm
from gondola_core.tint.colour import colour_difference, encode_srgb, lab, linear_srgb, reflectance_of_hex
from gondola_core.tint.measured_spectrum import MeasuredSpectrum, colourant_of_spectrum
from gondola_core.tint.solver import solve_water, water_types

LIBRARY = load_library()
FOUR = ["leaf-green-ink", "turquoise-ink", "burnt-umber-ink", "red-ink"]


def wished(look, owned=FOUR, **wish):
    document = quarry_pool().model_dump(mode="json")
    document["brief"]["owned"] = owned
    document["wish"] = {"look": look, **wish}
    return scene_from(document)


def scale_true(water_type="3C", **more):
    return {"kind": "scale_true", "water_type": water_type, **more}


def dosed(scene, solved):
    """The scene with the doses found."""
    document = scene.model_dump(mode="json")
    document["colourants"] = [one.model_dump(mode="json") for one in solved.colourants]
    for pour, doses in zip(document["pours"], solved.pours, strict=True):
        pour["doses"] = [
            {"colourant_id": one.colourant_id, "dose_drops_per_100g": one.dose_drops_per_100g}
            for one in doses
        ]
    return scene_from(document)


class ScaleTrue(unittest.TestCase):
    def test_coastal_water_at_48th_from_four_inks(self):
        scene = wished(scale_true())
        solved = solve_water(scene)
        self.assertEqual((len(solved.front_de00), len(solved.top_de00)), (4, 4))
        self.assertLessEqual(solved.mean_de00, 2.5)
        self.assertAlmostEqual(solved.shown_depth_m, 0.120 * 48, delta=0.01)
        outcome = evaluate(dosed(scene, solved), DRAFT, Keeper())
        for pour in outcome.pours:
            with self.subTest(pour.number):
                self.assertLessEqual(pour.cup.measured.rounding_de00, 1.0)
                for one in pour.cup.measured.doses:
                    self.assertGreaterEqual(one.drops, 10)

    def test_what_it_says_is_off_is_what_its_doses_are_off(self):
        scene = wished(scale_true())
        solved = solve_water(scene)
        water = water_of(dosed(scene, solved))
        uniform = water_types()["3C"] * 48 / DIFFUSE_PATH
        for share, said in zip((0.25, 0.5, 0.75, 1.0), solved.top_de00, strict=True):
            z = share * 0.12
            ours = lab(np.exp(-(1 + DIFFUSE_PATH) * water.optical_depth(z)))
            real = lab(np.exp(-(1 + DIFFUSE_PATH) * uniform * z))
            with self.subTest(share):
                self.assertAlmostEqual(float(colour_difference(ours, real)), said, delta=0.1)

    def test_a_yellowed_resin_is_reckoned_with(self):
        yellow = ("burnt-umber-ink", "leaf-green-ink", "yellow-ink")
        blue_taken = []
        for years in (0, 10):
            scene = wished(scale_true())
            brief = scene.brief.model_copy(update={"display_years": float(years)})
            solved = solve_water(scene.model_copy(update={"brief": brief}))
            with self.subTest(years):
                self.assertLessEqual(solved.mean_de00, 2.5)
            drops = {one.colourant_id: one.dose_drops_per_100g for one in solved.pours[0]}
            blue_taken.append(sum(
                dose * absorbance_per_cm(LIBRARY.colourants[key])[5]
                for key, dose in drops.items() if key in yellow
            ))
        self.assertLess(blue_taken[1], blue_taken[0])

    def test_exaggeration_is_more_of_the_same(self):
        plain, twice = (
            solve_water(wished(scale_true(exaggeration=x))) for x in (1.0, 2.0)
        )
        total = [sum(one.dose_drops_per_100g for one in found.pours[0]) for found in (plain, twice)]
        self.assertAlmostEqual(total[1] / total[0], 2.0, delta=0.35)
        self.assertIn("exaggerated 2 times", twice.sentence)

    def test_more_bottles_never_come_out_further_off(self):
        off = [
            solve_water(wished(scale_true("9C"), owned=[], most_colourants=most)).mean_de00
            for most in (1, 2, 4)
        ]
        self.assertEqual(off, sorted(off, reverse=True))

    def test_what_cannot_be_reached_is_said(self):
        solved = solve_water(wished(scale_true("I"), owned=["red-ink"]))
        self.assertGreater(solved.mean_de00, 2.5)
        self.assertIn("other bottles would come closer", solved.sentence)

    def test_haze_adds_white_for_the_contrast_of_real_water(self):
        clear, hazy = (solve_water(wished(scale_true(haze=haze))) for haze in (False, True))
        self.assertNotIn("white-paste", [one.colourant_id for one in clear.pours[0]])
        self.assertIn("white-paste", [one.colourant_id for one in hazy.pours[0]])


class Restricted(unittest.TestCase):
    def test_a_figure_kept_in_sight_is(self):
        scene = wished(scale_true("7C"), keep_figure="pike", keep_contrast=0.6)
        solved = solve_water(scene, evaluate(scene, DRAFT, Keeper()).sights)
        self.assertLess(solved.factor, 1)
        outcome = evaluate(dosed(scene, solved), DRAFT, Keeper())
        pike = next(one for one in outcome.sights if one.figure_id == "pike")
        self.assertAlmostEqual(pike.contrast_fraction, 0.6, delta=0.003)
        self.assertIn("smaller", solved.sentence)

    def test_no_line_steps_more_than_allowed(self):
        scene = wished(scale_true(), graded=True, most_step_de00=2.0)
        solved = solve_water(scene)
        for step in seams(dosed(scene, solved)):
            with self.subTest(step.depth_mm):
                self.assertLessEqual(step.seam_de00, 2.05)

    def test_graded_layers_step_evenly_and_run_from_clear(self):
        scene = wished(scale_true(), graded=True)
        solved = solve_water(scene)
        sums = [sum(one.dose_drops_per_100g for one in doses) for doses in solved.pours]
        self.assertEqual(sums, sorted(sums, reverse=True))
        self.assertLess(sums[-1], 0.01)
        self.assertGreater(solved.layers_sharp_count, solved.layers_soft_count)
        self.assertGreater(solved.layers_soft_count, 2)

    def test_nothing_to_tint_with(self):
        rows = [
            (quarry_pool(), "Say first how the water should look."),
            (wished(scale_true(), owned=["white-paste"]), "Take some colourants from the shelf first."),
        ]
        for scene, words in rows:
            with self.subTest(words), self.assertRaises(GondolaError) as caught:
                solve_water(scene)
            self.assertEqual(caught.exception.message, words)


class ByEye(unittest.TestCase):
    def test_a_gradient_made_read_and_solved_returns_its_wish(self):
        made = quarry_pool()
        water = water_of(made)
        wall = reflectance_of_hex(made.brief.backdrop_srgb)
        picks = []
        for depth in (9, 29, 66, 106):
            read = linear_srgb(water.seen(wall, depth / 1000, water.behind))
            code = "#" + "".join(f"{round(float(v)):02x}" for v in encode_srgb(read))
            picks.append({"depth_mm": depth, "srgb": code})
        scene = wished({"kind": "by_eye", "picks": picks})
        solved = solve_water(scene)
        self.assertLess(solved.mean_de00, 1.0)
        again = water_of(dosed(scene, solved))
        for pick, said in zip(picks, solved.eye_de00, strict=True):
            with self.subTest(pick["depth_mm"]):
                before = lab(water.seen(wall, pick["depth_mm"] / 1000, water.behind))
                after = lab(again.seen(wall, pick["depth_mm"] / 1000, again.behind))
                self.assertLess(float(colour_difference(before, after)), 1.5)
                self.assertLess(said, 1.5)


class Spectra(unittest.TestCase):
    def rows(self, step=10, value=0.3):
        return "nm,absorbance\n" + "\n".join(f"{nm},{value}" for nm in range(390, 711, step))

    def bring(self, text, **more):
        given = {"drops_per_100g": 1.5, "path_mm": 20.0, **more}
        return colourant_of_spectrum(MeasuredSpectrum(text=text, name="mine", **given), "mine")

    def test_absorbance_per_drop_and_cm(self):
        ink = self.bring(self.rows())
        np.testing.assert_allclose(ink.absorbances_per_cm, 0.3 / 1.5 / 2, rtol=1e-4)
        semicolons = self.bring(self.rows().replace(",", ";").replace(".", ","))
        self.assertEqual(semicolons.absorbances_per_cm, ink.absorbances_per_cm)

    def test_a_generic_ink_written_out_comes_back(self):
        from gondola_core.tint.attenuation import absorbance_per_cm
        from gondola_core.tint.spectrum import WAVELENGTHS_NM

        generic = LIBRARY.colourants["turquoise-ink"]
        text = "\n".join(
            f"{nm:g}\t{a:.6f}" for nm, a in zip(WAVELENGTHS_NM, absorbance_per_cm(generic), strict=True)
        )
        ink = self.bring(text, drops_per_100g=1.0, path_mm=10.0)
        np.testing.assert_allclose(absorbance_per_cm(ink), absorbance_per_cm(generic), atol=2e-5)

    def test_flaws_get_a_sentence(self):
        good = self.rows()
        rows = [
            ("", "0 rows of numbers"),
            (good.replace("500,0.3", "500,green"), "Row 13 of the spectrum says '500 green'"),
            (good.replace("500,0.3", "500,-4"), "Row 13 of the spectrum says 500 nm and -4"),
            (good.replace("500,0.3", "510,0.3"), "gives 510 nm twice"),
            (good.replace("500,0.3\n", "").replace("510,0.3\n", ""), "gaps up to 30 nm"),
            ("\n".join(f"{nm},0.2" for nm in range(500, 701, 10)), "cover 400 to 700 nm"),
        ]
        for text, words in rows:
            with self.subTest(words), self.assertRaises(GondolaError) as caught:
                self.bring(text)
            self.assertIn(words, caught.exception.message)
