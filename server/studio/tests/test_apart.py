from django.test import SimpleTestCase

from gondola_core.errors import GondolaError
from studio.apart import apart
from studio.tests import hogs


class Apart(SimpleTestCase):
    def test_gives_what_was_made_and_says_what_was_refused(self):
        self.assertEqual(apart(hogs.double, 21, what="a file"), 42)
        with self.assertRaises(GondolaError) as refused:
            apart(hogs.refuse, "shape", what="a file")
        self.assertEqual((refused.exception.message, refused.exception.field), ("No shape here.", "word"))

    def test_what_takes_too_much_is_ended_with_a_sentence_that_names_the_file(self):
        for work, words in ((hogs.sleep, "longer than 1 s"), (hogs.die, "before its end"), (hogs.swell, "memory")):
            with self.subTest(words), self.assertRaises(GondolaError) as refused:
                apart(work, what="the mesh file 'boat'", seconds=1 if work is hogs.sleep else 30)
            self.assertIn("'boat'", refused.exception.message)
            self.assertIn(words, refused.exception.message)

    def test_a_fault_of_our_own_is_none_of_the_file(self):
        with self.assertRaisesMessage(RuntimeError, "ZeroDivisionError"):
            apart(hogs.stumble, what="a file")
