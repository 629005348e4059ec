"""A studio hour in a lesson: frozen as it stood, without what nobody looked at, on the page and on paper."""

import io
import re
from datetime import timedelta
from typing import Any

from django.utils import timezone
from pypdf import PdfReader

from tests.server import making
from tests.server.test_lessons import LessonCase
from tropometer.server.bench.models import Swing
from tropometer.server.logbook.models import LoggedReading, LoggedSwing
from tropometer.server.people.models import Student
from tropometer.server.studio.models import StudioHour, Try

USUAL, NARROW = (30.0, 31.0, 29.0, 30.5), (37.0, 38.0, 36.5, 37.5)
TURN = "pelvis_turn.top"


class TriesInLessonTests(LessonCase):
    def setUp(self) -> None:
        super().setUp()
        student = self.clip.swing.student
        assert student is not None
        self.hour = self.hour_of(student)

    def hour_of(self, student: Student) -> StudioHour:
        hour = StudioHour.objects.create(student=student, columns=[TURN, "tempo.swing"])
        for place, value in enumerate((*USUAL, *NARROW)):
            swing = Swing.objects.create(
                instructor=student.instructor, student=student, received_at=timezone.now()
            )
            LoggedSwing.objects.create(swing=swing, core="test")
            about: dict[str, Any] = {"u95": 2.0, "set_up_share": 0.5, "core": "test"}
            LoggedReading.objects.create(
                swing=swing, reading="pelvis_turn", at="top", value=value, provisional=False, **about
            )
            LoggedReading.objects.create(
                swing=swing, reading="tempo", at="swing", value=3.0, provisional=True, **about
            )
            changed = "Narrower stance" if place >= len(USUAL) else ""
            Try.objects.create(hour=hour, swing=swing, position=place, changed=changed)
        return hour

    def put(self, hour: Any, status: int = 200) -> Any:
        return self.call("PUT", f"{self.path}/tries", {"hour_id": hour}, status)

    def test_it_stands_on_page_and_paper_as_it_was_when_it_was_put_in(self) -> None:
        Try.objects.filter(hour=self.hour, position=0).update(left_out="slipped")
        told = self.put(str(self.hour.pk))["tries"]
        self.assertEqual([each["column"] for each in told["columns"]], [TURN])  # nobody looked at the tempo
        self.assertEqual(len(told["tries"]), len(USUAL) + len(NARROW) - 1)
        self.assertNotIn("tempo.swing", str(told["tries"]))
        token = self.sent()["link"].rsplit("/", 1)[1]
        self.hour.delete()
        self.put(None, 409)  # it is sent
        sheet = self.call("GET", f"/api/sheets/{token}")
        self.assertEqual(sheet["tries"], told)
        pdf = self.client.get(f"/api/sheets/{token}/lesson.pdf").content
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)
        self.assertRegex(re.sub(r"\s+", " ", text), r"Pelvis turn, top: about 7° more, give or take \d°\.")
        self.post(f"{self.path}/correction")
        self.put(None)
        self.assertEqual(self.call("GET", f"/api/sheets/{token}")["tries"], told)
        back = self.call("DELETE", f"{self.path}/correction")
        self.assertEqual(back["tries"], told)

    def test_another_s_hour_is_not_told(self) -> None:
        sunniva = making.student(self.owner, name="Sunniva Brae", email="")
        stranger = making.instructor("Odd Stranger")
        theirs = making.student(stranger, name="Wynn Osk", email="")
        for student in (sunniva, theirs):
            self.put(str(self.hour_of(student).pk), 404)
        self.assertIsNone(self.call("GET", self.path)["tries"])

    def test_the_day_it_was_is_said(self) -> None:
        day = timezone.localdate() - timedelta(days=40)
        StudioHour.objects.filter(pk=self.hour.pk).update(day=day)
        self.assertEqual(self.put(str(self.hour.pk))["tries"]["day"], day.isoformat())
