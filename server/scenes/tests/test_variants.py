from scenes import variants

from .scene_case import SceneCase


class Kept(SceneCase):
    def keep(self, name, **changes):
        return self.send("post", self.url("/variants"), {"name": name, "document": self.document(**changes)})

    def rows(self):
        return self.client.get(self.url("/variants")).json()

    def test_a_plan_is_kept_beside_the_one_that_is_worked_on(self):
        self.assertEqual(self.rows(), [])
        told = self.keep("cooler", pours__0__mix_c=18.0)
        self.assertEqual(told.status_code, 201)
        row = told.json()[0]
        self.assertEqual((row["name"], row["revision"], row["pours_count"]), ("cooler", 2, 4))
        state = self.client.get(self.url()).json()
        self.assertEqual((state["revision"], state["document"]["pours"][0]["mix_c"]), (1, 24.0))
        kept = self.client.get(self.url("/variants/cooler")).json()
        self.assertEqual(kept["pours"][0]["mix_c"], 18.0)

    def test_under_a_name_that_is_there_it_gets_a_new_state_and_keeps_the_old_in_the_log(self):
        self.keep("cooler", pours__0__mix_c=18.0)
        rows = self.keep("cooler", pours__0__mix_c=19.0).json()
        self.assertEqual([row["name"] for row in rows], ["cooler"])
        self.assertEqual(self.client.get(self.url("/variants/cooler")).json()["pours"][0]["mix_c"], 19.0)
        self.assertEqual(self.scene.revisions.count(), 3)

    def test_taken_it_is_the_plan_and_undo_goes_back(self):
        self.keep("cooler", pours__0__mix_c=18.0)
        self.save(1, name="Worked on")
        taken = self.send("post", self.url("/variants/cooler/take"), {"base_revision": 3}).json()
        self.assertEqual((taken["document"]["pours"][0]["mix_c"], taken["can_undo"]), (18.0, True))
        back = self.send("post", self.url("/undo"), {"base_revision": taken["revision"]}).json()
        self.assertEqual(back["document"]["name"], "Worked on")
        self.assertEqual([row["name"] for row in self.rows()], ["cooler"])

    def test_taken_from_an_old_revision_it_is_refused_and_nothing_is_lost(self):
        self.keep("cooler", pours__0__mix_c=18.0)
        self.save(1, name="Worked on")
        refused = self.send("post", self.url("/variants/cooler/take"), {"base_revision": 1})
        self.assertEqual(refused.status_code, 409)
        self.assertEqual(self.client.get(self.url()).json()["document"]["name"], "Worked on")

    def test_named_otherwise_and_let_go(self):
        self.keep("cooler")
        self.keep("later")
        rows = self.send("post", self.url("/variants/cooler/name"), {"name": "  in a   week "}).json()
        self.assertEqual([row["name"] for row in rows], ["in a week", "later"])
        left = self.client.delete(self.url("/variants/later")).json()
        self.assertEqual([row["name"] for row in left], ["in a week"])
        self.assertEqual(self.scene.revisions.count(), 3)

    def test_refusals_say_what_to_change(self):
        self.keep("cooler")
        self.keep("later")
        for answer, status, words in (
            (self.keep("plan"), 422, "a name of its own"),
            (self.keep("   "), 422, "a name of its own"),
            (self.send("post", self.url("/variants/later/name"), {"name": "cooler"}), 422, "called cooler already"),
            (self.client.get(self.url("/variants/plan")), 404, "no such thing"),
            (self.client.delete(self.url("/variants/none")), 404, "no such thing"),
        ):
            with self.subTest(words):
                self.assertEqual(answer.status_code, status)
                self.assertIn(words, answer.json()["message"])

    def test_no_more_are_kept_than_are_said(self):
        for number in range(variants.MOST_VARIANTS):
            self.keep(f"plan {number}")
        refused = self.keep("one more")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("let one go first", refused.json()["message"])
        self.assertEqual(self.keep("plan 3").status_code, 201)

    def test_another_person_finds_none_of_it(self):
        self.keep("cooler")
        self.client.force_login(self.other)
        for method, url in (
            ("get", self.url("/variants")), ("get", self.url("/variants/cooler")),
            ("delete", self.url("/variants/cooler")),
        ):
            with self.subTest(url, method=method):
                self.assertEqual(getattr(self.client, method)(url).status_code, 404)
        self.assertEqual(self.send("post", self.url("/variants/cooler/take"), {"base_revision": 1}).status_code, 404)
