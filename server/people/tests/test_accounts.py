"""Joining, signing in and out, being kept from guessing, leaving."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from typing import Any

from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.test import Client, TestCase

from gondola_core.errors import GondolaError
from people import accounts
from people.models import Invitation, Leaving

GOOD = "a long salt wall"


class AccountCase(TestCase):
    def setUp(self) -> None:
        self.keeper = User.objects.create_user("keeper", password=GOOD, is_staff=True)

    def send(self, method: str, url: str, client: Client | None = None, **body: Any) -> Any:
        return getattr(client or self.client, method)(url, json.dumps(body), content_type="application/json")

    def sign_in(self, client: Client | None = None, name: str = "keeper", password: str = GOOD) -> Any:
        return self.send("post", "/api/session", client, name=name, password=password)


class SigningIn(AccountCase):
    def test_name_in_any_case_and_its_password(self):
        for name, password, status in (
            ("keeper", GOOD, 200), (" Keeper ", GOOD, 200), ("keeper", "no", 401), ("nobody", GOOD, 401), ("", "", 401)
        ):
            with self.subTest(name=name):
                self.client.logout()
                answer = self.sign_in(name=name, password=password)
                self.assertEqual(answer.status_code, status, answer.content)
        self.assertNotIn("keeper", answer.json()["message"])

    def test_guessing_is_stopped_for_the_right_password_too_and_for_that_name_alone(self):
        User.objects.create_user("second", password=GOOD)
        statuses = [self.sign_in(password=f"guess {number}").status_code for number in range(7)]
        self.assertEqual(statuses[0], 401)
        self.assertEqual(statuses[-1], 429)
        answer = self.sign_in()
        self.assertEqual(answer.status_code, 429)
        self.assertIn("quarter of an hour", answer.json()["message"])
        self.assertEqual(self.sign_in(name="second").status_code, 200)

    def test_a_page_of_somebody_else_cannot_sign_in_or_join(self):
        strict = Client(enforce_csrf_checks=True)
        _, token = accounts.invite()
        for url in ("/api/session", f"/api/invitations/{token}"):
            answer = self.send("post", url, strict, name="keeper", password=GOOD)
            self.assertEqual(answer.status_code, 403)
            self.assertIn("load the page again", answer.json()["message"])

    def test_sign_out_here_and_everywhere(self):
        here, there = Client(), Client()
        for client in (here, there):
            self.sign_in(client)
        here.delete("/api/session")
        self.assertEqual([one.get("/api/session").status_code for one in (here, there)], [401, 200])
        self.sign_in(here)
        here.delete("/api/session?everywhere=true")
        self.assertEqual([one.get("/api/session").status_code for one in (here, there)], [401, 401])
        self.assertFalse(Session.objects.exists())

    def test_a_new_password_ends_other_sessions_and_has_to_be_a_good_one(self):
        here, there = Client(), Client()
        for client in (here, there):
            self.sign_in(client)
        rows = [("wrong", "another salt wall", "now"), (GOOD, "short", "10"), (GOOD, "1234567890123", "numeric")]
        for old, new, words in rows:
            with self.subTest(new):
                answer = self.send("put", "/api/session/password", here, password=old, new_password=new)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])
        answer = self.send("put", "/api/session/password", here, password=GOOD, new_password="another salt wall")
        self.assertEqual(answer.status_code, 200)
        self.assertEqual([one.get("/api/session").status_code for one in (here, there)], [200, 401])


class Joining(AccountCase):
    def invite(self, **body: Any) -> str:
        self.sign_in()
        answer = self.send("post", "/api/people/invitations", **body)
        self.assertEqual(answer.status_code, 201)
        return answer.json()["path"].removeprefix("/welcome/")

    def test_an_invitation_makes_one_account_once(self):
        token, guest = self.invite(name="ada"), Client()
        self.assertEqual(guest.get(f"/api/invitations/{token}").json(), {"name": "ada", "there_already": False})
        joined = self.send("post", f"/api/invitations/{token}", guest, name="ada", password=GOOD)
        self.assertEqual(joined.json(), {"name": "ada", "demo": False, "owner": False})
        self.assertEqual(guest.get("/api/session").status_code, 200)
        again = self.send("post", f"/api/invitations/{token}", Client(), name="eve", password=GOOD)
        self.assertEqual(again.status_code, 404)
        self.assertFalse(Invitation.objects.exists())

    def test_names_and_passwords_that_do_not_do(self):
        token = self.invite()
        rows = [
            ("KEEPER", GOOD, "that name already"), ("two words", GOOD, "no spaces"), ("", GOOD, "1 to 60"),
            ("ada", "short", "10 characters"), ("adalbertina", "adalbertina", "similar"),
        ]
        for name, password, words in rows:
            with self.subTest(name):
                answer = self.send("post", f"/api/invitations/{token}", Client(), name=name, password=password)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])
        self.assertTrue(Invitation.objects.exists())

    def test_one_for_somebody_who_is_there_sets_a_new_password_and_signs_them_out(self):
        member, device = User.objects.create_user("ada", password=GOOD), Client()
        self.sign_in(device, "ada")
        token = self.invite(name="Ada")
        self.assertTrue(self.client.get(f"/api/invitations/{token}").json()["there_already"])
        self.send("post", f"/api/invitations/{token}", Client(), name="ignored", password="a wholly new one")
        self.assertEqual(device.get("/api/session").status_code, 401)
        member.refresh_from_db()
        self.assertTrue(member.check_password("a wholly new one"))

    def test_it_lapses(self):
        token = self.invite()
        Invitation.objects.update(lapses_at=datetime.now(UTC))
        self.assertEqual(self.client.get(f"/api/invitations/{token}").status_code, 404)

    def test_members_do_not_invite_nor_let_go(self):
        User.objects.create_user("ada", password=GOOD)
        self.sign_in(name="ada")
        self.assertEqual(self.send("post", "/api/people/invitations").status_code, 404)
        self.assertEqual(self.client.delete("/api/people/keeper").status_code, 404)
        self.assertEqual([one["name"] for one in self.client.get("/api/people").json()], ["keeper", "ada"])


class LeavingTheStudio(AccountCase):
    def test_with_the_password_and_back_within_the_day(self):
        User.objects.create_user("ada", password=GOOD)
        guest = Client()
        self.sign_in(guest, "ada")
        self.assertEqual(self.send("post", "/api/session/leave", guest, password="no").status_code, 422)
        self.assertEqual(self.send("post", "/api/session/leave", guest, password=GOOD).status_code, 204)
        self.assertEqual(guest.get("/api/session").status_code, 401)
        self.assertEqual(self.sign_in(guest, "ada").status_code, 401)
        self.assertTrue(Leaving.objects.exists())
        self.sign_in()
        rows = self.send("post", "/api/people/ada/stay").json()
        self.assertEqual([one["leaves_at"] for one in rows], [None, None])
        self.assertEqual(self.sign_in(guest, "ada").status_code, 200)

    def test_the_only_owner_stays(self):
        with self.assertRaisesMessage(GondolaError, "only owner"):
            accounts.leave(self.keeper)
        self.sign_in()
        self.assertEqual(self.client.delete("/api/people/keeper").status_code, 422)
