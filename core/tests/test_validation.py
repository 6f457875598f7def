"""What `gondola validate` measures holds, and would not if a model were off."""

import tempfile
import unittest
from dataclasses import replace
from pathlib import Path
from unittest import mock

from gondola_core import cli
from gondola_core.materials.library import read_sources
from gondola_core.validation import Measured, light, measure_all, panels, validation_page

ROWS = measure_all()


class Models(unittest.TestCase):
    def test_each_is_as_near_to_what_is_known_as_it_may_be(self):
        for row in ROWS:
            with self.subTest(row.quantity):
                self.assertTrue(row.holds, f"{row.found} in place of {row.expected}")

    def test_each_rests_on_a_source_that_is_there(self):
        for row in ROWS:
            with self.subTest(row.quantity):
                self.assertIn(row.source, {*read_sources(), "definition"})

    def test_every_kind_of_model_is_measured(self):
        self.assertEqual({row.model for row in ROWS}, {"Cure", "Heat", "Light", "Panels", "Bubbles", "Volumes"})

    def test_a_model_that_is_off_is_found(self):
        rows = [
            (light, "mirrored", lambda *_: (0.05, 1.0), light.mirrors),
            (light, "colour_difference", lambda *_: 1.0, light.published_pairs),
            (panels, "plate_coefficients", lambda *_: (0.01, 0.01), panels.hinged_panels),
        ]
        for module, name, wrong, measured in rows:
            with self.subTest(name), mock.patch.object(module, name, wrong):
                self.assertFalse(all(row.holds for row in measured() if "angle" not in row.quantity))

    def test_no_number_holds_nothing(self):
        self.assertFalse(replace(ROWS[0], found=float("nan")).holds)


class Pages(unittest.TestCase):
    ROW = Measured(
        model="Heat", quantity="a plate [°C]", against="a series", source="crank1975", expected=10.0, found=10.4,
        allowed=0.5,
    )

    def test_what_does_not_hold_is_marked(self):
        page = validation_page([self.ROW, replace(self.ROW, found=11.0)], "1 March 2027")
        self.assertIn("1 of 2 hold", page)
        self.assertIn("| a plate [°C] | a series | crank1975 | 10 | 10.4 | 4.0e-01 | 5.0e-01 |", page)
        self.assertEqual(page.count("does not hold"), 1)

    def test_the_command_writes_the_page_and_fails_where_one_does_not_hold(self):
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "page.md"
            for found, code in ((10.4, 0), (11.0, 2)):
                made = [replace(self.ROW, found=found)]
                with self.subTest(found), mock.patch("gondola_core.validation.measure_all", return_value=made):
                    self.assertEqual(cli.main(["validate", "--write", str(file)]), code)
                    self.assertIn("crank1975", file.read_text("utf-8"))


if __name__ == "__main__":
    unittest.main()
