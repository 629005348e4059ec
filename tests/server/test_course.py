"""A swing over time, from above, and the swings before it, as the API tells them."""

from datetime import timedelta

from django.test import TestCase
from django.utils import timezone

from tests.server import making
from tests.swings import truth
from tropometer.server.bench.models import Peg, Swing
from tropometer.swing.names import CHECKPOINTS

STEP_S = 1 / 60


class CourseTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.clip = making.marked_swing(self.owner, whole=True)
        self.client.force_login(self.owner)
        self.path = f"/api/swings/{self.clip.swing_id}"

    def test_a_curve_goes_through_the_readings_of_the_pegs(self) -> None:
        measured = self.client.get(self.path).json()["measured"]
        found = self.client.get(f"{self.path}/course?reading=pelvis_sway").json()
        self.assertEqual(found["clip_id"], str(self.clip.pk))
        self.assertEqual(found["frames"][0], making.PEGGED["address"])
        told = {r["at"]: r for r in making.rows(measured["readings"]) if r["reading"] == "pelvis_sway"}
        curve = dict(zip(found["frames"], found["curves"][0]["values"], strict=True))
        self.assertEqual(sum(value is not None for value in curve.values()), len(CHECKPOINTS))
        for at, frame in making.PEGGED.items():
            self.assertAlmostEqual(curve[frame], told[at]["value"], places=5)
        self.assertIn("heel_lift_trail", found["offered"])
        self.assertNotIn("stance_width", found["offered"])
        self.assertEqual(self.client.get(f"{self.path}/course?reading=stance_width").json()["curves"], [])
        self.assertTrue(found["stale"])  # no worker has followed the feet yet

    def test_the_relay_holds_the_pegged_starts(self) -> None:
        found = making.rows(self.client.get(f"{self.path}/course").json()["times"])
        starts = {r["at"]: r["value"] for r in found if r["reading"] == "start_times"}
        true = truth(making.TOBIN)["times_s"]
        self.assertGreater(len(true["starts"]), 4)
        for part, second in true["starts"].items():
            self.assertAlmostEqual(starts[part], second - true["checkpoints"]["top"], delta=STEP_S)
        Peg.objects.filter(clip=self.clip, name="chest_start").delete()
        found = making.rows(self.client.get(f"{self.path}/course").json()["times"])
        (chest,) = [r for r in found if r["reading"] == "start_times" and r["at"] == "chest"]
        self.assertEqual((chest["value"], chest["needs"][0]["name"]), (None, "chest_start"))

    def test_earlier_swings_of_the_same_student_come_latest_first(self) -> None:
        swing = self.clip.swing
        before = [making.marked_swing(self.owner, swing.student).swing for _ in range(2)]
        empty = Swing.objects.create(instructor=self.owner, student=swing.student)
        other = making.marked_swing(self.owner, making.student(self.owner, name="Dag Penhale")).swing
        for days, each in enumerate((*before, empty, other), 1):
            received = timezone.now() - timedelta(days=days)
            Swing.objects.filter(pk=each.pk).update(received_at=received)
        found = self.client.get(f"{self.path}/earlier").json()
        self.assertEqual([each["swing_id"] for each in found], [str(each.pk) for each in before])
        readings = {(r["reading"], r["at"]) for r in found[0]["readings"]}
        self.assertIn(("pelvis_sway", "top"), readings)
        self.assertEqual(self.client.get(f"/api/swings/{before[-1].pk}/earlier").json(), [])
