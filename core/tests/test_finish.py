"""What follows the last pour: forces, ladders, gel, strips at true size, cavities."""

import io
import re
import unittest
from xml.etree import ElementTree

import ezdxf
import numpy as np
from changed import changed

from gondola_core.finish.faces import face_schools
from gondola_core.finish.fit import cavity_fit
from gondola_core.finish.letting_go import PEEL_J_M2, letting_go, peel_force_n
from gondola_core.finish.strips import edge_strips, strips_dxf, strips_pdf, strips_svg
from gondola_core.finish.top import top_work
from gondola_core.materials import load_library
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.studies.finishing import finishing

SOLIDS = load_library().solids


class LettingGo(unittest.TestCase):
    """In order, with its force."""

    def test_force_grows_with_adhesion_and_width(self) -> None:
        for release, energy in PEEL_J_M2.items():
            with self.subTest(release):
                self.assertAlmostEqual(peel_force_n(energy, 150.0), energy * 0.15)

    def test_order_by_joint_and_wall(self) -> None:
        rows = (
            (changed(), "joint_alcohol"),
            (changed(tank__release="none", tank__wall__material=SOLIDS["glass"]), "break"),
            (changed(tank__walls_stay=True), None),
        )
        for scene, last in rows:
            with self.subTest(last=last):
                found = [one.id for one in letting_go(scene.tank, 180.0, 120.0)]
                self.assertEqual(last in found if last else not found, True)
        none = letting_go(changed(tank__release="none", tank__wall__material=SOLIDS["glass"]).tank, 180.0, 120.0)
        self.assertEqual(none[-1].id, "break")
        self.assertIn("faces_missed", [one.id for one in none])


class Faces(unittest.TestCase):
    """Ladder and coat."""

    def test_a_rougher_wall_begins_lower_and_takes_longer(self) -> None:
        glass, wood = (face_schools(600.0, wall, 3000, 0.25) for wall in ("glass", "plywood"))
        self.assertLess(wood.from_grit, glass.from_grit)
        self.assertGreater(wood.sanding_min, glass.sanding_min)
        self.assertEqual([one.grit for one in glass.rungs], [1000, 1500, 2000, 3000])
        self.assertAlmostEqual(glass.coat_ml, 600 * 0.025 * 2)

    def test_a_warm_room_asks_for_more_patches(self) -> None:
        cool, warm = (top_work(300.0, room, 1.2) for room in (18.0, 28.0))
        self.assertAlmostEqual(cool.open_min / warm.open_min, 2.0, places=1)
        self.assertGreater(warm.patches_count, cool.patches_count)
        self.assertAlmostEqual(cool.white_clear_h / cool.clear_h, (2.0 / 1.2) ** 2, places=1)


class Strips(unittest.TestCase):
    """Cut to the bed's profile."""

    def test_outline_follows_the_bed(self) -> None:
        scene = quarry_pool()
        strips = {one.face: one for one in edge_strips(scene)}
        heights = np.array(scene.bed.heights_mm)
        front = np.array(strips["front"].outline_mm)
        self.assertEqual(front[:, 0].max(), scene.tank.inner_width_mm)
        expected = np.minimum(heights[0].max() + 2.0, scene.tank.fill_height_mm)
        self.assertAlmostEqual(front[:, 1].max(), expected, places=1)
        self.assertAlmostEqual(strips["back"].outline_mm[-1][1], min(heights[-1][-1] + 2.0, 120.0), places=1)

    def test_files_are_at_true_size(self) -> None:
        scene = quarry_pool()
        strips = edge_strips(scene)
        svg = ElementTree.fromstring(strips_svg(strips, "a <b> \x07 c"))
        wide = float(svg.attrib["width"].removesuffix("mm"))
        self.assertAlmostEqual(wide, scene.tank.inner_width_mm + 16)
        self.assertEqual(float(svg.attrib["viewBox"].split()[2]), wide)
        lines = ezdxf.read(io.StringIO(strips_dxf(strips))).modelspace().query("LWPOLYLINE")
        spans = [np.ptp(np.array([point[:2] for point in line.get_points()])[:, 0]) for line in lines]
        self.assertAlmostEqual(max(spans), scene.tank.inner_width_mm)
        page = re.search(rb"/MediaBox \[ 0 0 ([\d.]+)", strips_pdf(strips, "x"))
        self.assertAlmostEqual(float(page.group(1)), wide * 72 / 25.4, places=1)


class Cavities(unittest.TestCase):
    """A removable figure."""

    def test_shrinkage_takes_from_the_gap(self) -> None:
        resin = load_library().resins["deep"].model_copy(update={"shrink_fraction": 0.03, "gel_degree": 0.58})
        wide = cavity_fit("a", "boat", 0.5, 60.0, resin)
        self.assertAlmostEqual(wide.gap_mm, 0.5 - 60 * 0.42 * 0.03 / 6, places=3)
        self.assertTrue(wide.fits)
        self.assertFalse(cavity_fit("a", "boat", 0.2, 120.0, resin.model_copy(update={"shrink_fraction": 0.05})).fits)


class Whole(unittest.TestCase):
    """The finish of the demos."""

    def test_steps_of_the_demos(self) -> None:
        for name, make in SAMPLES.items():
            with self.subTest(name):
                found = finishing(make())
                ids = [one.id for one in found.steps]
                self.assertIn("lip", ids)
                self.assertEqual(ids[-1], "case")
                self.assertTrue(all(str(one.under) for one in found.steps))
                self.assertGreater(found.faces.area_cm2, 0)

    def test_one_school_names_what_the_other_takes(self) -> None:
        for coat, id_ in ((True, "coat"), (False, "sand")):
            scene = changed(finish__edge_coat=coat)
            step = next(one for one in finishing(scene).steps if one.id == id_)
            self.assertIn("instead", str(step.under))


if __name__ == "__main__":
    unittest.main()
