"""Nobody reaches what is not theirs, and nothing without signing in."""

import json
from typing import Any

from django.test import TestCase
from django.utils import timezone

from tests.server import making
from tests.swings import ROOT
from tropometer.server.bench.models import Swing, SwingRequest
from tropometer.server.lessons.models import Lesson, LessonFrame, Template
from tropometer.server.people.models import Student
from tropometer.server.shelf.models import ReferenceSwing
from tropometer.server.studio.models import LaunchProfile, Strike, StudioHour, Try

SCHEMA = json.loads((ROOT / "web/src/api/openapi.json").read_text())
BY_CODE = ("/api/pages/code", "/api/pages/enter")  # whoever asks learns nothing
NOT_IN_SCHEMA = (
    ("get", "/api/clips/{clip}/proxy.mp4"),
    ("get", "/api/clips/{clip}/original"),
    ("get", "/api/clips/{clip}/stills/0.jpg"),
    ("get", "/api/lessons/{lesson}/frames/{frame_id}.jpg"),
    ("get", "/api/swings/{swing_id}/try.jpg"),
    ("get", "/api/swings/{swing_id}/marks.c3d"),
    ("get", "/api/swings/{swing_id}/marks.trc"),
    ("get", "/api/students/{student}/messages/{frame_id}/voice.m4a"),
    ("get", "/api/students/{student}/log.csv"),
    ("get", "/api/students/{student}/record.zip"),
    ("get", "/api/lessons/{lesson}/walk/voice.m4a"),
    ("get", "/api/lessons/{lesson}/walk/film.mp4"),
    ("get", "/api/lessons/{lesson}/walk/captions.vtt"),
    ("get", "/api/lessons/{lesson}/walk/takes/{take_id}.m4a"),
    ("get", "/api/lessons/{lesson}/walk/clips/{clip}.mp4"),
    ("get", "/api/lessons/{lesson}/walk/clips/{clip}/0.jpg"),
)
BY_LINK_NOT_IN_SCHEMA = (
    "/api/sheets/{token}/{frame_id}.jpg",
    "/api/sheets/{token}/shown/{id}",
    "/api/sheets/{token}/walk/voice.m4a",
    "/api/sheets/{token}/walk/film.mp4",
    "/api/sheets/{token}/walk/captions.vtt",
    "/api/sheets/{token}/walk/clips/{clip}.mp4",
    "/api/sheets/{token}/walk/clips/{clip}/0.jpg",
    "/api/pages/{token}/messages/{id}/voice.m4a",
    "/api/pages/{token}/clips/{clip}.mp4",
    "/api/pages/{token}/clips/{clip}.jpg",
    "/api/pages/{token}/tries/{id}.jpg",
)
A_CLIP = {"upload_id": "11111111-1111-4111-8111-111111111111", "view": "face_on"}
BODIES: dict[tuple[str, str], Any] = {
    ("put", "/api/students/{id}"): {"name": "X", "hand": "left"},
    ("put", "/api/students/{id}/body"): {},
    ("put", "/api/students/{id}/archived"): {"archived": True},
    ("post", "/api/students/{id}/merge"): {"other": "33333333-3333-4333-8333-333333333333"},
    ("put", "/api/students/{id}/notes/{note_id}"): {"day": "2026-01-01", "words": "X"},
    ("post", "/api/students/{id}/messages"): {"id": A_CLIP["upload_id"], "words": "X"},
    ("put", "/api/students/{id}/thread/seen"): {"until": "2026-01-01T00:00:00Z"},
    ("post", "/api/students/{id}/thread/unsettled"): {"at": "2026-01-01T00:00:00Z"},
    ("put", "/api/pages/{token}/practised/{id}"): {"drill": "x", "day": "2026-01-01"},
    ("post", "/api/pages/{token}/messages"): {"id": A_CLIP["upload_id"], "words": "X"},
    ("put", "/api/pages/{token}/seen"): {"until": "2026-01-01T00:00:00Z"},
    ("put", "/api/pages/{token}/mail"): {"mail_wish": "off"},
    ("post", "/api/sent/{token}"): {"clips": [A_CLIP]},
    ("post", "/api/film/{token}"): {"clip": A_CLIP, "ago_s": 1, "struck_s": 1, "struck_by": "hand"},
    ("put", "/api/swings/{id}/decisions/{fault}"): {"decision": "accepted"},
    ("put", "/api/swings/{id}/plan"): {"plan": None},
    ("put", "/api/swings/{id}/try"): {"said": "inside"},
    ("post", "/api/students/{id}/hours"): {},
    ("patch", "/api/hours/{id}"): {},
    ("post", "/api/hours/{id}/tries"): {"swing_id": A_CLIP["upload_id"]},
    ("post", "/api/hours/{id}/filmed"): {"clip": A_CLIP, "ago_s": 1, "struck_s": 1, "struck_by": "hand"},
    ("patch", "/api/hours/{id}/tries/{try_id}"): {},
    ("put", "/api/hours/{id}/strikes/{strike_id}"): {"try_id": None},
    ("post", "/api/hours/{id}/shots/look"): {"text": "X"},
    ("post", "/api/hours/{id}/shots"): {
        "text": "X",
        "file_name": "X",
        "columns": {},
        "tries": {"2": A_CLIP["upload_id"]},
    },
    ("put", "/api/clips/{id}/about"): {"view": "face_on"},
    ("post", "/api/clips/{id}/edits"): {"edits": []},
    ("put", "/api/clips/{id}/window"): {},
    ("put", "/api/clips/{id}/player"): {},
    ("post", "/api/clips/{id}/swings"): {"first": 0, "last": 9},
    ("put", "/api/swings/{id}/views"): {},
    ("patch", "/api/swings/{id}/kind"): {},
    ("put", "/api/swings/{id}/pressure"): {"file_name": "X", "text": "X"},
    ("post", "/api/swings/{id}/clips"): {"clips": [A_CLIP]},
    ("patch", "/api/lessons/{id}"): {"title": "X"},
    ("put", "/api/lessons/{id}/tries"): {"hour_id": None},
    ("put", "/api/lessons/{id}/send-later"): {"at": "2099-01-01T00:00:00Z"},
    ("put", "/api/templates/{id}"): {"name": "X", "text": "X"},
    ("put", "/api/lessons/{id}/expiry"): {"last_day": None},
    ("patch", "/api/lessons/{id}/frames/{frame_id}"): {"words": "X"},
    ("patch", "/api/lessons/{id}/walk"): {"cut": []},
    ("post", "/api/lessons/{id}/walk/takes"): {
        "id": "22222222-2222-4222-8222-222222222222",
        "container": "webm",
    },
    ("post", "/api/lessons/{id}/walk/takes/{take_id}/pieces"): {
        "number": 0,
        "voice": "",
        "score": [],
        "until_ms": 0,
    },
}


class AccessTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner)
        swing = self.clip.swing
        lesson = Lesson.objects.create(instructor=self.owner, swing=swing)
        frame = LessonFrame.objects.create(lesson=lesson, frame=0, position=0, drawn={})
        model = Swing.objects.create(instructor=self.owner, reference_hand="right")
        reference = ReferenceSwing.objects.create(instructor=self.owner, swing=model, name="Model")
        hour = StudioHour.objects.create(student=swing.student)
        self.ids = {
            "students": swing.student_id,
            "clips": self.clip.pk,
            "swings": swing.pk,
            "shelf": reference.pk,
            "lessons": lesson.pk,
            "templates": Template.objects.create(instructor=self.owner, name="X", text="X").pk,
            "hours": hour.pk,
            "launch-profiles": LaunchProfile.objects.create(
                instructor=self.owner, name="Lane", columns={}
            ).pk,
            "requests": SwingRequest.objects.create(instructor=self.owner, student=swing.student).pk,
        }
        self.named = {
            "strike_id": Strike.objects.create(hour=hour, struck_at=timezone.now(), sd_s=0.01, said={}).pk,
            "try_id": Try.objects.create(hour=hour, swing=swing, position=0).pk,
            "swing_id": swing.pk,
            "frame_id": frame.pk,
            "reading": "tempo",
            "at": "swing",
            "note_id": "33333333-3333-4333-8333-333333333333",
            "take_id": "22222222-2222-4222-8222-222222222222",
            "frame": 0,
            "piece": "own_fault",
            "fault": "sways",
            "clip": self.clip.pk,
            "source_id": self.clip.pk,
            "name": "lead_toe",
            "kind": "student",
            "lesson": lesson.pk,
            "student": swing.student_id,
        }
        self.lesson = lesson

    def addresses(self) -> list[tuple[str, str, Any]]:
        found = []
        for path, methods in SCHEMA["paths"].items():
            if "{token}" in path or path in BY_CODE:
                continue
            kind = path.split("/")[2]
            kind = {"bin": "students"}.get(kind, kind)
            for method in methods:
                body = BODIES.get((method, path))
                if (method, path) == ("post", "/api/lessons/{id}/frames"):
                    body = {"clip_id": str(self.clip.pk), "frame": 0}
                found.append((method, path.format(id=self.ids.get(kind), **self.named), body))
        return found + [(method, path.format(**self.named), None) for method, path in NOT_IN_SCHEMA]

    def call(self, method: str, path: str, body: Any) -> int:
        data = json.dumps(body) if body is not None else ""
        return self.client.generic(method.upper(), path, data, content_type="application/json").status_code

    def test_everything_asks_for_a_sign_in(self) -> None:
        for method, path, body in self.addresses():
            with self.subTest(method=method, path=path):
                self.assertEqual(self.call(method, path, body), 401)

    def test_a_stranger_finds_nothing(self) -> None:
        self.client.force_login(making.instructor("Odd Stranger"))
        own = [entry for entry in self.addresses() if any(str(id) in entry[1] for id in self.ids.values())]
        self.assertGreater(len(own), 20)
        for method, path, body in own:
            with self.subTest(method=method, path=path):
                self.assertEqual(self.call(method, path, body), 404)
        self.assertTrue(Swing.objects.filter(pk=self.clip.swing_id).exists())

    def test_a_link_that_nobody_was_given_leads_nowhere(self) -> None:
        by_link = [(m, p) for p, methods in SCHEMA["paths"].items() if "{token}" in p for m in methods]
        by_link += [("get", path) for path in BY_LINK_NOT_IN_SCHEMA]
        self.assertGreater(len(by_link), 18)
        for method, path in by_link:
            filled = path.format(token="x" * 43, id=self.clip.pk, clip=self.clip.pk, frame_id=self.clip.pk)
            with self.subTest(method=method, path=path):
                self.assertEqual(self.call(method, filled, BODIES.get((method, path))), 404)

    def test_a_stranger_s_lists_are_empty(self) -> None:
        self.client.force_login(making.instructor("Odd Stranger"))
        for path in ("/api/students", "/api/swings", "/api/shelf", "/api/lessons"):
            self.assertEqual(self.client.get(path).json(), {"items": [], "count": 0})
        self.assertEqual(self.client.get("/api/requests").json(), [])

    def test_a_clip_of_another_cannot_be_put_into_ones_own_lesson(self) -> None:
        stranger = making.instructor("Odd Stranger")
        own = making.marked_swing(stranger)
        lesson = Lesson.objects.create(instructor=stranger, swing=own.swing)
        self.client.force_login(stranger)
        body = {"clip_id": str(self.clip.pk), "frame": 0}
        self.assertEqual(self.call("post", f"/api/lessons/{lesson.pk}/frames", body), 404)

    def test_a_swing_cannot_be_filed_under_another_s_student(self) -> None:
        self.client.force_login(making.instructor("Odd Stranger"))
        body = {"student_id": str(self.ids["students"]), "clips": [A_CLIP]}
        self.assertEqual(self.call("post", "/api/swings", body), 404)

    def test_another_s_student_is_not_taken_over_by_its_id(self) -> None:
        self.client.force_login(making.instructor("Odd Stranger"))
        body = {"id": str(self.ids["students"]), "name": "Taken", "hand": "left"}
        self.assertEqual(self.call("post", "/api/students", body), 404)
        self.assertEqual(Student.objects.get().name, "Tobin Farrow")

    def test_writing_needs_the_csrf_token(self) -> None:
        from django.test import Client

        client = Client(enforce_csrf_checks=True)
        client.force_login(self.owner)
        answer = client.patch("/api/me", json.dumps({"units": "in"}), content_type="application/json")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (403, "application/problem+json"))

    def test_the_content_policy_is_strict(self) -> None:
        policy = self.client.get("/inbox")["Content-Security-Policy"]
        self.assertIn("default-src 'self'", policy)
        self.assertNotIn("unsafe", policy)
        self.assertIn("frame-ancestors 'none'", policy)
