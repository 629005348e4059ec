"""The book on the server: pages of one's own, teaching models, and swings judged by them."""

from typing import Any

from django.test import TestCase

from tests.server import making
from tropometer.server.teaching.models import Page
from tropometer.teaching.knowledge.pages import shipped

OWN = """kind = "fault"
id = "own_fault"
name = "My own"
moment = "top"
no_drill = "Not yet."
evidence = { reading = "pelvis_sway", at = "top", below = 1.0 }
[words]
teacher = "Mine: {pelvis_sway.top}."
student = "Mine."
line = "Mine."
"""
MODEL = 'kind = "model"\nid = "own_model"\nname = "My way"\nabout = "As I teach."\n[chosen]\n' + "".join(
    f'{dispute} = "{option}"\n' for dispute, option in shipped().models["centred"].chosen.items()
)


class BookTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.client.force_login(self.owner)

    def write(self, text: str, **more: Any) -> Any:
        return self.client.post("/api/book/pages", {"text": text}, content_type="application/json", **more)

    def test_a_page_of_one_s_own_is_in_one_s_own_book_only(self) -> None:
        self.assertEqual(self.write(OWN).status_code, 201)
        self.assertIn("own_fault", [page.get("id") for page in self.client.get("/api/book").json()])
        self.client.force_login(making.instructor("Odd Lyng"))
        self.assertNotIn("own_fault", [page.get("id") for page in self.client.get("/api/book").json()])
        self.assertEqual(self.client.get("/api/book/pages").json(), [])
        self.assertEqual(self.client.delete("/api/book/pages/fault/own_fault").status_code, 404)

    def test_a_bad_page_is_refused_by_its_field_and_nothing_is_kept(self) -> None:
        for text, words in (
            (
                OWN.replace("pelvis_sway", "hip_wiggle", 1),
                "evidence[0].reading: there is no reading hip_wiggle",
            ),
            (OWN.replace('"Mine."', '"On the left."'), "says “left”"),
            (OWN.replace("own_fault", "sways"), "there is another of this id"),
            ('kind = "caution"\nid = "mine"\n', "page: troubles"),
            (OWN.replace('"Mine."', r'"Mi\u0000ne."'), "control character"),
            (OWN.replace("below = 1.0", "below = nan"), "page: evidence"),
            ("kind = ", "not TOML"),
        ):
            answer = self.write(text)
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.json()["detail"])
        self.assertEqual(self.client.get("/api/book/pages").json(), [])

    def test_a_page_that_no_longer_fits_is_kept_and_not_used(self) -> None:
        self.write(OWN)
        Page.objects.update(document={"kind": "fault", "id": "own_fault", "older": True})
        self.assertEqual(self.client.get("/api/book").status_code, 200)
        self.assertNotIn("own_fault", [page.get("id") for page in self.client.get("/api/book").json()])
        self.assertEqual(len(self.client.get("/api/book/pages").json()), 1)

    def test_writing_a_page_again_replaces_it(self) -> None:
        self.write(OWN)
        self.assertEqual(self.write(OWN.replace("My own", "My other")).status_code, 201)
        (page,) = self.client.get("/api/book/pages").json()
        self.assertEqual(page["document"]["name"], "My other")

    def test_a_model_that_a_student_is_taught_by_stays(self) -> None:
        self.write(MODEL)
        student = making.student(self.owner)
        card = {"name": student.name, "hand": "right", "teaching_model": "own_model"}
        kept = self.client.put(f"/api/students/{student.pk}", card, content_type="application/json")
        self.assertEqual(kept.json()["teaching_model"], "own_model")
        refused = self.client.delete("/api/book/pages/model/own_model")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("a student is taught by it", refused.json()["detail"])
        card["teaching_model"] = "centred"
        self.client.put(f"/api/students/{student.pk}", card, content_type="application/json")
        self.assertEqual(self.client.delete("/api/book/pages/model/own_model").status_code, 204)

    def test_nobody_is_taught_by_a_model_that_is_not_theirs(self) -> None:
        self.write(MODEL)
        other = making.instructor("Odd Lyng")
        self.client.force_login(other)
        card = {"name": "X", "hand": "left", "teaching_model": "own_model"}
        answer = self.client.post("/api/students", card, content_type="application/json")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("there is no teaching model called own_model", answer.json()["detail"])


class JudgementTests(TestCase):
    def setUp(self) -> None:
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.swing = making.marked_swing(self.owner, whole=True).swing

    def judged(self, model: str = "") -> dict[str, Any]:
        found: dict[str, Any] = self.client.get(f"/api/swings/{self.swing.pk}/judgement?model={model}").json()
        return found

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
        answer = self.client.get(f"/api/swings/{self.swing.pk}/judgement?model=nobody")
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
