"""The book on the server: pages of one's own, teaching models, and swings judged by them."""

import tomllib
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

    def faults(self) -> list[str]:
        return [fault["id"] for fault in self.client.get("/api/book").json()["faults"]]

    def test_a_page_goes_out_as_a_file_and_comes_in_again(self) -> None:
        document = tomllib.loads(OWN)
        posted = self.client.post("/api/book/pages", {"document": document}, content_type="application/json")
        self.assertEqual(posted.status_code, 201)
        text = self.client.get("/api/book/pages/fault/own_fault.toml").content.decode()
        self.assertEqual(tomllib.loads(text), document)
        self.client.force_login(making.instructor("Odd Lyng"))
        self.assertEqual(self.client.get("/api/book/pages/fault/own_fault.toml").status_code, 404)
        self.assertEqual(self.write(text).status_code, 201)
        self.assertIn("own_fault", self.faults())

    def test_a_page_of_one_s_own_is_in_one_s_own_book_only(self) -> None:
        self.assertEqual(self.write(OWN).status_code, 201)
        self.assertIn("own_fault", self.faults())
        self.client.force_login(making.instructor("Odd Lyng"))
        self.assertNotIn("own_fault", self.faults())
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
        self.assertNotIn("own_fault", self.faults())
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
