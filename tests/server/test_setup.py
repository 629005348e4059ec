"""A mat carried over to another clip of the same set-up: moved with the camera, or refused."""

import json
import uuid
from itertools import islice
from typing import Any

import numpy as np
from django.utils import timezone

from tests.server import making
from tests.swings import DEMO_CLIPS, truth
from tests.video import strip_clips
from tropometer.server.bench import first_look
from tropometer.server.bench.models import FirstLook, Mat, Swing
from tropometer.server.clips.models import Clip, State
from tropometer.server.people.models import User
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy, upright_frames

HERE, ELSEWHERE = "tobin_first_face", "dag_first_face"
MOVED = (6, -4)


class CarryTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.source = self.clip(self.owner, HERE, (0, 0))
        self.corners = truth(HERE)["mat_corners"]["pixels"]
        Mat.objects.create(
            clip=self.source, corners=[{"x": x, "y": y} for x, y in self.corners], along_m=1.56, across_m=1.56
        )

    def clip(self, owner: User, name: str, moved: tuple[int, int]) -> Clip:
        """A short clip of a demo clip's first pictures, the camera moved by some pixels."""
        first = [picture for picture, _ in islice(upright_frames(DEMO_CLIPS / f"{name}.mp4"), 2)]
        frames = [np.roll(picture, (moved[1], moved[0]), (0, 1)) for picture in first]
        film = strip_clips.write(self.media, "h264_b_frames.mp4", frames)
        target = f"{uuid.uuid4()}.mp4"
        made = make_proxy(film, self.media / target, probe(film))
        swing = Swing.objects.create(instructor=owner, student=making.student(owner), club="7 iron")
        return Clip.objects.create(
            instructor=owner, swing=swing, view="face_on", original_name=name, played_fps=60, proxy=target,
            state=State.READY, width=made.width, height=made.height, played_times_s=made.played_times_s,
        )  # fmt: skip

    def carry(self, target: Clip) -> Any:
        return self.client.get(f"/api/clips/{target.pk}/same-setup/{self.source.pk}")

    def test_it_moves_with_the_camera(self) -> None:
        for moved, said in (((0, 0), "stood still"), (MOVED, "had moved by 7 px")):
            target = self.clip(self.owner, HERE, moved)
            offered = self.client.get(f"/api/clips/{target.pk}/same-setup").json()
            self.assertIn(str(self.source.pk), [each["clip_id"] for each in offered])
            answer = self.carry(target).json()
            self.assertIn(said, answer.get("said", answer))
            for corner, (x, y) in zip(answer["mat"]["corners"], self.corners, strict=True):
                self.assertAlmostEqual(corner["x"], x + moved[0], delta=1.0)
                self.assertAlmostEqual(corner["y"], y + moved[1], delta=1.0)

    def test_the_first_look_carries_it_over_by_itself_and_lays_it_on_nothing(self) -> None:
        target = self.clip(self.owner, HERE, MOVED)
        elsewhere = self.clip(self.owner, ELSEWHERE, (0, 0))
        for each in (target, elsewhere):
            first_look.keep(each.swing_id)
        mats = FirstLook.objects.get(swing=target.swing_id).mats
        for corner, (x, y) in zip(mats[str(target.pk)]["corners"], self.corners, strict=True):
            self.assertAlmostEqual(corner["x"], x + MOVED[0], delta=1.0)
            self.assertAlmostEqual(corner["y"], y + MOVED[1], delta=1.0)
        self.assertEqual(FirstLook.objects.get(swing=elsewhere.swing_id).mats, {})
        self.assertEqual(Mat.objects.get().clip_id, self.source.pk)

    def test_another_set_up_is_refused_in_plain_words(self) -> None:
        answer = self.carry(self.clip(self.owner, ELSEWHERE, (0, 0)))
        self.assertEqual(answer.status_code, 422)
        self.assertIn("lick the", json.loads(answer.content)["detail"])

    def sizes(self, clip: Clip) -> list[tuple[float, str, str]]:
        found = self.client.get(f"/api/clips/{clip.pk}/mat-sizes").json()
        return [(each["along_m"], each["place"], each["said"]) for each in found]

    def test_a_place_with_a_name_remembers_the_size_that_was_said_last(self) -> None:
        target = making.marked_swing(self.owner)  # of another size of picture: only a name tells where it is
        Clip.objects.filter(pk=target.pk).update(width=640, height=360)
        target.refresh_from_db()
        self.assertEqual(self.sizes(target), [])
        for along, place in ((1.5, "bay 4"), (1.2, "bay 7"), (1.56, "bay 4")):
            clip = Clip.objects.create(
                instructor=self.owner,
                swing=Swing.objects.create(instructor=self.owner, student=target.swing.student),
                view="face_on", original_name=place, played_fps=60, state=State.READY,
                width=1280, height=720, played_times_s=[0, 1],
            )  # fmt: skip
            corners = [{"x": x, "y": y} for x, y in self.corners]
            Mat.objects.create(clip=clip, corners=corners, along_m=along, across_m=along, place=place)
        offered = [(1.56, "bay 4", "as in bay 4"), (1.2, "bay 7", "as in bay 7")]
        self.assertEqual(self.sizes(target), offered)
        # A swing in the bin offers nothing.
        clip.swing.removed_at = timezone.now()
        clip.swing.save()
        self.assertEqual(self.sizes(target)[0], (1.2, "bay 7", "as in bay 7"))

    def test_a_stranger_s_mat_is_not_offered(self) -> None:
        stranger = making.instructor("Odd Stranger")
        theirs = self.clip(stranger, HERE, (0, 0))
        self.client.force_login(stranger)
        self.assertEqual(self.client.get(f"/api/clips/{theirs.pk}/same-setup").json(), [])
        self.assertEqual(self.carry(theirs).status_code, 404)
        Mat.objects.update(place="bay 4")
        self.assertEqual(self.sizes(theirs), [])
