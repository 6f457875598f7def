"""The shelf: counted, used by the bench, put back by an undo, held against a plan."""

from __future__ import annotations

import json

from bench.tests.test_runs import RunCase, event
from django.contrib.auth.models import User

SHELF = {
    "currency": "NOK",
    "held": [
        {"key": "a:deep", "name": "part A", "amount": 900.0}, {"key": "b:deep", "name": "part B", "amount": 400.0},
        {"key": "ink:red-ink", "name": "red ink", "amount": 10.0, "price": 2.5},
    ],
    "kits": [{"id": "kit-1", "name": "kit of 1.5 kg", "resin_id": "deep", "part_a_g": 1050.0, "part_b_g": 450.0,
              "price": 640.0}],
}


class Shelf(RunCase):
    def count(self, **changes):
        return self.client.put("/api/stock", json.dumps({**SHELF, **changes}), content_type="application/json")

    def amounts(self):
        return {one["key"]: one["amount"] for one in self.client.get("/api/stock").json()["held"]}

    def test_an_empty_shelf_and_a_counted_one(self):
        self.assertEqual(self.client.get("/api/stock").json()["held"], [])
        self.assertEqual(self.count().status_code, 200)
        self.assertEqual(self.amounts()["a:deep"], 900.0)
        self.assertEqual(self.client.get("/api/stock").json()["currency"], "NOK")

    def test_what_the_bench_uses_is_taken_off_and_what_is_undone_is_put_back(self):
        self.count()
        run = self.begin()
        weighed = event("weighed", pour_id=self.first, cup=1, part="a", mass_g=82.2)
        self.tell(run, weighed, event("dropped", pour_id=self.first, cup=1, colourant_id="red-ink", neat_drops=5.0))
        now = self.amounts()
        self.assertAlmostEqual(now["a:deep"], 900.0 - 82.2, places=3)
        self.assertAlmostEqual(now["ink:red-ink"], 10.0 - 5 * 0.04, places=3)
        self.tell(run, event("undone", event_id=weighed["id"]))
        self.assertAlmostEqual(self.amounts()["a:deep"], 900.0)

    def test_a_rehearsal_uses_nothing(self):
        self.count()
        run = self.begin(rehearsal=True, seed=2)
        self.tell(run, event("weighed", pour_id=self.first, cup=1, part="a", mass_g=82.2))
        self.assertEqual(self.amounts()["a:deep"], 900.0)

    def test_a_new_count_stands_for_itself(self):
        self.count()
        run = self.begin()
        self.tell(run, event("weighed", pour_id=self.first, cup=1, part="a", mass_g=82.2))
        self.count()
        self.assertEqual(self.amounts()["a:deep"], 900.0)

    def test_a_plan_is_held_against_it(self):
        self.count()
        told = self.client.get(f"/api/scenes/{self.scene.pk}/shopping").json()
        lines = {one["key"]: one for one in told["shopping"]["lines"]}
        self.assertAlmostEqual(lines["a:deep"]["missing"], lines["a:deep"]["need"] - 900.0, delta=0.02)
        self.assertEqual([one["count"] for one in told["shopping"]["kits"]], [1])
        self.assertEqual(told["currency"], "NOK")
        table = self.client.get(f"/api/scenes/{self.scene.pk}/shopping.csv")
        self.assertIn("kit of 1.5 kg", table.content.decode())

    def test_what_is_no_stock_is_refused_in_a_sentence(self):
        for changes in ({"currency": "euros"}, {"held": [{"key": "a:deep", "name": "A", "amount": -1}]},
                        {"held": [{"key": "A B", "name": "A", "amount": 1}]}, {"kits": [{"id": "x"}]}):
            with self.subTest(**changes):
                answer = self.count(**changes)
                self.assertEqual(answer.status_code, 422)
                self.assertGreater(len(answer.json()["message"]), 10)
        self.assertEqual(self.client.get("/api/stock").json()["held"], [])

    def test_it_is_nobody_elses(self):
        self.count()
        self.client.force_login(User.objects.create_user("other"))
        self.assertEqual(self.client.get("/api/stock").json()["held"], [])
        self.assertEqual(self.client.get(f"/api/scenes/{self.scene.pk}/shopping").status_code, 404)
