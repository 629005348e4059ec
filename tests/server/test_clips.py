"""Clips coming in: kept, made ready, refused without a trace, served by ranges."""

from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile
from django.http import HttpResponse
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.models import Swing
from tropometer.server.bench.services import remove
from tropometer.server.clips import services
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.tasks import make_ready


class IntakeTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.student = making.student(self.owner, hand="left")
        self.client.force_login(self.owner)

    def send(self, data: bytes, name: str = "swing.mp4", **more: str) -> HttpResponse:
        form = {"student_id": self.student.pk, "view": "face_on", "club": "Wedge", **more}
        return self.client.post("/api/swings", {**form, "file": SimpleUploadedFile(name, data)})  # type: ignore[return-value]

    def test_a_clip_becomes_ready_with_its_true_times(self) -> None:
        answer = self.send(making.demo_file("ilse_face.mov"), "ilse_face.mov", capture_fps="120")
        self.assertEqual(answer.status_code, 201, answer.content)
        clip = Clip.objects.get()
        self.assertEqual((clip.state, clip.width, clip.height), (State.WAITING, 720, 1280))
        make_ready(**ProcrastinateJob.objects.get().args)
        clip.refresh_from_db()
        self.assertEqual(
            (clip.state, clip.progress, clip.frame_count),
            (State.READY, 100, len(truth("ilse_face")["times_s"]["frames"])),
        )
        times = services.times_s(clip)
        self.assertAlmostEqual(times[120], 1.0, places=4)
        services.process(clip.pk)  # a job that runs twice changes nothing
        self.assertEqual(self.files(), [f"clips/{clip.pk}/original", f"clips/{clip.pk}/proxy.mp4"])
        self.assertEqual(clip.original.read(), making.demo_file("ilse_face.mov"))

    def test_what_is_no_video_is_refused_and_leaves_nothing(self) -> None:
        cases = {"notes.mp4": b"just words" * 99, "empty.mov": b"", "song.webm": b"OggS" + bytes(900)}
        for name, data in cases.items():
            with self.subTest(name=name):
                answer = self.send(data, name)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(name, answer.json()["detail"])  # type: ignore[attr-defined]
        self.assertEqual((Swing.objects.count(), Clip.objects.count(), self.files()), (0, 0, []))

    def test_a_clip_that_breaks_in_the_middle_is_refused_and_its_file_goes(self) -> None:
        whole = making.demo_file()
        with patch.object(services, "check_upload"):
            swing = Swing.objects.create(instructor=self.owner, student=self.student)
            about = services.ClipIn(view="face_on", capture_fps=None)
            found = {"played_fps": 60, "width": 1280, "height": 720}
            upload = SimpleUploadedFile("cut.mp4", whole[: len(whole) // 2])
            clip = services.take_in(swing.pk, self.owner, upload, about, found)
        services.process(clip.pk)
        clip.refresh_from_db()
        self.assertEqual(clip.state, State.REFUSED)
        self.assertIn("damaged", clip.refusal)
        self.assertEqual(self.files(), [])

    def test_a_wrong_field_is_named(self) -> None:
        answer = self.send(making.demo_file(), capture_fps="fast")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("capture_fps", answer.json()["detail"])  # type: ignore[attr-defined]

    def test_removing_a_swing_removes_its_files(self) -> None:
        self.send(making.demo_file())
        remove(Swing.objects.get())
        self.assertEqual((Clip.objects.count(), self.files()), (0, []))


class ServingTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.clip = making.with_picture(making.marked_swing(self.owner), self.media)
        self.client.force_login(self.owner)
        self.data = self.clip.proxy.read()

    def get(self, range_: str | None = None) -> tuple[int, bytes, HttpResponse]:
        headers = {"Range": range_} if range_ else {}
        answer = self.client.get(f"/api/clips/{self.clip.pk}/proxy.mp4", headers=headers)
        streamed = getattr(answer, "streaming_content", None)
        return answer.status_code, b"".join(streamed) if streamed else answer.content, answer  # type: ignore[return-value]

    def test_ranges_follow_rfc_9110(self) -> None:
        size = len(self.data)
        self.assertEqual(self.get()[:2], (200, self.data))
        self.assertEqual(self.get("bytes=10-19")[:2], (206, self.data[10:20]))
        self.assertEqual(self.get("bytes=100-")[:2], (206, self.data[100:]))
        self.assertEqual(self.get("bytes=-7")[:2], (206, self.data[-7:]))
        status, _, answer = self.get(f"bytes={size}-")
        self.assertEqual((status, answer["Content-Range"]), (416, f"bytes */{size}"))
        self.assertEqual(self.get("bytes=0-9")[2]["Content-Range"], f"bytes 0-9/{size}")

    def test_private_media_is_not_for_shared_caches(self) -> None:
        self.assertIn("private", self.get()[2]["Cache-Control"])
        guessed = self.client.get(f"/media/clips/{self.clip.pk}/proxy.mp4")
        self.assertEqual(guessed["Content-Type"], "text/html; charset=utf-8")  # the screens, not the file
