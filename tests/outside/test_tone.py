"""High dynamic range against the levels ITU-R publishes (values from memory)."""

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np

from tropometer.video import tone
from tropometer.video.proxy import upright_frames

# ITU-R BT.2408-7, table 1: HDR reference white, 203 cd/m2, lies at 75 % of an HLG and 58 % of a PQ signal.
REFERENCE_WHITE = {tone.HLG: 0.75, tone.PQ: 0.58}


class ToneTests(TestCase):
    def test_reference_white_is_203_nits_in_both_curves(self) -> None:
        self.assertAlmostEqual(float(tone._hlg_nits(np.array([0.75]))[0]), 203, delta=2)
        self.assertAlmostEqual(float(tone._pq_nits(np.array([0.58]))[0]), 203, delta=3)

    def test_peaks_of_the_curves(self) -> None:
        # ITU-R BT.2100-2: PQ ends at 10 000 cd/m2; HLG at the display's own peak, 1000
        self.assertAlmostEqual(float(tone._pq_nits(np.array([1.0]))[0]), 10_000, delta=1)
        self.assertAlmostEqual(float(tone._hlg_nits(np.array([1.0]))[0]), 1000, delta=1)

    def test_a_ten_bit_phone_clip_comes_out_with_whites_that_are_white(self) -> None:
        for curve, white in REFERENCE_WHITE.items():
            with self.subTest(curve=curve), tempfile.TemporaryDirectory() as folder:
                path = Path(folder) / "hdr.mov"
                signals = np.array([0.0, white / 2, white, 1.0])
                picture = np.repeat(np.repeat(signals * 65535, 64)[None], 64, 0).astype(np.uint16)
                parameters = f"log-level=none:colorprim=bt2020:transfer={curve}:colormatrix=bt2020nc"
                with av.open(str(path), "w") as out:
                    stream = out.add_stream(
                        "libx265", rate=30, options={"x265-params": parameters, "crf": "8"}
                    )
                    stream.width, stream.height, stream.pix_fmt = 256, 64, "yuv420p10le"
                    stream.codec_context.color_trc, stream.codec_context.color_primaries = curve, 9
                    stream.codec_context.colorspace = 9
                    for number in range(3):
                        frame = av.VideoFrame.from_ndarray(np.stack([picture] * 3, 2), format="rgb48le")
                        frame.pts = number
                        out.mux(stream.encode(frame))
                    out.mux(stream.encode(None))
                shown = next(upright_frames(path))[0][32, 32::64].mean(1)
                self.assertLess(shown[0], 25)
                self.assertTrue(225 < shown[2] < 252, shown)  # nearly white, with room above it
                self.assertTrue((np.diff(shown) > 3).all(), shown)
