"""A lesson to take along: on paper, in a calendar, in one file; what it shows is what was sent."""

from __future__ import annotations

import io
import json
import re
import zipfile
from datetime import date, timedelta
from typing import Any
from unittest.mock import patch

from django.utils import timezone
from icalendar import Calendar
from pypdf import PdfReader

from tests.server import making
from tests.server.test_desk import GOAL, DeskCase
from tropometer.server.lessons.models import SentSheet
from tropometer.server.lessons.practice_days import practice_days


class PaperTests(DeskCase):
    def setUp(self) -> None:
        super().setUp()
        self.add(5)
        self.call(
            "PATCH", self.path, {"title": "A <b>bold</b> & plain title", "opening": "Zwölf Grad, “so”."}
        )
        self.until = timezone.localdate() + timedelta(days=20)
        self.plan(goal=GOAL | {"by": str(self.until)})
        self.token = self.post(f"{self.path}/send")["link"].rsplit("/", 1)[1]
        self.address = f"/api/sheets/{self.token}"
        self.client.logout()

    def fetched(self, name: str, kind: str) -> bytes:
        answer = self.client.get(f"{self.address}/{name}")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, kind))
        self.assertIn("no-store", answer["Cache-Control"])
        return answer.content

    def text_of(self, pdf: bytes) -> str:
        pages = PdfReader(io.BytesIO(pdf)).pages
        return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pages))

    def test_paper_says_what_the_sheet_says(self) -> None:
        pdf = self.fetched("lesson.pdf", "application/pdf")
        text = self.text_of(pdf)
        for words in (
            "A <b>bold</b> & plain title",
            "Zwölf Grad, “so”.",
            "Stick by the right (back) hip",
            "At the top, your hips 0.5 cm to 6.0 cm away from the target",
            "Everything measured",
        ):
            self.assertIn(words, text)
        images = [image for page in PdfReader(io.BytesIO(pdf)).pages for image in page.images]
        self.assertGreaterEqual(len(images), 3)  # the frame, and how the drill goes
        fonts = {
            font.get_object()["/BaseFont"]
            for page in PdfReader(io.BytesIO(pdf)).pages
            for font in dict(page)["/Resources"]["/Font"].values()
        }
        self.assertTrue(all("Bricolage" in font or "JetBrains" in font for font in fonts), fonts)

    def test_a_plan_of_before_there_was_more_on_a_sheet_is_laid_out_too(self) -> None:
        sheet = SentSheet.objects.get()
        for later in ("strengths", "chain", "measured"):
            del sheet.document["plan"][later]
        sheet.save()
        self.assertIn(
            "Stick by the right (back) hip", self.text_of(self.fetched("lesson.pdf", "application/pdf"))
        )

    def test_it_is_not_laid_out_without_end(self) -> None:
        with patch("tropometer.server.lessons.sheet_api.PAPERS_AN_HOUR", 1):
            self.fetched("lesson.pdf", "application/pdf")
            for name in ("lesson.pdf", "lesson.zip"):
                self.assertEqual(self.client.get(f"{self.address}/{name}").status_code, 429)
            self.fetched("practice.ics", "text/calendar")

    def test_a_draft_is_seen_on_paper_by_its_instructor_alone(self) -> None:
        self.assertEqual(self.client.get(f"{self.path}/lesson.pdf").status_code, 401)
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get(f"{self.path}/lesson.pdf").status_code, 404)
        self.client.force_login(self.owner)
        self.post(f"{self.path}/correction")
        self.call("PATCH", self.path, {"opening": "Not sent yet."})
        self.assertIn("Not sent yet.", self.text_of(self.client.get(f"{self.path}/lesson.pdf").content))
        self.assertNotIn("Not sent yet.", self.text_of(self.fetched("lesson.pdf", "application/pdf")))

    def test_the_calendar_asks_for_practice_until_the_goal_and_for_a_film_then(self) -> None:
        """Read back by the rules of RFC 5545."""
        made: Any = Calendar.from_ical(self.fetched("practice.ics", "text/calendar"))
        practise, film = made.walk("VEVENT")
        self.assertEqual(str(practise["SUMMARY"]), "Practise: Stick by the right (back) hip")
        self.assertEqual(practise["RRULE"]["UNTIL"], [self.until])
        self.assertIn("ten", str(practise["DESCRIPTION"]))
        self.assertEqual((film["DTSTART"].dt, type(film["DTSTART"].dt)), (self.until, date))
        self.assertNotEqual(practise["UID"], film["UID"])

    def test_the_days_are_those_of_the_dose(self) -> None:
        for dose, count in (
            ("ten, three days a week", 3),
            ("ten a day", 7),
            ("ten, twice a week", 2),
            ("ten", 3),
        ):
            self.assertEqual(len(practice_days(dose)), count, dose)
        self.assertEqual(practice_days("five balls, 9 times a week"), practice_days("daily"))

    def test_the_zip_opens_without_a_network(self) -> None:
        files = zipfile.ZipFile(io.BytesIO(self.fetched("lesson.zip", "application/zip")))
        self.assertIsNone(files.testzip())
        page = files.read("lesson.html").decode()
        self.assertIn("A &lt;b&gt;bold&lt;/b&gt; &amp; plain title", page)
        named = set(re.findall(r'(?:src|href)="([^"]+)"', page))
        self.assertGreaterEqual(len(named), 4)
        self.assertLessEqual(named, set(files.namelist()))  # nothing from elsewhere
        self.assertTrue(files.read("lesson.pdf").startswith(b"%PDF"))
        self.assertFalse(
            [name for name in files.namelist() if name.startswith("walk/")]
        )  # nothing was spoken
        record = json.loads(files.read("swing.json"))
        self.assertEqual(record["clips"][0]["checkpoints"]["top"], 5)
