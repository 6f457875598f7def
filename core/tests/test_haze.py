import unittest

import numpy as np

from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint import water_of
from gondola_core.tint.attenuation import DIFFUSE_PATH, LIGHTS, Water
from gondola_core.tint.haze import SURFACE_BACK, Block, haze_field, slab
from gondola_core.tint.top_view import seen_from_above

BANDS = np.ones(31)


def field(depth, a, b, g=0.0, bed=0.5, sides="painted_white", layers=1):
    depths = np.linspace(0.0, depth, layers + 1)
    table = np.ones((layers, 31))
    block = Block(width=0.2, behind=0.2, sides=sides, path=DIFFUSE_PATH, bed_reflectance=bed * BANDS)
    return haze_field(depths, a * table, b * table, g * table, block)


class Slabs(unittest.TestCase):
    def test_closed_forms_of_one_slab(self):
        # absorbing only, scattering only, and the solution by differences of exponentials
        for a, back, thick in ((7.0, 0.0, 0.03), (0.0, 40.0, 0.05), (5.0, 20.0, 0.08), (0.2, 3.0, 0.5)):
            with self.subTest(a=a, back=back, thick=thick):
                r, t = (float(one[0]) for one in slab(np.array([a]), np.array([back]), thick))
                if back == 0:
                    self.assertAlmostEqual(t, np.exp(-2 * a * thick), 12)
                    self.assertEqual(r, 0)
                elif a == 0:
                    self.assertAlmostEqual(t, 1 / (1 + back * thick), 9)
                    self.assertAlmostEqual(r + t, 1, 9)
                else:
                    k = np.sqrt(4 * a * a + 4 * a * back)
                    deep = (2 * a + back - k) / back
                    e = np.exp(-k * thick)
                    below = 1 - (deep * e) ** 2
                    self.assertAlmostEqual(r, deep * (1 - e * e) / below, 10)
                    self.assertAlmostEqual(t, (1 - deep * deep) * e / below, 10)

    def test_two_slabs_are_one_of_both_thicknesses(self):
        a, back = np.array([3.0]), np.array([25.0])
        r1, t1 = slab(a, back, 0.02)
        r2, t2 = slab(a, back, 0.05)
        r, t = slab(a, back, 0.07)
        many = 1 / (1 - r1 * r2)
        np.testing.assert_allclose(t, t1 * t2 * many, rtol=1e-10)
        np.testing.assert_allclose(r, r1 + t1 * t1 * r2 * many, rtol=1e-10)


class Field(unittest.TestCase):
    def test_without_scatter_it_is_beers_law_and_no_veil(self):
        light = field(0.1, 8.0, 0.0, bed=0.0)
        np.testing.assert_allclose(
            light.light([0.0, 0.04, 0.1])[:, 0], np.exp(-DIFFUSE_PATH * 8.0 * np.array([0, 0.04, 0.1])),
            rtol=2e-4,
        )
        self.assertEqual(float(light.veil(0.05).max()), 0.0)

    def test_nothing_is_lost_where_nothing_absorbs(self):
        # what enters leaves through the face or is taken by the bed; nothing leaks at white sides
        for bed in (0.0, 0.4, 1.0):
            for scatter in (2.0, 15.0, 60.0):
                with self.subTest(bed=bed, scatter=scatter):
                    depth = 0.12
                    light = field(depth, 0.0, scatter, bed=bed)
                    on_bed = float(light.light(depth)[0])
                    taken = (1 - bed) * on_bed
                    # the streams give the light going up at the face: F(0) = r_i G(0)
                    down = float(light.downward[0, 0]) - 1.0
                    leaves = down / SURFACE_BACK * (1 - SURFACE_BACK)
                    self.assertAlmostEqual(taken + leaves, 1.0, delta=1e-6)

    def test_more_scatter_makes_more_veil_and_leaks_dim_it(self):
        veils = [float(field(0.1, 2.0, b).veil(0.05)[0]) for b in (1.0, 5.0, 20.0)]
        self.assertEqual(veils, sorted(veils))
        lights = [
            float(field(0.1, 2.0, 10.0, sides=sides).light(0.08)[0])
            for sides in ("painted_white", "polished", "sanded")
        ]
        self.assertEqual(lights, sorted(lights, reverse=True))

    def test_layers_of_one_dose_are_one_layer(self):
        one, many = field(0.1, 3.0, 9.0, g=0.6), field(0.1, 3.0, 9.0, g=0.6, layers=5)
        np.testing.assert_allclose(one.downward, many.downward, rtol=1e-9)
        np.testing.assert_allclose(one.veiling, many.veiling, rtol=1e-9)


class Milk(unittest.TestCase):
    def test_white_veils_what_stands_far_behind(self):
        document = quarry_pool().model_dump(mode="json")
        white = load_library().colourants["white-paste"].model_dump(mode="json")
        document["colourants"].append(white)
        for pour in document["pours"]:
            pour["doses"] = [{"colourant_id": "white-paste", "dose_drops_per_100g": 0.4}]
        hazy = water_of(scene_from(document))
        black, bright = np.zeros(31), np.ones(31)
        contrast = [
            float((hazy.seen(bright, 0.05, y) - hazy.seen(black, 0.05, y))[15]) for y in (0.01, 0.05, 0.1)
        ]
        self.assertEqual(contrast, sorted(contrast, reverse=True))
        veil = [float(hazy.seen(black, 0.05, y)[15]) for y in (0.01, 0.05, 0.1)]
        self.assertEqual(veil, sorted(veil))
        self.assertGreater(veil[-1], 0.02)

    def test_clear_resin_leaves_every_view_alone(self):
        clear = Water(
            depths=np.array([0, 0.1]), attenuation=np.zeros((1, 31)), scatter=np.zeros((1, 31)),
            cosine=np.zeros((1, 31)), light=LIGHTS["mixed"], behind=0.1, haze=None,
        )
        np.testing.assert_allclose(clear.seen(BANDS, [0.01, 0.09], [0.0, 0.1]), 1.0)
        np.testing.assert_allclose(seen_from_above(0.7 * BANDS, np.zeros(31)), 1.0)

    def test_face_throws_less_back_through_tint(self):
        # a bright bed gains from what the face throws back, and tint takes that first
        tau = 0.3 * BANDS
        dark, bright = (float(seen_from_above(rho * BANDS, tau)[0]) for rho in (0.02, 0.9))
        self.assertLess(bright, dark)
        self.assertAlmostEqual(dark, np.exp(-(1 + DIFFUSE_PATH) * 0.3), delta=0.02)
