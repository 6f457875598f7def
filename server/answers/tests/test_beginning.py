"""Begin, starts, glance and what a person has, over HTTP."""

from scenes.tests.scene_case import SceneCase

NOW = "2026-11-25T18:00:00"


class Begin(SceneCase):
    def ask(self, status=200, **answers):
        made = self.send("post", "/api/begin", {"beginning": answers, "now": NOW})
        self.assertEqual(made.status_code, status, made.content[:300])
        return made.json()

    def test_nothing_said_gives_a_scene_that_can_be_kept(self):
        begun = self.ask()
        self.assertEqual(begun["stops_count"], 0)
        kept = self.send("post", "/api/scenes", begun["scene"])
        self.assertEqual(kept.status_code, 201)
        self.assertEqual(kept.json()["document"]["brief"]["first_pour_at"], "2026-11-26T17:00:00")

    def test_bad_answers(self):
        rows = [
            ({"deep_mm": -4}, "Depth of the water"), ({"usual": {"resin_id": "amber"}}, "'amber'"),
            ({"figures": [{"kind": "castle"}]}, "castle"), ({"colour": "red"}, "Colour is not a field"),
            ({"usual": {"free": {"weekday": None, "weekend": None}}}, "free"),
        ]
        for answers, part in rows:
            with self.subTest(part):
                self.assertIn(part, self.ask(422, **answers)["message"])

    def test_what_a_person_has_is_remembered_and_begun_with(self):
        self.assertEqual(self.client.get("/api/usual").json()["resin_id"], "deep")
        mine = {"resin_id": "casting", "units": {"length": "in"}, "price_per_kg": 21.5}
        self.assertEqual(self.send("put", "/api/usual", mine).status_code, 200)
        again = self.client.get("/api/usual").json()
        self.assertEqual((again["resin_id"], again["price_per_kg"]), ("casting", 21.5))
        scene = self.ask(usual=again, deep_mm=30)["scene"]
        self.assertEqual((scene["pours"][0]["resin_id"], scene["brief"]["units"]["length"]), ("casting", "in"))
        self.assertEqual(self.send("put", "/api/usual", {"price_per_kg": -1}).status_code, 422)

    def test_a_resin_of_ones_own(self):
        library = self.client.get("/api/library").json()
        own = dict(library["resins"][0], id="mine", name="my resin")
        self.send("put", "/api/library/resin", {"body": own, "source": "label"})
        self.assertEqual(self.ask(usual={"resin_id": "mine"})["scene"]["pours"][0]["resin_id"], "mine")

    def test_starts(self):
        rows = self.client.get("/api/starts").json()
        self.assertEqual(len(rows), 6)
        begun = self.send("post", "/api/starts/lost-key", {"first_pour_at": "2026-11-28T09:00:00"}).json()
        self.assertEqual((begun["scene"]["name"], begun["stops_count"]), ("The Lost Key", 0))
        refused = self.send("post", "/api/starts/moon", {"first_pour_at": NOW})
        self.assertEqual(refused.status_code, 422)


class FillLine(SceneCase):
    def test_walls_and_pours_follow(self):
        document = self.document()
        made = self.send("post", "/api/edits/make", {
            "scene": document, "change": {"kind": "fill_line", "fill_mm": 200},
        }).json()
        self.assertIn("200 mm deep", made["label"])
        deep = self.send("post", "/api/edits/apply", {
            "scene": document, "operations": made["edits"], "digest": made["digest"],
        }).json()
        self.assertGreater(deep["tank"]["wall_height_mm"], 200)
        refused = self.send("post", "/api/edits/make", {
            "scene": document, "change": {"kind": "fill_line", "fill_mm": 900},
        })
        self.assertIn("fill line has to be", refused.json()["message"])


class Known(SceneCase):
    def test_numbers_and_words_are_told(self):
        told = self.client.get("/api/known").json()
        peak = next(one for one in told["numbers"] if one["id"] == "peak")
        self.assertIn("marched through time", peak["formula"])
        self.assertIn("Kamal", peak["source"])
        self.assertIn("tack", [one["word"] for one in told["words"]])
