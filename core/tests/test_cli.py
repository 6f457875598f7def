import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from gondola_core.cli import main
from gondola_core.cure.march.advance import advance
from gondola_core.evaluate import evaluate, outcome_json
from gondola_core.samples import quarry_pool
from gondola_core.shape.bodies.winding import winding_numbers
from gondola_core.views.look.bake import _all_round
from gondola_core.views.picture import _composed, _shaded
from gondola_core.views.raster import _draw


def run(*words):
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = main(words)
    return code, out.getvalue(), err.getvalue()


class Commands(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "scene.json"
        self.path.write_text(quarry_pool().model_dump_json())

    def test_evaluate_prints_the_outcome_document(self):
        code, out, _ = run("evaluate", str(self.path))
        self.assertEqual(code, 0)
        self.assertEqual(out.strip(), outcome_json(evaluate(quarry_pool())).decode())

    def test_text_is_a_table_with_a_row_a_pour_and_the_flags(self):
        _, out, _ = run("evaluate", str(self.path), "--text")
        self.assertIn("Wagon in the Quarry Pool (draft march", out)
        rows = [line for line in out.splitlines() if line.strip()[:1] in "1234"]
        self.assertGreaterEqual(len(rows), 8)
        for pour in evaluate(quarry_pool()).pours:
            opens = pour.heat.spans.tack_opens
            self.assertIn(f"{opens.early_h:.1f} to {opens.late_h:.1f}", out)
        self.assertIn("WATCH  Pour 2 peaks at", out)

    def test_schema_and_sample(self):
        self.assertEqual(json.loads(run("schema")[1])["title"], "Scene")
        self.assertEqual(
            json.loads(run("sample", "quarry-pool")[1])["name"], "Wagon in the Quarry Pool"
        )

    def test_prepare_has_the_kernels_compiled_that_answers_begin_with(self):
        code, out, _ = run("prepare", "--only", "heat", "pictures")
        self.assertEqual((code, out.strip()), (0, "Prepared: heat, pictures."))
        for kernel in (advance, winding_numbers, _composed, _shaded, _draw, _all_round):
            with self.subTest(kernel.py_func.__name__):
                self.assertTrue(kernel.signatures)

    def test_what_cannot_be_read_gets_a_sentence(self):
        self.path.write_text(self.path.read_text().replace('"wait_h":26.0', '"wait_h":-1'))
        code, out, err = run("evaluate", str(self.path))
        self.assertEqual((code, out), (2, ""))
        self.assertEqual(
            err.strip(), "Pour 2, wait after the pour before has to be from 0 to 720 h; it says -1."
        )
        code, _, err = run("evaluate", str(self.path.with_name("none.json")))
        self.assertEqual(code, 2)
        self.assertIn("cannot be read: No such file or directory.", err)
