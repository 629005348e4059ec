"""The open format: there and back, and what is said of a bad record."""

import copy
import json
import math
import subprocess
import sys
import tempfile
from dataclasses import replace
from typing import Any
from unittest import TestCase

from tests.swings import ROOT, record_of, true_reading, truth
from tropometer.swing.formats.swing_record import from_document, to_document
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.launch import Launch

TOBIN = "tobin_first_face"


def run_read(text: str, *options: str) -> subprocess.CompletedProcess[str]:
    with tempfile.NamedTemporaryFile("w", suffix=".json") as file:
        file.write(text)
        file.flush()
        command = [sys.executable, "-m", "tropometer.swing", "read", file.name, *options]
        return subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)


class RecordTests(TestCase):
    def setUp(self) -> None:
        self.document = to_document(record_of(TOBIN))

    def test_there_and_back(self) -> None:
        record = record_of(TOBIN)
        self.assertEqual(from_document(json.loads(json.dumps(self.document))), record)
        mat = Mat(((100.0, 500.0), (900.0, 510.0), (980.0, 700.0), (5.0, 690.0)), 1.5, 1.2)
        clip = replace(record.clips[0], mat=mat, events={"lead_heel_up": 12})
        shot = Launch(club_speed_m_s=36.2, club_path_deg=-3.5, low_point_m=0.04, sd={"club_path_deg": 0.4})
        behind = replace(clip, view="from_behind")
        full = replace(
            record, clips=(behind,), launch=shot, club="Driver", club_class="driver", swing_length="pitch"
        )
        self.assertEqual(from_document(json.loads(json.dumps(to_document(full)))), full)
        self.assertEqual(run_read(json.dumps(to_document(full))).returncode, 0)  # it fits the schema

    def test_impact_between_frames_counts_from_the_middle(self) -> None:
        self.document["clips"][0]["impact_between"] = True
        record = from_document(json.loads(json.dumps(self.document)))
        clip, impact = record.clips[0], record.clips[0].checkpoints["impact"]
        before, after = clip.time_from_impact_s(impact), clip.time_from_impact_s(impact + 1)
        assert before is not None and after is not None
        self.assertAlmostEqual(before, -1 / 120, places=5)
        self.assertAlmostEqual(after, 1 / 120, places=5)
        self.assertTrue(to_document(record)["clips"][0]["impact_between"])

    def test_the_command_prints_the_readings(self) -> None:
        done = run_read(json.dumps(self.document))
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        rows = {(row["reading"], row["at"]): row for row in json.loads(done.stdout)}
        sway, pegs = true_reading(TOBIN, "pelvis_sway", "top"), truth(TOBIN)["checkpoints"]
        self.assertAlmostEqual(rows["pelvis_sway", "top"]["value"], sway, delta=0.015)
        self.assertEqual(rows["pelvis_sway", "top"]["frames"], [pegs["top"], pegs["address"]])
        table = run_read(json.dumps(self.document), "--table").stdout
        (line,) = (line for line in table.splitlines() if line.startswith("pelvis_sway") and " top " in line)
        self.assertIn(f"{rows['pelvis_sway', 'top']['value']:.3f} ± ", line)
        self.assertIn("refused: Needs a down-the-line clip.", table)

    def test_a_bad_record_is_refused_in_one_line_that_names_the_field(self) -> None:
        def broken(change: Any) -> str:
            document = copy.deepcopy(self.document)
            change(document)
            return json.dumps(document)

        cases = {
            "not JSON": "{",
            "maximum recursion": "[" * 100_000,
            "$.player.hand": broken(lambda d: d["player"].update(hand="both")),
            "clips[0].checkpoints.top": broken(lambda d: d["clips"][0]["checkpoints"].update(top=900)),
            "clips[0].marks.elbow_patch": broken(lambda d: d["clips"][0]["marks"].update(elbow_patch=[])),
            "clips[0].frame_times_s[1]": broken(lambda d: d["clips"][0]["frame_times_s"].insert(1, 0)),
            "known_length": broken(
                lambda d: d["clips"][0]["calibration"]["known_length"].update(a=[1, 1], b=[1, 1])
            ),
            "marks.trail_hip[0][1]": broken(
                lambda d: d["clips"][0]["marks"]["trail_hip"][0].__setitem__(1, math.nan)
            ),
            "marks.trail_hip[0][2]": broken(
                lambda d: d["clips"][0]["marks"]["trail_hip"][0].__setitem__(2, 10**400)
            ),
            "marks.trail_hip[0][3]": broken(
                lambda d: d["clips"][0]["marks"]["trail_hip"][0].__setitem__(3, 0)
            ),
            "$.launch.attack_deg": broken(lambda d: d.update(launch={"attack_deg": 200})),
            "$.player.stature_m": broken(lambda d: d["player"].update(stature_m=math.inf)),
            "clips[0].calibration.mat.corners": broken(
                lambda d: d["clips"][0]["calibration"].update(
                    mat={"corners": [[5, 5]] * 4, "along_m": 1.5, "across_m": 1.5}
                )
            ),
        }
        for field, text in cases.items():
            with self.subTest(field=field):
                done = run_read(text)
                self.assertEqual(done.returncode, 2)
                self.assertIn(field, done.stderr)
                self.assertEqual(len(done.stderr.strip().splitlines()), 1)

    def test_a_clip_that_cannot_be_is_refused_at_the_door(self) -> None:
        clip = record_of("tobin_first_face").clips[0]
        count = len(clip.frame_times_s)
        wrong: list[tuple[str, dict[str, Any]]] = [
            ("width", {"width": 0}),
            ("frame_times_s", {"frame_times_s": ()}),
            ("frame_times_s", {"frame_times_s": clip.frame_times_s[::-1]}),
            ("top", {"checkpoints": {"top": count}}),
            ("post_reached", {"events": {"post_reached": -1}}),
        ]
        for field, change in wrong:
            with self.subTest(field), self.assertRaisesRegex(ValueError, field):
                replace(clip, **change)

    def test_a_missing_file_is_named(self) -> None:
        command = [sys.executable, "-m", "tropometer.swing", "read", "no-such.json"]
        done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 2)
        self.assertIn("no-such.json", done.stderr)
