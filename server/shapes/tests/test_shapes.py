import io
import json

import ezdxf
import trimesh
from scenes.actions import state_of
from scenes.tests.scene_case import SceneCase

from gondola_core.samples import quarry_pool
from gondola_core.scene import Round
from shapes.models import Mesh

BALL = trimesh.creation.icosphere(3, 12.0)


class Meshes(SceneCase):
    def bring(self, content, kind="stl", **more):
        query = "&".join(f"{key}={value}" for key, value in {"kind": kind, **more}.items())
        return self.client.generic(
            "POST", f"/api/meshes?{query}", content, content_type="application/octet-stream"
        )

    def with_ball(self, mesh_id):
        document = self.document()
        figure = dict(document["figures"][1], id="ball", name="ball")
        figure["solids"] = [{"kind": "mesh", "mesh_id": mesh_id, "scale_ratio": 1.0,
                             "offset_mm": [0, 0, 0]}]
        document["figures"].append(figure)
        return document

    def test_a_mesh_is_kept_once_and_used_by_the_scene(self):
        content = BALL.export(file_type="stl")
        first, second = self.bring(content, name="ball"), self.bring(content, name="ball")
        self.assertEqual(first.status_code, 201)
        self.assertEqual(first.json()["mesh_id"], second.json()["mesh_id"])
        self.assertAlmostEqual(first.json()["volume_ml"], BALL.volume / 1000, places=2)
        self.assertEqual(Mesh.objects.count(), 1)
        document = self.with_ball(first.json()["mesh_id"])
        answer = self.send("post", "/api/evaluate", document)
        fact = answer.json()["figures"][-1]
        self.assertAlmostEqual(fact["volume_ml"], BALL.volume / 1000, places=2)
        model = self.send("post", "/api/model", document)
        shapes = trimesh.load(io.BytesIO(model.content), file_type="glb")
        self.assertIn("figure-ball", shapes.graph.nodes_geometry)

    def test_a_missing_mesh_is_named_whatever_is_asked(self):
        scene = self.with_ball("m0")
        rows = [
            ("/api/evaluate", scene), ("/api/picture", scene), ("/api/model", scene),
            ("/api/schools", scene), ("/api/heat/plane", {"scene": scene, "at_h": 10.0}),
            ("/api/heat/curve", {"scene": scene, "x_mm": 90.0, "depth_mm": 50.0}),
            ("/api/heat/why", {"scene": scene, "pour_number": 2}),
            ("/api/air-remedies", {"scene": scene, "figure_id": "ball"}),
            ("/api/figures/new", {"scene": self.document(), "kind": "mesh", "mesh_id": "m0"}),
        ]
        for url, body in rows:
            with self.subTest(url):
                answer = self.send("post", url, body)
                self.assertEqual(answer.status_code, 422)
                self.assertIn("The mesh 'm0'", answer.json()["message"])

    def test_a_scene_by_value_is_pictured_and_a_mesh_figure_fits_the_tank(self):
        mesh_id = self.bring(trimesh.creation.icosphere(2, 200.0).export(file_type="stl")).json()["mesh_id"]
        made = self.send(
            "post", "/api/figures/new",
            {"scene": self.document(), "kind": "mesh", "mesh_id": mesh_id, "name": "globe"},
        ).json()["figure"]
        # a ball of 400 mm in a tank 110 mm to the back
        self.assertAlmostEqual(made["solids"][0]["scale_ratio"], 0.9 * 110 / 400, delta=0.002)
        body = {"base_revision": 1, "document": self.with_ball(mesh_id)}
        self.assertEqual(self.send("put", self.url(), body).status_code, 200)
        whole = json.loads(self.client.get(self.url("/file")).content)
        self.client.force_login(self.other)
        for url, body in (("/api/picture", whole), ("/api/heat/why", {"scene": whole, "pour_number": 2})):
            with self.subTest(url):
                self.assertEqual(self.send("post", url, body).status_code, 200)

    def test_a_scene_file_carries_its_meshes_to_somebody_else(self):
        mesh_id = self.bring(BALL.export(file_type="stl")).json()["mesh_id"]
        body = {"base_revision": 1, "document": self.with_ball(mesh_id)}
        self.assertEqual(self.send("put", self.url(), body).status_code, 200)
        file = self.client.get(self.url("/file")).content
        self.client.force_login(self.other)
        unseen = self.send("post", "/api/evaluate", self.with_ball(mesh_id))
        self.assertEqual(unseen.status_code, 422)
        self.assertIn("is not here: bring its file in again", unseen.json()["message"])
        made = self.client.post("/api/scenes", file, content_type="application/json")
        self.assertEqual(made.status_code, 201)
        self.assertEqual(made.json()["document"]["meshes"], [])
        told = self.send("post", "/api/evaluate", made.json()["document"])
        self.assertAlmostEqual(
            told.json()["figures"][-1]["volume_ml"], BALL.volume / 1000, places=2
        )

    def test_refusals_leave_nothing(self):
        rows = [
            (b"", {}, 422, "empty"),
            (b"not a mesh", {"kind": "glb"}, 422, "cannot be read"),
            (trimesh.creation.box((0.3, 0.3, 0.3)).export(file_type="stl"), {}, 422, "say whether"),
        ]
        for content, more, status, words in rows:
            with self.subTest(words):
                answer = self.bring(content, **more)
                self.assertEqual(answer.status_code, status)
                self.assertIn(words, answer.json()["message"])
        huge = self.client.generic(
            "POST", "/api/meshes?kind=stl", b"x", content_type="application/octet-stream",
            CONTENT_LENGTH=str(2 * 2**30),
        )
        self.assertEqual(huge.status_code, 413)
        self.assertIn("a mesh file has to be smaller", huge.json()["message"])
        self.assertEqual(Mesh.objects.count(), 0)


class Beds(SceneCase):
    def test_starters_and_measured_depths(self):
        tank = self.document()["tank"]
        answer = self.send("post", "/api/beds/start", {"kind": "reef", "tank": tank})
        self.assertEqual(len(answer.json()["heights_mm"][0]), 46)
        points = [{"x_mm": 20, "behind_mm": 20, "depth_mm": 60}]
        level = self.send("post", "/api/beds/measured", {"points": points, "tank": tank}).json()
        self.assertEqual(level["heights_mm"][0][0], 60)
        for url, body, words in (
            ("/api/beds/start", {"kind": "lava", "tank": tank}, "this says 'lava'"),
            ("/api/beds/measured", {"points": [], "tank": tank}, "at least one depth"),
        ):
            with self.subTest(words):
                refused = self.send("post", url, body)
                self.assertEqual(refused.status_code, 422)
                self.assertIn(words, refused.json()["message"])

    def test_a_height_map(self):
        def bring(content, name):
            return self.client.generic(
                "POST", self.url(f"/bed-map?name={name}"), content,
                content_type="application/octet-stream",
            )

        self.assertEqual(bring(b"10,20\n30,40\n", "a.csv").json()["heights_mm"], [[30, 40], [10, 20]])
        refused = bring(b"10,deep\n30,40\n", "a.csv")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("says 'deep'", refused.json()["message"])
        self.assertEqual(bring(b"", "a.png").status_code, 422)
        self.assertEqual(self.shown().revision, 1)


class Photographed(SceneCase):
    CORNERS = ([0, 400], [600, 400], [480, 100], [120, 100])

    def ask(self, **more):
        depth = {"at_px": [300, 250], "depth_mm": 60}
        body = {"width_mm": 180, "behind_mm": 110, "corners_px": self.CORNERS, "depths": [depth], **more}
        return self.send("post", "/api/beds/photographed", body)

    def test_depths_come_where_they_were_clicked(self):
        measured = self.ask().json()["measured"]
        self.assertEqual((measured[0]["x_mm"], measured[0]["depth_mm"]), (90.0, 60.0))
        self.assertTrue(0 < measured[0]["behind_mm"] < 110)

    def test_refusals(self):
        rows = [
            ({"corners_px": [[0, 0], [1, 0], [2, 0], [0, 9]]}, "on a line"), ({"width_mm": -4}, "has to be"),
            ({"depths": [{"at_px": [5, 5], "depth_mm": 10}]}, "outside the dam"),
        ]
        for more, part in rows:
            with self.subTest(part):
                refused = self.ask(**more)
                self.assertEqual(refused.status_code, 422)
                self.assertIn(part, refused.json()["message"])


class Figures(SceneCase):
    def test_a_new_figure_of_every_kind_can_be_saved(self):
        document = self.document()
        for kind in ("fish", "hull", "ladder", "tuft", "sphere"):
            made = self.send("post", "/api/figures/new", {"scene": document, "kind": kind})
            self.assertEqual(made.status_code, 200)
            document["figures"].append(made.json()["figure"])
        saved = self.send("put", self.url(), {"base_revision": 1, "document": document})
        self.assertEqual(saved.status_code, 200)
        self.assertEqual(len(state_of(self.scene).document.figures), 13)
        refused = self.send("post", "/api/figures/new", {"scene": document, "kind": "castle"})
        self.assertIn("this says 'castle'", refused.json()["message"])

    def test_one_comes_where_it_is_dropped(self):
        rows = [
            ("fish", {"x_mm": 130, "depth_mm": 20}, {"x_mm": 130.0}),
            ("post", {"x_mm": 60, "behind_mm": 20}, {"x_mm": 60.0}),
        ]
        for kind, spot, expected in rows:
            with self.subTest(kind):
                made = self.send(
                    "post", "/api/figures/new", {"scene": self.document(), "kind": kind, "spot": spot}
                ).json()["figure"]
                self.assertEqual({key: made["place"][key] for key in expected}, expected)

    def test_what_empties_a_capsized_hull(self):
        document = self.document()
        made = self.send("post", "/api/figures/new", {"scene": document, "kind": "hull"}).json()
        hull = made["figure"] | {"roll_deg": 180.0}
        hull["place"] = {"x_mm": 140, "behind_mm": 70, "height_mm": 80}
        document["figures"].append(hull)
        before = self.send("post", "/api/evaluate", document).json()["filling"]["traps"]
        self.assertEqual(before[0]["figure_id"], "hull-1")
        remedies = self.send(
            "post", "/api/air-remedies", {"scene": document, "figure_id": "hull-1"}
        ).json()
        self.assertTrue(any(one["label"].startswith("tilt it") for one in remedies))
        for remedy in remedies:
            with self.subTest(remedy["label"]):
                tried = self.send("post", "/api/edits/apply", {
                    "scene": document, "operations": remedy["edits"], "digest": remedy["digest"],
                }).json()
                after = self.send("post", "/api/evaluate", tried).json()["filling"]["traps"]
                left = sum(one["volume_ml"] for one in after if one["figure_id"] == "hull-1")
                self.assertLess(left, 0.2 * before[0]["volume_ml"])

    def test_both_schools(self):
        staged, held = self.send("post", "/api/schools", self.document()).json()
        self.assertEqual((staged["pours_count"], held["pours_count"]), (4, 1))
        self.assertGreater(held["hottest_c"], staged["hottest_c"])
        self.assertGreater(held["held_count"], staged["held_count"])


class CutLists(SceneCase):
    def test_sheets_and_drawings(self):
        sheets = self.send("post", "/api/cut-list/sheets", self.document()).json()
        self.assertEqual(sum(len(sheet["laid"]) for sheet in sheets), 5)
        dxf = self.send("post", "/api/cut-list/dxf", self.document())
        self.assertIn("cut-list.dxf", dxf["Content-Disposition"])
        self.assertEqual(ezdxf.read(io.StringIO(dxf.content.decode())).audit().errors, [])
        svg = self.send("post", "/api/cut-list/svg", self.document())
        self.assertTrue(svg.content.startswith(b"<svg"))
        small = self.document(tank__cutting__sheet_mm=[60.0, 60.0])
        refused = self.send("post", "/api/cut-list/dxf", small)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("does not fit the stock sheet", refused.json()["message"])

    def test_a_round_tank(self):
        scene = quarry_pool()
        tank = scene.tank.model_copy(update={"shape": Round(kind="round")})
        document = scene.model_copy(update={"tank": tank}).model_dump(mode="json")
        answer = self.send("post", "/api/evaluate", document)
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer.json()["dam"]["cuts"]["panels"][0]["name"], "bent wall")
