"""What people type, in mixed forms."""

import unittest

from gondola_core.entry import read_quantity
from gondola_core.errors import GondolaError


class Entry(unittest.TestCase):
    def test_mixed_forms(self):
        rows = [
            ("2 1/2 in", "length", "mm", 63.5), ("1 ft 3", "length", "mm", 381.0), ("65mm", "length", "in", 65.0),
            ("1,5 cm", "length", "mm", 15.0), ("1' 3 1/2\"", "length", "mm", 393.7), ("3/4", "length", "in", 19.05),
            ("2½", "length", "in", 63.5), ("12", "length", "mm", 12.0), ("-3.5", "length", "mm", -3.5),
            ("-1 ft 6", "length", "mm", -457.2), (".5", "length", "in", 12.7), ("0.2 m", "length", "mm", 200.0),
            ("8 fl oz", "volume", "ml", 236.588236), ("1 cup", "volume", "ml", 236.588236),
            ("0,5 l", "volume", "ml", 500),
            ("75F", "temperature", "c", 23.888889), ("75", "temperature", "f", 23.888889),
            ("24 °C", "temperature", "f", 24),
            ("-4 c", "temperature", "c", -4.0), ("1 lb 4 oz", "mass", "g", 566.990462), ("2kg", "mass", "oz", 2000.0),
            ("1 h 30", "minutes", "min", 90.0), ("1 d 2 h", "hours", "h", 26.0), ("90 min", "hours", "h", 1.5),
            ("2 in²", "area", "cm²", 12.9032),
        ]
        for text, quantity, unit, value in rows:
            with self.subTest(text):
                self.assertAlmostEqual(read_quantity(text, quantity, unit), value, places=4)

    def test_what_cannot_be_read_says_an_example(self):
        rows = [
            ("", "length"), ("deep", "length"), ("12 oz", "length"), ("5 parsnips", "length"), ("1 1/0 in", "length"),
            ("1,250", "length"), ("3 4 5", "length"), ("75 mm", "temperature"), ("9" * 60, "mass"),
            ("12 mm mm", "length"),
        ]
        for text, quantity in rows:
            with self.subTest(text), self.assertRaisesRegex(GondolaError, "cannot be read here.*such as"):
                read_quantity(text, quantity, "mm" if quantity == "length" else "g")
        with self.assertRaisesRegex(GondolaError, "no quantity 'zeal'"):
            read_quantity("3", "zeal", "mm")
