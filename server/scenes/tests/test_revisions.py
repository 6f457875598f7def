from django.db import IntegrityError, transaction

from scenes import actions
from scenes.models import Revision

from .scene_case import SceneCase


class Saving(SceneCase):
    def test_each_save_is_a_revision_on_the_one_shown(self):
        answer = self.save(1, name="Second")
        self.assertEqual(answer.status_code, 200)
        state = answer.json()
        self.assertEqual((state["revision"], state["name"]), (2, "Second"))
        self.assertTrue(state["can_undo"])
        self.assertFalse(state["can_redo"])
        self.assertEqual(self.scene.revisions.get(number=2).parent.number, 1)

    def test_stale_write_gets_409_the_newer_document_and_loses_nothing(self):
        self.save(1, name="First tab")
        answer = self.save(1, name="Second tab")
        self.assertEqual(answer.status_code, 409)
        told = answer.json()
        self.assertIn("it is now at revision 2", told["message"])
        self.assertEqual(told["scene"]["document"]["name"], "First tab")
        self.assertEqual(told["scene"]["revision"], 2)
        kept = self.scene.revisions.get(number=told["kept_revision"])
        self.assertTrue(kept.kept_aside)
        self.assertEqual(actions.unpack(kept).name, "Second tab")
        self.assertEqual(self.shown().document.name, "First tab")

    def test_what_was_kept_aside_can_be_brought_back(self):
        self.save(1, name="First tab")
        kept = self.save(1, name="Second tab").json()["kept_revision"]
        answer = self.send("post", self.url("/restore"), {"base_revision": 2, "number": kept})
        self.assertEqual(answer.json()["document"]["name"], "Second tab")
        self.assertEqual(answer.json()["revision"], 4)

    def test_a_refused_document_changes_nothing(self):
        answer = self.save(1, pours__1__top_depth_mm=-3)
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(
            answer.json()["message"],
            "Pour 2, layer line has to be from 0 to 600 mm below the fill line; it says -3.",
        )
        self.assertEqual(answer.json()["problems"][0]["field"], "pours.1.top_depth_mm")
        self.assertEqual(self.scene.revisions.count(), 1)

    def test_two_revisions_never_share_a_number(self):
        first = self.scene.revisions.get()
        with self.assertRaises(IntegrityError), transaction.atomic():
            Revision.objects.create(scene=self.scene, number=1, packed=first.packed)

    def test_documents_are_stored_small(self):
        packed = bytes(self.scene.revisions.get().packed)
        self.assertLess(len(packed), 0.4 * len(self.shown().document.model_dump_json()))


class UndoAndRedo(SceneCase):
    def step(self, what, base, **more):
        return self.send("post", self.url(f"/{what}"), {"base_revision": base, **more})

    def test_undo_and_redo_walk_the_same_way(self):
        self.save(1, name="Two")
        self.save(2, name="Three")
        names = []
        base = 3
        for what in ("undo", "undo", "undo", "redo", "redo", "redo"):
            state = self.step(what, base).json()
            base = state["revision"]
            names.append((state["name"], state["can_undo"], state["can_redo"]))
        first = "Wagon in the Quarry Pool"
        self.assertEqual(
            names,
            [("Two", True, True), (first, False, True), (first, False, True),
             ("Two", True, True), ("Three", True, False), ("Three", True, False)],
        )

    def test_a_save_after_undo_starts_a_new_way_and_the_old_stays_in_the_log(self):
        self.save(1, name="Two")
        self.step("undo", 2)
        state = self.save(1, name="Other").json()
        self.assertEqual((state["revision"], state["can_redo"]), (3, False))
        rows = self.client.get(self.url("/revisions")).json()
        self.assertEqual([row["number"] for row in rows], [3, 2, 1])
        self.assertEqual([row["shown"] for row in rows], [True, False, False])
        back = self.step("restore", 3, number=2).json()
        self.assertEqual((back["name"], back["revision"]), ("Two", 4))

    def test_steps_from_a_stale_page_are_told_of_the_newer_state(self):
        self.save(1, name="Two")
        for what, more in (("undo", {}), ("redo", {}), ("restore", {"number": 1})):
            with self.subTest(what):
                answer = self.step(what, 1, **more)
                self.assertEqual(answer.status_code, 409)
                self.assertEqual(answer.json()["scene"]["revision"], 2)
                self.assertIsNone(answer.json()["kept_revision"])

    def test_restore_of_a_revision_that_is_not_there(self):
        self.assertEqual(self.step("restore", 1, number=77).status_code, 404)
