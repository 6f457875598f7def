"""A bottle's own numbers from cups, pours, looks, swatches and drops: against closed forms and seeded logs."""

import unittest

import numpy as np
from soaked import as_many

from gondola_core.answers.book import Book
from gondola_core.answers.flood import FLOOD, SPANS
from gondola_core.answers.march import cells_of
from gondola_core.errors import GondolaError
from gondola_core.learning.belief import Belief, distance2, factored, row_belief, taught
from gondola_core.learning.cup_fit import CupSetting, _next_cup, cup_prior, fit_cup
from gondola_core.learning.cup_model import ROOM_STEP, Cup, CupModel
from gondola_core.learning.drops import DropsWeighed, drop_mass
from gondola_core.learning.grid import grid_around
from gondola_core.learning.looks import Look, look_residual, looks_of
from gondola_core.learning.swatch import Patch, SwatchRead, compared, eye_weights, fit_swatch, patch_reflectance
from gondola_core.learning.temperature_log import read_log
from gondola_core.materials import load_library
from gondola_core.samples import SAMPLES
from gondola_core.studies.forecast import forecast, forecast_table
from gondola_core.studies.pour_fit import LEARN, Heard, _Pour, fit_pour
from gondola_core.studies.tests_ahead import tests_ahead
from gondola_core.studies.watching import Reading
from gondola_core.tint.attenuation import absorption_of_drop
from gondola_core.tint.colour import colour_difference, hex_of, lab, linear_srgb
from gondola_core.units import HOUR

RESINS, INKS = load_library().resins, load_library().colourants
HELD = row_belief(RESINS["deep"])


def cup_log(resin: str, mass_g: float, hours: float, *, seed: int | None = None, logs=(0.0, 0.0), **cup) -> str:
    """A seeded log of a cup, with all that is not known exactly drawn; exact without a seed."""
    prior = cup_prior(row_belief(RESINS[resin]), room_logged=False)
    at = np.arange(60.0, hours * HOUR, 60.0)
    model = CupModel(
        cup=Cup(resin=RESINS[resin], mass_g=mass_g, mix_c=23.0, **cup), at=at,
        room_c=np.full(round(hours * HOUR / ROOM_STEP) + 13, 23.0),
    )
    if seed is None:
        off = prior.mean.copy()
        off[:2] = logs
        values = model.curve(off)
    else:
        draw = np.random.default_rng(seed)
        off = prior.mean + prior.root @ draw.standard_normal(len(prior.mean))
        values = np.round((model.curve(off) + 0.3 * draw.standard_normal(len(at))) / 0.1) * 0.1
    rows = "\n".join(f"{t:.0f},{v:.4f}" for t, v in zip(at, values, strict=True))
    return f"time_s,cup_c\n{rows}", off


class ReadingLogs(unittest.TestCase):
    """Every common way of writing one log gives the same readings."""

    times = [0, 600, 1200, 1800, 2400, 3000, 3600, 4200, 4800, 5400]
    cups = [23.0, 23.5, 24.25, 25.0, 26.0, 27.0, 28.5, 29.0, 28.75, 28.0]

    def written(self, form: str) -> str:
        pairs = list(zip(self.times, self.cups, strict=True))
        clock = [f"{t // 3600 + 23:d}:{t % 3600 // 60:02d}:{t % 60:02d}" for t in self.times]
        past = [one.replace("24:", "0:", 1) if one.startswith("24:") else one for one in clock]
        return {
            "plain": "t_s,c\n" + "\n".join(f"{t},{c}" for t, c in pairs),
            "minutes": "minutes;cup\n" + "\n".join(f"{t / 60:g};{c:g}".replace(".", ",") for t, c in pairs),
            "hours first the room": "room °C\ttime h\tcup °C\n" + "\n".join(
                f"{21 + 0.01 * at}\t{t / 3600:.6f}\t{c}" for at, (t, c) in enumerate(pairs)),
            "fahrenheit": "time (min),temp °F\n" + "\n".join(f"{t / 60:g},{c * 1.8 + 32:.4f}" for t, c in pairs),
            "date and time": "date;time;cup\n" + "\n".join(
                f"01.05.2026;{10 + t // 3600:02d}:{t % 3600 // 60:02d}:{t % 60:02d};{c}".replace(".", ",", 0)
                for t, c in pairs),
            "date-time": "when,cup\n" + "\n".join(
                f"2026-05-01 {10 + t // 3600:02d}:{t % 3600 // 60:02d}:00,{c}" for t, c in pairs),
            "past midnight": "clock,cup\n" + "\n".join(f"{w},{c}" for w, c in zip(past, self.cups, strict=True)),
            "shuffled and doubled": "t_s,c\n" + "\n".join(f"{t},{c}" for t, c in [*pairs[::-1], *pairs[:3]]),
            "gaps and junk": "t_s,c\n" + "\n".join(f"{t},{c}\n{t + 1},\n,," for t, c in pairs) + "\nend of file",
            "old line ends": "t_s,c\r" + "\r".join(f"{t},{c}" for t, c in pairs),
        }[form]

    def test_forms(self) -> None:
        for form in ("plain", "minutes", "hours first the room", "fahrenheit", "date and time", "date-time",
                     "past midnight", "shuffled and doubled", "gaps and junk", "old line ends"):
            with self.subTest(form):
                log = read_log(self.written(form))
                np.testing.assert_allclose(log.at_h, np.array(self.times) / 3600, atol=1e-4)
                np.testing.assert_allclose(log.measured_c, self.cups, atol=1e-3)
                self.assertEqual(log.room_c is not None, form == "hours first the room")

    def test_spikes_and_codes_go(self) -> None:
        rows = [f"{60 * at},{25 + 0.02 * at:.2f}" for at in range(60)]
        rows[20], rows[30] = "1200,85.0", "1800,-127.0"
        log = read_log("s,c\n" + "\n".join(rows))
        self.assertEqual((log.spikes_count, len(log.at_h)), (2, 58))

    def test_refused_in_a_sentence(self) -> None:
        rows = (
            ("", "numbers"), ("a,b\nc,d", "numbers"), ("t_s,c\n1,20.5\n2,20.9\n3,21.5", "readings at least"),
            ("min,temp\n" + "\n".join(f"{at},{75.5 + 0.3 * at:.1f}" for at in range(20)), "°F"),
            ("t,c\n" + '"open,1\n' * 20, "numbers"),
            ("t_s,c\n" + "\n".join(f"{at}," for at in range(20)), "temperatures"),
        )
        for text, part in rows:
            with self.subTest(part=part, text=text[:20]), self.assertRaises(GondolaError) as caught:
                read_log(text)
            self.assertIn(part, caught.exception.message)


class CupFits(unittest.TestCase):
    """Rate and heat from a cup."""

    def test_recovers_what_was_put_in(self) -> None:
        for resin, mass, hours, cup in (("deep", 60, 20, {"wrap_mm": 10.0, "lid": True}), ("casting", 70, 4, {}),
                                        ("coating", 15, 3, {})):
            with self.subTest(resin):
                held = Belief(mean=np.zeros(2), covariance=np.diag([1.0, 1.0]))
                text, off = cup_log(resin, mass, hours, logs=(0.1, -0.05), **cup)
                fit = fit_cup(read_log(text), CupSetting(mass_g=mass, mix_c=23.0, room_c=23.0, **cup),
                              RESINS[resin], held)
                np.testing.assert_allclose(fit.mean, off[:2], atol=0.012)

    def test_covers_and_says_what_it_cannot(self) -> None:
        inside = []
        for seed in range(as_many(6, 2)):
            text, off = cup_log("casting", 70, 4, seed=seed)
            fit = fit_cup(read_log(text), CupSetting(mass_g=70, mix_c=23.0, room_c=23.0), RESINS["casting"])
            inside += list(np.abs(np.array(fit.mean) - off[:2]) < 2.5 * fit.belief.sd)
            self.assertLess(fit.misfit, 2)
        self.assertGreaterEqual(np.sum(inside), as_many(10, 3))
        plain = fit_cup(read_log(cup_log("deep", 100, 10)[0]), CupSetting(mass_g=100, mix_c=23.0, room_c=23.0),
                        RESINS["deep"])
        self.assertEqual(plain.state, "little")
        self.assertIn("10 mm of foam", plain.words[1])

    def test_the_next_cup_is_one_that_is_safe_for_its_class(self) -> None:
        for resin, safe in (("deep", "60 g set in 10 mm of foam"), ("casting", "70 g in an open cup"),
                            ("coating", "15 g in an open cup, no more and no foam")):
            with self.subTest(resin):
                self.assertIn(safe, _next_cup(RESINS[resin]))

    def test_another_resin_is_refused(self) -> None:
        fit = fit_cup(read_log(cup_log("casting", 100, 5)[0]), CupSetting(mass_g=100, mix_c=23.0, room_c=23.0),
                      RESINS["deep"])
        self.assertIn(fit.state, ("refused", "shape"))
        self.assertFalse(fit.merges)

    def test_before_its_peak_only_together(self) -> None:
        text, _ = cup_log("casting", 70, 0.6, logs=(0.1, 0.0))
        fit = fit_cup(read_log(text), CupSetting(mass_g=70, mix_c=23.0, room_c=23.0), RESINS["casting"])
        self.assertIn(fit.state, ("together", "little", "rate_only"))

    def test_light_cured_is_refused(self) -> None:
        with self.assertRaises(GondolaError):
            fit_cup(read_log(cup_log("deep", 100, 3)[0]), CupSetting(mass_g=100), RESINS["light-cured"])


class Bottles(unittest.TestCase):
    """The bottle after logs of it."""

    def test_update_is_joint_inference(self) -> None:
        draw = np.random.default_rng(2)

        def covariance() -> np.ndarray:
            root = draw.standard_normal((2, 2))
            return root @ root.T + 0.1 * np.eye(2)

        held, scatter, noise = covariance(), covariance(), covariance()
        mean, said = draw.standard_normal(2), draw.standard_normal(2)
        first = held + scatter
        own = np.linalg.inv(np.linalg.inv(first) + np.linalg.inv(noise))
        own_mean = own @ (np.linalg.solve(first, mean) + np.linalg.solve(noise, said))
        found = taught(Belief(mean=mean, covariance=held), Belief(mean=own_mean, covariance=own), scatter)
        gain = held @ np.linalg.inv(held + scatter + noise)
        np.testing.assert_allclose(found.mean, mean + gain @ (said - mean), atol=1e-12)
        np.testing.assert_allclose(found.covariance, held - gain @ held, atol=1e-12)

    def test_ends(self) -> None:
        own = Belief(mean=np.array([0.1, 0.02]), covariance=np.diag([0.001, 0.002]))
        same = taught(HELD, own, np.zeros((2, 2)))
        np.testing.assert_allclose(same.mean, own.mean)
        np.testing.assert_allclose(same.covariance, own.covariance, atol=1e-12)
        scatter = np.diag([0.01, 0.01])
        nothing = taught(HELD, HELD.scattered(scatter), scatter)
        np.testing.assert_allclose(nothing.covariance, HELD.covariance, atol=1e-12)

    def test_worked_example(self) -> None:
        own = Belief(mean=np.array([0.102, -0.023]), covariance=np.array(
            [[0.033**2, -0.71 * 0.033 * 0.046], [-0.71 * 0.033 * 0.046, 0.046**2]]))
        found = taught(HELD, own, np.diag([0.07**2, 0.03**2]))
        np.testing.assert_allclose(found.mean, (0.068, -0.019), atol=1e-3)
        np.testing.assert_allclose(found.sd, (0.062, 0.048), atol=1e-3)

    def test_ages_and_disagrees(self) -> None:
        self.assertGreater(HELD.aged(12).sd[0], HELD.sd[0])
        far = Belief(mean=np.array([0.8, 0.0]), covariance=np.eye(2) * 1e-4)
        self.assertGreater(distance2(HELD, far, np.zeros((2, 2))), 9)
        resin = factored(RESINS["deep"], np.log([1.1, 0.9]))
        self.assertAlmostEqual(resin.k1_per_s / RESINS["deep"].k1_per_s, 1.1)

    def test_grid_gives_back_a_polynomial(self) -> None:
        grid = grid_around(HELD)
        table = grid.table([np.array([one[0] ** 3 - 2 * one[1] ** 2 + one[0] * one[1]]) for one in grid.points])
        at = np.array([0.11, -0.04])
        self.assertAlmostEqual(float(grid.at(table, at)[0]), 0.11**3 - 2 * 0.04**2 - 0.11 * 0.04)


class Looks(unittest.TestCase):
    """What a finger found."""

    def test_bounds_not_points(self) -> None:
        found = looks_of([(4.0, "strings"), (6.0, "strings"), (8.0, "prints"), (20.0, "dry")])
        self.assertEqual([(one.what, one.not_yet_h, one.seen_h) for one in found], [("gel", 6, 8), ("tack", 8, 20)])
        rows = ((Look(what="gel", not_yet_h=16, seen_h=17.5), 18.0, 0.073 / 0.105 * 0.98),
                (Look(what="tack", not_yet_h=None, seen_h=10.0), 1.0, 0.0),
                (Look(what="gel", not_yet_h=10.0, seen_h=None), 100.0, 0.0))
        for look, moment, residual in rows:
            with self.subTest(look=look):
                self.assertAlmostEqual(look_residual(look, moment), residual, delta=0.3)
        self.assertGreater(look_residual(Look(what="gel", not_yet_h=10.0, seen_h=None), 5.0), 5)


class Pours(unittest.TestCase):
    """A bottle from its pour."""

    @classmethod
    def setUpClass(cls) -> None:
        cls.scene = SAMPLES["quarry-pool"]()
        book = Book(cls.scene, LEARN)
        cells = cells_of(cls.scene, LEARN, book.ask(SPANS), book.ask(FLOOD))
        cls.pour = _Pour(cls.scene, cells, 1, "middle", 20 * HOUR)
        cls.held = row_belief(cls.scene.resin_of(cls.scene.pours[0]))
        cls.at = np.arange(0, 20 * HOUR, 120.0)
        cls.curve = cls.pour.curve(cls.pour.marched(np.array([0.1, -0.06])), cls.at)

    def readings(self, hours: float) -> list[Reading]:
        return [Reading(at_h=float(at) / HOUR, measured_c=float(value))
                for at, value in zip(self.at, self.curve, strict=True) if at < hours * HOUR]

    def test_narrows_as_it_goes_on(self) -> None:
        heard = [Heard(readings=self.readings(hours), looks=[], room_logged=True) for hours in (3, 8, 20)]
        fits = [fit_pour(self.scene, 1, one, self.held) for one in heard]
        sds = [one.belief.sd[0] for one in fits]
        self.assertGreater(sds[0], sds[2])
        self.assertLess(abs(fits[2].mean[0] + fits[2].mean[1] - 0.04), 0.06)
        self.assertLess(abs(fits[2].mean[0] - 0.1), 2 * sds[2])

    def test_a_look_alone_tells_the_rate(self) -> None:
        gel = self.pour.moment_h(self.pour.marched(np.array([0.1, 0.0])), "gel")
        looks = looks_of([(gel - 0.5, "strings"), (gel + 0.5, "prints")])
        fit = fit_pour(self.scene, 1, Heard(readings=[], looks=looks, room_logged=True), self.held)
        self.assertLess(abs(fit.mean[0] - 0.1), 0.08)
        self.assertLess(fit.belief.sd[0], self.held.sd[0])

    def test_a_thermometer_on_the_wall_tells_it_too(self) -> None:
        outside = _Pour(self.scene, self.pour.cells, 1, "wall", 20 * HOUR)
        curve = outside.curve(outside.marched(np.array([0.1, -0.06])), self.at)
        self.assertLess(curve.max(), self.curve.max())
        readings = [Reading(at_h=float(at) / HOUR, measured_c=float(value))
                    for at, value in zip(self.at, curve, strict=True)]
        fit = fit_pour(self.scene, 1, Heard(readings=readings, looks=[], room_logged=True, place="wall"), self.held)
        self.assertLess(abs(fit.mean[0] - 0.1), 2 * fit.belief.sd[0])

    def test_nothing_is_nothing(self) -> None:
        with self.assertRaises(GondolaError):
            fit_pour(self.scene, 1, Heard(readings=[], looks=[], room_logged=True), self.held)
        with self.assertRaises(GondolaError):
            fit_pour(self.scene, 9, Heard(readings=self.readings(3), looks=[], room_logged=True), self.held)

    def test_forecast_narrows_with_what_is_known(self) -> None:
        table = forecast_table(self.scene, self.scene.pours[0].resin_id, self.held)
        wide = forecast(table, self.held)
        narrow = forecast(table, Belief(mean=self.held.mean, covariance=self.held.covariance / 9))
        for was, then in zip(wide, narrow, strict=True):
            self.assertLess(then.peak_high_c - then.peak_low_c, was.peak_high_c - was.peak_low_c)
            self.assertGreater(then.sure_h, was.sure_h)

    def test_what_a_test_would_tell(self) -> None:
        told = tests_ahead(self.scene, self.scene.resin_of(self.scene.pours[0]), self.held)
        self.assertGreaterEqual(len(told), 3)
        gains = [one.gain_per_hour for one in told]
        self.assertEqual(gains, sorted(gains, reverse=True))
        self.assertTrue(all(one.hot_c <= 100 for one in told))
        self.assertIn("would narrow the peak of pour", told[0].words)


class Swatches(unittest.TestCase):
    """A colourant from a picture of its patches."""

    def picture(self, ink: str, strength: float, gains=(1.0, 1.0, 1.0), grey: bool = True) -> SwatchRead:
        absorbed = absorption_of_drop(INKS[ink]) * strength
        dose = 0.3 / float(np.log10(np.e) * absorption_of_drop(INKS[ink]).max() / 100)

        def code(reflectance: np.ndarray) -> str:
            return hex_of(linear_srgb(reflectance) * np.array(gains))

        patches = [
            Patch(depth_mm=depth, dose_drops_per_100g=dose,
                  srgb=code(patch_reflectance(absorbed * dose, 0 * absorbed, depth / 1000, 0.85)))
            for depth in (5.0, 12.0, 25.0, 40.0)
        ]
        return SwatchRead(patches=patches, white_srgb=code(np.full(31, 0.85)),
                          grey_srgb=code(np.full(31, 0.18)) if grey else None)

    def test_strength_with_white_balance_off(self) -> None:
        for ink in [one.id for one in INKS.values() if one.scatter_per_mm == 0][:5]:
            with self.subTest(ink):
                fit = fit_swatch(self.picture(ink, 0.85, (1.05, 1.0, 0.95)), INKS[ink])
                self.assertLess(fit.strength_low, 0.85)
                self.assertGreater(fit.strength_high, 0.85)
                learnt = fit.colourant(INKS[ink])
                usual = absorption_of_drop(INKS[ink]) * 0.85
                dose = 0.15 / float(np.log10(np.e) * usual.max() / 100)
                pair = [lab(patch_reflectance(one * dose, 0 * one, 0.06, 0.85))
                        for one in (absorption_of_drop(learnt), usual)]
                self.assertLess(float(colour_difference(*pair)), 2.0)

    def test_grey_tells_more_and_a_device_most(self) -> None:
        ink = "ocean-blue" if "ocean-blue" in INKS else next(one.id for one in INKS.values() if not one.scatter_per_mm)
        sds = [
            fit_swatch(read, INKS[ink]).strength_sd for read in (
                self.picture(ink, 1.0, grey=False), self.picture(ink, 1.0),
                self.picture(ink, 1.0).model_copy(update={"by": "device"}))
        ]
        self.assertGreater(sds[0], sds[1])
        self.assertGreater(sds[1], sds[2])

    def test_two_bottles(self) -> None:
        ink = next(one.id for one in INKS.values() if not one.scatter_per_mm)
        strong, weak = (fit_swatch(self.picture(ink, one), INKS[ink]) for one in (1.3, 0.8))
        self.assertTrue(compared(strong, weak).differ)
        self.assertFalse(compared(strong, strong).differ)
        self.assertLess(eye_weights()[-1], 0.1 * eye_weights().max())

    def test_plate_without_ink_is_its_card(self) -> None:
        self.assertAlmostEqual(float(patch_reflectance(np.zeros(1), np.zeros(1), 0.02, 0.5)[0]), 0.5, places=9)


class Drops(unittest.TestCase):
    """The mass of a drop."""

    def test_mass_and_scatter(self) -> None:
        one = drop_mass(DropsWeighed(drops_count=20, masses_g=[0.8]))
        self.assertAlmostEqual((one.high_g - one.low_g) / 2 / 1.645 / one.drop_g, (0.0125**2 + 0.12**2 / 20) ** 0.5, 3)
        five = drop_mass(DropsWeighed(drops_count=20, masses_g=[0.8, 0.82, 0.79, 0.81, 0.78]))
        self.assertAlmostEqual(five.scatter_low_fraction / five.scatter_fraction, 0.65, 2)
        self.assertAlmostEqual(five.scatter_high_fraction / five.scatter_fraction, 2.37, 1)


if __name__ == "__main__":
    unittest.main()
