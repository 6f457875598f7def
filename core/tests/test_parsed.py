"""JSON from outside is counted before it is made."""

import doctest
import json
import tracemalloc
import unittest

from worst_scenes import largest

from gondola_core import parsed as module
from gondola_core.errors import GondolaError
from gondola_core.parsed import MOST_VALUES, parsed


class Counted(unittest.TestCase):
    BOMBS = {
        "lists": b"[" + b"[]," * 1_000_000 + b"[]]",
        "objects": b"[" + b"{}," * 1_000_000 + b"{}]",
        "numbers": b"[" + b"1," * 1_500_000 + b"1]",
        "keys": b"{" + b'"a":1,' * 1_000_000 + b'"a":1}',
        "signs of two bytes": ("[" + "[]," * 1_000_000 + "[]]").encode("utf-16"),
    }

    def test_what_holds_too_much_is_refused_before_it_is_made(self):
        for name, text in self.BOMBS.items():
            with self.subTest(name):
                tracemalloc.start()
                with self.assertRaises(GondolaError) as caught:
                    parsed(text)
                self.assertLess(tracemalloc.get_traced_memory()[1], 1e6)
                tracemalloc.stop()
                self.assertIn("500,000 at most", caught.exception.message)

    def test_the_largest_scene_is_far_from_it(self):
        text = largest().model_dump_json()
        self.assertEqual(parsed(text), json.loads(text))
        with self.assertRaises(GondolaError):
            parsed(text, most=50_000)
        parsed(text, most=MOST_VALUES // 5)

    def test_no_object_has_endless_fields(self):
        with self.assertRaises(GondolaError) as caught:
            parsed(json.dumps({"pours": [{f"k{n}": n for n in range(2000)}]}))
        self.assertEqual(caught.exception.message, "An object of this has 2,000 fields; 200 at most are read.")
        parsed(json.dumps({f"k{n}": n for n in range(200)}))

    def test_as_its_example_says(self):
        self.assertEqual(doctest.testmod(module).failed, 0)


if __name__ == "__main__":
    unittest.main()
