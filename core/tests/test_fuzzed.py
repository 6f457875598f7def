"""Whatever the bounds of the fields allow is either refused in a sentence or computed, to numbers that are JSON."""

import dataclasses
import json
import math
import os
import unittest

from hypothesis import HealthCheck, given, seed, settings
from pydantic import TypeAdapter
from scene_strategies import documents
from soaked import as_many

from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.outcome import Outcome
from gondola_core.scene import scene_from
from gondola_core.words import METRIC, US

EXAMPLES = as_many(int(os.environ.get("GONDOLA_SOAK_SCENES", "1500")), 12)
SEED = int(os.environ.get("GONDOLA_SOAK_SEED", "1"))
ADAPTER = TypeAdapter(Outcome)
PLAIN = settings(
    max_examples=EXAMPLES, deadline=None, database=None, print_blob=True, suppress_health_check=list(HealthCheck)
)


def endless(told, path=""):
    """Where a number of an answer is none."""
    if isinstance(told, float) and not math.isfinite(told):
        yield path
    elif dataclasses.is_dataclass(told):
        for field in dataclasses.fields(told):
            yield from endless(getattr(told, field.name), f"{path}.{field.name}")
    elif isinstance(told, dict | list | tuple):
        for key, one in told.items() if isinstance(told, dict) else enumerate(told):
            yield from endless(one, f"{path}.{key}")


class Fuzzed(unittest.TestCase):
    @seed(SEED)
    @PLAIN
    @given(documents())
    def test_every_scene_is_refused_in_a_sentence_or_computed(self, document):
        try:
            scene = scene_from(document)
        except GondolaError as refused:
            self.assertTrue(all(sentence for _, sentence in refused.problems))
            return
        outcome = evaluate(scene, DRAFT, Keeper())
        self.assertEqual(list(endless(outcome)), [])
        for units in (METRIC, US):
            json.loads(ADAPTER.dump_json(outcome, context={"units": units}))

    @seed(SEED)
    @settings(PLAIN, max_examples=20 * EXAMPLES)
    @given(documents())
    def test_a_scene_that_is_read_is_written_as_it_was(self, document):
        try:
            scene = scene_from(document)
        except GondolaError:
            return
        again = scene_from(json.loads(scene.model_dump_json()))
        self.assertEqual(again, scene)
        self.assertEqual(again.model_dump_json(), scene.model_dump_json())
