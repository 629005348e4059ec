"""Files come in piece by piece by the tus protocol 1.0.0 (tus.io), and only from who may send them."""

import base64
import json
import uuid
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.test import override_settings
from django.utils import timezone

from tests.server import making
from tropometer.server.bench.models import Swing, SwingRequest
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Clip, Upload
from tropometer.server.people.models import Student

DATA = bytes(range(256)) * 40
SHELF = base64.b64encode(b"shelf").decode()


class UploadTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.at = "/api/uploads"

    def begin(self, size: int = len(DATA), name: str = "swing.mp4") -> Any:
        named = base64.b64encode(name.encode()).decode()
        headers = {
            "Upload-Length": str(size),
            "Upload-Metadata": f"filename {named},for {SHELF}",
            "Tus-Resumable": "1.0.0",
        }
        return self.client.post(self.at, headers=headers)

    def piece(self, address: str, data: bytes, offset: int) -> Any:
        headers = {"Upload-Offset": str(offset), "Tus-Resumable": "1.0.0"}
        return self.client.patch(
            address, data, content_type="application/offset+octet-stream", headers=headers
        )

    def send(self, address: str) -> Any:
        """Hand a finished upload in."""
        clip = {"upload_id": address.split("/")[-1], "view": "face_on"}
        body = {"student_id": str(making.student(self.owner).pk), "clips": [clip]}
        return self.client.post("/api/swings", json.dumps(body), content_type="application/json")

    def test_pieces_add_up_and_a_broken_off_sender_goes_on(self) -> None:
        answer = self.begin()
        self.assertEqual((answer.status_code, answer["Tus-Resumable"]), (201, "1.0.0"))
        address = answer["Location"]
        self.assertEqual(self.piece(address, DATA[:4000], 0)["Upload-Offset"], "4000")
        asked = self.client.head(address)
        self.assertEqual((asked["Upload-Offset"], asked["Upload-Length"]), ("4000", str(len(DATA))))
        self.assertEqual(self.piece(address, DATA[3000:], 3000).status_code, 409)  # not where it stopped
        self.assertEqual(self.piece(address, DATA[4000:] + b"more than said", 4000).status_code, 204)
        upload = Upload.objects.get()
        self.assertTrue(upload.complete)
        self.assertEqual(upload.path.read_bytes(), DATA)

    def test_what_is_half_here_is_not_taken_in(self) -> None:
        address = self.begin()["Location"]
        self.piece(address, DATA[:100], 0)
        answer = self.send(address)
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(Upload.objects.get().offset, 100)  # it can still go on
        self.assertIn("only 100 of", answer.json()["detail"])

    def test_cancelling_leaves_nothing(self) -> None:
        address = self.begin()["Location"]
        self.piece(address, DATA[:100], 0)
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(self.client.delete(address).status_code, 204)
        self.assertEqual((Upload.objects.count(), self.waiting()), (0, []))
        self.assertEqual(self.client.head(address).status_code, 404)

    def test_limits_are_said_before_anything_is_sent(self) -> None:
        with override_settings(MAX_CLIP_BYTES=1024 * 1024):
            answer = self.begin(2 * 1024 * 1024)
        self.assertEqual((answer.status_code, answer.content), (413, b"swing.mp4: larger than 1 MB."))
        self.assertEqual(self.begin(0).status_code, 422)
        self.assertEqual(self.client.post(self.at).status_code, 400)
        self.assertEqual(self.waiting(), [])

    def test_a_newer_sender_goes_on_while_an_older_one_hangs(self) -> None:
        address = self.begin()["Location"]
        upload = Upload.objects.get()
        self.assertTrue(uploads.append(upload, 0, DATA[:100]))
        self.assertEqual(self.piece(address, DATA[100:300], 100).status_code, 204)  # nobody is locked out
        self.assertFalse(
            uploads.append(upload, 100, DATA[100:300])
        )  # the older one wakes up, and is too late
        self.assertEqual(upload.path.read_bytes(), DATA[:300])

    def test_what_is_acknowledged_is_on_the_disk(self) -> None:
        address = self.begin()["Location"]
        with patch("tropometer.server.clips.uploads.sync_file") as synced:
            self.piece(address, DATA[:100], 0)
        synced.assert_called_once_with(Upload.objects.get().path)

    def test_a_full_disk_is_said_and_what_was_here_stays(self) -> None:
        address = self.begin()["Location"]
        self.piece(address, DATA[:100], 0)
        with override_settings(LEAST_FREE_BYTES=1 << 60):
            answer = self.begin()
        self.assertEqual(answer.status_code, 507)
        self.assertIn(b"no room left", answer.content)
        self.assertEqual(self.client.head(address)["Upload-Offset"], "100")

    def test_an_instructor_s_room_is_bounded(self) -> None:
        with override_settings(INSTRUCTOR_BYTES=3 * len(DATA)):
            self.assertEqual([self.begin().status_code for _ in range(4)], [201, 201, 201, 507])

    def test_a_file_s_name_never_becomes_a_path(self) -> None:
        address = self.begin(name="../../etc/passwd")["Location"]
        self.piece(address, DATA, 0)
        self.assertEqual(self.waiting(), [f"{address.split('/')[-1]}.part"])

    def test_strangers_find_nothing(self) -> None:
        address = self.begin()["Location"]
        self.client.force_login(making.instructor("Odd Stranger"))
        for answer in (self.client.head(address), self.piece(address, DATA, 0), self.client.delete(address)):
            self.assertEqual(answer.status_code, 404)
        clip = {"upload_id": address.split("/")[-1], "view": "face_on"}
        body = {"student_id": str(making.student(making.instructor("Third One")).pk), "clips": [clip]}
        answer = self.client.post("/api/swings", json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, 404)
        self.client.logout()
        self.assertEqual(self.begin().status_code, 401)
        self.assertEqual(self.client.head(address).status_code, 401)

    def test_what_nobody_finished_is_forgotten(self) -> None:
        self.begin()
        Upload.objects.update(begun_at=timezone.now() - timedelta(hours=49))
        self.begin()
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(uploads.forget_old(), 1)
        self.assertEqual((Upload.objects.count(), len(self.waiting())), (1, 1))


class RequestTests(UploadTests):
    """All of that also by a student's link; the tests above run again with it."""

    def setUp(self) -> None:
        super().setUp()
        self.student = making.student(self.owner)
        body = json.dumps({"student_id": str(self.student.pk), "note": "Both views, please."})
        made = self.client.post("/api/requests", body, content_type="application/json")
        self.assertEqual(made.status_code, 201)
        self.token = made.json()["link"].rsplit("/", 1)[1]
        self.at = f"/api/sent/{self.token}/uploads"

    def send(self, address: str) -> Any:
        clip = {"upload_id": address.split("/")[-1], "view": "face_on"}
        body = {"words": "It felt odd.", "camera_place": "On my bag", "clips": [clip]}
        return self.client.post(f"/api/sent/{self.token}", json.dumps(body), content_type="application/json")

    def test_a_student_sends_without_an_account(self) -> None:
        self.client.logout()
        asked = self.client.get(f"/api/sent/{self.token}").json()
        self.assertEqual((asked["student"], asked["note"]), ("Tobin Farrow", "Both views, please."))
        self.assertNotIn("history", asked)
        data = making.demo_file()
        address = self.begin(len(data))["Location"]
        self.piece(address, data, 0)
        self.assertEqual((self.send(address).status_code, self.send(address).status_code), (201, 201))
        swing = Swing.objects.get()
        self.assertEqual(
            (swing.student, swing.words, swing.camera_place), (self.student, "It felt odd.", "On my bag")
        )
        again = self.begin(len(data), "again.mp4")["Location"]
        self.piece(again, data, 0)
        self.assertEqual(self.send(again).json()["detail"], "again.mp4: this clip has been sent already.")
        self.assertEqual(Clip.objects.count(), 1)

    def test_a_link_takes_so_much_and_no_more(self) -> None:
        with override_settings(LINK_UPLOADS=2):
            self.assertEqual([self.begin().status_code for _ in range(3)], [201, 201, 429])
        with override_settings(LINK_BYTES=2 * len(DATA)):
            self.assertEqual(self.begin().status_code, 413)
        Upload.objects.all().delete()
        data = making.demo_file()
        with override_settings(LINK_SWINGS_A_DAY=0):
            address = self.begin(len(data))["Location"]
            self.piece(address, data, 0)
            self.assertIn("send more tomorrow", self.send(address).json()["detail"])
        self.assertEqual(self.send(address).status_code, 201)

    def test_a_link_runs_out(self) -> None:
        SwingRequest.objects.update(expires_at=timezone.now() - timedelta(seconds=1))
        self.assertEqual(self.client.get(f"/api/sent/{self.token}").status_code, 404)
        self.assertEqual(self.begin().status_code, 404)

    def test_a_minor_s_file_is_not_taken_in_before_a_guardian_consents(self) -> None:
        Student.objects.filter(pk=self.student.pk).update(minor=True)
        answer = self.begin()
        self.assertEqual((answer.status_code, Upload.objects.count()), (403, 0))
        self.assertIn(b"guardian", answer.content)
        self.at = "/api/uploads"  # nor from the instructor
        whom = base64.b64encode(str(self.student.pk).encode()).decode()
        headers = {"Upload-Length": "9", "Upload-Metadata": f"for {whom}", "Tus-Resumable": "1.0.0"}
        self.assertEqual(self.client.post(self.at, headers=headers).status_code, 403)

    def test_a_link_taken_back_leads_nowhere(self) -> None:
        address = self.begin()["Location"]
        request = SwingRequest.objects.get()
        self.assertEqual(self.client.delete(f"/api/requests/{request.pk}").status_code, 204)
        self.client.logout()
        for answer in (
            self.client.get(f"/api/sent/{self.token}"),
            self.begin(),
            self.client.head(address),
            self.send(address),
        ):
            self.assertEqual(answer.status_code, 404)

    def test_a_new_link_replaces_the_old_one(self) -> None:
        body = json.dumps({"student_id": str(self.student.pk)})
        self.client.post("/api/requests", body, content_type="application/json")
        self.assertEqual(self.client.get(f"/api/sent/{self.token}").status_code, 404)
        self.assertEqual(len(self.client.get("/api/requests").json()), 1)

    def test_strangers_find_nothing(self) -> None:
        address = self.begin()["Location"]
        id = address.split("/")[-1]
        other = SwingRequest.objects.create(
            instructor=self.owner, student=making.student(self.owner, name="Dag")
        )
        self.assertEqual(self.client.head(f"/api/sent/{other.token}/uploads/{id}").status_code, 404)
        self.assertEqual(self.client.head(f"/api/uploads/{id}").status_code, 404)
        self.assertEqual(self.client.head(f"/api/sent/{uuid.uuid4()}/uploads/{id}").status_code, 404)
