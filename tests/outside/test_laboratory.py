"""Marks in space as other programs read them: C3D by py-c3d, TRC by trc-data-reader.

Both readers know nothing of what wrote the files (ezc3d, and our own table).
"""

from __future__ import annotations

import io
import tempfile
from pathlib import Path
from unittest import TestCase

import c3d
import numpy as np
from trc import TRCData

from tests.strangers.filming import film
from tropometer.server.bench.c3d import c3d_of
from tropometer.swing.formats.in_space import Markers, markers_of
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.trc import trc_of
from tropometer.swing.names import View

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
