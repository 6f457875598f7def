import unittest

from gondola_core.bench.mixing import mass_ratio, mix_for
from gondola_core.materials import MixRatio, load_library

DEEP = load_library().resins["deep"]


def resin(by, a, b, rho_a=1.15, rho_b=0.98, most_g=5000.0):
    return DEEP.model_copy(
        update={
            "ratio": MixRatio(by=by, part_a=a, part_b=b),
            "density_a_g_ml": rho_a, "density_b_g_ml": rho_b, "most_mix_g": most_g,
        }
    )


class Ratios(unittest.TestCase):
    def test_parts_by_mass_for_each_measure(self):
        # by, a, b, mix g -> part A g, part B g
        rows = [
            ("volume", 2, 1, 282.08, 197.8, 84.28),
            ("mass", 100, 45, 48.4, 33.38, 15.02),
            ("mass", 2, 1, 300, 200, 100),
            ("volume", 1, 1, 213, 115, 98),
        ]
        for by, a, b, mix_g, part_a, part_b in rows:
            with self.subTest(by=by, a=a, b=b):
                made = resin(by, a, b)
                mix = mix_for(mix_g / made.density_g_ml, made)
                self.assertAlmostEqual(mix.part_a_g, part_a, delta=0.02)
                self.assertAlmostEqual(mix.part_b_g, part_b, delta=0.02)

    def test_parts_add_up_and_keep_the_label_ratio(self):
        for by in ("volume", "mass"):
            with self.subTest(by):
                made = resin(by, 100, 45)
                mix = mix_for(731.0, made)
                self.assertAlmostEqual(mix.part_a_g + mix.part_b_g, mix.mix_g)
                pair = (
                    (mix.part_a_ml, mix.part_b_ml) if by == "volume"
                    else (mix.part_a_g, mix.part_b_g)
                )
                self.assertAlmostEqual(pair[1] / pair[0], 0.45)

    def test_volume_ratio_read_as_mass_is_seventeen_percent_off(self):
        wrong = mass_ratio(resin("mass", 2, 1)) / mass_ratio(resin("volume", 2, 1))
        self.assertAlmostEqual(wrong, 1.173, places=3)

    def test_cups_are_equal_and_none_above_the_label(self):
        for mix_g, cups in ((499, 1), (500, 1), (501, 2), (1830, 4)):
            with self.subTest(mix_g):
                made = resin("mass", 2, 1, most_g=500)
                mix = mix_for(mix_g / made.density_g_ml, made)
                self.assertEqual(mix.cups_count, cups)
                self.assertLessEqual(mix.cup_part_a_g + mix.cup_part_b_g, 500 + 1e-6)
