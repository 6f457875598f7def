"""The look over HTTP: drawn, overtaken, refused in words, kept as stills, on a card, and at a glance."""

import base64
import io
import threading
from unittest import mock

from bench import actions as bench
from django.test import SimpleTestCase
from jobs import kinds
from PIL import Image
from scenes.tests.scene_case import SceneCase
from studio.gone import Gone

from gondola_core.samples import quarry_pool
from gondola_core.studies.stills import turntable
from gondola_core.views.look import look as drawing
from gondola_core.views.look.look import MOVING
from gondola_core.views.look.stand import usual_stand
from look import api, glance
from look.models import Still
from look.newest import Newest, Overtaken

QUICK = mock.patch.dict(api.CARES, {"draft": MOVING, "clearer": MOVING})


class LookCase(SceneCase):
    def stand(self, **more):
        return {**usual_stand(quarry_pool()).model_dump(mode="json"), **more}

    def look(self, query="?width=96&height=80", stand=None, **changes):
        body = {"scene": self.document(**changes), "stand": stand or self.stand()}
        return self.send("post", f"/api/look{query}", body)


class Drawn(LookCase):
    def test_a_picture_of_the_size_that_is_asked_for(self):
        for care in ("moving", "draft", "clearer"):
            with self.subTest(care), QUICK:
                drawn = self.look(f"?care={care}&width=96&height=80")
                self.assertEqual(drawn["Content-Type"], "image/jpeg")
                self.assertEqual(Image.open(io.BytesIO(drawn.content)).size, (96, 80))

    def test_what_cannot_be_is_said(self):
        rows = (
            (self.stand(eye_height_mm=4000.0), "choose a height from"),
            (self.stand(distance_mm=10.0), "distance of the eye"),
            (self.stand(azimuth_deg=400.0), "turn of the eye"),
            (self.stand(hour="noon"), "hour"),
            ({}, "height of the eye"),
        )
        for stand, told in rows:
            with self.subTest(told):
                refused = self.look(stand=stand or {"azimuth_deg": 0.0})
                self.assertEqual(refused.status_code, 422)
                self.assertIn(told, refused.json()["message"].lower())

    def test_a_newer_question_ends_an_older_one(self):
        self.assertEqual(self.look("?width=96&height=80&asker=me&number=5").status_code, 200)
        late = self.look("?width=96&height=80&asker=me&number=4")
        self.assertEqual(late.status_code, 409)
        self.assertEqual(self.look("?width=96&height=80&asker=you&number=4").status_code, 200)

    def test_what_nobody_waits_for_is_not_drawn(self):
        def left(_):
            raise Gone

        body = {"scene": self.document(), "stand": self.stand()}
        gone = mock.patch("studio.turns.still_there", return_value=left)
        with QUICK, gone, mock.patch.object(drawing, "_draw") as draw:
            for url in ("/api/look?width=96&height=80", "/api/look/card"):
                with self.subTest(url):
                    answer = self.send("post", url, body)
                    self.assertEqual(answer.status_code, 503)
                    self.assertIn("You left", answer.json()["message"])
        draw.assert_not_called()

    def test_what_fools_the_eye(self):
        told = self.send("post", "/api/look/fooled", {"scene": self.document(), "stand": self.stand(azimuth_deg=0.0)})
        pike = next(one for one in told.json()["figures"] if one["figure_id"] == "pike")
        self.assertAlmostEqual(pike["seems_mm"], pike["behind_mm"] / 1.55, delta=2.0)
        self.assertIn("full mirror", " ".join(told.json()["faces"]))
        inches = {"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"}
        told = self.send("post", "/api/look/fooled", {
            "scene": self.document(brief__units=inches), "stand": self.stand(),
        })
        self.assertEqual(told.status_code, 200)

    def test_places_to_look_from(self):
        told = self.send("post", "/api/look/presets", self.document()).json()
        self.assertEqual([one["word"] for one in told], ["usual", "straight", "corner", "above", "low"])
        for one in told:
            self.assertEqual(self.look(stand=one["stand"]).status_code, 200)

    def test_a_card_as_a_picture_and_as_a_page(self):
        with mock.patch.object(api, "CLEARER", MOVING):
            body = {"scene": self.document(), "stand": self.stand()}
            png = self.send("post", "/api/look/card", body)
            self.assertEqual(Image.open(io.BytesIO(png.content)).size, (1200, 1500))
            pdf = self.send("post", "/api/look/card?file=pdf", body)
            self.assertTrue(pdf.content.startswith(b"%PDF"))
            self.assertIn("card.pdf", pdf["Content-Disposition"])


class Stills(LookCase):
    def drawn(self):
        """The id of a job that drew a small still."""
        body = {"scene": self.document(), "stand": self.stand(bubbles=False), "width_px": 160, "height_px": 100}
        with self.captureOnCommitCallbacks(execute=True), mock.patch("gondola_core.studies.stills.STILL", MOVING):
            return self.send("post", "/api/jobs/still", body).json()["id"]

    def test_one_is_drawn_kept_shown_and_taken_away(self):
        job = self.drawn()
        kept = self.send("post", self.url("/stills"), {"job_id": job})
        self.assertEqual(kept.status_code, 201)
        self.assertEqual(self.send("post", self.url("/stills"), {"job_id": job}).json()["id"], kept.json()["id"])
        rows = self.client.get(self.url("/stills")).json()
        self.assertEqual([(one["width_px"], one["revision"]) for one in rows], [(160, 1)])
        address = f"/api/stills/{rows[0]['id']}"
        self.assertEqual(Image.open(io.BytesIO(self.client.get(f"{address}/picture").content)).format, "PNG")
        small = self.client.get(f"{address}/picture?small=true")
        self.assertEqual(small["Content-Type"], "image/jpeg")
        self.client.force_login(self.other)
        for method, url in (("get", f"{address}/picture"), ("delete", address), ("get", self.url("/stills"))):
            self.assertEqual(getattr(self.client, method)(url).status_code, 404)
        self.client.force_login(self.owner)
        self.assertEqual(self.client.delete(address).status_code, 204)
        self.assertFalse(Still.objects.exists())

    def test_a_job_that_is_none_keeps_nothing(self):
        for job in ("00000000-0000-4000-8000-000000000000", "nothing"):
            refused = self.send("post", self.url("/stills"), {"job_id": job})
            self.assertIn(refused.status_code, (404, 422))
        self.assertFalse(Still.objects.exists())

    def test_too_many_dots_are_refused_in_words(self):
        body = {"scene": self.document(), "stand": self.stand(), "width_px": 4000, "height_px": 3000}
        with self.captureOnCommitCallbacks(execute=True):
            job = self.send("post", "/api/jobs/still", body).json()
        self.assertIn("8 million dots", self.client.get(f"/api/jobs/{job['id']}").json()["message"])

    def test_a_turn_about_the_piece(self):
        body = {"scene": self.document(), "stand": self.stand()}
        quick = mock.patch("gondola_core.studies.stills.CLEARER", MOVING)
        with quick, mock.patch.object(kinds, "turntable", _short), self.captureOnCommitCallbacks(execute=True):
            job = self.send("post", "/api/jobs/turntable", body).json()
        made = self.client.get(f"/api/jobs/{job['id']}/turntable").json()
        self.assertEqual(made["frames_count"], 3)
        picture = Image.open(io.BytesIO(base64.b64decode(made["webp_base64"])))
        self.assertEqual((picture.format, picture.n_frames), ("WEBP", 3))


def _short(scene, stand, told):
    return turntable(scene, stand, told, frames=3)


class Glance(LookCase):
    def glance(self):
        return self.client.get(self.url("/glance")).json()

    def test_a_scene_at_a_glance(self):
        told = self.glance()
        self.assertEqual((told["pours_count"], told["inside_mm"]), (4, [180.0, 110.0, 120.0]))
        self.assertEqual((told["counts"]["stop"], told["worst_grade"]), (0, "watch"))
        self.assertIn("Pour 2 is 52 mm deep", told["worst"])
        self.assertEqual((told["state"], told["next_pour"]), ("planning", None))

    def test_its_own_look_is_sent_once(self):
        with mock.patch.object(glance, "GLANCE", MOVING):
            first = self.client.get(self.url("/picture?width=200"))
        self.assertEqual(Image.open(io.BytesIO(first.content)).size, (200, 133))
        again = self.client.get(self.url("/picture?width=200"), headers={"If-None-Match": first["ETag"]})
        self.assertEqual((again.status_code, again.content), (304, b""))

    def test_not_of_somebody_else(self):
        self.client.logout()
        for what in ("glance", "picture"):
            self.assertEqual(self.client.get(self.url(f"/{what}")).status_code, 401)

    def test_how_far_the_work_is(self):
        run = bench.begin(scene=self.scene, zone="UTC")
        self.assertEqual(self.glance()["state"], "planning")
        at = bench.now_of(run).isoformat()

        def tell(number, **event):
            bench.take(run=run, bodies=[{"id": f"event-{number:05d}", "at": at, **event}])

        tell(1, kind="pouring", pour_id="pour-1")
        self.assertEqual((self.glance()["state"], self.glance()["next_pour"]), ("pouring", 1))
        tell(2, kind="poured", pour_id="pour-1")
        told = self.glance()
        self.assertEqual((told["state"], told["next_pour"]), ("pouring", 2))
        self.assertIsNotNone(told["opens_at"])
        for number in (2, 3, 4):
            tell(2 * number + 1, kind="pouring", pour_id=f"pour-{number}")
            tell(2 * number + 2, kind="poured", pour_id=f"pour-{number}")
        self.assertEqual(self.glance()["state"], "waiting")
        tell(20, kind="demoulded")
        self.assertEqual(self.glance()["state"], "finished")


class Askers(SimpleTestCase):
    def test_the_newest_counts_whoever_comes_first(self):
        newest = Newest()
        newest.ask("a", 1)
        newest.check("a", 1)
        newest.ask("a", 3)
        for call in (newest.check, newest.ask):
            with self.assertRaises(Overtaken):
                call("a", 2)
        newest.check("b", 0)

    def test_it_forgets_old_askers_and_is_safe_between_threads(self):
        newest = Newest()
        threads = [
            threading.Thread(target=lambda at=at: [newest.ask(f"{at}-{n}", n) for n in range(100)]) for at in range(4)
        ]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        self.assertLessEqual(len(newest._numbers), 200)
