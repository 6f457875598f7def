"""The book: an answer gets what it declares and no more, and is computed once."""

import threading
import time
import unittest
from typing import get_args, get_type_hints

from changed import changed
from test_traps import CUP, scene_with, walls

from gondola_core.answers.answer import Answer, EachAnswer
from gondola_core.answers.book import Book
from gondola_core.answers.filling import FILLING
from gondola_core.answers.flood import TRAPS
from gondola_core.answers.grades import DRAFT, FINE
from gondola_core.answers.heat import HEAT
from gondola_core.answers.kept import Keeper
from gondola_core.answers.pours import CLOCKS
from gondola_core.answers.reading import Reading
from gondola_core.checks import FLAGS
from gondola_core.evaluate import evaluate
from gondola_core.outcome import Outcome
from gondola_core.samples import quarry_pool

WIDE = Answer(name="wide", reads=Reading("tank.inner_width_mm"), by=lambda scene: scene.tank.inner_width_mm)
TWICE = Answer(name="twice", reads=Reading(), needs=(WIDE,), by=lambda _, wide: 2 * wide)
NAMES = EachAnswer(name="names", of="figures", reads=Reading("name"), by=lambda figure, _: figure.name.upper())


def all_answers():
    found = {}

    def gather(answer):
        if answer.name not in found:
            found[answer.name] = answer
            for below in (*answer.needs, *getattr(answer, "own", ())):
                gather(below)

    for hint in get_type_hints(Outcome, include_extras=True).values():
        for one in get_args(hint)[1:]:
            gather(one)
    return found


def is_graded(answer):
    """True if it or anything that it needs depends on the grade."""
    return getattr(answer, "graded", False) or any(is_graded(one) for one in answer.needs)


class Books(unittest.TestCase):
    def test_an_answer_gets_no_more_than_it_reads(self):
        nosy = Answer(name="nosy", reads=Reading("tank.inner_width_mm"), by=lambda scene: scene.tank.fill_height_mm)
        with self.assertRaises(AttributeError):
            Book(quarry_pool(), keeper=Keeper()).ask(nosy)

    def test_the_key_follows_what_is_read_and_needed(self):
        one = Book(quarry_pool(), keeper=Keeper())
        same = Book(changed(tank__fill_height_mm=110.0, pours__0__top_depth_mm=92.0), keeper=Keeper())
        other = Book(changed(tank__inner_width_mm=190.0), keeper=Keeper())
        for answer in (WIDE, TWICE):
            with self.subTest(answer.name):
                self.assertEqual(one.key(answer), same.key(answer))
                self.assertNotEqual(one.key(answer), other.key(answer))
        self.assertEqual(other.ask(TWICE), 380.0)

    def test_each_part_is_kept_by_itself(self):
        keeper = Keeper()
        Book(quarry_pool(), keeper=keeper).ask(NAMES)
        asked = Book(changed(figures__1__name="old pike"), keeper=keeper)
        self.assertEqual(asked.ask(NAMES)[1], "OLD PIKE")
        self.assertEqual(keeper.computed["names"], 9)

    def test_what_depends_on_the_grade_says_so(self):
        scene, keeper = quarry_pool(), Keeper()
        for answer in all_answers().values():
            with self.subTest(answer.name):
                keys = [Book(scene, grade, keeper).key(answer) for grade in (DRAFT, FINE)]
                self.assertEqual(keys[0] != keys[1], is_graded(answer))
        self.assertTrue(is_graded(HEAT) and not is_graded(TRAPS))

    def test_no_two_answers_have_one_name(self):
        keys = list(all_answers())
        self.assertEqual(len(keys), len(set(keys)))
        self.assertGreater(len(keys), 40)

    def test_supposing_another_value_moves_what_follows_and_keeps_nothing(self):
        keeper = Keeper()
        book = Book(quarry_pool(), keeper=keeper)
        book.ask(TWICE)
        self.assertEqual(book.supposing(WIDE, 7.0).ask(TWICE), 14.0)
        self.assertEqual((book.ask(TWICE), keeper.computed["twice"]), (360.0, 1))

    def test_the_kept_answer_of_filling_lacked_names_and_ids(self):
        scene = scene_with([walls(*CUP)])
        scene = scene.model_copy(update={"pours": scene.pours[-1:]})
        keeper = Keeper()
        before = Book(scene, keeper=keeper).ask(FILLING)
        figures = [one.model_copy(update={"id": f"{one.id}-x"}) for one in scene.figures]
        after = Book(scene.model_copy(update={"figures": figures}), keeper=keeper).ask(FILLING)
        self.assertTrue(before.traps)
        for one, other in zip(before.traps, after.traps, strict=True):
            self.assertEqual(other.figure_id, f"{one.figure_id}-x" if one.figure_id else None)

    def test_a_renamed_scene_computes_nothing_but_what_names_it(self):
        keeper = Keeper()
        evaluate(quarry_pool(), keeper=keeper)
        counted = dict(keeper.computed)
        evaluate(changed(name="Another name"), keeper=keeper)
        more = {name for name in keeper.computed if keeper.computed[name] != counted.get(name)}
        self.assertEqual(more, {FLAGS.name})

    def test_a_later_first_pour_moves_clocks_only_by_the_room(self):
        scene = changed(brief__room__day_c=22.0, brief__room__night_c=22.0)
        one = Book(scene, keeper=Keeper()).key(CLOCKS)
        self.assertNotEqual(one, Book(changed(scene, brief__first_pour_at="2027-03-05T10:00:00"),
                                      keeper=Keeper()).key(CLOCKS))


class Turns(unittest.TestCase):
    def test_two_requests_computed_the_same_answer_side_by_side(self):
        keeper, count = Keeper(), []

        def slow():
            count.append(1)
            time.sleep(0.05)
            return 7

        found = []
        threads = [
            threading.Thread(target=lambda: found.append(keeper.keep("slow", "key", slow))) for _ in range(8)
        ]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual((found, len(count)), ([7] * 8, 1))

    def test_one_that_fails_leaves_the_turn_to_the_next(self):
        keeper = Keeper()
        with self.assertRaises(ZeroDivisionError):
            keeper.keep("bad", "1", lambda: 1 / 0)
        self.assertEqual(keeper.keep("bad", "1", lambda: 7), 7)

