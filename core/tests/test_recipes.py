"""Mixes by parts, scaled to an area or an amount, against hand arithmetic."""

import unittest

from gondola_core.bench.mixing import mass_ratio
from gondola_core.bench.recipes import Recipe, Share, load_recipes, scaled, volume_over_ml
from gondola_core.errors import GondolaError
from gondola_core.materials import load_library

RESIN = load_library().resins["coating"]
RECIPES = load_recipes()


class Mixes(unittest.TestCase):
    def test_parts_by_volume_and_by_mass(self):
        shares = [Share(name="one", parts=2.0, density_g_ml=0.5), Share(name="two", parts=1.0, density_g_ml=2.0)]
        # by volume 2:1 of 30 ml; by mass 2 g to 4 ml and 1 g to 0.5 ml: 30 ml are 26.67 and 3.33 ml
        for by, volumes, masses in (("volume", (20, 10), (10, 20)), ("mass", (26.67, 3.33), (13.33, 6.67))):
            recipe = Recipe(id="x", name="x", by=by, thickness_mm=1.0, over="bed", note="", parts=shares)
            with self.subTest(by):
                made = scaled(recipe, 30.0, RESIN)
                for one, volume, mass in zip(made.amounts, volumes, masses, strict=True):
                    self.assertAlmostEqual(one.volume_ml, volume, delta=0.01)
                    self.assertAlmostEqual(one.mass_g, mass, delta=0.01)
                self.assertAlmostEqual(made.volume_ml, 30.0, delta=0.02)

    def test_resin_goes_in_its_own_ratio_with_what_the_cup_keeps(self):
        made = scaled(RECIPES["seal_coat"], volume_over_ml(250.0, 0.3), RESIN)
        a, b = made.amounts
        self.assertAlmostEqual(b.mass_g / a.mass_g, mass_ratio(RESIN), delta=0.01)
        self.assertGreater(made.volume_ml, 7.5)
        self.assertLess(made.volume_ml, 12.0)

    def test_every_recipe_scales_evenly(self):
        for key, recipe in RECIPES.items():
            with self.subTest(key):
                one, two = (scaled(recipe, volume, RESIN) for volume in (500.0, 1000.0))
                self.assertAlmostEqual(two.volume_ml / one.volume_ml, 2.0, delta=0.03)
                self.assertEqual(bool(recipe.parts), recipe.by != "resin")

    def test_none_and_too_much_are_refused(self):
        for volume in (0.0, -5.0, 1e6):
            with self.subTest(volume), self.assertRaisesRegex(GondolaError, "A mix is from"):
                scaled(RECIPES["thin_glue"], volume, RESIN)


if __name__ == "__main__":
    unittest.main()
