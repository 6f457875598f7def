"""Every remedy: its edits lead to a scene that can be read, and answer what they were offered for."""

import unittest

import numpy as np
from taken import taken
from test_fill import FLAT, TANK, figure
from test_traps import scene_with, trapped_ml

from gondola_core.answers.kept import Keeper
from gondola_core.checks import Severity
from gondola_core.errors import GondolaError
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.scene import Box, Hull, scene_from
from gondola_core.shape.templates import KINDS, new_figure
from gondola_core.studies.tilts import air_remedies


class Samples(unittest.TestCase):
    def test_every_remedy_of_the_samples_can_be_taken(self):
        for make in (quarry_pool, eelgrass, ferry_landing):
            scene = make()
            outcome = evaluate(scene, DRAFT, Keeper())
            for flag in outcome.flags:
                for remedy in flag.remedies:
                    with self.subTest(scene.name, remedy=remedy.label):
                        changed = taken(scene, remedy)
                        self.assertNotEqual(changed, scene)
                        self.assertGreater(len(remedy.label), 4)

class Tilts(unittest.TestCase):
    def upturned(self):
        """A hull lying keel up keeps air."""
        hull = figure(
            Hull(kind="hull", length_mm=40, beam_mm=16, depth_mm=10, sheer_mm=0, wall_mm=1),
            x=50.0, behind=40.0, height=40.0,
        )
        return hull.model_copy(update={"roll_deg": 180.0})

    def test_the_tilt_that_is_named_lets_the_air_out(self):
        hull = self.upturned()
        kept = trapped_ml([hull])
        self.assertGreater(kept, 0.5)
        remedies = air_remedies(scene_with([hull], bed=FLAT), hull.id, {})
        tilts = [one for one in remedies if one.label.startswith("tilt it")]
        self.assertTrue(tilts)
        for remedy in tilts:
            with self.subTest(remedy.label):
                field = remedy.edits[-1].path.rsplit("/", 1)[1]
                turned = hull.model_copy(update={field: remedy.edits[-1].value})
                self.assertLessEqual(trapped_ml([turned]), 0.05 * kept)

    def test_nothing_to_do_without_air_and_no_such_figure(self):
        block = figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[10, 10, 10]))
        self.assertEqual(air_remedies(scene_with([block]), block.id, {}), [])
        with self.assertRaises(GondolaError):
            air_remedies(scene_with([block]), "crab", {})


class Templates(unittest.TestCase):
    def test_each_kind_lies_inside_the_tank_and_has_a_name_of_its_own(self):
        scene = quarry_pool()
        for kind in KINDS:
            with self.subTest(kind):
                first = new_figure(scene, kind)
                second = new_figure(
                    scene.model_copy(update={"figures": [*scene.figures, first]}), kind
                )
                self.assertNotEqual(first.id, second.id)
                document = scene.model_dump(mode="json")
                document["figures"] = [first.model_dump(mode="json"), second.model_dump(mode="json")]
                outcome = evaluate(scene_from(document), DRAFT, Keeper())
                codes = {flag.code for flag in outcome.flags if flag.figure_id == first.id}
                self.assertFalse(codes & {"figure_outside", "figure_above"}, codes)

    def test_sizes_follow_the_tank_or_what_is_asked(self):
        small = new_figure(quarry_pool().model_copy(update={"tank": TANK}), "fish")
        asked = new_figure(quarry_pool(), "fish", 40)
        self.assertEqual(asked.solids[0].length_mm, 40)
        self.assertAlmostEqual(small.solids[0].length_mm, TANK.inner_width_mm / 6, delta=0.1)
        with self.assertRaises(GondolaError) as caught:
            new_figure(quarry_pool(), "submarine")
        self.assertIn("A figure can be fish, eel", caught.exception.message)


class Model(unittest.TestCase):
    def test_the_glb_holds_bed_and_figures_in_metres(self):
        import io

        import trimesh

        from gondola_core.views.looks import scene_looks
        from gondola_core.views.model import scene_glb

        scene = quarry_pool()
        content = scene_glb(scene, {}, scene_looks(scene, {}), {})
        opened = trimesh.load(io.BytesIO(content), file_type="glb")
        names = set(opened.graph.nodes_geometry)
        self.assertIn("bed", names)
        self.assertEqual(
            {name for name in names if name.startswith("figure-")},
            {f"figure-{one.id}" for one in scene.figures},
        )
        bounds = opened.bounds
        np.testing.assert_allclose(bounds[0][[0, 1]], [0, 0], atol=1e-6)
        self.assertAlmostEqual(bounds[1][0], scene.tank.inner_width_mm / 1000, places=6)
        self.assertAlmostEqual(-bounds[0][2], scene.tank.inner_behind_mm / 1000, places=6)


class Deep(unittest.TestCase):
    def test_a_pour_far_over_its_label_is_offered_as_many_parts_as_clear_it(self):
        scene = quarry_pool()
        tank = scene.tank.model_copy(update={"fill_height_mm": 165.0, "wall_height_mm": 180.0})
        bed = scene.bed.model_copy(update={"heights_mm": [[0.0, 0.0], [0.0, 0.0]], "sealed": True})
        pour = scene.pours[-1].model_copy(update={"wait_h": 0.0, "doses": []})
        deep = scene.model_copy(update={"tank": tank, "bed": bed, "pours": [pour], "figures": []})
        outcome = evaluate(deep)
        flags = {flag.code: flag for flag in outcome.flags}
        self.assertTrue({"too_hot", "too_deep"} <= set(flags))
        offered = flags["too_hot"].remedies[0]
        self.assertIn("4 pours of 41", offered.label)
        # one cause: the label's depth, the heat and the stress are answered by the same edit
        together = [flag for flag in outcome.flags if flag.cause == flags["too_hot"].cause]
        self.assertGreaterEqual(len(together), 2)
        self.assertEqual({flag.remedies[0].label for flag in together}, {offered.label})
        after = evaluate(taken(deep, offered)).flags
        self.assertEqual([flag.title for flag in after if flag.severity is Severity.STOP], [])
        self.assertNotIn("too_deep", [flag.code for flag in after])

    def test_as_many_parts_clear_it_in_every_resin_that_is_poured(self):
        resins = list(load_library().resins.values())
        scene = quarry_pool()
        bed = scene.bed.model_copy(update={"heights_mm": [[0.0, 0.0], [0.0, 0.0]], "sealed": True})
        for resin_id, fill in (("deep", 120.0), ("casting", 60.0), ("coating", 30.0)):
            with self.subTest(resin_id):
                tank = scene.tank.model_copy(update={"fill_height_mm": fill, "wall_height_mm": fill + 12})
                pour = scene.pours[-1].model_copy(update={"wait_h": 0.0, "doses": [], "resin_id": resin_id})
                deep = scene.model_copy(update={
                    "tank": tank, "bed": bed, "pours": [pour], "figures": [], "resins": resins,
                })
                flag = next(one for one in evaluate(deep).flags if one.code == "too_deep")
                after = evaluate(taken(deep, flag.remedies[0])).flags
                self.assertEqual([one.title for one in after if one.severity is Severity.STOP], [])

    def test_what_no_edit_answers_stands_by_itself(self):
        flags = evaluate(ferry_landing()).flags
        alone = [flag.cause for flag in flags if not flag.remedies]
        self.assertEqual(len(alone), len(set(alone)))
        self.assertLess(len({flag.cause for flag in flags}), len(flags))
