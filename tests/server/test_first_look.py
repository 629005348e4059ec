"""The first look: what a machine reads alone is shown as such, and nothing of it is put on the swing."""

import json
import uuid
from typing import Any

from tests.server import making
from tests.server.seen import put_proposals
from tests.swings import truth
from tropometer.server.bench import first_look
from tropometer.server.bench.models import FirstLook, Mark, Peg, Swing
from tropometer.server.clips.closer import look_closer
from tropometer.server.clips.models import Clip, Proposals, SeenBody


class FirstLookTests(making.MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.owner = making.instructor()
        self.client.force_login(self.owner)
        self.swing = Swing.objects.create(
            instructor=self.owner, student=making.student(self.owner), club="7 iron"
        )
        self.clip = making.ready_clip(self.owner, self.swing)

    def look(self) -> dict[str, Any]:
        found: dict[str, Any] = self.client.get(f"/api/swings/{self.swing.pk}/first-look").json()
        return found

    def given(self, found: dict[str, Any]) -> set[tuple[str, str]]:
        return {(column["reading"], at) for column in found["readings"] for at in column["at"]}

    def edit(self, *edits: dict[str, Any]) -> None:
        body = {"edits": [{"id": str(uuid.uuid4()), **each} for each in edits]}
        path = f"/api/clips/{self.clip.pk}/edits"
        with self.captureOnCommitCallbacks(execute=True):
            answer = self.client.post(path, json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)

    def peg(self) -> None:
        self.edit(*({"kind": "peg", "name": at, "frame": f} for at, f in making.PEGGED.items()))

    def take(self, at: str) -> None:
        """All proposed marks of a checkpoint, as the bench takes them."""
        frame = making.PEGGED[at]
        proposed = self.client.get(f"/api/clips/{self.clip.pk}/proposed-marks/{frame}").json()
        places = [{**mark, "source": "accepted"} for mark in proposed]
        self.edit(
            *(
                {
                    "kind": "mark",
                    "name": place.pop("name"),
                    "frame": place.pop("frame"),
                    "place": place,
                }
                for place in places
            )
        )

    def test_nothing_is_read_where_nobody_was_seen(self) -> None:
        self.assertEqual((self.look()["readings"], self.look()["next"]), ([], []))

    def test_it_is_read_beside_the_swing_and_put_on_nothing(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        found = self.look()
        self.assertIn(("stance_ratio", "address"), self.given(found))
        self.assertTrue(all(all(column["provisional"]) for column in found["readings"]))
        need = found["next"][0]["need"]
        self.assertEqual((need["kind"], need["name"], need["view"]), ("peg", "proposed", "face_on"))
        self.assertEqual((Mark.objects.count(), Peg.objects.count()), (0, 0))
        measured = self.client.get(f"/api/swings/{self.swing.pk}").json()["measured"]
        values = [value for column in measured["readings"] for value in column["value"]]
        self.assertEqual([value for value in values if value is not None], [])
        judged = self.client.get(f"/api/swings/{self.swing.pk}/judgement").json()
        self.assertEqual({each["verdict"] for each in judged["findings"]}, {"cannot_be_seen"})

    def test_what_somebody_looked_at_is_no_first_look_any_more(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        self.peg()
        need = self.look()["next"][0]["need"]
        self.assertEqual(need["kind"], "look")
        self.take("address")
        self.take("top")
        found = self.look()
        self.assertNotIn(("stance_ratio", "address"), self.given(found))
        self.assertNotIn(("pelvis_slant", "top"), self.given(found))
        self.assertIn(("pelvis_slant", "impact"), self.given(found))
        measured = self.client.get(f"/api/swings/{self.swing.pk}").json()["measured"]
        (slant,) = [each for each in measured["readings"] if each["reading"] == "pelvis_slant"]
        self.assertIsNotNone(dict(zip(slant["at"], slant["value"], strict=True))["top"])

    def test_a_mat_that_only_the_machine_laid_is_asked_for_before_marks(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        corners = [{"x": x, "y": y} for x, y in truth(making.TOBIN)["mat_corners"]["pixels"]]
        mat = {"corners": corners, "along_m": 1.56, "across_m": 1.56, "place": ""}
        FirstLook.objects.create(swing=self.swing, mats={str(self.clip.pk): mat})
        found = self.look()
        self.assertIn(("pelvis_sway", "top"), self.given(found))  # centimetres want a scale
        self.assertEqual(found["next"][0]["need"]["kind"], "peg")
        self.peg()
        self.assertEqual(self.look()["next"][0]["need"]["kind"], "mat")
        self.edit({"kind": "mat", "value": mat})
        self.assertEqual(self.look()["next"][0]["need"]["kind"], "look")

    def test_a_stranger_sees_nothing(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        self.client.force_login(making.instructor("Odd Stranger"))
        self.assertEqual(self.client.get(f"/api/swings/{self.swing.pk}/first-look").status_code, 404)

    def tapes(self) -> list[dict[str, Any]]:
        (row,) = self.client.get("/api/swings").json()["items"]
        found: list[dict[str, Any]] = row["first_tapes"]
        return found

    def test_the_inbox_says_what_stands_out_until_somebody_begins(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        Clip.objects.update(looking=True)
        first_look.keep(self.swing.pk)
        self.assertFalse(FirstLook.objects.exists())  # the clip that is looked at last asks again
        Clip.objects.update(looking=False)
        body = SeenBody.objects.get(network="close")
        body.delete()
        first_look.keep(self.swing.pk)
        self.assertEqual(self.tapes(), [])  # what the fast network sees is too rough to be news
        body.save()
        first_look.keep(self.swing.pk)
        found = self.tapes()
        self.assertTrue(1 <= len(found) <= 3, found)
        self.assertEqual([each["sure"] for each in found], sorted((t["sure"] for t in found), reverse=True))
        for tape in found:
            end = tape["high"] if tape["standing"] == "above" else tape["low"]
            self.assertEqual(tape["value"] > end, tape["standing"] == "above")
        self.peg()
        self.assertEqual(self.tapes(), [])
        first_look.keep(self.swing.pk)  # the closer look comes later than the first peg
        self.assertEqual(self.tapes(), [])

    def test_what_is_said_anew_of_a_swing_makes_old_news_of_it(self) -> None:
        """Another club has other bands; a mat that was carried over lies elsewhere in a mirrored picture."""
        kind = f"/api/swings/{self.swing.pk}/kind", {"club_class": "driver"}
        about = {"view": "face_on", "capture_fps": None, "flipped": False}
        for method, (path, body) in (
            (self.client.patch, kind),
            (self.client.put, (f"/api/clips/{self.clip.pk}/about", about)),
        ):
            tape = {"reading": "tempo", "at": "swing", "unit": "to_one", "value": 2.0, "u95": 0.1}
            FirstLook.objects.update_or_create(
                swing=self.swing, defaults={"tapes": [tape], "mats": {str(self.clip.pk): {}}}
            )
            self.assertEqual(method(path, body, content_type="application/json").status_code, 200)
            kept = FirstLook.objects.get()
            self.assertEqual((kept.tapes, kept.mats), ([], {}))

    def test_a_closer_look_that_is_not_worth_it_any_more_does_not_stay_under_way(self) -> None:
        put_proposals(self.clip, making.TOBIN)
        stored = self.clip.proposals
        stored.closer, stored.found = 0, {**stored.found, "is_swing": False}
        stored.save()
        look_closer(self.clip.pk)
        self.assertIsNone(Proposals.objects.get().closer)
