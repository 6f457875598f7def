"""Colours that a mesh file tells: read, kept through mending and packing, worn in the picture."""

import unittest

import numpy as np
import trimesh
from PIL import Image

from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.samples import quarry_pool
from gondola_core.scene import MeshSolid, scene_from
from gondola_core.shape.bodies.bringing import bring_mesh
from gondola_core.shape.bodies.mesh import TriMesh, joined, mesh_id_of, pack_mesh, unpack_mesh
from gondola_core.shape.templates import mesh_figure
from gondola_core.tint import figure_sights, water_of
from gondola_core.tint.colour import encode_srgb, linear_of_hex, linear_srgb, reflectance_of_hex
from gondola_core.units import MM
from gondola_core.views.looks import scene_looks
from gondola_core.views.picture import picture
from gondola_core.views.surface_paint import mean_colour

UPPER, LOWER = (200, 40, 20), (20, 60, 180)
BALL = trimesh.creation.icosphere(3, 10.0)


def painted(mesh=BALL):
    """The mesh with its upper half (along z) in one colour and the lower in another."""
    rgba = np.full((len(mesh.vertices), 4), 255, np.uint8)
    rgba[:, :3] = np.where(mesh.vertices[:, 2:] > 0, UPPER, LOWER)
    out = mesh.copy()
    out.visual = trimesh.visual.ColorVisuals(out, vertex_colors=rgba)
    return out


def textured():
    image = Image.fromarray(np.array([[UPPER] * 8] * 8 + [[LOWER] * 8] * 8, np.uint8))
    out = trimesh.Trimesh(BALL.vertices, BALL.faces, process=False)
    uv = np.stack([np.full(len(out.vertices), 0.5), (out.vertices[:, 2] + 10) / 20], axis=1)
    out.visual = trimesh.visual.TextureVisuals(
        uv=uv, material=trimesh.visual.material.PBRMaterial(baseColorTexture=image)
    )
    return out


def plain(factor):
    out = trimesh.Trimesh(BALL.vertices, BALL.faces, process=False)
    out.visual = trimesh.visual.TextureVisuals(
        material=trimesh.visual.material.PBRMaterial(baseColorFactor=[*factor, 1.0])
    )
    return out


def file_of(mesh, kind):
    content = mesh.export(file_type=kind)
    return content.encode() if isinstance(content, str) else content


def halves(mesh):
    """Mean colour of the upper and of the lower third."""
    z = mesh.vertices[:, 2]
    return [mesh.colours[z > 14].mean(axis=0), mesh.colours[z < 6].mean(axis=0)]


class Reading(unittest.TestCase):
    def test_what_each_format_tells(self):
        # GLB holds vertex colours and plain materials as linear light, textures as they look
        as_linear = [encode_srgb(np.array(one) / 255) for one in (UPPER, LOWER)]
        grey = [encode_srgb(np.array([0.2, 0.5, 0.9]))] * 2
        rows = [
            ("ply", painted(), [UPPER, LOWER]), ("obj", painted(), [UPPER, LOWER]),
            ("glb", painted(), as_linear), ("glb", textured(), [UPPER, LOWER]),
            ("glb", plain([0.2, 0.5, 0.9]), grey),
        ]
        for kind, mesh, expected in rows:
            with self.subTest(kind, colours=expected):
                brought = bring_mesh(file_of(mesh, kind), kind, "mm", "z")
                np.testing.assert_allclose(halves(brought.mesh), expected, atol=1.5)

    def test_files_that_tell_none(self):
        for kind in ("stl", "ply", "obj", "glb"):
            with self.subTest(kind):
                self.assertIsNone(bring_mesh(file_of(BALL, kind), kind, "mm", "z").mesh.colours)

    def test_mending_keeps_them(self):
        whole = painted()
        open_top = whole.faces[whole.triangles_center[:, 2] < 9.3]
        holed = painted(trimesh.Trimesh(whole.vertices, open_top, process=False))
        brought = bring_mesh(file_of(holed, "ply"), "ply", "mm", "z")
        self.assertIn("flat lid", " ".join(map(str, brought.words)))
        self.assertEqual(len(brought.mesh.colours), len(brought.mesh.vertices))
        np.testing.assert_allclose(brought.mesh.colours[-1], UPPER, atol=1)  # the lid's middle
        np.testing.assert_allclose(halves(brought.mesh), [UPPER, LOWER], atol=1)


class Keeping(unittest.TestCase):
    def setUp(self):
        self.mesh = bring_mesh(file_of(painted(), "ply"), "ply", "mm", "z").mesh

    def test_packed_and_unpacked(self):
        again = unpack_mesh(pack_mesh(self.mesh))
        np.testing.assert_array_equal(again.colours, self.mesh.colours)
        self.assertIsNone(unpack_mesh(pack_mesh(self.mesh.plain())).colours)
        self.assertNotEqual(mesh_id_of(pack_mesh(self.mesh)), mesh_id_of(pack_mesh(self.mesh.plain())))

    def test_a_packed_mesh_with_half_its_colours_is_damaged(self):
        short = TriMesh(self.mesh.vertices, self.mesh.faces, self.mesh.colours[:-7])
        with self.assertRaises(GondolaError):
            unpack_mesh(pack_mesh(short))

    def test_shells_side_by_side_keep_them_only_if_all_have_some(self):
        both = joined([self.mesh, self.mesh])
        self.assertEqual(both.colours.shape, (2 * len(self.mesh.vertices), 3))
        self.assertIsNone(joined([self.mesh, self.mesh.plain()]).colours)

    def test_their_mean_is_by_area(self):
        red, green, blue = np.mean([linear_of_hex("#c82814"), linear_of_hex("#143cb4")], axis=0)
        found = linear_of_hex(mean_colour(self.mesh))
        np.testing.assert_allclose(found, [red, green, blue], atol=0.05)
        self.assertIsNone(mean_colour(self.mesh.plain()))


class Wearing(unittest.TestCase):
    def setUp(self):
        self.meshes = {"ball": bring_mesh(file_of(painted(), "ply"), "ply", "mm", "z").mesh}
        document = quarry_pool().model_dump(mode="json")
        document["figures"] = []
        for pour in document["pours"]:
            pour["doses"] = []
        scene = scene_from(document)
        figure = mesh_figure(scene, "ball", "ball", [20, 20, 20], mean_colour(self.meshes["ball"]))
        place = figure.place.model_copy(update={"behind_mm": 12.0, "height_mm": 80.0})
        self.scene = scene.model_copy(update={"figures": [figure.model_copy(update={"place": place})]})

    def worn(self, own_colours):
        figure = self.scene.figures[0].model_copy(update={"own_colours": own_colours})
        return self.scene.model_copy(update={"figures": [figure]})

    def test_the_picture_shows_them_and_paint_when_they_are_off(self):
        self.assertTrue(self.scene.figures[0].own_colours)
        reds = {}
        for own in (True, False):
            image = picture(self.worn(own), "front", 360, self.meshes, Keeper()).astype(float)
            # 2 pixels a mm: the ball stands over x 90, heights 80 to 100 of 120
            upper, lower = image[44:50, 177:183], image[72:78, 177:183]
            reds[own] = [float((part[..., 0] - part[..., 2]).mean()) for part in (upper, lower)]
        self.assertGreater(reds[True][0], 60)
        self.assertLess(reds[True][1], -20)
        self.assertLess(abs(reds[False][0] - reds[False][1]), 25)

    def test_reads_go_by_their_mean(self):
        extents = [(np.array([80.0, 2, 80]), np.array([100.0, 22, 100]))]
        own, paint = (figure_sights(self.worn(own), extents)[0].reads_srgb for own in (True, False))
        self.assertNotEqual(own, paint)

    def test_the_model_in_the_round_is_read_corner_by_corner(self):
        scene = self.worn(False)
        figure = scene.figures[0].model_copy(update={"paint_srgb": "#b0803c"})
        scene = scene.model_copy(update={"figures": [figure]})
        look = scene_looks(scene, self.meshes)[f"figure-{figure.id}"]
        solid = figure.solids[0]
        assert isinstance(solid, MeshSolid)
        mesh = self.meshes["ball"]
        corners = (mesh.vertices * solid.scale_ratio)[mesh.faces].reshape(-1, 3)
        water, paint = water_of(scene), reflectance_of_hex("#b0803c")
        for corner in (0, 500, 1500, len(corners) - 1):
            _, y, z = corners[corner]
            depth = scene.tank.fill_height_mm - figure.place.height_mm - z
            with self.subTest(corner, depth=depth):
                seen = linear_srgb(water.seen(paint, depth * MM, (figure.place.behind_mm + y) * MM))
                np.testing.assert_allclose(look.linear_srgb[corner], seen, atol=0.004)

    def test_painted_and_own_corners_differ(self):
        looks = [scene_looks(self.worn(own), self.meshes) for own in (True, False)]
        own, paint = (one[f"figure-{self.scene.figures[0].id}"].linear_srgb for one in looks)
        self.assertGreater(float(own.std(axis=0)[0]), 3 * float(paint.std(axis=0)[0]))


if __name__ == "__main__":
    unittest.main()
