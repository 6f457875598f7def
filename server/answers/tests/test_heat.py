from scenes.tests.scene_case import SceneCase

from gondola_core.materials import load_library


class Heat(SceneCase):
    def test_plane_and_curve_of_the_march(self):
        plane = self.send("post", "/api/heat/plane", {"scene": self.document(), "at_h": 32.0}).json()
        self.assertEqual(len(plane["temperature_c"]), len(plane["depth_mm"]))
        self.assertEqual(len(plane["temperature_c"][0]), len(plane["x_mm"]))
        warm = [value for row in plane["temperature_c"] for value in row if value is not None]
        self.assertGreater(max(warm), 60)
        self.assertIsNone(plane["temperature_c"][0][0])
        curve = self.send(
            "post", "/api/heat/curve", {"scene": self.document(), "x_mm": 120, "depth_mm": 66}
        ).json()
        told = [value for value in curve["temperature_c"] if value is not None]
        self.assertGreater(max(told), 60)
        self.assertIsNone(curve["temperature_c"][0])
        away = self.send(
            "post", "/api/heat/curve", {"scene": self.document(), "x_mm": 120, "depth_mm": -5}
        )
        self.assertEqual(away.status_code, 422)
        self.assertIn("from 0 to 120 mm; it says -5", away.json()["message"])

    def test_why_a_pour_is_so_hot(self):
        why = self.send("post", "/api/heat/why", {"scene": self.document(), "pour_number": 2}).json()
        names = [cause["name"] for cause in why["causes"]]
        self.assertIn("its depth", names)
        self.assertTrue(all(cause["adds_k"] > -1 for cause in why["causes"]))
        missing = self.send("post", "/api/heat/why", {"scene": self.document(), "pour_number": 9})
        self.assertEqual(missing.status_code, 404)

    def test_cups(self):
        resin = load_library().resins["casting"].model_dump(mode="json")
        body = {"resin": resin, "mass_g": 500, "mix_c": 23, "room_c": 23}
        cup = self.send("post", "/api/heat/cup", body).json()
        self.assertAlmostEqual(cup["warm_50_min"], 46, delta=3)
        for change, words in (
            ({"mass_g": -5}, "from 5 to 20000 g; this says -5"),
            ({"room_c": 90}, "has to be from 5 to 60 °C"),
            ({"vessel": "boot"}, "this says 'boot'"),
        ):
            with self.subTest(words):
                refused = self.send("post", "/api/heat/cup", body | change)
                self.assertEqual(refused.status_code, 422)
                self.assertIn(words, refused.json()["message"])

    def test_a_resin_from_its_data_sheet(self):
        sheet = {"id": "mine", "name": "my bottle", "pot_life_min": 240, "most_pour_mm": 40,
                 "viscosity_mpa_s": 350}
        fit = self.send("post", "/api/heat/from-sheet", {"sheet": sheet, "like_id": "deep"}).json()
        self.assertAlmostEqual(fit["pot_life_min"], 240, delta=12)
        self.assertIn("class deep-pour resin", fit["resin"]["derived"])
        for change, words in (
            ({"pot_life_min": -3}, "Pot life has to be from 2 to 1500 min; it says -3"),
            ({"pot_life_min": 10, "most_pour_mm": 60}, "choose another class"),
        ):
            with self.subTest(words):
                refused = self.send(
                    "post", "/api/heat/from-sheet",
                    {"sheet": sheet | change, "like_id": "casting"},
                )
                self.assertEqual(refused.status_code, 422)
                self.assertIn(words, refused.json()["message"])

    def test_a_cup_at_the_scale_and_an_over_pour(self):
        resin = load_library().resins["deep"].model_dump(mode="json")
        asked = {"resin": resin, "wanted_g": 290.0, "mix_c": 25.0, "scale_step_g": 0.1}
        plain = self.send("post", "/api/cup/weigh", asked).json()
        self.assertIsNone(plain["correction"])
        a, b = plain["weighed"]["part_a_g"], plain["weighed"]["part_b_g"]
        self.assertAlmostEqual(a + b, 290.0, delta=0.2)
        over = self.send("post", "/api/cup/weigh", asked | {"part_a_g": a + 12, "part_b_g": b}).json()["correction"]
        self.assertEqual(over["add"], "b")
        self.assertIn("of part B", over["do_words"])
        refused = self.send("post", "/api/cup/weigh", asked | {"part_a_g": 0.0})
        self.assertEqual(refused.status_code, 422)
        self.assertIn("part A first", refused.json()["message"])
