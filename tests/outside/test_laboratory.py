"""Marks in space as other programs read and write them: C3D by py-c3d, TRC by trc-data-reader.

Both know nothing of what wrote and reads our files (ezc3d, and our own table).
"""

from __future__ import annotations

import io
import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import c3d
import numpy as np
from trc import TRCData

from tests import laboratory
from tests.strangers.filming import film
from tropometer.server.bench.c3d import c3d_of
from tropometer.swing.formats.in_space import Markers, markers_of
from tropometer.swing.formats.laboratory import Recorded, guessed, placed_marks
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.trc import recorded_in_trc, trc_of
from tropometer.swing.names import HANDS, View
from tropometer.video.laboratory import open_c3d

BOTH: tuple[View, ...] = ("face_on", "down_the_line")
FINE_MM = 0.01


def filmed(seed: int, views: tuple[View, ...] = BOTH) -> tuple[Markers, dict[str, np.ndarray]]:
    """A stranger's marks on every frame, and where they truly were, metres."""
    found = film(views, "mat", np.random.default_rng([8, seed]), rate_hz=60, everywhere=True)
    markers = markers_of(found.record)
    times = markers.first_s + np.arange(len(markers.places)) / markers.rate_hz
    return markers, found.swing.places(times + found.swing.timing.checkpoints_s["impact"])


class LaboratoryTests(TestCase):
    def setUp(self) -> None:
        self.markers, self.true = filmed(1)
        self.markers.places[3, 2] = np.nan  # one that was not seen

    def test_c3d_is_read_back_by_another_library(self) -> None:
        reader = c3d.Reader(io.BytesIO(c3d_of(self.markers)))
        self.assertEqual([label.strip() for label in reader.point_labels], list(self.markers.names))
        self.assertAlmostEqual(reader.point_rate, self.markers.rate_hz, places=3)
        frames = [points for _, points, _ in reader.read_frames()]
        self.assertEqual(len(frames), len(self.markers.places))
        for number, (points, wished) in enumerate(zip(frames, self.markers.z_up, strict=True)):
            seen = np.isfinite(wished[:, 0])
            np.testing.assert_allclose(points[seen, :3], wished[seen], atol=FINE_MM)
            self.assertTrue((points[~seen, 3] < 0).all(), number)
        self.assertLess(frames[3][2, 3], 0)

    def test_trc_is_read_back_by_another_library(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "marks.trc"
            path.write_text(trc_of(self.markers, path.name))
            read = TRCData()
            read.load(str(path))
        self.assertEqual(read["Markers"], list(self.markers.names))
        self.assertEqual((read["Units"], read["NumFrames"]), ("mm", len(self.markers.places)))
        for number, wished in enumerate(self.markers.y_up[:3]):
            _, places = read[number + 1]
            np.testing.assert_allclose(places, wished, atol=FINE_MM)

    def test_they_lie_where_the_golfer_was_in_right_handed_axes(self) -> None:
        off: list[float] = []
        for seed in range(4):
            markers, true = filmed(seed)
            for row, name in enumerate(markers.names):
                if name in true and name.endswith(("knee", "ankle", "hip")):
                    off += np.linalg.norm(markers.places[:, row] - true[name], axis=1).tolist()
        self.assertLess(np.nanmedian(off), 0.03)
        for hand, turned in (("right", 1.0), ("left", -1.0)):
            one = Markers(names=("a",), rate_hz=60, first_s=0, hand=hand, places=np.eye(3)[:, None])
            for axes in (one.z_up, one.y_up):
                # T, B, U of a right-hander are left-handed: toward the target, to the ball, and up.
                self.assertAlmostEqual(np.linalg.det(axes[:, 0] / 1000), -turned)

    def test_a_guess_at_depth_is_no_marker(self) -> None:
        with self.assertRaisesRegex(RecordError, "from the front and along the line"):
            filmed(1, ("face_on",))

    def test_what_others_wrote_is_read_where_it_lies(self) -> None:
        markers = laboratory.markers_of("lorne_iron_face")
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "lab.c3d"
            path.write_bytes(laboratory.c3d_file(markers, 200, gap=("L_toe", 7)))
            found = open_c3d(path)
        table = recorded_in_trc(laboratory.trc_file(markers, 200).decode())
        self.assertEqual((found.rate_hz, found.unit, table.rate_hz), (200, "mm", 200))
        for labels, places in ((found.labels, found.places / 1000), (table.labels, table.places)):
            self.assertEqual(list(labels), list(markers))
            seen = np.isfinite(places).all(axis=2)
            self.assertGreaterEqual(seen.sum(), seen.size - 1)
            wished = np.stack(list(markers.values()), axis=1)
            np.testing.assert_allclose(places[seen], wished[seen], atol=FINE_MM / 1000)
        self.assertTrue(np.isnan(found.places[7, list(markers).index("L_toe")]).all())

    def test_what_goes_out_comes_back_in_its_own_axes_for_either_hand(self) -> None:
        for hand in HANDS:
            out = replace(self.markers, hand=hand)
            with tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "marks.c3d"
                path.write_bytes(c3d_of(out))
                opened = open_c3d(path)
            files = (
                Recorded(labels=tuple(opened.labels), rate_hz=opened.rate_hz, places=opened.places / 1000),
                recorded_in_trc(trc_of(out, "marks.trc")),
            )
            for recorded, up in zip(files, ("+z", "+y"), strict=True):
                meaning = guessed(recorded, hand)
                self.assertEqual((meaning.up, meaning.toward), (up, "+x"))
                back = placed_marks(recorded, meaning, hand)
                self.assertEqual(set(back), set(out.names))
                middle = (back["lead_ankle"] + back["trail_ankle"]) / 2
                at = int(np.isfinite(middle[:, 0]).argmax())
                feet = [out.names.index(f"{side}_ankle") for side in ("lead", "trail")]
                moved = out.places[at, feet].mean(axis=0) * [1, 1, 0]
                for row, name in enumerate(out.names):
                    np.testing.assert_allclose(back[name], out.places[:, row] - moved, atol=FINE_MM / 1000)
