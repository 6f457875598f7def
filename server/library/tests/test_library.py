import json

from django.contrib.auth.models import User
from django.test import TestCase

from gondola_core.materials import load_library


class Library(TestCase):
    def setUp(self):
        self.owner = User.objects.create_user("owner")
        self.client.force_login(self.owner)

    def put(self, kind, body, source=""):
        return self.client.put(
            f"/api/library/{kind}", json.dumps({"body": body, "source": source}),
            content_type="application/json",
        )

    def solid(self, **changes):
        return load_library().solids["acrylic"].model_dump(mode="json") | changes

    def test_generic_materials_for_who_is_signed_in(self):
        shelf = self.client.get("/api/library").json()
        self.assertEqual([resin["id"] for resin in shelf["resins"]][:3],
                         ["deep", "casting", "coating"])
        self.assertIn("acrylic", [solid["id"] for solid in shelf["solids"]])
        note = next(one for one in shelf["notes"] if one["id"] == "acrylic")
        self.assertFalse(note["own"])
        self.assertTrue(note["source"])
        self.client.logout()
        self.assertEqual(self.client.get("/api/library").status_code, 401)

    def test_a_row_of_ones_own_stands_in_and_goes_again(self):
        answer = self.put("solid", self.solid(limit_c=70.0), "measured in the oven")
        self.assertEqual(answer.status_code, 200)
        row = next(one for one in answer.json()["solids"] if one["id"] == "acrylic")
        self.assertEqual(row["limit_c"], 70)
        note = next(one for one in answer.json()["notes"] if one["id"] == "acrylic" and one["own"])
        self.assertEqual(note["source"], "measured in the oven")
        again = self.client.delete("/api/library/solid/acrylic").json()
        row = next(one for one in again["solids"] if one["id"] == "acrylic")
        self.assertEqual(row["limit_c"], 85)
        self.assertEqual(self.client.delete("/api/library/solid/acrylic").status_code, 404)

    def test_a_new_material_and_rows_out_of_range(self):
        self.assertEqual(self.put("solid", self.solid(id="bark", name="bark")).status_code, 200)
        rows = [
            ("solid", self.solid(density_g_ml=-1), "Density has to be from 0.01 to 20 g/ml"),
            ("resin", load_library().resins["deep"].model_dump(mode="json")
             | {"k1_per_s": -1e-5}, "Uncatalysed rate at 25 °C has to be from 1e-09 to 0.1 1/s"),
            ("resin", load_library().resins["deep"].model_dump(mode="json")
             | {"heat_of_cure_j_g": 10000.0}, "Heat of cure has to be from 20 to 700 J/g"),
        ]
        for kind, body, words in rows:
            with self.subTest(words):
                answer = self.put(kind, body)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])
        self.assertEqual(self.owner.library_rows.count(), 1)

    def test_other_peoples_rows_are_not_seen(self):
        self.put("solid", self.solid(limit_c=70.0))
        self.client.force_login(User.objects.create_user("other"))
        shelf = self.client.get("/api/library").json()
        row = next(one for one in shelf["solids"] if one["id"] == "acrylic")
        self.assertEqual(row["limit_c"], 85)
