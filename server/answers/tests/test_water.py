import io
import json

import numpy as np
from PIL import Image
from scenes.tests.scene_case import SceneCase


class Water(SceneCase):
    def picture(self, query="", **changes):
        return self.client.post(
            f"/api/picture{query}", json.dumps(self.document(**changes)), content_type="application/json"
        )

    def test_pictures_of_every_view_and_width(self):
        rows = [("", (480, 320)), ("?view=above", (480, 293)), ("?view=side&width=220", (220, 240)),
                ("?width=1600", (1600, 1067))]
        for query, size in rows:
            with self.subTest(query):
                answer = self.picture(query)
                self.assertEqual(answer["Content-Type"], "image/png")
                self.assertEqual(Image.open(io.BytesIO(answer.content)).size, size)
        quick = self.picture("?file=jpeg")
        self.assertEqual(quick["Content-Type"], "image/jpeg")
        exact = np.asarray(Image.open(io.BytesIO(self.picture().content)), dtype=float)
        self.assertLess(np.abs(np.asarray(Image.open(io.BytesIO(quick.content)), dtype=float) - exact).mean(), 2.0)
        for query in ("?view=below", "?width=9000", "?file=bmp"):
            with self.subTest(query):
                self.assertEqual(self.picture(query).status_code, 422)

    def test_scale_true_water_is_solved_and_its_remedy_can_be_saved(self):
        wish = {"look": {"kind": "scale_true", "water_type": "3C"}, "most_colourants": 4}
        answer = self.send("post", "/api/water/solve", self.document(wish=wish))
        self.assertEqual(answer.status_code, 200)
        solved = answer.json()["solved"]
        self.assertLess(solved["mean_de00"], 2.5)
        document = self.document(wish=wish)
        for edit in answer.json()["remedy"]["edits"]:
            *way, last = edit["path"].strip("/").split("/")
            spot = document
            for part in way:
                spot = spot[int(part) if part.isdigit() else part]
            spot[last] = edit["value"]
        saved = self.send("put", self.url(), {"base_revision": 1, "document": document})
        self.assertEqual(saved.status_code, 200)

    def test_refusals(self):
        rows = [
            ("/api/water/solve", self.document(), "how the water should look"),
            ("/api/water/solve", self.document(wish={"look": {"kind": "scale_true", "water_type": "12X"}}),
             "type of water"),
            ("/api/water/paint", {"scene": self.document(), "figure_id": "crab", "wished_srgb": "#c03020"},
             "no figure 'crab'"),
            ("/api/evaluate", self.document(pours__0__doses__0__dose_drops_per_100g=-1.0),
             "dose has to be from 0 to 60 drops per 100 g; it says -1"),
            ("/api/evaluate", self.document(colourants__0__bands__0__centre_nm="green"),
             "centre of an absorption band has to be a number; it says 'green'"),
        ]
        for url, body, words in rows:
            with self.subTest(words):
                answer = self.send("post", url, body)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])

    def test_paint_for_a_red_pike(self):
        body = {"scene": self.document(), "figure_id": "pike", "wished_srgb": "#c03020"}
        told = self.send("post", "/api/water/paint", body).json()
        self.assertNotEqual(told["possible"], "paintable")
        self.assertLess(told["places"][0]["gap_de00"], told["gap_de00"])
        self.assertEqual([zone["zone"] for zone in told["zones"]], ["flank", "back", "belly"])

    def test_a_measured_spectrum_is_kept_on_the_shelf(self):
        rows = "nm;A\n" + "\n".join(f"{nm};0,4" for nm in range(395, 706, 5))
        body = {"text": rows, "name": "Kelp green", "drops_per_100g": 2.0, "path_mm": 20.0}
        ink = self.send("post", "/api/water/spectrum", {"measured": body})
        self.assertEqual(ink.status_code, 200)
        self.assertEqual(ink.json()["id"], "kelp-green")
        self.assertEqual(set(ink.json()["absorbances_per_cm"]), {0.1})
        shelf = self.client.get("/api/library").json()
        self.assertIn("kelp-green", [one["id"] for one in shelf["colourants"]])
        note = next(one for one in shelf["notes"] if one["id"] == "kelp-green")
        self.assertTrue(note["own"])
        self.assertIn("2 drops per 100 g", note["source"])
        document = self.document()
        document["colourants"].append(ink.json())
        document["pours"][0]["doses"].append(
            {"colourant_id": "kelp-green", "dose_drops_per_100g": 1.0}
        )
        before = self.send("post", "/api/evaluate", self.document()).json()["water"]
        after = self.send("post", "/api/evaluate", document).json()["water"]
        self.assertLess(after["light_fraction"][-1], before["light_fraction"][-1])
        self.assertEqual(after["light_fraction"][0], before["light_fraction"][0])

    def test_spectra_that_cannot_be_used(self):
        good = "\n".join(f"{nm},0.4" for nm in range(395, 706, 5))
        rows = [
            ({"text": good.replace("500,0.4", "500,teal")}, "says '500 teal'"),
            ({"text": "not a spectrum"}, "0 rows of numbers"),
            ({"text": good, "path_mm": -1.0}, "Length of the cell has to be from 0.1 to 500 mm; it says -1."),
            ({"text": "1" * 1_000_001}, "Spectrum may have 1000000 characters at most."),
            ({"text": good, "name": ""}, "Name of the colourant is empty."),
        ]
        for changes, words in rows:
            with self.subTest(words):
                answer = self.send(
                    "post", "/api/water/spectrum", {"measured": {"name": "mine", **changes}}
                )
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])
        shelf = self.client.get("/api/library").json()
        self.assertFalse([one for one in shelf["notes"] if one["own"]])

    def test_by_eye_wish_is_answered_with_its_errors(self):
        picks = [{"depth_mm": 10, "srgb": "#bfe0d0"}, {"depth_mm": 100, "srgb": "#3f8a72"}]
        answer = self.send("post", "/api/water/solve", self.document(
            wish={"look": {"kind": "by_eye", "picks": picks}, "most_colourants": 3}
        ))
        self.assertEqual(answer.status_code, 200)
        solved = answer.json()["solved"]
        self.assertEqual(len(solved["eye_de00"]), 2)
        self.assertLessEqual(max(len(doses) for doses in solved["pours"]), 3)
        self.assertAlmostEqual(solved["mean_de00"], sum(solved["eye_de00"]) / 2, delta=0.02)

    def test_picture_follows_doses_figures_and_light(self):
        plain = self.picture().content
        rows = [
            {"pours__1__doses__0__dose_drops_per_100g": 1.5}, {"figures__1__place__x_mm": 100.0},
            {"brief__light": "room"}, {"figures__0__paint_srgb": "#3060c0"},
            {"brief__backdrop_srgb": "#1d1f22"},
        ]
        for changes in rows:
            with self.subTest(str(changes)):
                self.assertNotEqual(self.picture(**changes).content, plain)
        self.assertEqual(self.picture().content, plain)
