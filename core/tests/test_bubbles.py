import unittest
from math import log

import numpy as np

from gondola_core.cure.bubbles import bubble_profile, escape_diameter, settling, sink_distance, stokes_rise_speed
from gondola_core.cure.kinetics import isothermal_cure, viscosity
from gondola_core.evaluate import evaluate
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import Inclusion


class Laws(unittest.TestCase):
    def test_escape_sizes_of_an_exponential_thickening(self):
        # mu = mu0 exp(t/tau), tau = t_w/ln 10; no gel: F = tau/mu0
        rows = [  # Pa s, working min, depth mm, micrometres
            (0.3, 30, 5, 57), (0.3, 240, 50, 63), (0.7, 45, 15, 122), (0.7, 240, 15, 53),
            (1.2, 30, 50, 358), (1.2, 45, 5, 92),
        ]
        for mu, minutes, depth, size in rows:
            with self.subTest(mu=mu, minutes=minutes, depth=depth):
                fluidity = minutes * 60 / log(10) / mu
                found = escape_diameter(depth * 1e-3, 1100.0, fluidity)
                self.assertAlmostEqual(found * 1e6 / size, 1, delta=0.02)

    def test_rise_and_sink_are_the_same_law(self):
        self.assertAlmostEqual(stokes_rise_speed(2e-3, 1100, 0.7) * 1e3, 3.42, delta=0.02)
        speed = stokes_rise_speed(1e-4, 500.0, 1.0)
        self.assertAlmostEqual(sink_distance(1e-4, 500.0, 60.0), speed * 60)
        self.assertIsNone(escape_diameter(0.01, 1100, 0.0))

    def test_bubbles_at_the_surface_always_leave(self):
        told = bubble_profile([2.0, 20.0, 40.0], [0.0, 0.0, 30.0], [1.1] * 3, np.full(3, 5e3))
        sizes = told.escape_diameter_mm
        self.assertLess(sizes[0], sizes[1])
        self.assertLess(sizes[2], sizes[1])

    def test_grains(self):
        fine = settling("mica", 0.02, 1.1, 4e4, 40.0)
        coarse = settling("sand", 0.4, 1.1, 4e4, 40.0)
        self.assertLess(fine.sinks_mm, 10)
        self.assertTrue(coarse.reaches_floor)
        self.assertEqual(coarse.sinks_mm, 40.0)


class InTheMarch(unittest.TestCase):
    def test_fluidity_of_a_thin_cool_pour_is_that_of_its_isothermal_cure(self):
        scene = quarry_pool()
        grains = [Inclusion(kind="sand", diameter_mm=0.2)]
        pours = [pour.model_copy(update={"inclusions": grains}) for pour in scene.pours]
        outcome = evaluate(scene.model_copy(update={"pours": pours}))
        self.assertTrue(outcome.pours[0].grains[0].reaches_floor)
        # by hand: deep resin near 27 degrees, the mean of its first hours in the top pour
        resin = load_library().resins["deep"]
        step = 60.0
        warm = np.full(60 * 30, 29.0)
        cure = isothermal_cure(warm, step, resin)
        free = cure < resin.gel_degree - 1e-3
        fluidity = float((step / viscosity(cure[free], warm[free], resin)).sum())
        by_hand = escape_diameter(0.016, 1100.0, fluidity) * 1e3
        at = outcome.bubbles.depth_mm.index(min(outcome.bubbles.depth_mm, key=lambda d: abs(d - 16)))
        self.assertAlmostEqual(outcome.bubbles.escape_diameter_mm[at] / by_hand, 1, delta=0.25)
