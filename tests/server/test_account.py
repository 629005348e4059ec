"""Signing in and out, and what may be changed of an account: by its owner, and by nobody else."""

import json
import re
from typing import Any

from django.contrib.sessions.models import Session
from django.core import mail
from django.db import IntegrityError, transaction
from django.test import Client, TestCase, override_settings

from tests.server import making
from tropometer.server.people.models import User

AUTH = "/_allauth/browser/v1"
PASSWORD = "skerrow-island"
CLOSED = (
    "auth/signup", "account/email", "account/phone", "auth/email/verify", "auth/code/request",
    "auth/code/confirm", "auth/phone/verify", "account/providers", "auth/2fa/authenticate",
)  # fmt: skip


class AccountTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.other = making.instructor("Odd Stranger")

    def call(
        self, method: str, path: str, body: Any = None, client: Client | None = None, **headers: str
    ) -> Any:
        data = json.dumps(body) if body is not None else ""
        caller = client or self.client
        return caller.generic(
            method, f"{AUTH}/{path}", data, content_type="application/json", headers=headers
        )

    def sign_in(self, password: str = PASSWORD, email: str = "maren@skerrow.example", **more: Any) -> int:
        status: int = self.call(
            "POST", "auth/login", {"email": email, "password": password}, **more
        ).status_code
        return status

    def test_a_mail_address_signs_in_however_it_is_written(self) -> None:
        for email in ("Maren@Skerrow.Example", " MAREN@skerrow.example", "maren@skerrow.example"):
            with self.subTest(email):
                client = Client()
                self.assertEqual(self.sign_in(email=email, client=client), 200)
                self.assertEqual(client.get("/api/me").json()["name"], "Maren Thole")
        made = User.objects.create_user("Big.Letters@Skerrow.Example", "Big Letters", PASSWORD)
        self.assertEqual(self.sign_in(email="big.letters@skerrow.example", client=Client()), 200)
        with self.assertRaises(IntegrityError), transaction.atomic():
            User.objects.filter(pk=made.pk).update(email="Big@skerrow.example")
        with self.assertRaises(IntegrityError), transaction.atomic():
            User.objects.create_user("MAREN@SKERROW.EXAMPLE", "Twin", PASSWORD)

    def test_addresses_that_change_whose_mail_it_is_are_closed(self) -> None:
        self.client.force_login(self.other)
        for path in CLOSED:
            for method in ("GET", "POST", "PUT", "PATCH", "DELETE"):
                answer = self.call(method, path, {"email": "maren@skerrow.example", "password": PASSWORD})
                self.assertEqual(answer.status_code, 404, f"{method} {path}")
        self.assertEqual(User.objects.get(pk=self.other.pk).email, "odd@skerrow.example")

    def test_a_new_password_by_mail(self) -> None:
        self.assertEqual(
            self.call("POST", "auth/password/request", {"email": "nobody@x.example"}).status_code, 200
        )
        self.assertEqual(mail.outbox, [])  # and nobody learns who has an account
        self.assertEqual(
            self.call("POST", "auth/password/request", {"email": "MAREN@skerrow.example"}).status_code, 200
        )
        self.assertEqual(mail.outbox[0].to, ["maren@skerrow.example"])
        found = re.search(r"/new-password/(\S+)", mail.outbox[0].body)
        assert found
        self.assertEqual(
            self.call("GET", "auth/password/reset", **{"X-Password-Reset-Key": found[1]}).status_code, 200
        )
        short = self.call("POST", "auth/password/reset", {"key": found[1], "password": "abc"})
        self.assertEqual(short.status_code, 400)
        self.assertIn("short", short.json()["errors"][0]["message"])
        new = {"key": found[1], "password": "a-brand-new-one"}
        self.assertIn(self.call("POST", "auth/password/reset", new).status_code, (200, 401))
        self.assertEqual(
            (self.sign_in(client=Client()), self.sign_in("a-brand-new-one", client=Client())), (400, 200)
        )
        self.assertIn("A new password was set", mail.outbox[-1].subject)  # a notice of the change
        self.assertEqual(self.call("POST", "auth/password/reset", new).status_code, 400)  # a key holds once

    def test_the_password_is_changed_by_who_knows_it(self) -> None:
        self.sign_in()
        wrong = {"current_password": "guessed", "new_password": "a-brand-new-one"}
        self.assertEqual(self.call("POST", "account/password/change", wrong).status_code, 400)
        right = {**wrong, "current_password": PASSWORD}
        self.assertEqual(self.call("POST", "account/password/change", right).status_code, 200)
        self.assertEqual(self.client.get("/api/me").status_code, 200)  # still signed in here
        self.assertIn("password was changed", mail.outbox[0].subject)
        self.assertIn("When:", mail.outbox[0].body)

    def test_sessions_are_listed_and_ended(self) -> None:
        phone = Client()
        self.sign_in()
        self.sign_in(client=phone)
        sessions = self.call("GET", "auth/sessions").json()["data"]
        self.assertEqual([each["is_current"] for each in sessions].count(True), 1)
        other = next(each["id"] for each in sessions if not each["is_current"])
        stranger = Client()
        self.sign_in(email="odd@skerrow.example", client=stranger)
        self.assertEqual(
            self.call("DELETE", "auth/sessions", {"sessions": [other]}, stranger).status_code, 400
        )
        self.assertEqual(phone.get("/api/me").status_code, 200)
        self.assertEqual(self.call("DELETE", "auth/sessions", {"sessions": [other]}).status_code, 200)
        self.assertEqual(phone.get("/api/me").status_code, 401)
        self.assertEqual(self.client.get("/api/me").status_code, 200)
        self.assertEqual(Session.objects.count(), 2)

    @override_settings(ALLAUTH_TRUSTED_PROXY_COUNT=1)
    def test_guessing_locks_out_the_guesser_and_not_the_owner(self) -> None:
        here, there = {"X-Forwarded-For": "203.0.113.7"}, {"X-Forwarded-For": "198.51.100.9"}
        tries = [self.sign_in(f"guess {n}", **here) for n in range(8)]
        self.assertEqual((tries[0], tries[-1]), (400, 429))
        self.assertEqual(self.sign_in(**here), 429)  # even with the right one
        answer = self.call(
            "POST", "auth/login", {"email": "maren@skerrow.example", "password": PASSWORD}, **here
        )
        self.assertIn("Too many wrong passwords", answer.json()["detail"])
        forged = {
            "X-Forwarded-For": "198.51.100.9, 203.0.113.7"
        }  # what the sender itself says counts for nothing
        self.assertEqual(self.sign_in(**forged), 429)
        self.assertEqual(
            self.sign_in(email="odd@skerrow.example", **here), 200
        )  # another account, same place
        self.assertEqual(self.sign_in(client=Client(), **there), 200)  # the owner, elsewhere

    def test_without_a_proxy_no_header_is_believed(self) -> None:
        tries = [self.sign_in("guess", **{"X-Forwarded-For": f"203.0.113.{n}"}) for n in range(8)]
        self.assertEqual(tries[-1], 429)

    def test_who_is_signed_out_is_told_so(self) -> None:
        self.sign_in()
        self.assertEqual(self.call("DELETE", "auth/session").status_code, 401)
        self.assertEqual(self.client.get("/api/swings").status_code, 401)
