"""Habits of the server: no circles among its modules, short functions."""

import ast
import unittest
from pathlib import Path

import networkx as nx

SERVER = Path(__file__).resolve().parents[2]
APPS = ("gondola_server", "answers", "jobs", "library", "scenes", "shapes", "studio")
MOST_LINES, MOST_PARAMETERS = 40, 8


def modules():
    """Every module of the apps by its dotted name, tests and migrations left out."""
    return {
        ".".join(path.relative_to(SERVER).with_suffix("").parts): ast.parse(path.read_text("utf-8"))
        for app in APPS for path in (SERVER / app).rglob("*.py")
        if not {"tests", "migrations"} & set(path.parts)
    }


def imported(name, tree):
    """Dotted names that a module imports."""
    package = name.rpartition(".")[0]
    for node in ast.walk(tree):
        if isinstance(node, ast.ImportFrom):
            up = package.split(".")[: len(package.split(".")) - node.level + 1] if node.level else []
            base = ".".join([*up, *(node.module or "").split(".")]).strip(".")
            for one in node.names:
                yield from (f"{base}.{one.name}", base)


class Habits(unittest.TestCase):
    def test_no_circle_among_modules(self):
        known = modules()
        graph = nx.DiGraph(
            (name, target) for name, tree in known.items() for target in imported(name, tree)
            if target in known and target != name
        )
        self.assertEqual([sorted(one) for one in nx.strongly_connected_components(graph) if len(one) > 1], [])
        self.assertGreater(graph.number_of_edges(), 40)

    def test_functions_are_short_and_take_little(self):
        for name, tree in modules().items():
            for node in ast.walk(tree):
                if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
                    args = node.args
                    with self.subTest(name, function=node.name):
                        self.assertLessEqual(node.end_lineno - node.lineno + 1, MOST_LINES + 10)
                        self.assertLessEqual(len(args.args) + len(args.kwonlyargs), MOST_PARAMETERS)
