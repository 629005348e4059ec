"""Clips of minors need a guardian's consent."""

import json
from typing import Any

from django.db import IntegrityError, transaction

from tests.server import making
from tropometer.server.bench.models import Swing
from tropometer.server.clips.models import Clip
from tropometer.server.people.models import Student


class ConsentTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.student = making.student(self.owner, name="Jory Tennick", minor=True)
        self.client.force_login(self.owner)

    def send(self, path: str, data: bytes | None = None, view: str = "face_on", **more: Any) -> Any:
        clip = making.arrived(self.owner, data or making.demo_file(), view=view)
        return self.client.post(path, json.dumps({**more, "clips": [clip]}), content_type="application/json")

    def change(self, **about: Any) -> Any:
        body = {"name": "Jory Tennick", "hand": "right", "minor": True, **about}
        path = f"/api/students/{self.student.pk}"
        return self.client.put(path, json.dumps(body), content_type="application/json")

    def test_no_clip_before_a_guardian_has_consented(self) -> None:
        answer = self.send("/api/swings", student_id=str(self.student.pk))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("Jory Tennick is under age", answer.json()["detail"])
        self.assertEqual((Swing.objects.count(), self.files()), (0, []))
        self.assertEqual(self.change(guardian="Keren Tennick", consent_on="2026-09-02").status_code, 200)
        self.assertEqual(self.send("/api/swings", student_id=str(self.student.pk)).status_code, 201)
        swing = Swing.objects.get()
        self.change()  # the consent is withdrawn
        self.assertEqual(self.send(f"/api/swings/{swing.pk}/clips").status_code, 422)
        self.assertEqual(Clip.objects.count(), 1)

    def test_a_consent_is_somebody_s(self) -> None:
        answer = self.change(consent_on="2026-09-02")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("guardian", answer.json()["detail"])
        with self.assertRaises(IntegrityError), transaction.atomic():
            Student.objects.filter(pk=self.student.pk).update(consent_on="2026-09-02", guardian="")

    def test_a_second_view_joins_its_swing(self) -> None:
        swing = Swing.objects.create(instructor=self.owner, student=making.student(self.owner))
        answer = self.send(f"/api/swings/{swing.pk}/clips", view="down_the_line")
        self.assertEqual(answer.status_code, 201, answer.content)
        self.assertEqual((Clip.objects.get().swing_id, Clip.objects.get().view), (swing.pk, "down_the_line"))
