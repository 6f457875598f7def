"""Habits that keep the core readable: cited sources, ranges, suffixes, no interface code."""

import ast
import re
import unittest
from dataclasses import fields, is_dataclass
from pathlib import Path

import gondola_core
from gondola_core.materials import load_library
from gondola_core.materials.library import read_rows, read_sources
from gondola_core.outcome import Outcome

ROOT = Path(gondola_core.__file__).parent
TABLES = sorted(path.stem for path in (ROOT / "data").glob("*.csv"))
UNITLESS = {
    "number", "id", "name", "seen", "kind", "grade", "joint", "code", "title", "sentence", "unit",
    "limit", "severity", "label", "op", "path", "value", "scene_digest", "starts_at", "demould_at",
    "tack_opens_at", "tack_closes_at", "hard_at",
    "resin_name", "ratio_words", "figure_id", "colourant_id", "pour_number", "drops",
    "full_cure_degree", "way", "behaves", "degree_at_end", "least_degree",
}
SUFFIXES = (
    "_mm", "_ml", "_g", "_kg", "_c", "_h", "_d", "_j", "_cm2", "_min", "_de00", "_fraction",
    "_count", "_srgb", "_gpa", "_mpa", "_k", "_index", "_w", "_gf", "_deg", "_g_ml", "_mm2",
    "_n_mm", "_n", "_depth_m",
)


class Sources(unittest.TestCase):
    def test_every_cited_source_is_known_and_every_known_one_cited(self):
        known = set(read_sources())
        cited = set()
        for path in ROOT.rglob("*.py"):
            for line in re.findall(r"Source: ([^\n\"]*(?:\n    [a-z_0-9, ]+)?)", path.read_text()):
                cited |= set(re.findall(r"[a-z]+(?:_[a-z]+)*\d{2,}|own_[a-z_]+", line))
            cited |= set(re.findall(r"\((sommeijer1998)", path.read_text()))
        for table in TABLES:
            cited |= {row["source"] for row in read_rows(table)}
        cited.discard("")
        self.assertEqual(cited - known, set(), "cited but not in sources.toml")
        self.assertEqual(
            known - cited, set(), "in sources.toml but cited nowhere"
        )

    def test_every_row_of_every_table_names_its_source(self):
        for table in TABLES:
            with self.subTest(table):
                for row in read_rows(table):
                    self.assertIn(row["source"], read_sources())

    def test_library_rows_lie_in_their_ranges(self):
        library = load_library()
        self.assertEqual(set(library.resins), {"deep", "casting", "coating", "light-cured", "quick-cast"})
        self.assertEqual(len(library.colourants), 15)
        self.assertGreaterEqual(len(library.solids), 12)


class Names(unittest.TestCase):
    def test_numbers_of_the_outcome_say_their_unit(self):
        seen, queue = set(), [Outcome]
        while queue:
            model = queue.pop()
            if model in seen:
                continue
            seen.add(model)
            for field in fields(model):
                text = str(field.type)
                for name in re.findall(r"[A-Z]\w+", text):
                    inner = _find(name)
                    if inner:
                        queue.append(inner)
                if re.search(r"\bfloat\b", text) and field.name not in UNITLESS:
                    with self.subTest(model.__name__, field=field.name):
                        self.assertTrue(field.name.endswith(SUFFIXES), field.name)
        self.assertGreater(len(seen), 15)


def _find(name):
    import gondola_core.outcome as outcome
    from gondola_core.checks import flag
    from gondola_core.cure import moments as answer

    for module in (outcome, answer, flag):
        found = getattr(module, name, None)
        if isinstance(found, type) and is_dataclass(found):
            return found
    return None


class Imports(unittest.TestCase):
    def test_no_interface_code_in_the_core(self):
        for path in ROOT.rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text())):
                names = []
                if isinstance(node, ast.Import):
                    names = [alias.name for alias in node.names]
                elif isinstance(node, ast.ImportFrom) and not node.level:
                    names = [node.module or ""]
                for name in names:
                    with self.subTest(path.name, imports=name):
                        self.assertNotIn(
                            name.split(".")[0],
                            {"django", "ninja", "huey", "requests", "http", "urllib", "socket"},
                        )
