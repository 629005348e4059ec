"""What no part of the product can use is refused at the border, in one shape, with the name of its field."""

import gzip
import io
import json
import logging
from typing import Any
from unittest.mock import patch

from tests.server import making
from tests.server.test_access import BODIES, SCHEMA
from tests.swings import truth
from tropometer.server import logs
from tropometer.server.bench.models import Mat, Swing, SwingRequest
from tropometer.server.lessons.models import Lesson

PROBLEM = "application/problem+json"
BY_LINK = (
    "/l/{}",
    "/s/{}",
    "/p/{}",
    "/p/{}/mail",
    "/api/sheets/{}",
    "/api/pages/{}",
    "/api/sent/{}",
    "/api/sent/{}/uploads",
)
SOME_ID = "11111111-1111-4111-8111-111111111111"


def spoil(value: Any, how: Any) -> Any:
    """A body in which the first text, number or list is something nobody can use."""
    if isinstance(value, dict):
        name = next(iter(value), None)
        return {"x": how} if name is None else {**value, name: spoil(value[name], how)}
    if isinstance(value, list) and value:
        return [spoil(value[0], how), *value[1:]]
    return how


class BorderTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner)
        self.client.force_login(self.owner)

    def call(self, method: str, path: str, body: Any, raw: bytes | None = None) -> Any:
        data = json.dumps(body) if raw is None else raw
        return self.client.generic(method.upper(), path, data, content_type="application/json")

    def check_problem(self, answer: Any, status: int) -> Any:
        self.assertEqual(
            (answer.status_code, answer["Content-Type"]), (status, PROBLEM), answer.content[:200]
        )
        told = answer.json()
        self.assertEqual(told["status"], status)
        self.assertTrue(told["title"] and told["detail"])
        return told

    def writes(self) -> list[tuple[str, str, Any]]:
        found = []
        for path, methods in SCHEMA["paths"].items():
            filled = path.format(
                id=SOME_ID, swing_id=SOME_ID, frame_id=SOME_ID, source_id=SOME_ID, take_id=SOME_ID,
                note_id=SOME_ID, try_id=SOME_ID, strike_id=SOME_ID, name="x", reading="x", at="x",
                frame=0, kind="swing", piece="x", fault="sways", token="x",
            )  # fmt: skip
            found += [
                (method, filled, BODIES.get((method, path), {}))
                for method in methods
                if method in ("post", "put", "patch")
            ]
        return found

    def test_what_no_field_can_hold_is_refused_at_every_address(self) -> None:
        deep: Any = "x"
        for _ in range(200):
            deep = [deep]
        bad = {"NUL": "a\x00b", "escape": "\x1b[31m", "half": "\ud800", "big": 10**30, "deep": deep}
        self.assertGreater(len(self.writes()), 25)
        for method, path, body in self.writes():
            for name, how in bad.items():
                with self.subTest(method=method, path=path, what=name):
                    answer = self.call(method, path, spoil(body, how))
                    self.assertIn(answer.status_code, (400, 422))
                    self.check_problem(answer, answer.status_code)

    def test_the_field_is_named_with_its_path_whatever_the_body(self) -> None:
        corner = {"x": 1, "y": 1}
        mat = {
            "id": SOME_ID,
            "kind": "mat",
            "value": {"corners": [corner] * 4, "along_m": "wide", "across_m": 1},
        }
        cases = {
            ("put", "/api/me/hand", '{"marks": [{"dx": 1, "dy": "far"}]}'): "marks.0.dy",
            (
                "post",
                f"/api/clips/{self.clip.pk}/edits",
                json.dumps({"edits": [mat]}),
            ): "edits.0.value.along_m",
            ("post", "/api/students", '{"name": "X", "hand": "right", "history": "a\\u0000"}'): "history",
            ("post", "/api/students", '{"hand": "right"}'): "name",
            (
                "put",
                f"/api/clips/{self.clip.pk}/about",
                '{"view": "face_on", "capture_fps": 1e-308}',
            ): "capture_fps",
        }
        for (method, path, body), field in cases.items():
            with self.subTest(path=path, field=field):
                told = self.check_problem(self.call(method, path, None, body.encode()), 422)
                self.assertEqual([each["field"] for each in told["fields"]], [field])

    def test_addresses_with_control_characters_and_bodies_that_are_none(self) -> None:
        for path in ("/api/sheets/a%00b", "/api/swings?waiting=%00", "/api/sent/%0Ax", "/_allauth/a%1b"):
            self.check_problem(self.client.get(path), 400)
        self.check_problem(self.call("post", "/api/students", None, b"{not json"), 400)
        self.check_problem(
            self.call("post", "/api/students", None, b'{"name": "' + b"x" * 3_000_000 + b'"}'), 413
        )

    def test_every_error_has_one_shape_also_at_unknown_addresses(self) -> None:
        self.check_problem(self.client.get("/api/nowhere"), 404)
        self.check_problem(self.client.get(f"/api/swings/{SOME_ID}"), 404)
        self.check_problem(self.client.delete("/api/me"), 405)
        self.client.logout()
        self.check_problem(self.client.get("/api/swings"), 401)
        answers = [
            operation["responses"]["default"]["content"]
            for methods in SCHEMA["paths"].values()
            for operation in methods.values()
        ]
        self.assertEqual({next(iter(each)) for each in answers}, {PROBLEM})

    def test_private_answers_are_not_kept(self) -> None:
        for path in ("/api/me", "/api/swings", "/_allauth/browser/v1/auth/session"):
            self.assertIn("no-store", self.client.get(path)["Cache-Control"], path)

    def test_a_browser_forgets_what_is_erased_and_what_was_seen_before_signing_out(self) -> None:
        swing = Swing.objects.get(pk=self.clip.swing_id)
        self.client.delete(f"/api/swings/{swing.pk}")
        erased = self.client.delete(f"/api/bin/swing/{swing.pk}")
        out = self.client.delete("/_allauth/browser/v1/auth/session")
        self.assertEqual([erased["Clear-Site-Data"], out["Clear-Site-Data"]], ['"cache"'] * 2)

    def test_answers_travel_compressed_and_clips_keep_their_ranges(self) -> None:
        making.with_picture(self.clip, self.media)
        path = f"/api/swings/{self.clip.swing_id}"
        plain = self.client.get(path)
        packed = self.client.get(path, headers={"Accept-Encoding": "gzip"})
        self.assertEqual(packed["Content-Encoding"], "gzip")
        self.assertEqual(json.loads(gzip.decompress(packed.content)), plain.json())
        self.assertLess(len(packed.content), len(plain.content) / 2)
        clip = self.client.get(
            f"/api/clips/{self.clip.pk}/proxy.mp4", headers={"Accept-Encoding": "gzip", "Range": "bytes=2-9"}
        )
        self.assertEqual((clip.status_code, clip.get("Content-Encoding")), (206, None))

    def test_no_page_is_served_outside_the_content_policy(self) -> None:
        for path in (
            "/",
            "/l/some-token",
            "/static/index.html",
            "/static/nowhere.html",
            "/healthz",
            "/api/nowhere",
        ):
            self.assertIn(
                "default-src 'self'", self.client.get(path).headers.get("Content-Security-Policy", "")
            )

    def test_a_huge_range_is_no_range(self) -> None:
        making.with_picture(self.clip, self.media)
        for asked in (f"bytes={'9' * 5000}-", f"bytes=0-{'9' * 5000}", "bytes=-0"):
            answer = self.client.get(f"/api/clips/{self.clip.pk}/proxy.mp4", headers={"Range": asked})
            self.assertIn(answer.status_code, (200, 416), asked)

    def test_a_mat_whose_corners_lie_together_is_refused_and_an_old_one_hurts_nothing(self) -> None:
        known = truth(making.TOBIN)
        there = [{"x": x, "y": y} for x, y in known["mat_corners"]["pixels"]]
        together = {"one place": there[:1] * 4, "two places": there[:2] * 2, "a line": [
            {"x": 10.0 * n, "y": 10.0 * n} for n in range(4)]}  # fmt: skip
        for name, corners in together.items():
            with self.subTest(name):
                value = {"corners": corners, "along_m": 1.5, "across_m": 1.5}
                edit = {"id": SOME_ID, "kind": "mat", "value": value}
                told = self.call("post", f"/api/clips/{self.clip.pk}/edits", {"edits": [edit]})
                self.assertIn("mat", self.check_problem(told, 422)["detail"])
                Mat.objects.create(clip=self.clip, **value)
                self.assertEqual(self.client.get(f"/api/swings/{self.clip.swing_id}").status_code, 200)
                Mat.objects.all().delete()

    def test_no_log_holds_a_private_link(self) -> None:
        asked = SwingRequest.objects.create(instructor=self.owner, student=self.clip.swing.student)
        lesson = Lesson.objects.create(
            instructor=self.owner, swing=self.clip.swing, token="s3cret-t0ken", sent_at=asked.made_at
        )
        written = io.StringIO()
        handler = logging.StreamHandler(written)
        handler.setFormatter(logging.getLogger().handlers[0].formatter)
        root, ours = logging.getLogger(), logging.getLogger("tropometer")
        root.addHandler(handler)
        level = ours.level
        ours.setLevel(logging.INFO)
        try:
            for token in (lesson.token, asked.token):
                for path in BY_LINK:
                    self.client.get(path.format(token))
                logging.getLogger("django.request").error("Not Found: %s", f"/api/sheets/{token}")
            with patch(
                "tropometer.server.lessons.sending.by_token", side_effect=RuntimeError(f"/l/{lesson.token}")
            ):
                self.client.raise_request_exception = False
                self.check_problem(self.client.get(f"/api/sheets/{lesson.token}"), 500)
        finally:
            root.removeHandler(handler)
            ours.setLevel(level)
        said = written.getvalue()
        self.assertGreater(said.count("request_id="), 10)
        self.assertIn("Traceback", said)
        for token in (lesson.token or "", asked.token):
            self.assertNotIn(token, said)
        self.assertEqual(logs.without_tokens("password=hunter2 x"), "password=… x")
