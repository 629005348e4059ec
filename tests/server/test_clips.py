"""Clips coming in: kept, made ready, refused into quarantine, served by ranges."""

import json
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch

import numpy as np
from django.http import HttpResponse
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.clips import services
from tropometer.server.clips.models import Clip, State, Upload
from tropometer.server.clips.services import forget_refused
from tropometer.server.clips.tasks import make_ready
from tropometer.server.clips.uploads import forget_old
from tropometer.server.demo.drawn import put_on
from tropometer.video.proxy import upright_frames


class IntakeTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.student = making.student(self.owner, hand="left")
        self.client.force_login(self.owner)

    def send(self, *clips: dict[str, Any], **more: Any) -> HttpResponse:
        body = {"student_id": str(self.student.pk), "club": "Wedge", "clips": list(clips), **more}
        with self.captureOnCommitCallbacks(execute=True):
            return self.client.post("/api/swings", json.dumps(body), content_type="application/json")  # type: ignore[return-value]

    def arrived(self, data: bytes, name: str = "swing.mp4", **about: Any) -> dict[str, Any]:
        return making.arrived(self.owner, data, name, **about)

    def test_a_clip_becomes_ready_with_its_true_times(self) -> None:
        answer = self.send(self.arrived(making.demo_file("ilse_face.mov"), "ilse_face.mov", capture_fps=120))
        self.assertEqual(answer.status_code, 201, answer.content)
        clip = Clip.objects.get()
        self.assertEqual((clip.state, clip.width, clip.height), (State.WAITING, 720, 1280))
        self.assertEqual(ProcrastinateJob.objects.get().task_name, make_ready.name)
        services.process(clip.pk)
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

    def test_what_is_no_video_is_refused_and_waits_in_quarantine(self) -> None:
        cases = {"notes.mp4": b"just words" * 99, "song.webm": b"OggS" + bytes(900), "zeros.mov": bytes(9000)}
        for name, data in cases.items():
            with self.subTest(name=name):
                answer = self.send(self.arrived(data, name))
                self.assertEqual(answer.status_code, 422)
                self.assertIn(name, answer.json()["detail"])  # type: ignore[attr-defined]
        self.assertEqual((Swing.objects.count(), Clip.objects.count(), self.files()), (0, 0, []))
        self.assertEqual(len(self.waiting()), 3)
        listed = self.client.get("/api/bin").json()
        self.assertEqual({each["title"] for each in listed}, set(cases))
        for each in listed:
            fetched = self.client.get(f"/api/bin/file/{each['id']}/content")
            self.assertEqual(b"".join(fetched), cases[each["title"]])  # type: ignore[call-overload]
            self.assertIn(f'attachment; filename="{each["title"]}"', fetched["Content-Disposition"])
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get(f"/api/bin/file/{listed[0]['id']}/content").status_code, 404)
        self.client.force_login(self.owner)
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(self.client.delete(f"/api/bin/file/{listed[0]['id']}").status_code, 204)
            Upload.objects.update(refused_at=timezone.now() - timedelta(days=13))
            self.assertEqual(forget_old(), 0)
            Upload.objects.update(refused_at=timezone.now() - timedelta(days=15))
            self.assertEqual(forget_old(), 2)
        self.assertEqual(self.waiting(), [])

    def test_one_bad_file_does_not_stop_the_others(self) -> None:
        good = self.arrived(making.demo_file())
        bad = self.arrived(b"words " * 500, "notes.mp4", view="down_the_line")
        answer = self.send(good, bad)
        self.assertEqual(answer.status_code, 201)
        refused = answer.json()["refused"]  # type: ignore[attr-defined]
        self.assertEqual(refused, ["notes.mp4: This file is not a video, or it is damaged."])
        self.assertEqual(Clip.objects.get().original_name, "swing.mp4")
        self.assertEqual(len(self.files()), 1)
        self.assertEqual(Upload.objects.get().refusal, refused[0])

    def test_a_clip_sent_twice_is_known_by_its_content(self) -> None:
        self.send(self.arrived(making.demo_file()))
        again = self.send(self.arrived(making.demo_file(), "renamed.mp4"))
        self.assertEqual(again.status_code, 422)
        detail = again.json()["detail"]  # type: ignore[attr-defined]
        self.assertRegex(detail, r"^renamed\.mp4: this clip is here already, with Tobin Farrow since")
        twice = [self.arrived(making.demo_file("ilse_face.mov"), name) for name in ("a.mov", "b.mov")]
        self.assertIn("same clip twice", self.send(*twice).json()["refused"][0])  # type: ignore[attr-defined]
        once = self.arrived(making.demo_file("dag_first_face.mp4"))
        self.assertEqual(self.send(once, once).status_code, 201)  # named twice, and not lost for it
        after = self.send(twice[1], self.arrived(making.demo_file("wynn_line.mp4"), view="down_the_line"))
        self.assertIn("choose it again", after.json()["refused"][0])  # type: ignore[attr-defined]
        self.client.force_login(stranger := making.instructor("Odd Stranger"))
        body = {
            "student_id": str(making.student(stranger).pk),
            "clips": [making.arrived(stranger, making.demo_file())],
        }
        other = self.client.post("/api/swings", json.dumps(body), content_type="application/json")
        self.assertEqual(other.status_code, 201)  # what one instructor has is no business of another

    def test_a_clip_that_breaks_in_the_middle_is_refused_and_its_file_waits(self) -> None:
        whole = making.demo_file()
        found = {"played_fps": 60, "width": 1280, "height": 720, "capture_fps": None}
        with patch.object(services, "video", return_value=iter([found])):
            self.send(self.arrived(whole[: len(whole) // 2], "cut.mp4"))
        clip = Clip.objects.get()
        services.process(clip.pk)
        clip.refresh_from_db()
        self.assertEqual(clip.state, State.REFUSED)
        self.assertIn("damaged", clip.trouble)
        self.assertEqual(self.files(), [f"clips/{clip.pk}/original"])
        fetched = self.client.get(f"/api/clips/{clip.pk}/original")
        self.assertEqual(b"".join(fetched), whole[: len(whole) // 2])  # type: ignore[call-overload]
        forget_refused()
        self.assertEqual(len(self.files()), 1)
        Clip.objects.update(refused_at=timezone.now() - timedelta(days=15))
        forget_refused()
        self.assertEqual(self.files(), [])

    def test_a_wrong_field_is_named(self) -> None:
        answer = self.send(self.arrived(making.demo_file(), capture_fps="fast"))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("clips.0.capture_fps", answer.json()["detail"])  # type: ignore[attr-defined]

    def test_a_clip_filmed_in_a_mirror_is_turned_round_with_its_marks(self) -> None:
        self.send(self.arrived(making.demo_file()))
        clip = Clip.objects.get()
        services.process(clip.pk)
        clip.refresh_from_db()
        put_on(clip, making.TOBIN, whole=False)
        before = Mark.objects.get(clip=clip, name="lead_hip", frame=making.PEGGED["top"]).x
        first = next(picture for picture, _ in upright_frames(Path(clip.proxy.path)))
        body = json.dumps({"view": "face_on", "flipped": True})
        self.client.put(f"/api/clips/{clip.pk}/about", body, content_type="application/json")
        services.process(clip.pk)
        clip.refresh_from_db()
        self.assertEqual((clip.state, clip.flipped), (State.READY, True))
        after = Mark.objects.get(clip=clip, name="lead_hip", frame=making.PEGGED["top"]).x
        self.assertAlmostEqual(after, clip.width - before)
        turned = next(picture for picture, _ in upright_frames(Path(clip.proxy.path)))
        difference = np.abs(turned[:, ::-1].astype(int) - first.astype(int)).mean()
        self.assertLess(difference, 3)  # the same picture, but for its encoding


class ServingTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.clip = making.with_picture(making.marked_swing(self.owner), self.media.parent)
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

    def test_a_kept_clip_is_asked_for_again_and_not_sent_again(self) -> None:
        address = f"/api/clips/{self.clip.pk}/proxy.mp4"
        etag = self.get()[2]["ETag"]
        again = self.client.get(address, headers={"If-None-Match": etag})
        self.assertEqual((again.status_code, again.content), (304, b""))
        part = {"Range": "bytes=10-19", "If-Range": etag}
        self.assertEqual(self.client.get(address, headers=part).status_code, 206)
        Clip.objects.filter(pk=self.clip.pk).update(flipped=True)
        for headers in ({"If-None-Match": etag}, part):  # another picture now
            self.assertEqual(self.client.get(address, headers=headers).status_code, 200)
        self.client.force_login(making.instructor("Pell Orrin"))
        self.assertEqual(self.client.get(address, headers={"If-None-Match": etag}).status_code, 404)

    def test_private_media_is_not_for_shared_caches(self) -> None:
        self.assertIn("private", self.get()[2]["Cache-Control"])
        guessed = self.client.get(f"/media/clips/{self.clip.pk}/proxy.mp4")
        self.assertEqual(guessed["Content-Type"], "text/html; charset=utf-8")  # the screens, not the file
