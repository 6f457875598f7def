"""Habits that keep the core readable: cited sources, ranges, suffixes, no interface code."""

import ast
import re
import unittest
from dataclasses import fields, is_dataclass
from pathlib import Path

import networkx as nx

import gondola_core
from gondola_core.checks import CHECKS
from gondola_core.documents.known import load_known, load_trade
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


class Explained(unittest.TestCase):
    def test_numbers_that_the_page_explains_are_written_of_and_the_other_way_round(self):
        page = "".join(path.read_text() for path in (ROOT.parents[1] / "web" / "src").rglob("*.ts*"))
        asked = set(re.findall(r'known(?:=|: )"(\w+)"', page))
        self.assertEqual(asked, {one.id for one in load_known()})

    def test_every_word_of_the_trade_is_a_sentence(self):
        for one in load_trade():
            with self.subTest(one.word):
                self.assertRegex(one.sentence, r"^[A-Z].{20,}\.$")


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
    def test_the_table_of_checks_in_the_docs_is_that_of_the_register(self):
        models = (ROOT.parents[1] / "docs" / "models.md").read_text()
        rows = re.findall(r"^\| `(\w+)` \| (\w+) \| (.+?) \| (\w+) \|", models, re.MULTILINE)
        checks = {(one.code, one.stage, one.about.rstrip("."), one.source) for one in CHECKS.values()}
        self.assertEqual(set(rows), checks, "run `scripts/checks-table write`")

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


KERNEL_MARK = "njit"
MOST_LINES, MOST_PARAMETERS = 40, 8
ARGUED = {
    "samples.eelgrass.eelgrass": "a document written out, field by field",
    "samples.ferry_landing.ferry_landing": "a document written out, field by field",
    "samples.quarry_pool.quarry_pool": "a document written out, field by field",
    "tint.colour.colour_difference": "one published formula in the order of its terms",
    "answers.pours._pours": "joins the parts of a pour; each of its parameters is one of them",
}
"""Functions outside kernels that may be longer or take more, each with why."""


def functions(root):
    """Every function under a folder: (dotted name, node, whether it is a compiled kernel)."""
    for path in sorted(root.rglob("*.py")):
        module = ".".join(path.relative_to(root).with_suffix("").parts)
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
                kernel = any(KERNEL_MARK in ast.dump(one) for one in node.decorator_list)
                yield f"{module}.{node.name}", node, kernel


def lines_of(node):
    """Lines of a function without its docstring."""
    first = node.body[0]
    is_docstring = isinstance(first, ast.Expr) and isinstance(first.value, ast.Constant)
    told = first.end_lineno - first.lineno + 1 if is_docstring else 0
    return node.end_lineno - node.lineno + 1 - told


class Sizes(unittest.TestCase):
    def test_functions_outside_kernels_are_short_and_take_little(self):
        large = {
            name for name, node, kernel in functions(ROOT)
            if not kernel and (lines_of(node) > MOST_LINES or parameters(node) > MOST_PARAMETERS)
        }
        self.assertEqual(large, set(ARGUED))

    def test_kernels_take_blocks_not_names(self):
        for name, node, kernel in functions(ROOT):
            if kernel:
                with self.subTest(name):
                    self.assertLessEqual(parameters(node), 16)

    def test_kernels_of_cure_and_shape_keep_the_order_of_their_sums(self):
        """Reordered sums differ between a freshly compiled and a kept kernel."""
        loose = [path.name for room in ("cure", "shape") for path in (ROOT / room).rglob("*.py")
                 if "fastmath" in path.read_text()]
        self.assertEqual(loose, [])

    def test_lines_stay_within_120_characters(self):
        for path in [*ROOT.rglob("*.py"), *Path(__file__).parent.glob("*.py")]:
            longest = max((len(line.split("  # type:")[0]) for line in path.read_text("utf-8").splitlines()), default=0)
            with self.subTest(path.name):
                self.assertLessEqual(longest, 120)


def parameters(node):
    return len(node.args.posonlyargs) + len(node.args.args) + len(node.args.kwonlyargs)


class Circles(unittest.TestCase):
    def test_no_two_modules_import_each_other_in_the_end(self):
        graph = nx.DiGraph()
        modules = {".".join(("gondola_core", *path.relative_to(ROOT).with_suffix("").parts)): path
                   for path in ROOT.rglob("*.py")}
        for name, path in modules.items():
            package = name.removesuffix(".__init__") if name.endswith("__init__") else name.rpartition(".")[0]
            for node in ast.walk(ast.parse(path.read_text("utf-8"))):
                if not isinstance(node, ast.ImportFrom) or not node.level:
                    continue
                base = ".".join([*package.split(".")[: len(package.split(".")) - node.level + 1],
                                 *(node.module or "").split(".")]).strip(".")
                for one in node.names:
                    target = next((found for found in (f"{base}.{one.name}", base, f"{base}.__init__")
                                   if found in modules), None)
                    if target and target != name:
                        graph.add_edge(name, target)
        circles = [sorted(one) for one in nx.strongly_connected_components(graph) if len(one) > 1]
        self.assertEqual(circles, [])
        self.assertGreater(graph.number_of_edges(), 400)

    def test_no_two_files_are_called_answer_but_the_one(self):
        self.assertEqual([path.parent.name for path in ROOT.rglob("answer.py")], ["answers"])
