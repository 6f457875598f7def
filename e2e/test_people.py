"""A studio: its owner comes in, makes a piece by keyboard and in inches, shares it, and carries it away."""

import io
import json
import os
import re
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

from bench.actions import begin
from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.test import override_settings, tag
from people.accounts import invite
from playwright.sync_api import expect
from scenes.actions import create_scene, state_of
from scenes.models import Scene

from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.scene import read_scene

from .browser_case import AXE, RULES, BrowserCase

PASSWORD = "a long salt wall"
MANAGE = str(Path(settings.ROOT) / "server" / "manage.py")


@override_settings(DEMO=False)
class StudioCase(BrowserCase):
    """Nobody is signed in by itself."""

    def setUp(self):
        self.context = self.browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        self.addCleanup(self.context.close)
        self.complaints, self._asked = [], {}
        self.page = self.look("/")

    def look(self, address, context=None):
        page = (context or self.context).new_page()
        page.set_default_timeout(30_000)
        self._asked[page] = 0
        page.on("request", lambda _: self._count(page, 1))
        page.on("requestfinished", lambda _: self._count(page, -1))
        page.on("requestfailed", lambda _: self._count(page, -1))
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.goto(f"{self.live_server_url}{address}")
        return page

    def keys(self, label, text):
        self.tab_to(label)
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)

    def passes_axe(self, page):
        page.evaluate(AXE.read_text())
        self.assertEqual([one["id"] for one in page.evaluate(RULES)["violations"]], [])

    def enter(self, name):
        self.page.goto(self.live_server_url)
        self.keys("name", name)
        self.keys("password", PASSWORD)
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("link", name="Begin a piece")).to_be_visible()


class Studio(StudioCase):
    def test_from_an_invitation_to_an_archive_that_opens_elsewhere(self):
        page = self.page
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        self.come_in()
        scene = self.make_in_inches()
        self.show_by_link(scene)
        self.carry_to_another_installation(scene)

    def come_in(self):
        """The owner's first step, by keys."""
        page = self.page
        page.goto(f"{self.live_server_url}/welcome/{invite(as_owner=True)[1]}")
        expect(page.get_by_role("heading", name="Welcome to the studio")).to_be_visible()
        self.keys("name that the others will see", "keeper")
        self.keys("password", PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_text("No scene stands here yet")).to_be_visible()
        self.assertTrue(User.objects.get(username="keeper").is_staff)

    def make_in_inches(self):
        page = self.page
        self.tab_to("Begin a piece")
        page.keyboard.press("Enter")
        plan = page.get_by_role("region", name="The plan so far")
        expect(plan.get_by_role("status")).to_be_visible()
        self.tab_to("read and typed in")
        page.keyboard.press("i")
        self.keys("across", "6 1/4 in")
        page.keyboard.press("Enter")
        self.keys("Name of the piece", "Lake in inches")
        self.settled()
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="Before you pour")).to_be_visible()
        self.saved()
        return Scene.objects.get(name="Lake in inches")

    def show_by_link(self, scene):
        page = self.page
        page.goto(self.live_server_url)
        expect(page.get_by_role("button", name=f"Share {scene.name}")).to_be_visible()
        self.tab_to(f"Share {scene.name}")
        page.keyboard.press("Enter")
        self.tab_to("Make a link")
        page.keyboard.press("Enter")
        address = page.get_by_text(re.compile(r"/shown/\S+$"))
        expect(address).to_be_visible()
        self.passes_axe(page)
        stranger = self.browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        self.addCleanup(stranger.close)
        shown = self.look(address.inner_text().removeprefix(self.live_server_url), stranger)
        expect(shown.get_by_role("heading", name=scene.name)).to_be_visible()
        self.assertEqual(re.findall(r"\d\s?(?:mm|ml|°C)\b", shown.get_by_role("main").inner_text()), [])
        self.passes_axe(shown)
        with shown.expect_download() as file:
            shown.get_by_role("link", name="scene file").click()
        self.assertEqual(read_scene(Path(file.value.path()).read_bytes()).name, scene.name)
        page.get_by_role("button", name="withdraw").click()
        expect(page.get_by_role("button", name="withdraw")).to_have_count(0)
        shown.reload()
        expect(shown.get_by_role("alert")).to_contain_text("withdrawn")
        page.keyboard.press("Escape")

    def carry_to_another_installation(self, scene):
        page = self.page
        self.tab_to("keeper")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="All that is yours")).to_be_visible()
        self.passes_axe(page)
        with page.expect_download() as file:
            self.tab_to("carry it away")
            page.keyboard.press("Enter")
        archive = file.value.path()
        with tempfile.TemporaryDirectory() as folder:
            back = Path(folder) / "back.zip"
            self.run_there(folder, sys.executable, MANAGE, "migrate", "--verbosity", "0")
            self.run_there(
                folder, sys.executable, MANAGE, "shell", "-v", "0", "-c",
                "from django.contrib.auth.models import User; User.objects.create_user('bo')",
            )
            gondola = [sys.executable, "-m", "gondola_core"]
            self.run_there(folder, *gondola, "import", "bo", str(archive))
            self.run_there(folder, *gondola, "export", "bo", str(back))
            there = read_scene(zipfile.ZipFile(io.BytesIO(back.read_bytes())).read("scenes/1/scene.gondola.json"))
        here = state_of(scene).document
        self.assertEqual(there, here)
        self.assertEqual(json.dumps(evaluate(there).whole.mix_g), json.dumps(evaluate(here).whole.mix_g))

    def run_there(self, folder, *words):
        told = {**os.environ, "GONDOLA_DATA": folder, "GONDOLA_SECRET_KEY": "there", "GONDOLA_PLAIN": "1"}
        done = subprocess.run(words, env=told, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, done.stderr)


class Sharing(StudioCase):
    def setUp(self):
        self.keeper = User.objects.create_user("keeper", password=PASSWORD, is_staff=True)
        User.objects.create_user("ada", password=PASSWORD)
        self.scene = create_scene(owner=self.keeper, document=quarry_pool())
        super().setUp()

    def share(self, may):
        page = self.page
        self.enter("keeper")
        page.get_by_role("button", name=f"Share {self.scene.name}").click()
        page.get_by_role("button", name=f"let ada {may}").click()
        expect(page.get_by_role("button", name="Take ada off")).to_be_visible()
        page.get_by_role("button", name="done").click()
        page.get_by_role("link", name="keeper", exact=True).click()
        page.get_by_role("button", name="sign out here").click()
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()

    def open_as_ada(self):
        self.enter("ada")
        self.page.get_by_role("link", name=f"Open {self.scene.name}").click()
        expect(self.page.get_by_role("region", name="Sounding")).to_be_visible()
        self.settled()

    @tag("long")
    def test_who_may_look_tries_and_changes_nothing(self):
        self.share("look")
        self.open_as_ada()
        status = self.page.get_by_role("status").get_by_text("to look at", exact=True)
        expect(status).to_be_visible()
        self.go("Tank")
        field = self.page.get_by_label("fill line")
        field.fill("100")
        field.press("Enter")
        self.settled()
        expect(field).to_have_value(re.compile("^100"))
        expect(status).to_be_visible()
        self.assertEqual(state_of(self.scene).revision, 1)

    @tag("long")
    def test_who_may_work_saves(self):
        self.share("work on it")
        self.open_as_ada()
        self.go("Tank")
        field = self.page.get_by_label("fill line")
        field.fill("100")
        field.press("Enter")
        self.saved()
        self.assertEqual(state_of(self.scene).document.tank.fill_height_mm, 100)

    def test_what_is_deleted_can_be_brought_back(self):
        self.enter("keeper")
        page = self.page
        page.get_by_role("button", name=f"Delete {self.scene.name}").click()
        expect(page.get_by_text("can be brought back until")).to_be_visible()
        expect(page.get_by_role("link", name=f"Open {self.scene.name}")).to_have_count(0)
        page.get_by_role("button", name=f"Bring {self.scene.name} back").click()
        expect(page.get_by_role("link", name=f"Open {self.scene.name}")).to_be_visible()


class SharedDevice(StudioCase):
    """What is entered at the bench outlives a session; a device that changes hands holds nothing of a run."""

    def setUp(self):
        self.keeper = User.objects.create_user("keeper", password=PASSWORD, is_staff=True)
        self.scene = create_scene(owner=self.keeper, document=quarry_pool())
        self.run = begin(scene=self.scene, zone="UTC")
        super().setUp()

    def in_another_tab(self):
        """Where the page leads whoever was signed out of it."""
        with self.context.expect_page() as opened:
            self.page.get_by_role("link", name="sign in in another tab").click()
        other = opened.value
        other.get_by_label("name", exact=True).fill("keeper")
        other.get_by_label("password").fill(PASSWORD)
        other.keyboard.press("Enter")
        expect(other.get_by_role("link", name="Begin a piece")).to_be_visible()
        other.close()

    def kept(self):
        """How many events wait on the device, and how many runs it remembers."""
        return self.page.evaluate("""() => new Promise((done) => {
            const opening = indexedDB.open("gondola-bench");
            opening.onsuccess = () => {
                const read = opening.result.transaction(["waiting", "runs"]);
                const counts = ["waiting", "runs"].map((name) => read.objectStore(name).count());
                read.oncomplete = () => { opening.result.close(); done(counts.map((one) => one.result)); };
            };
        })""")

    def test_nothing_that_was_entered_is_lost_and_nothing_of_it_stays(self):
        self.enter("keeper")
        page = self.page
        page.goto(f"{self.live_server_url}/runs/{self.run.pk}")
        done = page.get_by_role("button", name=re.compile("^done"))
        expect(done).to_be_visible()
        Session.objects.all().delete()
        done.click()
        expect(page.get_by_text("waiting to be sent")).to_be_visible()
        self.settled()
        self.assertEqual((self.run.events.count(), self.kept()), (0, [1, 1]))
        signed_out = page.get_by_text("You are signed out.")
        expect(signed_out).to_be_visible()
        self.in_another_tab()
        expect(signed_out).to_be_hidden()
        for _ in range(100):
            page.wait_for_timeout(100)
            if self.kept()[0] == 0:
                break
        self.assertEqual((self.run.events.count(), self.kept()), (1, [0, 1]))
        page.goto(f"{self.live_server_url}/account")
        page.get_by_role("button", name="sign out here").click()
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        self.assertEqual(self.kept(), [0, 0])
