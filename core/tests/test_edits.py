"""Edits: each changes what it says, fits another document by the ids it touches, or is refused."""

import unittest

from changed import changed

from gondola_core.digests import digest
from gondola_core.errors import GondolaError
from gondola_core.samples import quarry_pool
from gondola_core.scene import edits, scene_from
from gondola_core.tint import seams


def made(scene, edit):
    return edits.apply_edit(scene, edit.operations, edit.digest)


def without_pour(scene, number):
    document = scene.model_dump(mode="json")
    del document["pours"][number - 1]
    return scene_from(document)


def without_dose(scene, number, place):
    document = scene.model_dump(mode="json")
    del document["pours"][number - 1]["doses"][place]
    return scene_from(document)


class OnItsOwnDocument(unittest.TestCase):
    def test_split_pours_share_the_depth_and_keep_the_rest(self):
        scene = quarry_pool()
        for number, pour in enumerate(scene.pours, start=1):
            with self.subTest(number):
                halved = made(scene, edits.split_pour(scene, number, 20.0, 21.4))
                self.assertEqual(len(halved.pours), len(scene.pours) + 1)
                lower, upper = halved.pours[number - 1 : number + 1]
                self.assertAlmostEqual(lower.top_depth_mm, pour.top_depth_mm + 10.0, delta=0.05)
                self.assertEqual((upper.top_depth_mm, upper.wait_h), (pour.top_depth_mm, 21))
                self.assertEqual((upper.id, upper.doses), (pour.id, lower.doses))

    def test_a_pour_in_more_than_two(self):
        scene = quarry_pool()
        parted = made(scene, edits.split_pour(scene, 2, 48.0, 25.0, 4))
        self.assertEqual([pour.top_depth_mm for pour in parted.pours[1:5]], [76.0, 64.0, 52.0, 40.0])
        self.assertEqual([pour.wait_h for pour in parted.pours[1:5]], [scene.pours[1].wait_h, 25, 25, 25])
        self.assertEqual(len({pour.id for pour in parted.pours}), 7)

    def test_wait_room_dose_and_sheet(self):
        scene = quarry_pool()
        self.assertEqual(made(scene, edits.set_wait(scene, 3, 20.6)).pours[2].wait_h, 21)
        warm = made(scene, edits.warm_room(scene, 30.0)).brief.room
        self.assertEqual((warm.night_c, warm.day_c), (30, 30))
        self.assertLess(
            seams(made(scene, edits.even_dose(scene, 2)))[1].seam_de00, seams(scene)[1].seam_de00
        )
        self.assertEqual(made(scene, edits.thicker_sheet(scene, 5.0)).tank.wall.thickness_mm, 5)
        self.assertTrue(made(scene, edits.walls_stay(scene)).tank.walls_stay)
        self.assertEqual(made(scene, edits.take_dose_out(scene, 2, "red-ink")).pours[1].doses[-1].colourant_id,
                         "burnt-umber-ink")

    def test_a_pour_taken_out_leaves_the_rest_whole(self):
        scene = quarry_pool()
        for number in range(1, 5):
            with self.subTest(number):
                rest = made(scene, edits.take_pour_out(scene, number))
                self.assertEqual(len(rest.pours), 3)
                self.assertEqual(rest.pours[-1].top_depth_mm, 0)
        single = scene.model_copy(update={"pours": scene.pours[-1:]})
        with self.assertRaisesRegex(GondolaError, "at least one pour"):
            edits.take_pour_out(single, 1)

    def test_a_shoal_stays_inside_with_ids_of_its_own(self):
        scene = quarry_pool()
        many = made(scene, edits.shoal_of(scene, "pike", 6, 40.0))
        ids = [figure.id for figure in many.figures]
        self.assertEqual((len(ids), len(set(ids))), (14, 14))
        for figure in many.figures[-6:]:
            self.assertTrue(0 < figure.place.x_mm < 180 and 0 < figure.place.behind_mm < 110)
        with self.assertRaisesRegex(GondolaError, "60 figures"):
            edits.shoal_of(scene, "pike", 100, 40.0)
        with self.assertRaisesRegex(GondolaError, "no figure 'crab'"):
            edits.shoal_of(scene, "crab", 2, 40.0)


class OnAnotherDocument(unittest.TestCase):
    def test_a_remedy_by_list_index_changed_another_pour(self):
        scene = quarry_pool()
        wait = edits.set_wait(scene, 3, 40.0)
        fewer = without_pour(scene, 1)
        told = made(fewer, wait)
        self.assertEqual([pour.wait_h for pour in told.pours], [26, 40, 25])
        self.assertEqual(told.pours[1].id, "pour-3")

    def test_a_remedy_for_what_is_gone_is_refused(self):
        scene = quarry_pool()
        rows = [
            (edits.set_wait(scene, 3, 40.0), without_pour(scene, 3)),
            (edits.prefill_figure(scene, "wagon"), scene.model_copy(update={"figures": scene.figures[1:]})),
            (edits.split_pour(scene, 2, 50.0, 25.0), changed(pours__1__wait_h=30.0)),
            (edits.thinner_dose(scene, 2, 1, 0.1), without_dose(scene, 2, 0)),
            (edits.even_dose(scene, 2), without_dose(scene, 2, 0)),
            (edits.take_dose_out(scene, 2, "red-ink"), without_dose(scene, 2, 0)),
        ]
        for edit, later in rows:
            with self.subTest(edit.words.id), self.assertRaisesRegex(GondolaError, "no longer fits"):
                made(later, edit)

    def test_a_figure_moved_in_the_list_is_found_by_its_id(self):
        scene = quarry_pool()
        edit = edits.take_figure_out(scene, "pike")
        turned = scene.model_copy(update={"figures": scene.figures[::-1]})
        self.assertEqual([one.id for one in made(turned, edit).figures],
                         [one.id for one in turned.figures if one.id != "pike"])

    def test_an_old_staging_went_without_a_word_over_later_edits(self):
        scene = quarry_pool()
        staging = edits.stage_pours(scene, edits.words("remedies.seal"), scene.pours[:1] + scene.pours[-1:])
        self.assertEqual(len(made(scene, staging).pours), 2)
        with self.assertRaisesRegex(GondolaError, "no longer fits"):
            made(changed(pours__0__mix_c=22.0), staging)

    def test_what_it_does_not_touch_may_have_changed(self):
        scene = quarry_pool()
        later = changed(tank__wall__thickness_mm=4.0)
        self.assertNotEqual(digest(scene), digest(later))
        sealed = made(later, edits.seal_bed(scene))
        self.assertTrue(sealed.bed.sealed)
        self.assertEqual(sealed.tank.wall.thickness_mm, 4)
