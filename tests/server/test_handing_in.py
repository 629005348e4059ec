"""A swing is handed in once, however often its sender asks."""

import json
from functools import partial
from typing import Any

from django.db import IntegrityError
from django.test import TransactionTestCase
from django.utils import timezone

from tests.server import making
from tests.swings import DEMO_CLIPS
from tropometer.server.bench import requests
from tropometer.server.bench.models import Peg, Swing
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Clip
from tropometer.server.clips.uploads import Sender

CLIP = DEMO_CLIPS / "tobin_first_face.mp4"


class HandingInTests(making.MediaFolders, TransactionTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.student = making.student(self.owner)
        self.client.force_login(self.owner)

    def arrived(self, sender: Sender, data: bytes = CLIP.read_bytes()) -> dict[str, str]:
        """A finished upload, as it is named on handing in."""
        upload = uploads.begin(sender, "swing.mp4", len(data))
        uploads.append(upload, 0, data)
        return {"upload_id": str(upload.pk), "view": "face_on"}

    def post(self, path: str, body: Any) -> Any:
        return self.client.post(path, json.dumps(body), content_type="application/json")

    def test_club_and_length_are_kept_changed_and_checked(self) -> None:
        kind = {"club": "5 wood", "club_class": "wood", "swing_length": "shoulder_high"}
        clips = [self.arrived(Sender(self.owner))]
        sent = {"student_id": str(self.student.pk), "clips": clips, **kind}
        swing = Swing.objects.get(pk=self.post("/api/swings", sent).json()["swing_id"])
        self.assertEqual((swing.club_class, swing.swing_length), ("wood", "shoulder_high"))
        path = f"/api/swings/{swing.pk}/kind"
        say = partial(self.client.patch, path, content_type="application/json")
        self.assertEqual(say({"club": "Driver", "club_class": "driver"}).status_code, 200)
        self.assertEqual(say({"swing_length": "full"}).status_code, 200)  # another tab's: the club stays
        told = self.client.get(f"/api/swings/{swing.pk}").json()
        self.assertEqual([told[each] for each in kind], ["Driver", "driver", "full"])
        refused = say({"swing_length": "huge"})
        self.assertEqual(refused.status_code, 422)
        self.assertIn("swing_length", refused.content.decode())
        swing.swing_length = "huge"
        with self.assertRaises(IntegrityError):
            swing.save()

    def test_marks_tell_club_and_length_and_a_peg_beyond_the_clip_breaks_nothing(self) -> None:
        swing = making.seen_from_both(self.owner, "model_loaded_face", "model_loaded_line")
        Swing.objects.filter(pk=swing.pk).update(one_swing=True)
        path = f"/api/swings/{swing.pk}"
        seen = self.client.get(path).json()["measured"]["kind_seen"]
        self.assertEqual(seen, {"club_class": "iron", "swing_length": "full"})
        for clip in swing.clips.all():
            Peg.objects.filter(clip=clip, name="finish").update(frame=9999)
        opened = self.client.get(path)
        self.assertEqual(opened.status_code, 200)
        told = opened.json()["measured"]["clips"][0]["pegs"]
        self.assertIn(9999, [peg["frame"] for peg in told])  # nothing of it is lost

    def test_pressed_four_times_at_once_it_is_one_swing(self) -> None:
        body = {"student_id": str(self.student.pk), "clips": [self.arrived(Sender(self.owner))]}
        answers = making.at_once(self.owner, *[("POST", "/api/swings", body)] * 4)
        self.assertEqual([answer.status_code for answer in answers], [201] * 4)
        self.assertEqual(len({answer.json()["swing_id"] for answer in answers}), 1)
        self.assertEqual((Swing.objects.count(), Clip.objects.count()), (1, 1))
        self.assertEqual((self.waiting(), len(self.files())), ([], 1))

    def test_a_student_whose_answer_was_lost_is_told_it_again(self) -> None:
        link = requests.make(self.owner, self.student, "")
        sender = requests.sender(link)
        clips = [self.arrived(sender), self.arrived(sender, b"no video")]
        first = self.post(f"/api/sent/{link.token}", {"clips": clips})
        again = self.post(f"/api/sent/{link.token}", {"clips": clips})
        self.assertEqual((first.status_code, again.status_code), (201, 201))
        self.assertEqual(first.json(), again.json())
        self.assertEqual(len(first.json()["refused"]), 1)
        self.assertEqual(Swing.objects.count(), 1)

    def test_what_went_elsewhere_is_not_told(self) -> None:
        clips = [self.arrived(Sender(self.owner))]
        path = "/api/swings"
        self.assertEqual(
            self.post(path, {"student_id": str(self.student.pk), "clips": clips}).status_code, 201
        )
        other = making.student(self.owner, name="Ilse Brandt")
        self.assertEqual(self.post(path, {"student_id": str(other.pk), "clips": clips}).status_code, 422)
        another = Swing.objects.create(
            instructor=self.owner, student=self.student, received_at=timezone.now()
        )
        self.assertEqual(self.post(f"{path}/{another.pk}/clips", {"clips": clips}).status_code, 422)
        link = requests.make(self.owner, self.student, "")
        self.assertEqual(self.post(f"/api/sent/{link.token}", {"clips": clips}).status_code, 422)
