"""Sentences by their ids, in the units of who reads them."""

import ast
import re
import unittest
from importlib import resources
from pathlib import Path

from gondola_core import words as room
from gondola_core.errors import SceneError
from gondola_core.samples import quarry_pool
from gondola_core.scene import read_scene
from gondola_core.words import METRIC, US, said_quantity, sentence_ids, words
from gondola_core.words.said import _sentences

PACKAGE = Path(str(resources.files("gondola_core")))


def ids_in_code():
    """Patterns of all strings of the code that look like the id of a sentence; what is filled in is one word.

    The titles and sentences of flags are said by their check's code and named in its findings.
    """
    found = set()
    for path in PACKAGE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            parts = node.values if isinstance(node, ast.JoinedStr) else [node]
            pattern = "".join(
                re.escape(str(part.value)) if isinstance(part, ast.Constant) else r"\w+" for part in parts
            )
            if re.fullmatch(r"[a-z_]+(\\\.[\w\\+]+)+", pattern) and pattern != r"flags\.\w+\.\w+":
                found.add(pattern)
    return found | {r"flags\.\w+\.(title|sentence)\w*", r"flags\.too_early\.never", r"flags\.maybe_early\.open_end"}


class Quantities(unittest.TestCase):
    def test_as_people_read_them(self):
        rows = [
            (39.7, "length", "40 mm", "1 9/16 in"), (25.4, "length", "25 mm", "1 in"),
            (0.5, "length.1", "0.5 mm", "0.02 in"), (-12.7, "length.1", "-12.7 mm", "-1/2 in"),
            (300, "length", "300 mm", "11 13/16 in"), (24, "temperature", "24 °C", "75 °F"),
            (5, "difference", "5 K", "9 °F"), (500, "volume", "500 ml", "16.9 fl oz"),
            (3, "volume.1", "3 ml", "0.1 fl oz"), (400, "mass", "400 g", "14.11 oz"),
            (0.4, "hours", "24 min", "24 min"),
            (0.08, "mass", "0.1 g", "0.003 oz"), (0.08, "force", "0.08 gf", "0.003 ozf"),
            (0.4, "percent", "40 %", "40 %"), (10, "area", "10 cm²", "1.6 in²"), (2, "heavy", "2 kg", "4.4 lb"),
            (1.1, "density", "1.1 g/ml", "1.147 oz/fl oz"), (20, "small_area", "20 mm²", "0.03 in²"),
        ]
        for value, quantity, metric, us in rows:
            with self.subTest(value, quantity=quantity):
                self.assertEqual(said_quantity(value, quantity), metric)
                self.assertEqual(said_quantity(value, quantity, US), us)


class Sentences(unittest.TestCase):
    def test_an_id_without_a_sentence_is_an_error(self):
        with self.assertRaisesRegex(KeyError, "no sentence is called"):
            words("flags.too_cosy.title")

    def test_every_sentence_can_be_said(self):
        for name, sentence in _sentences().items():
            with self.subTest(name):
                specs = re.findall(r"{(\w+)(?::([^}]*))?}", sentence)
                values = {key: self.value_for(spec) for key, spec in specs}
                for units in (METRIC, US):
                    self.assertTrue(words(name, **values).said(units))

    def value_for(self, spec):
        kind = spec.split(" ")[0].split(".")[0]
        if spec.endswith(("f", "g")):
            return 2.0
        if kind == "range":
            return (1.0, 2.0)
        if spec in ("and", "And", ", ", "; "):
            return ["one", "two"]
        return 2 if kind in ("count", "plural") else 2.5 if kind in room.QUANTITIES or kind == "bare" else (
            "some" if kind in ("", "capital") else 2.0
        )

    def test_every_sentence_is_used(self):
        asked = re.compile("|".join(sorted(ids_in_code())))
        for name in sorted(sentence_ids()):
            with self.subTest(name):
                self.assertTrue(asked.fullmatch(name), "no code says it")

    def test_refusals_of_a_document_are_said_in_the_units_asked_for(self):
        text = quarry_pool().model_dump_json().replace('"fill_height_mm":120.0', '"fill_height_mm":9000')
        with self.assertRaises(SceneError) as caught:
            read_scene(text)
        metric, us = caught.exception.problems[0][1], caught.exception.problems_said(US)[0][1]
        self.assertRegex(metric, r"from \d+ to \d+ mm; it says 9000\.")
        self.assertRegex(us, r"from [\d./ ]+ to [\d./ ]+ in; it says 354 5/16\.")
