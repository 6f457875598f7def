import io
import json

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
        for query in ("?view=below", "?width=9000"):
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
