"""Bodies drawn at random after the API's own schema, sent to real things: none breaks the server."""

import json
from typing import Any
from urllib.parse import urlencode

import schemathesis
from hypothesis import HealthCheck, given, seed, settings
from schemathesis.core import NOT_SET
from schemathesis.core.result import Ok

from tests.server import making
from tests.server.test_access import SCHEMA
from tropometer.server.bench.models import SwingRequest
from tropometer.server.lessons.models import Lesson, LessonFrame

EACH = 20
QUIET = settings(
    max_examples=EACH, deadline=None, database=None, suppress_health_check=list(HealthCheck), print_blob=False
)


DRAWN = {
    "whose": "student", "name": "Tobin Farrow", "hand": "right", "width": 1280, "height": 720,
    "checkpoint": "top", "time_from_impact_s": -0.3, "gauges": [], "values": [],
    "crop": {"left": 0, "top": 0, "width": 540, "height": 720},
}  # fmt: skip


class FuzzTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        owner = making.instructor()
        clip = making.with_picture(making.marked_swing(owner), self.media)
        student = clip.swing.student
        assert student is not None
        lesson = Lesson.objects.create(instructor=owner, swing=clip.swing)
        frame = LessonFrame.objects.create(lesson=lesson, frame=0, position=0, drawn=DRAWN)
        asked = SwingRequest.objects.create(instructor=owner, student=student)
        self.known = {
            "clips": clip.pk, "swings": clip.swing_id, "students": student.pk, "lessons": lesson.pk,
            "requests": asked.pk, "swing_id": clip.swing_id, "frame_id": frame.pk, "source_id": clip.pk,
            "token": asked.token, "name": "lead_toe", "frame": 3,
        }  # fmt: skip
        self.client.force_login(owner)

    def path(self, template: str, drawn: dict[str, Any]) -> str:
        """An address with the ids of things that are there."""
        named = {**drawn, **self.known, "id": self.known.get(template.split("/")[2], drawn.get("id"))}
        return template.format(**named)

    def send(self, template: str, case: Any) -> str:
        """Send a drawn case; what it was when the server broke at it, else nothing."""
        path = self.path(template, dict(case.path_parameters or {}))
        query = urlencode(case.query or {}, doseq=True)
        body = b"" if case.body is NOT_SET else json.dumps(case.body).encode()
        self.client.raise_request_exception = False
        answer = self.client.generic(case.method, f"{path}?{query}", body, content_type="application/json")
        return (
            f"{answer.status_code} to {case.method} {path}: {body[:300]!r}"
            if answer.status_code >= 500
            else ""
        )

    def test_no_body_of_the_schema_breaks_the_server(self) -> None:
        sent: list[str] = []
        for found in schemathesis.openapi.from_dict(SCHEMA).get_all_operations():
            assert isinstance(found, Ok), found
            operation = found.ok()
            if operation.method != "delete":
                self.fuzz(operation, sent)
        self.assertGreater(len(sent), 500)
        self.maxDiff = None
        self.assertEqual([each for each in sent if each], [])

    def fuzz(self, operation: Any, sent: list[str]) -> None:
        @seed(1)
        @QUIET
        @given(case=operation.as_strategy())
        def check(case: Any) -> None:
            sent.append(self.send(operation.path, case))

        check()
