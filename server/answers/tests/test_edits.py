"""Edits asked for and made over HTTP; quantities as typed; the register of checks."""

from scenes.tests.scene_case import SceneCase

from gondola_core.checks import CHECKS


class Edits(SceneCase):
    def make(self, **change):
        return self.send("post", "/api/edits/make", {"scene": self.document(), "change": change})

    def apply(self, scene, remedy):
        body = {"scene": scene, "operations": remedy["edits"], "digest": remedy["digest"]}
        return self.send("post", "/api/edits/apply", body)

    def test_each_change_is_made_and_applied(self):
        rows = [
            ({"kind": "split_pour", "number": 2}, lambda scene: len(scene["pours"]) == 5),
            ({"kind": "take_pour_out", "number": 4}, lambda scene: scene["pours"][-1]["id"] == "pour-3"),
            ({"kind": "shoal", "figure_id": "pike", "count": 3}, lambda scene: len(scene["figures"]) == 11),
            ({"kind": "take_figure_out", "figure_id": "pike"}, lambda scene: len(scene["figures"]) == 7),
        ]
        for change, held in rows:
            with self.subTest(change["kind"]):
                remedy = self.make(**change).json()
                self.assertTrue(remedy["label"])
                self.assertTrue(held(self.apply(self.document(), remedy).json()))

    def test_what_no_longer_fits_is_refused_and_what_moved_is_found(self):
        remedy = self.make(kind="take_figure_out", figure_id="pike").json()
        gone = self.document()
        gone["figures"] = gone["figures"][2:]
        refused = self.apply(gone, remedy)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("no longer fits", refused.json()["message"])
        turned = self.document()
        turned["figures"] = turned["figures"][::-1]
        self.assertNotIn("pike", [one["id"] for one in self.apply(turned, remedy).json()["figures"]])

    def test_bad_changes_are_refused(self):
        for change, words in (
            ({"kind": "split_pour", "number": 9}, "pours 1 to 4; this asks for 9"),
            ({"kind": "take_pour_out", "number": 0}, "pours 1 to 4"),
            ({"kind": "shoal", "figure_id": "crab", "count": 2}, "no figure 'crab'"),
            ({"kind": "shoal", "figure_id": "pike", "count": 60}, "60 figures"),
        ):
            with self.subTest(words):
                refused = self.make(**change)
                self.assertEqual(refused.status_code, 422)
                self.assertIn(words, refused.json()["message"])


class Quantities(SceneCase):
    def read(self, text, quantity="length", unit="in", **more):
        url = "/api/quantity"
        return self.client.get(url, {"text": text, "quantity": quantity, "unit": unit}, **more)

    def test_mixed_forms(self):
        for text, value in (("2 1/2 in", 63.5), ("1 ft 3", 381.0), ("65mm", 65.0), ("2", 50.8)):
            with self.subTest(text):
                self.assertAlmostEqual(self.read(text).json()["value"], value)

    def test_what_cannot_be_read(self):
        refused = self.read("a thumb")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("cannot be read here", refused.json()["message"])


class Said(SceneCase):
    def test_refusals_are_said_in_the_units_of_who_asks(self):
        body = self.document(tank__fill_height_mm=200.0)
        for header, words in (("", "134 mm high"), ("in,f,floz,oz", "5 1/4 in high"), ("ells,f,floz,oz", "134 mm")):
            with self.subTest(header):
                answer = self.client.post(
                    "/api/evaluate", body, content_type="application/json", headers={"Gondola-Units": header}
                )
                self.assertIn(words, answer.json()["message"])

    def test_an_outcome_in_inches_holds_no_metric_sentence(self):
        us = {"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"}
        outcome = self.send("post", "/api/evaluate", self.document(brief__units=us)).json()
        ways = [way["sentence"] for figure in outcome["figures"] for way in figure["ways"]]
        self.assertNotRegex(" ".join(ways), r"\d (mm|mm²|°C|gf|N)\b")
        self.assertNotRegex(str(outcome["flags"]), r"\d (mm|°C|ml|g)\b(?! in)")
        cup = outcome["pours"][1]["cup"]["measured"]["cup_words"]
        self.assertIn("oz of mixed resin", cup)

    def test_the_register_of_checks(self):
        rows = self.client.get("/api/checks").json()
        self.assertEqual([row["code"] for row in rows], list(CHECKS))
        self.assertTrue(all(row["about"] and row["source"] for row in rows))
