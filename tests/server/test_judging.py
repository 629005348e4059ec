"""Swings judged on the server: what is decided on them, what a lesson is about, and what came of it."""

import json
from datetime import timedelta
from typing import Any

from django.test import TestCase

from tests.server import making
from tests.server.test_teaching import OWN
from tropometer.server.bench.models import Mark, Swing
from tropometer.server.judging.models import Plan
from tropometer.server.lessons.models import Lesson

SWAY = {"reading": "pelvis_sway", "at": "top", "low": -0.06, "high": -0.005}
TURNS_IN = {"motion": "trail_hip_in", "degrees": 25.0, "measured_on": "2026-11-02"}


class Judging(TestCase):
    """A swing that was drawn to sway, whole and marked."""

    def setUp(self) -> None:
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.swing = making.marked_swing(self.owner, whole=True).swing

    def call(self, method: str, path: str, body: Any = None, status: int = 204) -> Any:
        answer = self.client.generic(method, path, json.dumps(body or {}), content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json() if answer.content else None

    @property
    def path(self) -> str:
        return f"/api/swings/{self.swing.pk}"

    def judged(self, model: str = "", swing: Swing | None = None) -> dict[str, Any]:
        path = f"/api/swings/{(swing or self.swing).pk}/judgement?model={model}"
        found: dict[str, Any] = self.call("GET", path, status=200)
        return found

    def finding(self, fault: str) -> dict[str, Any]:
        found: dict[str, Any] = next(f for f in self.judged()["findings"] if f["fault"] == fault)
        return found

    def body(self, **said: Any) -> None:
        self.call("PUT", f"/api/students/{self.swing.student_id}/body", said, status=200)

    def plan(self, **more: Any) -> dict[str, Any]:
        drills = [{"drill": "stick_by_the_hip", "dose": "ten a day"}]
        return {"focus": [{"fault": "sways", "words": "", "drills": drills, "goal": None, **more}]}


class JudgementTests(Judging):
    def test_a_swing_that_was_drawn_to_sway_is_said_to(self) -> None:
        found = self.judged()
        sways = next(each for each in found["findings"] if each["fault"] == "sways")
        self.assertIn(sways["verdict"], ("shown", "likely"))
        self.assertEqual(sways["size"], "strong")
        self.assertIn("the pelvis sways about", sways["teacher"])
        self.assertIn("right (back) seat pocket", sways["student"])
        self.assertTrue(sways["witnesses"][0]["frames"])
        self.assertIn("sways", [each["fault"] for each in [*found["focus"], *found["roots"]]])

    def test_another_model_may_be_asked(self) -> None:
        self.assertEqual(self.judged("both_sides")["model"], "both_sides")
        answer = self.client.get(f"{self.path}/judgement?model=nobody")
        self.assertEqual(answer.status_code, 422)

    def test_a_teacher_s_own_fault_is_judged_too(self) -> None:
        self.client.post("/api/book/pages", {"text": OWN}, content_type="application/json")
        own = [each for each in self.judged()["findings"] if each["fault"] == "own_fault"]
        self.assertEqual([each["verdict"] for each in own], ["shown"])

    def test_what_rests_on_marks_that_nobody_looked_at_is_provisional(self) -> None:
        self.assertFalse(any(each["provisional"] for each in self.judged()["findings"]))
        for clip in self.swing.clips.all():
            clip.marks.update(source="proposed")
        self.assertTrue(any(each["provisional"] for each in self.judged()["findings"] if each["witnesses"]))

    def test_what_hurts_and_what_goes_wrong_is_judged_with(self) -> None:
        self.body(aches=[{"part": "trail_hip", "trouble": "pain"}], misses=["heavy"])
        found = self.judged()
        self.assertEqual(found["misses"], ["heavy"])
        offers = {each["id"]: each for each in self.finding("sways")["drills"]}
        self.assertTrue(offers["stick_by_the_hip"]["cautions"])
        self.assertTrue(any("heavy" in root["misses"] for root in found["roots"]))
        Swing.objects.update(misses=["slice"], hurts=["low_back"])
        self.assertEqual(self.judged()["misses"], ["slice"])
        self.assertTrue(
            {each["id"]: each for each in self.finding("sways")["drills"]}["band_across_the_hip"]["barred"]
        )

    def test_a_hip_that_turns_little_is_asked_to_turn_less(self) -> None:
        path = f"/api/swings/{self.swing.pk}"
        before = self.call("GET", path, status=200)["measured"]["state"]
        self.body(motions=[TURNS_IN | {"degrees": 15.0}])
        self.assertNotEqual(self.call("GET", path, status=200)["measured"]["state"], before)


class DecisionTests(Judging):
    def decide(self, fault: str, decision: str, verdict: str = "shown") -> None:
        said = {"decision": decision, "reason": "By eye", "verdict_then": verdict, "certainty_then": 0.95}
        self.call("PUT", f"{self.path}/decisions/{fault}", said)

    def test_what_is_rejected_leaves_the_chain_and_comes_back(self) -> None:
        self.decide("sways", "rejected", self.finding("sways")["verdict"])
        sways = self.finding("sways")
        self.assertFalse(sways["active"])
        self.assertEqual((sways["decided"]["reason"], sways["decided"]["changed"]), ("By eye", False))
        self.assertNotIn("sways", [root["fault"] for root in self.judged()["roots"]])
        self.call("PUT", f"{self.path}/decisions/sways", {"decision": None})
        self.assertTrue(self.finding("sways")["active"])

    def test_what_was_decided_stands_and_says_that_the_evidence_changed(self) -> None:
        self.decide("sways", "accepted", self.finding("sways")["verdict"])
        Mark.objects.filter(clip__swing=self.swing).delete()
        sways = self.finding("sways")
        self.assertEqual((sways["active"], sways["verdict"]), (True, "cannot_be_seen"))
        self.assertTrue(sways["decided"]["changed"])

    def test_a_fault_is_added_by_eye_and_an_unknown_one_is_not(self) -> None:
        self.decide("posed_finish", "added", "cannot_be_seen")
        self.assertTrue(self.finding("posed_finish")["active"])
        self.assertNotIn(
            "decided", [f["decided"] for f in self.judged("centred")["findings"] if f["decided"]]
        )
        said = {"decision": "added"}
        refused = self.call("PUT", f"{self.path}/decisions/moonwalks", said, status=422)
        self.assertIn("there is no fault called moonwalks", refused["detail"])

    def test_nobody_decides_on_a_stranger_s_swing(self) -> None:
        self.client.force_login(making.instructor("Odd Lyng"))
        for method, path in (
            ("GET", "judgement"), ("PUT", "decisions/sways"), ("GET", "plan"), ("PUT", "plan"),
        ):  # fmt: skip
            body = {"decision": "accepted"} if "decisions" in path else {"plan": None}
            self.call(method, f"{self.path}/{path}", body, status=404)
        self.call("GET", f"/api/students/{self.swing.student_id}/body", status=404)
        self.call("PUT", f"/api/students/{self.swing.student_id}/body", {}, status=404)


class PlanTests(Judging):
    def choose(self, plan: Any, status: int = 204, id: str | None = None) -> Any:
        return self.call("PUT", f"{self.path}/plan", {"id": id, "plan": plan}, status)

    def test_a_plan_that_arrives_again_does_not_undo_a_later_one(self) -> None:
        id = "11111111-1111-4111-8111-111111111111"
        self.choose(self.plan(words="First."), id=id)
        self.choose(self.plan(words="Then."))
        self.choose(self.plan(words="First."), id=id)
        self.assertEqual(Plan.objects.get().document["focus"][0]["words"], "Then.")

    def sent(self) -> Any:
        Lesson.objects.create(instructor=self.owner, swing=self.swing, opening="Good posture.")
        return self.call("POST", f"/api/lessons/{Lesson.objects.get().pk}/send", status=200)

    def test_a_plan_is_kept_and_told_in_the_student_s_words(self) -> None:
        self.assertIsNone(self.call("GET", f"{self.path}/plan", status=200))
        self.choose(self.plan())
        (focus,) = self.call("GET", f"{self.path}/plan", status=200)["focus"]
        self.assertIn("right (back) seat pocket", focus["words"])
        self.assertEqual(focus["drills"][0]["dose"], "ten a day")
        self.assertEqual(self.judged()["plan"]["focus"][0]["fault"], "sways")
        self.choose(None)
        self.assertIsNone(self.judged()["plan"])

    def test_what_must_not_be_is_refused_by_its_field(self) -> None:
        self.body(
            aches=[{"part": "low_back", "trouble": "operation"}, {"part": "trail_knee", "trouble": "pain"}]
        )
        for plan, words in (
            (self.plan(fault="moonwalks"), "focus[0].fault: there is no fault called moonwalks"),
            (self.plan(drills=[{"drill": "dance"}]), "focus[0].drills[0]: there is no drill called dance"),
            (self.plan(drills=[{"drill": "band_across_the_hip"}]), "is not for a low back that hurts"),
            (self.plan(drills=[{"drill": "club_across_the_thighs"}]), "waits until a physician"),
            (
                self.plan(goal={"reading": "pelvis_sway", "at": "nowhere", "low": 0}),
                "there is no such reading there",
            ),
            (self.plan(goal={"reading": "pelvis_sway", "at": "top", "low": 1, "high": 0}), "upside down"),
            ({"focus": self.plan()["focus"] * 2}, "a fault is there twice"),
        ):
            refused = self.choose(plan, 422)
            self.assertIn(words, json.dumps(refused))
        self.assertFalse(Plan.objects.exists())

    def test_a_plan_stays_in_the_words_in_which_it_was_sent(self) -> None:
        self.choose(self.plan(words="Turn behind you."))
        link = self.sent()["link"]
        self.body(aches=[{"part": "low_back", "trouble": "pain"}])
        Mark.objects.filter(clip__swing=self.swing).delete()
        sheet = self.client.get(f"/api/sheets/{link.rsplit('/', 1)[1]}").json()
        self.assertEqual(sheet["plan"]["focus"][0]["words"], "Turn behind you.")
        self.assertEqual(sheet["plan"]["focus"][0]["drills"][0]["cautions"], [])
        refused = self.choose(self.plan(), 422)
        self.assertIn("has been sent", refused["detail"])
        self.call("POST", f"/api/lessons/{Lesson.objects.get().pk}/take-back", status=200)
        self.choose(self.plan())

    def test_what_rests_on_marks_that_nobody_looked_at_is_not_sent(self) -> None:
        self.choose(self.plan())
        Mark.objects.filter(clip__swing=self.swing).update(source="tracked")
        Lesson.objects.create(instructor=self.owner, swing=self.swing, opening="Good posture.")
        refused = self.call("POST", f"/api/lessons/{Lesson.objects.get().pk}/send", status=409)
        self.assertIn("marks that nobody looked at", refused["detail"])
        self.assertIsNone(Lesson.objects.get().sent_at)

    def test_what_is_chosen_after_the_sending_is_not_on_the_student_s_page(self) -> None:
        link = self.sent()["link"]
        self.choose(self.plan())
        self.assertIsNone(self.client.get(f"/api/sheets/{link.rsplit('/', 1)[1]}").json()["plan"])

    def test_what_is_not_found_any_more_is_not_sent_unless_the_instructor_says_so(self) -> None:
        self.choose(self.plan())
        Mark.objects.filter(clip__swing=self.swing).delete()
        Lesson.objects.create(instructor=self.owner, swing=self.swing, opening="Good posture.")
        path = f"/api/lessons/{Lesson.objects.get().pk}/send"
        self.assertIn("is not found in this swing", self.call("POST", path, status=409)["detail"])
        self.call("PUT", f"{self.path}/decisions/sways", {"decision": "accepted"})
        self.assertIsNotNone(self.call("POST", path, status=200)["sent_at"])

    def test_own_words_are_offered_again(self) -> None:
        self.choose(self.plan(words="Turn behind you."))
        self.assertEqual(self.finding("sways")["phrase"], "Turn behind you.")

    def test_the_next_swing_says_what_has_become_of_the_focus(self) -> None:
        self.choose(self.plan(goal=SWAY | {"by": "2026-12-24"}))
        self.sent()
        Swing.objects.update(received_at=self.swing.received_at - timedelta(days=30))
        later = making.marked_swing(self.owner, self.swing.student, whole=True).swing
        (earlier,) = self.judged(swing=later)["earlier"]
        self.assertEqual((earlier["state"], earlier["change"]["moved"]), ("not_yet", "unsure"))
        self.assertAlmostEqual(earlier["change"]["by"], 0.0)
        self.assertEqual(self.judged(swing=later)["focus"][0]["fault"], "sways")
        self.assertIn("left from last time", self.judged(swing=later)["focus"][0]["why"])


class BodyTests(Judging):
    def test_a_body_is_kept_whole_or_not_at_all(self) -> None:
        path = f"/api/students/{self.swing.student_id}/body"
        kept = {
            "aches": [
                {"part": "", "trouble": "dizziness", "agreed_by": "Dr Holm", "agreed_on": "2026-10-01"},
                {"part": "lead_hip", "trouble": "replaced", "agreed_by": "", "agreed_on": None},
            ],
            "motions": [TURNS_IN],
            "misses": ["heavy", "pull"],
            "good_clubs": ["wedge"],
            "bad_clubs": ["driver"],
        }
        self.assertEqual(self.call("PUT", path, kept, status=200), kept)
        for changed, words in (
            (
                {"motions": [{"motion": "ear_wiggle", "degrees": 3, "measured_on": "2026-11-02"}]},
                "motions[0]: motions.ear_wiggle",
            ),
            (
                {"motions": [{"motion": "trail_hip_in", "degrees": 160, "measured_on": "2026-11-02"}]},
                "160 degrees is not between",
            ),
            ({"aches": [{"part": "lead_elbow", "trouble": "pain"}]}, "aches"),
            ({"aches": [{"part": "neck", "trouble": "pain", "agreed_by": "Dr Holm"}]}, "on which day"),
            ({"aches": [{"part": "neck", "trouble": "pain"}] * 2}, "is there twice"),
            ({"misses": ["lost"]}, "misses"),
            ({"aches": [{"part": "neck", "trouble": "pain", "agreed_on": "2026-10-01"}]}, "who agreed"),
        ):
            self.assertIn(words, json.dumps(self.call("PUT", path, {**kept, **changed}, status=422)))
        self.assertEqual(self.call("GET", path, status=200), kept)
        nobody = {"part": "neck", "trouble": "pain", "agreed_by": " ", "agreed_on": None}
        said = self.call("PUT", path, {"aches": [nobody]}, status=200)
        self.assertEqual(said["aches"], [nobody | {"agreed_by": ""}])
