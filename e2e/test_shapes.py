"""A scene built from nothing through tank, bed and figures, as its user would."""

import io
import re
import time

import ezdxf
import trimesh
from django.test import tag
from playwright.sync_api import expect
from scenes.actions import state_of
from scenes.models import Scene

from .browser_case import BrowserCase


class FromNothing(BrowserCase):
    @tag("long")
    def test_a_scene_is_built_through_three_stages(self):
        page = self.page
        began = time.monotonic()
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Begin a piece").click()
        page.get_by_role("button", name=re.compile("What lies below")).click()
        for _ in range(3):
            page.get_by_role("button", name="one fish less").click()
        page.get_by_label("Name of the piece").fill("Sunk hull")
        page.get_by_role("button", name="Make this plan").click()
        expect(page.get_by_role("region", name="Sounding")).to_be_visible()
        self.scene = Scene.objects.get(name="Sunk hull")
        # tank: a hexagon, entered by its outside, in 4 mm sheet
        self.go("Tank")
        page.get_by_label("shape", exact=True).select_option("regular")
        self.part("dam")
        self.type("sheet thickness", "4 mm")
        self.part("size")
        page.get_by_label("size is of").select_option("outside")
        self.type("across", "148 mm")
        page.get_by_role("button", name="cut list").click()
        cuts = page.get_by_role("region", name="Cut list")
        expect(cuts.get_by_role("row", name=re.compile("^side"))).not_to_have_count(0)
        expect(cuts).to_contain_text("30° / 30°")
        with page.expect_download() as download:
            cuts.get_by_role("button", name="DXF").click()
        text = download.value.path().read_text()
        self.assertEqual(ezdxf.read(io.StringIO(text)).audit().errors, [])
        # bed: a reef, then a touch of the hand
        self.go("Bed")
        self.part("forms")
        page.get_by_role("button", name="reef").click()
        self.saved()
        self.part("hands")
        before = self.document()["bed"]["heights_mm"]
        page.get_by_role("radio", name=re.compile("^build up")).click()
        chart = page.get_by_role("application", name=re.compile("Bed, build up"))
        self.drag(chart, 40, 0)
        self.saved()
        self.assertNotEqual(self.document()["bed"]["heights_mm"], before)
        # figures: a hull, dropped to the bed, and a shoal
        self.go("Figures")
        page.get_by_role("button", name="hull", exact=True).click()
        expect(page.get_by_role("heading", name="hull", exact=True)).to_be_visible()
        self.part("place")
        page.get_by_role("button", name="drop to the bed").click()
        self.saved()
        self.part("add")
        page.get_by_role("button", name="fish", exact=True).click()
        expect(page.get_by_role("heading", name="fish", exact=True)).to_be_visible()
        self.part("place")
        page.get_by_role("button", name="copy as shoal").click()
        self.saved()
        document = self.document()
        self.assertEqual(len(document["figures"]), 6)
        self.assertEqual(document["tank"]["shape"], {"kind": "regular", "sides_count": 6})
        self.assertAlmostEqual(document["tank"]["inner_width_mm"], 140)
        self.assertLess(time.monotonic() - began, 300)

    def document(self):
        return state_of(Scene.objects.get(pk=self.scene.pk)).document.model_dump(mode="json")

    def type(self, label, text):
        field = self.page.get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")
        self.saved()


class Depths(BrowserCase):
    def test_depths_are_typed_as_read_off_with_ruler_and_skewer(self):
        page = self.page
        self.go("Bed")
        page.get_by_role("radio", name=re.compile("^type depths")).click()
        page.get_by_role("button", name="add a depth in the middle").click()
        field = page.get_by_label("depth 1", exact=True)
        field.fill("95 mm")
        field.press("Enter")
        self.saved()
        bed = self.document()["bed"]
        self.assertEqual(bed["measured"], [{"x_mm": 90, "behind_mm": 55, "depth_mm": 95}])
        self.assertEqual({height for row in bed["heights_mm"] for height in row}, {25})

    def test_a_csv_with_words_and_a_broken_mesh_change_nothing(self):
        page = self.page
        self.go("Bed")
        self.part("forms")
        before = self.document()
        picker = page.get_by_label("Mesh or height map of the bed")
        picker.set_input_files({"name": "bed.csv", "mimeType": "text/csv", "buffer": b"1,2\n3,deep"})
        alert = page.get_by_role("region", name="Inspector").get_by_role("alert")
        expect(alert).to_contain_text("Row 2 of the CSV says 'deep'")
        picker.set_input_files({"name": "bed.png", "mimeType": "image/png", "buffer": b""})
        expect(alert).to_contain_text("This file is empty.")
        self.assertEqual(self.document(), before)


class Figures(BrowserCase):
    def setUp(self):
        super().setUp()
        self.go("Figures")

    def bring(self, mesh, name):
        self.part("add")
        self.page.get_by_label("Mesh of a figure").set_input_files(
            {"name": name, "mimeType": "model/stl", "buffer": mesh.export(file_type="stl")}
        )

    def test_a_mesh_is_brought_in_and_an_inch_file_is_asked_about(self):
        inspector = self.page.get_by_role("region", name="Inspector")
        self.bring(trimesh.creation.box((0.5, 0.3, 0.2)), "crate.stl")
        expect(inspector.get_by_role("alert")).to_contain_text("say whether the file is in mm")
        self.page.get_by_label("its unit").select_option("in")
        self.bring(trimesh.creation.box((0.5, 0.3, 0.2)), "crate.stl")
        expect(self.page.get_by_role("heading", name="crate")).to_be_visible()
        expect(inspector).to_contain_text("12.7 mm x 7.6 mm x 5.1 mm")
        self.saved()
        self.part("place")
        fact = self.value("volume, mass")
        self.assertTrue(fact.startswith("0.49 ml"), fact)

    @tag("long")
    def test_a_coloured_mesh_wears_its_colours_until_it_is_painted(self):
        ball = trimesh.creation.icosphere(2, 9.0)
        ball.visual = trimesh.visual.ColorVisuals(ball, vertex_colors=[210, 60, 30, 255])
        self.part("add")
        self.page.get_by_label("Mesh of a figure").set_input_files(
            {"name": "buoy.ply", "mimeType": "application/octet-stream",
             "buffer": ball.export(file_type="ply")}
        )
        expect(self.page.get_by_text("It wears the colours of its file.")).to_be_visible()
        self.saved()
        self.go("Water")
        self.part("paint")
        paint = self.page.get_by_role("group", name="Paint")
        paint.get_by_label("of", exact=True).select_option(label="buoy")
        expect(paint.get_by_label("flank")).to_have_count(0)
        paint.get_by_role("button", name="which paint?").click()
        expect(paint).to_contain_text("mean reads")
        paint.get_by_label("colours of its own file").uncheck()
        expect(paint.get_by_label("flank")).to_be_visible()
        self.saved()
        buoy = self.document()["figures"][-1]
        self.assertEqual((buoy["file_srgb"], buoy["own_colours"]), ("#d23c1e", False))

    def test_a_light_hollow_print_floats_and_what_holds_it_is_told(self):
        self.part("add")
        self.page.get_by_role("button", name="sphere", exact=True).click()
        expect(self.page.get_by_role("heading", name="sphere")).to_be_visible()
        self.part("made of")
        self.page.get_by_label("made of").select_option("printed-resin")
        self.page.get_by_label("hollow").check()
        self.saved()
        flags = self.page.get_by_role("region", name="Before you pour")
        expect(flags.get_by_text("The sphere floats up with")).to_be_visible()
        self.part("holding")
        holds = self.page.get_by_role("radiogroup", name="How it is held")
        expect(holds.get_by_role("radio", name=re.compile("stands on the bed does not"))).to_be_visible()
        holds.get_by_role("radio", name=re.compile("steel wire holds")).click()
        expect(flags.get_by_text("The sphere floats up with")).to_have_count(0)

    @tag("long")
    def test_a_capsized_hull_keeps_air_until_it_is_helped(self):
        self.part("add")
        self.page.get_by_role("button", name="hull", exact=True).click()
        expect(self.page.get_by_role("heading", name="hull", exact=True)).to_be_visible()
        self.part("place")
        for label, text in (("rolled", "180"), ("from the left", "140"), ("behind the glass", "80"),
                            ("depth of its foot", "45 mm")):
            field = self.page.get_by_label(label, exact=True)
            field.fill(text)
            field.press("Enter")
            self.saved()
        flags = self.page.get_by_role("region", name="Before you pour")
        expect(flags.get_by_text("of air stays under the hull")).to_be_visible()
        self.part("holding")
        self.page.get_by_role("button", name="what helps?").click()
        helps = self.page.get_by_role("group", name="What helps")
        helps.get_by_role("button", name=re.compile("Try: tilt it")).first.click()
        expect(flags.get_by_text("of air stays under the hull")).to_have_count(0)
        self.settled()
        flags.get_by_role("group", name="Tried").get_by_role("button", name="keep it").click()
        self.saved()

    def test_both_schools_and_the_piece_in_the_round(self):
        self.part("schools")
        self.page.get_by_role("button", name="staged or held? both, side by side").click()
        expect(self.page.get_by_role("row", name=re.compile("^hottest"))).to_contain_text("runs away")
        self.page.get_by_role("button", name="round").click()
        piece = self.page.get_by_role("img", name=re.compile("The piece in the round"))
        expect(self.page.get_by_text("drag or arrow keys to turn")).to_be_visible()
        piece.focus()
        self.page.keyboard.press("ArrowRight")
        expect(piece).to_have_attribute("aria-label", re.compile("turned 34 degrees"))
        self.complaints = [
            one for one in self.complaints if "THREE.Clock" not in one and "GPU stall" not in one
        ]
