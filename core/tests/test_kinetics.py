import unittest

import numpy as np

from gondola_core.cure import kinetics
from gondola_core.cure.kinetics import (
    adiabatic_rise_k,
    cure_rate,
    degree_at_glass_temperature,
    glass_temperature_c,
    isothermal_cure,
    viscosity,
)
from gondola_core.cure.march.chemistry import cell_rate
from gondola_core.cure.march.tables import rate_tables
from gondola_core.materials import load_library

RESINS = load_library().resins


class Laws(unittest.TestCase):
    def test_adiabatic_rise_is_heat_over_capacity(self):
        for key, rise in (("deep", 144.444), ("casting", 161.111), ("coating", 200.0)):
            with self.subTest(key):
                self.assertAlmostEqual(adiabatic_rise_k(RESINS[key]), rise, places=3)

    def test_glass_temperature_meets_both_ends_and_its_inverse(self):
        resin = RESINS["deep"]
        self.assertAlmostEqual(float(glass_temperature_c(0.0, resin)), resin.tg_uncured_c)
        self.assertAlmostEqual(float(glass_temperature_c(1.0, resin)), resin.tg_full_c)
        for degree in (0.1, 0.5, 0.881, 0.99):
            with self.subTest(degree):
                back = degree_at_glass_temperature(glass_temperature_c(degree, resin), resin)
                self.assertAlmostEqual(float(back), degree, places=12)

    def test_degree_at_which_the_part_can_come_out(self):
        for key, degree in (("deep", 0.881), ("casting", 0.844), ("coating", 0.844)):
            with self.subTest(key):
                found = float(degree_at_glass_temperature(30.0, RESINS[key]))
                self.assertAlmostEqual(found, degree, places=3)

    def test_isothermal_cure_at_25_and_18(self):
        # key, room, hours to gel, degree after 24 h and 7 d where known
        rows = [
            ("deep", 25, 19.86, 0.6541, 0.9316),
            ("casting", 25, 7.140, 0.8505, 0.9155),
            ("coating", 25, 5.018, 0.8728, 0.9234),
            ("deep", 18, 34.49, None, 0.8790),
            ("casting", 18, 12.40, None, 0.8674),
            ("coating", 18, 8.668, None, 0.8773),
        ]
        step = 120.0
        for key, room, gel_h, day, week in rows:
            with self.subTest(key, room=room):
                cure = isothermal_cure(np.full(7 * 720 + 1, float(room)), step, RESINS[key])
                gel = np.interp(RESINS[key].gel_degree, cure, np.arange(len(cure)) * step / 3600)
                self.assertAlmostEqual(float(gel), gel_h, delta=0.01)
                if day:
                    self.assertAlmostEqual(float(cure[720]), day, places=4)
                self.assertAlmostEqual(float(cure[-1]), week, places=4)

    def test_first_order_isothermal_cure_is_exponential(self):
        resin = RESINS["deep"].model_copy(
            update={"k2_per_s": 0.0, "order_n": 1.0, "k1_per_s": 2e-5}
        )
        cure = isothermal_cure(np.full(501, 25.0 + 0 * 501), 60.0, resin)
        exact = 1 - np.exp(-2e-5 * 60.0 * np.arange(501))
        np.testing.assert_allclose(cure, exact, atol=2e-6)

    def test_viscosity_doubles_on_the_way_to_gel_and_never_ends_there(self):
        resin = RESINS["deep"]
        run = viscosity(np.array([0.0, 0.2, 0.4, 0.57, 0.58, 0.7]), 25.0, resin)
        self.assertAlmostEqual(float(run[0]), 0.3)
        self.assertTrue(np.all(np.diff(run[:4]) > 0))
        self.assertTrue(np.isinf(run[4:]).all())


class Tables(unittest.TestCase):
    def test_tables_give_the_law(self):
        keys = list(RESINS)
        tables = rate_tables([RESINS[key] for key in keys])
        for index, key in enumerate(keys):
            peak = float(np.max(cure_rate(np.linspace(0, 1, 50), 60.0, RESINS[key])))
            for temperature in (5.1, 18.03, 23.3, 61.7, 140.2):
                for degree in (0.0, 0.013, 0.31, 0.57, 0.83, 0.95):
                    with self.subTest(key, t=temperature, a=degree):
                        law = float(cure_rate(degree, temperature, RESINS[key]))
                        table = cell_rate(
                            degree, temperature, tables.by_temperature[index],
                            tables.by_degree[index], tables.sharpness[index], tables.logistic,
                        )
                        self.assertAlmostEqual(table, law, delta=3e-4 * law + 1e-7 * peak)


class Doctests(unittest.TestCase):
    def test_examples_in_docstrings(self):
        import doctest

        self.assertEqual(doctest.testmod(kinetics).failed, 0)
