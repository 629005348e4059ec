"""Marks followed by a worker: what is followed anew, what is kept, what it costs to open."""

import json
import time
import uuid
from typing import Any
from unittest.mock import patch

import numpy as np
from django.db import connection
from django.test.utils import CaptureQueriesContext
from procrastinate.contrib.django.models import ProcrastinateJob

from tests.server import making
from tests.server.seen import put_proposals
from tests.swings import DEMO_CLIPS, truth
from tropometer.server.bench import tracking
from tropometer.server.bench.models import CarriedMark, HiddenMark, Mark, Track
from tropometer.server.bench.tasks import follow_marks
from tropometer.server.clips.models import Clip
from tropometer.swing.names import MARKS, TRACKED
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy

NAME = "lead_toe"


class FollowTests(making.MediaCase):
    """On the picture of a demo clip."""

    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner)
        proxy = self.media / "proxy.mp4"
        source = DEMO_CLIPS / f"{making.TOBIN}.mp4"
        make_proxy(source, proxy, probe(source))
        Clip.objects.filter(pk=self.clip.pk).update(proxy="proxy.mp4")
        self.clip.refresh_from_db()
        Mark.objects.filter(clip=self.clip, name__in=TRACKED).delete()
        self.true = np.array(truth(making.TOBIN)["pixels"][NAME])
        self.client.force_login(self.owner)

    def put(self, frame: int, dx: float = 0.0) -> Any:
        x, y = self.true[frame] + [dx, 0]
        place = {"x": x, "y": y, "sd_px": 1.5}
        edit = {"id": str(uuid.uuid4()), "kind": "mark", "name": NAME, "frame": frame, "place": place}
        return self.client.post(
            f"/api/clips/{self.clip.pk}/edits", {"edits": [edit]}, content_type="application/json"
        )

    def tracks(self) -> Any:
        return self.client.get(f"/api/clips/{self.clip.pk}/tracks").json()

    def test_following_that_fails_is_asked_for_again_three_times_and_never_twice_at_once(self) -> None:
        waiting = ProcrastinateJob.objects.filter(task_name=follow_marks.name, status="todo")
        self.put(9)
        tries = []
        with patch("tropometer.server.bench.tasks.follow", side_effect=OSError):
            for number in range(3):
                with self.assertRaises(OSError):  # the same waits already: it is left to that one
                    follow_marks(str(self.clip.pk), number)
                tries.append(waiting.get().args.get("tries"))
                with connection.cursor() as cursor:
                    cursor.execute("UPDATE procrastinate_jobs SET status = 'failed' WHERE status = 'doing'")
                    cursor.execute("UPDATE procrastinate_jobs SET status = 'doing' WHERE status = 'todo'")
                with self.assertRaises(OSError):
                    follow_marks(str(self.clip.pk), number)
        self.assertEqual(tries, [0, 1, 2])
        self.assertFalse(waiting.exists())

    def test_a_mark_by_hand_is_carried_to_the_pegs_as_a_better_proposal(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        address, top = making.PEGGED["address"], making.PEGGED["top"]

        def toe() -> dict[str, Any]:
            marks = self.client.get(f"/api/clips/{self.clip.pk}/proposed-marks/{top}").json()
            (found,) = [each for each in marks if each["name"] == NAME]
            return dict(found)

        before = toe()
        self.put(address)
        self.assertTrue(self.tracks()["stale"])
        follow_marks(str(self.clip.pk))
        self.assertFalse(self.tracks()["stale"])
        after = toe()
        self.assertLess(after["sd_px"], before["sd_px"] / 2)
        self.assertLess(np.hypot(after["x"] - self.true[top][0], after["y"] - self.true[top][1]), 4)
        self.assertFalse(Mark.objects.filter(clip=self.clip, name=NAME).exclude(frame=address).exists())
        self.put(address, dx=30)  # it stood elsewhere: what was carried is nothing any more
        self.assertGreater(toe()["sd_px"], 2 * after["sd_px"])
        self.client.post(
            f"/api/clips/{self.clip.pk}/edits",
            {
                "edits": [
                    {"id": str(uuid.uuid4()), "kind": "mark", "name": NAME, "frame": address, "place": None}
                ]
            },
            content_type="application/json",
        )
        follow_marks(str(self.clip.pk))
        self.assertFalse(CarriedMark.objects.exists())

    def test_a_mark_is_followed_between_placed_ones_and_only_what_changed_is_followed_anew(self) -> None:
        for frame in (9, 32, 59):
            self.put(frame)
        self.assertTrue(self.tracks()["stale"])
        follow_marks(str(self.clip.pk))
        found = self.tracks()
        self.assertFalse(found["stale"])
        (track,) = found["tracks"]
        self.assertEqual((track["name"], track["first"], len(track["x"])), (NAME, 9, 51))
        missed = np.hypot(
            np.array(track["x"]) - self.true[9:60, 0], np.array(track["y"]) - self.true[9:60, 1]
        )
        self.assertLess(np.percentile(missed, 95), 3)
        self.put(59, dx=1.0)
        with patch.object(tracking, "_track", wraps=tracking._track) as followed:
            follow_marks(str(self.clip.pk))
        self.assertEqual([pair[0].frame for _, pair in followed.call_args.args[2]], [32])

    def test_hidden_in_between_is_not_followed_and_shown_again_is(self) -> None:
        for frame in (9, 32):
            self.put(frame)
        hidden = HiddenMark.objects.create(clip=self.clip, name=NAME, frame=20)
        follow_marks(str(self.clip.pk))
        self.assertIsNone(self.tracks()["tracks"][0]["x"][10])
        hidden.delete()
        self.assertTrue(self.tracks()["stale"])
        follow_marks(str(self.clip.pk))
        self.assertIsNotNone(self.tracks()["tracks"][0]["x"][10])

    def test_a_single_mark_has_no_track_and_one_taken_away_ends_it(self) -> None:
        for frame in (9, 32):
            self.put(frame)
        follow_marks(str(self.clip.pk))
        Mark.objects.filter(clip=self.clip, name=NAME, frame=32).delete()
        follow_marks(str(self.clip.pk))
        self.assertEqual(self.tracks(), {"stale": False, "tracks": []})

    def test_a_followed_mark_counts_at_a_peg_and_is_told_apart(self) -> None:
        for frame in (9, 59):
            self.put(frame)
        follow_marks(str(self.clip.pk))
        record = self.client.get(f"/api/swings/{self.clip.swing_id}/record").json()
        rows = {row[0]: row for row in record["clips"][0]["marks"][NAME]}
        self.assertEqual((rows[9][4], rows[32][4]), ("hand", "tracked"))
        self.assertGreaterEqual(rows[32][3], 1.5)  # no better than the marks it hangs between

    def test_its_path_is_smooth_and_a_stranger_s_is_not_found(self) -> None:
        for frame in (9, 32, 59):
            self.put(frame)
        follow_marks(str(self.clip.pk))
        path = self.client.get(f"/api/clips/{self.clip.pk}/paths/{NAME}").json()
        self.assertEqual(len(path["x"]), 51)
        self.assertIsNotNone(path["cutoff_hz"])
        self.assertEqual(self.client.get(f"/api/clips/{self.clip.pk}/paths/seat").status_code, 404)


class CostTests(making.MediaCase):
    def test_a_long_clip_with_every_mark_on_every_frame_opens_soon_and_in_few_queries(self) -> None:
        owner = making.instructor()
        clip = making.marked_swing(owner)
        frames, names = 720, [*TRACKED, *sorted(MARKS - set(TRACKED))][:25]
        Clip.objects.filter(pk=clip.pk).update(played_times_s=[n / 240 for n in range(frames)])
        Mark.objects.filter(clip=clip).delete()
        placed = range(0, frames, 80)
        Mark.objects.bulk_create(
            Mark(clip=clip, name=name, frame=frame, x=1.0, y=2.0, sd_px=1.5)
            for name in names
            for frame in placed
        )
        values = np.random.default_rng(0).uniform(0, 700, (frames, 3)).astype(np.float32).tobytes()
        basis = {"placed": [[frame, 1.0, 2.0] for frame in placed], "hidden": [], "guided": False}
        Track.objects.bulk_create(
            Track(clip=clip, name=name, basis=basis, first_frame=0, values=values) for name in TRACKED
        )
        self.client.force_login(owner)
        urls = (f"/api/swings/{clip.swing_id}", f"/api/clips/{clip.pk}/tracks")
        for url in urls:
            self.client.get(url)  # what is only made once
        with CaptureQueriesContext(
            connection,
        ) as queries:
            began = time.perf_counter()
            sizes = [len(self.client.get(url).content) for url in urls]
            took = time.perf_counter() - began
        self.assertLess(len(queries), 25)
        # Measured, and printed by ./tropo bench; here only that nothing grows out of hand.
        self.assertLess(sum(sizes), 700_000, f"{took:.3f} s")

    def test_one_edit_is_short_on_the_wire(self) -> None:
        place = {"x": 1234.5678901234567, "y": 987.65432109876543, "sd_px": 1.4999999999, "source": "hand"}
        edit = {
            "id": str(uuid.uuid4()), "gesture": str(uuid.uuid4()), "way": "do",
            "kind": "mark", "name": "trail_foot_outer", "frame": 719, "place": place,
        }  # fmt: skip
        self.assertLess(len(json.dumps({"edits": [edit], "seen": 1000})), 1000)
