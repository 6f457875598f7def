from scenes.tests.scene_case import SceneCase


class Beside(SceneCase):
    def test_two_plans_are_told_apart_in_the_readers_units(self):
        cooler = self.document(brief__room__fan=True, pours__1__top_depth_mm=60.0)
        cooler["brief"]["units"] = {"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"}
        told = self.send("post", "/api/beside", {"before": self.document(), "after": cooler}).json()
        self.assertIn("cooler", " ".join(told["gains"]))
        self.assertEqual([round(line["depth_mm"]) for line in told["new_lines"]], [60])

    def test_a_broken_scene_is_refused(self):
        broken = self.document(pours__1__top_depth_mm=-3)
        refused = self.send("post", "/api/beside", {"before": self.document(), "after": broken})
        self.assertEqual(refused.status_code, 422)
        self.assertIn("layer line has to be", refused.json()["message"])
