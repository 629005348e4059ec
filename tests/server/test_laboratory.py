"""A laboratory's markers as a reference: mapped once, drawn for both views, read as the swing truly was."""

from __future__ import annotations

import json
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from tests.laboratory import c3d_file, markers_of, meant, trc_file
from tests.server.making import MediaCase, instructor
from tests.swings import truth
from tropometer.server.bench.models import Mark, Peg, Swing
from tropometer.server.bench.record import ready_clips, record_of
from tropometer.server.bench.tracking import follow
from tropometer.server.clips.proposing import look
from tropometer.server.clips.services import process
from tropometer.server.shelf.models import MarkerProfile
from tropometer.swing.read import read

RIGHT, LEFT = "tobin_first_face", "ilse_face"


class LaboratoryTests(MediaCase):
    def setUp(self) -> None:
        super().setUp()
        self.client.force_login(instructor())

    def send(self, path: str, data: bytes, name: str, about: dict[str, Any] | None = None) -> Any:
        form: dict[str, Any] = {"file": SimpleUploadedFile(name, data)}
        if about is not None:
            form["about"] = json.dumps(about)
        return self.client.post(path, form)

    def taken_in(self, name: str, data: bytes, **about: Any) -> Swing:
        hand = truth(name)["hand"]
        meaning = {"marks": meant(markers_of(name), hand), "up": "+y", "toward": "+z"}
        said = {"name": "From the laboratory", "hand": hand, "meaning": meaning} | about
        answer = self.send("/api/shelf/laboratory", data, "lab.c3d", said)
        self.assertEqual(answer.status_code, 201, answer.content)
        swing = Swing.objects.get(pk=answer.json()["swing_id"])
        for clip in swing.clips.all():
            process(clip.pk)
            look(clip.pk)
        return swing

    def test_its_readings_are_those_of_the_swing_for_either_hand(self) -> None:
        for name in (RIGHT, LEFT):
            known = truth(name)
            rate_hz = known["capture_fps"]
            swing = self.taken_in(name, c3d_file(markers_of(name), rate_hz))
            clips = ready_clips(swing)
            self.assertEqual({clip.view for clip in clips}, {"face_on", "down_the_line"})
            for clip in clips:
                self.assertEqual(clip.frame_count, len(known["times_s"]["frames"]))
                for at, peg in {each["name"]: each["frame"] for each in clip.proposals.found["pegs"]}.items():
                    if at in known["checkpoints"]:
                        self.assertLessEqual(abs(peg - known["checkpoints"][at]), 0.1 * rate_hz, at)
                Peg.objects.bulk_create(
                    Peg(clip=clip, name=at, frame=frame) for at, frame in known["checkpoints"].items()
                )
            clips = ready_clips(swing)
            true = {(row["reading"], row["at"]): row["value"] for row in known["readings"]}
            found = [
                (each, true[each.reading, each.at])
                for each in read(record_of(swing, clips)).readings
                if each.value is not None
                and each.u95
                and isinstance(true.get((each.reading, each.at)), float)
            ]
            self.assertGreater(len(found), 150)
            inside = [abs(each.value - value) <= each.u95 for each, value in found]
            self.assertGreaterEqual(sum(inside) / len(inside), 0.95, name)

    def test_what_markers_mean_is_said_once(self) -> None:
        markers = markers_of(RIGHT)
        table = trc_file(markers, 60)
        before = self.send("/api/shelf/laboratory/look", table, "lab.trc").json()
        self.assertEqual((before["frames"], before["rate_hz"]), (len(markers["L_hip"]), 60))
        (right,) = [each for each in before["meant"] if each["hand"] == "right"]
        self.assertEqual((right["profile"], right["up"], right["toward"]), ("", "+y", "+z"))
        self.assertEqual(right["marks"]["L_heel"], "lead_heel")
        self.assertNotIn("L_knee_in", right["marks"])  # nobody has said yet what these are
        self.taken_in(RIGHT, c3d_file(markers, 60), profile="North room")
        after = self.send("/api/shelf/laboratory/look", table, "lab.trc").json()["meant"]
        for each in after:
            self.assertEqual(each["profile"], "North room")
            self.assertEqual(each["marks"], meant(markers, each["hand"]))
        (kept,) = self.client.get("/api/shelf/laboratory/profiles").json()
        with self.subTest("a stranger"):
            stranger = Client()
            stranger.force_login(instructor("Odd Stranger"))
            self.assertEqual(stranger.get("/api/shelf/laboratory/profiles").json(), [])
            gone = stranger.delete(f"/api/shelf/laboratory/profiles/{kept['id']}")
            self.assertEqual(gone.status_code, 404)
        self.client.delete(f"/api/shelf/laboratory/profiles/{kept['id']}")
        self.assertFalse(MarkerProfile.objects.exists())

    def test_a_frame_that_the_laboratory_did_not_see_has_no_mark_and_nothing_follows_it_there(self) -> None:
        markers = markers_of(RIGHT)
        swing = self.taken_in(RIGHT, c3d_file(markers, 60, gap=("L_heel", 30)))
        for clip in swing.clips.all():
            heels = Mark.objects.filter(clip=clip, name="lead_heel")
            self.assertEqual(set(range(clip.frame_count)) - set(heels.values_list("frame", flat=True)), {30})
            follow(clip.pk)
        for clip in record_of(swing, ready_clips(swing)).clips:
            self.assertNotIn(30, clip.marks["lead_heel"])

    def test_what_makes_no_sense_is_named_and_nothing_is_kept(self) -> None:
        markers = markers_of(RIGHT)
        good, table = meant(markers, "right"), trc_file(markers, 60).decode()
        said = {"name": "N", "hand": "right", "meaning": {"marks": good, "up": "+y", "toward": "+z"}}

        def told(data: bytes, **meaning: Any) -> str:
            about = {**said, "meaning": {**said["meaning"], **meaning}}
            answer = self.send("/api/shelf/laboratory", data, "lab.trc", about)
            self.assertEqual(answer.status_code, 422, answer.content)
            return str(answer.json()["detail"])

        sound = table.encode()
        self.assertIn("lab.trc: line 1", told(b"no table"))
        self.assertIn("line 9: “x” is no number", told(_changed(table, line=9, cell=4, to="x")))
        self.assertIn("units: “ells”", told(table.replace("\tm\t", "\tells\t").encode()))
        self.assertIn("the hips lie below the ankles", told(sound, up="-y", toward="+z"))
        self.assertIn("what is up cannot also be toward", told(sound, up="+z"))
        self.assertIn("the lead foot is farther from the target", told(sound, toward="-z"))
        self.assertIn("nothing stands for the lead hip", told(sound, marks=good | {"L_hip": "head"}))
        self.assertIn("“tail” is no mark", told(sound, marks=good | {"head": "tail"}))
        self.assertIn("up", told(sound, up="north"))
        self.assertIn("a control character", told(sound, marks=good | {"a\x00": "head"}))
        whole = c3d_file(markers, 60)
        for cut, why in ((whole[:5000], "ends in the middle"), (whole[:300], "ends in its header")):
            answer = self.send("/api/shelf/laboratory/look", cut, "cut.c3d")
            self.assertEqual(answer.status_code, 422, answer.content)
            self.assertIn("cut.c3d: This C3D " + why, answer.json()["detail"])
        self.assertFalse(Swing.objects.exists())
        self.assertEqual(self.files(), [])
        self.assertEqual(self.send("/api/shelf/laboratory", sound, "a\x00\x1bb.trc", said).status_code, 201)
        self.assertEqual({clip.original_name for clip in Swing.objects.get().clips.all()}, {"ab.trc"})


def _changed(table: str, line: int, cell: int, to: str) -> bytes:
    lines = table.splitlines()
    cells = lines[line - 1].split("\t")
    cells[cell] = to
    lines[line - 1] = "\t".join(cells)
    return "\n".join(lines).encode()
