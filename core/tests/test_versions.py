"""Scene documents as each released version wrote them are opened, computed, and written in the newest."""

import json
import unittest
from pathlib import Path

import jsonschema_rs

from gondola_core.errors import SceneError
from gondola_core.evaluate import evaluate
from gondola_core.samples import SAMPLES
from gondola_core.scene import Scene, read_scene
from gondola_core.scene.document import VERSION

DOCUMENTS = Path(__file__).parent / "documents"


class Versions(unittest.TestCase):
    def test_there_is_one_of_each(self):
        found = {json.loads(one.read_text())["version"] for one in DOCUMENTS.glob("version-*.json")}
        self.assertEqual(found, set(range(1, VERSION + 1)))

    def test_each_is_read_whole_and_computed(self):
        for number in range(1, VERSION + 1):
            with self.subTest(number):
                text = (DOCUMENTS / f"version-{number}.json").read_text()
                told, scene = json.loads(text), read_scene(text)
                self.assertEqual(scene.version, VERSION)
                self.assertEqual(scene.name, told["name"])
                for part in ("pours", "figures", "resins", "colourants"):
                    self.assertEqual(
                        [one.id for one in getattr(scene, part)], [one["id"] for one in told[part]]
                    )
                self.assertEqual(
                    [one.top_depth_mm for one in scene.pours], [one["top_depth_mm"] for one in told["pours"]]
                )
                self.assertEqual(read_scene(scene.model_dump_json()), scene)
                self.assertGreater(evaluate(scene).whole.resin_volume_ml, 1000)

    def test_what_is_read_and_written_follows_the_published_schema(self):
        published = jsonschema_rs.validator_for(Scene.model_json_schema())
        for name, make in SAMPLES.items():
            with self.subTest(name):
                document = json.loads(make().model_dump_json())
                self.assertEqual([str(one) for one in published.iter_errors(document)], [])
                for part, spoilt in (("version", 99), ("pours", {}), ("tank", {**document["tank"], "depth": 3})):
                    self.assertFalse(published.is_valid({**document, part: spoilt}), part)

    def test_newer_and_stranger_ones_get_a_clear_answer(self):
        told = json.loads((DOCUMENTS / f"version-{VERSION}.json").read_text())
        rows = [
            ({**told, "version": VERSION + 1}, "Open it with a newer Gondola"),
            ({**told, "version": 0}, f"from 1 to {VERSION}"), ({**told, "version": "3"}, "whole number"),
            ({**told, "format": "other"}, "no Gondola scene"),
        ]
        for document, words in rows:
            with self.subTest(words), self.assertRaises(SceneError) as refused:
                read_scene(json.dumps(document))
            self.assertIn(words, refused.exception.message)
