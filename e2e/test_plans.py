"""Plans side by side: found by the queue, laid beside the own one, kept, and taken."""

from playwright.sync_api import expect
from scenes.actions import create_scene, state_of
from studio.actions import demo_owner

from gondola_core.samples import eelgrass

from .browser_case import AXE, RULES, BrowserCase


class Plans(BrowserCase):
    def test_plans_are_found_kept_and_taken(self):
        scene = create_scene(owner=demo_owner(), document=eelgrass())
        page = self.page
        page.goto(f"{self.live_server_url}/scenes/{scene.pk}/pours?part=plans")
        page.get_by_role("link", name="Plans side by side").click()
        page.get_by_role("button", name="clearest").click()
        page.get_by_role("button", name="find plans").click()
        table = page.get_by_role("table", name="Plans on the front")
        expect(table).to_be_visible(timeout=240_000)
        expect(table.get_by_role("row").filter(has_text="your plan")).to_be_visible()
        expect(table.get_by_role("row").filter(has_text="one deep pour")).to_be_visible()
        told = page.get_by_role("region", name="What you gain and give")
        expect(told.get_by_role("listitem").first).to_be_visible(timeout=60_000)
        page.get_by_role("button", name="keep both").click()
        expect(page.get_by_role("group", name="Kept plans").get_by_role("button").first).to_be_visible()
        page.evaluate(AXE.read_text("utf-8"))
        found = page.evaluate(RULES)["violations"]
        self.assertEqual([one["id"] for one in found if one["impact"] in ("serious", "critical")], [])
        page.get_by_role("button", name="take this plan").click()
        expect(page.get_by_role("region", name="Inspector")).to_be_visible(timeout=60_000)
        taken = state_of(scene)
        self.assertTrue(taken.can_undo)
        self.assertNotEqual(taken.document.pours, eelgrass().pours)
        self.assertEqual(scene.variants.count(), 2)
