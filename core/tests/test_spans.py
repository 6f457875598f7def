"""How early and late a cure's moments may come, and what the next pour is told of it."""

import unittest
from dataclasses import replace

from gondola_core.answers.kept import Keeper
from gondola_core.cure.spans import CureSpan, cure_spans
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.samples import quarry_pool

MOMENTS = {"gel": "gel_h", "tack_opens": "tack_opens_h", "tack_closes": "tack_closes_h",
           "hard": "hard_h", "demould": "demould_h"}


def with_room(spread_k):
    scene = quarry_pool()
    room = scene.brief.room.model_copy(update={"spread_k": spread_k})
    return scene.model_copy(update={"brief": scene.brief.model_copy(update={"room": room})})


class Spans(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.outcomes = {k: evaluate(with_room(k), DRAFT, Keeper()) for k in (0.5, 2.0, 4.0)}
        cls.cure = cls.outcomes[2.0].pours[0].heat.cure

    def test_every_moment_lies_in_its_band_and_a_vaguer_room_widens_it(self):
        for pours in zip(*(outcome.pours for outcome in self.outcomes.values()), strict=True):
            for name, moment in MOMENTS.items():
                with self.subTest(name, pour=pours[0].number):
                    widths = []
                    for pour in pours:
                        span, at = getattr(pour.heat.spans, name), getattr(pour.heat.cure, moment)
                        self.assertLessEqual(span.early_h, at)
                        self.assertGreaterEqual(span.late_h, at)
                        widths.append(span.late_h - span.early_h)
                    self.assertEqual(widths, sorted(widths))

    def test_bands_move_the_moment_by_what_coarse_marches_differ(self):
        rows = [
            # slow, middle, fast; early and late of a gel at 20 h
            (36.0, 24.0, 18.0, 15.0, 30.0),
            (24.0, 24.0, 24.0, 20.0, 20.0),
            (None, 24.0, 12.0, 10.0, None),  # a slow cure never gets there
            (30.0, 24.0, 27.0, 20.0, 25.0),  # both later than the middle
        ]
        for slow, middle, fast, early, late in rows:
            with self.subTest(slow=slow, fast=fast):
                at = replace(self.cure, gel_h=20.0)
                ways = [replace(self.cure, gel_h=one) for one in (slow, middle, fast)]
                self.assertEqual(cure_spans(at, *ways).gel, CureSpan(early_h=early, late_h=late))

    def test_a_moment_that_is_not_reached_has_no_band(self):
        cure = replace(self.cure, hard_h=None)
        self.assertIsNone(cure_spans(cure, self.cure, self.cure, self.cure).hard)

    def test_dam_comes_off_with_the_last_pour_that_can(self):
        whole, pours = self.outcomes[2.0].whole, self.outcomes[2.0].pours
        self.assertAlmostEqual(
            whole.demould_span.late_h, max(one.clock.start_h + one.heat.spans.demould.late_h for one in pours), places=1
        )
        self.assertLess(whole.demould_span.early_h, whole.demould_h)

    def test_the_next_pour_is_told_when_it_is_near_an_end(self):
        pours = [quarry_pool().pours[0], quarry_pool().pours[1].model_copy(update={"wait_h": 80.0})]
        pours += quarry_pool().pours[2:]
        told = evaluate(with_room(2.0).model_copy(update={"pours": pours}), DRAFT, Keeper()).pours[0]
        opens, closes = told.heat.cure.tack_opens_h, told.heat.cure.tack_closes_h
        rows = [
            (opens - 1, ["too_early"]), (opens + 0.5, ["maybe_early"]),
            (0.5 * (opens + closes), []), (closes - 0.5, ["maybe_late"]), (closes + 1, ["too_late"]),
        ]
        for wait, codes in rows:
            with self.subTest(wait):
                scene = with_room(2.0)
                pours = [*scene.pours[:1], scene.pours[1].model_copy(update={"wait_h": wait}), *scene.pours[2:]]
                flags = evaluate(scene.model_copy(update={"pours": pours}), DRAFT, Keeper()).flags
                recoat = {"too_early", "too_late", "maybe_early", "maybe_late"}
                self.assertEqual([one.code for one in flags if one.pour_number == 2 and one.code in recoat], codes)


if __name__ == "__main__":
    unittest.main()
