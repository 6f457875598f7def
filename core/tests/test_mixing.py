import unittest

from gondola_core.bench.batches import batches, warm_after_min
from gondola_core.bench.mixing import mass_ratio, mix_for
from gondola_core.cure.cup import stand_cup
from gondola_core.materials import MixRatio, load_library
from gondola_core.scene.brief import Habits

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
                volume = mix_g / made.density_g_ml
                mix = mix_for(volume, made, batches(volume, made, Habits(), 20.0).cups_count)
                self.assertEqual(mix.cups_count, cups)
                self.assertLessEqual(mix.cup_part_a_g + mix.cup_part_b_g, 500 + 1e-6)

    def test_cups_follow_what_is_at_hand(self):
        made = resin("mass", 2, 1, most_g=5000)
        volume = 1830 / made.density_g_ml
        for habits, cups, binds in (
            (Habits(), 1, ""), (Habits(scale_most_g=600.0), 4, "scale"), (Habits(cup_ml=1000.0), 3, "cup"),
            (Habits(cup_ml=1000.0, scale_most_g=600.0), 4, "scale"),
        ):
            with self.subTest(binds=binds):
                found = batches(volume, made, habits, 20.0)
                self.assertEqual((found.cups_count, found.binds), (cups, binds))

    def test_a_large_cup_is_as_warm_in_its_middle_as_the_march_says(self):
        """The march of 3 kg loses a little heat there, so it takes as long or longer, never less."""
        for name in ("casting", "coating"):
            one = load_library().resins[name]
            with self.subTest(name):
                marched = stand_cup(one, 3000.0, 25.0, 22.0).warm_50_min
                self.assertLessEqual(warm_after_min(one, 25.0), marched * 1.02)
                self.assertGreater(warm_after_min(one, 25.0), 0.85 * marched)

    def test_hot_resin_is_mixed_in_more_cups(self):
        quick = load_library().resins["coating"].model_copy(update={"most_mix_g": 50_000.0})
        for mix_c, binds in ((18.0, ""), (34.0, "heat")):
            with self.subTest(mix_c=mix_c):
                self.assertEqual(batches(1200.0, quick, Habits(), mix_c).binds, binds)
