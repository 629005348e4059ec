"""High dynamic range to an ordinary picture: HLG and PQ, as phones record them, to BT.709.

The curves are those of ITU-R BT.2100-2, tables 4 and 5; reference white lies at 75 % of an HLG signal and
58 % of a PQ one (ITU-R BT.2408-7, table 1) and becomes nearly white here.
"""

from __future__ import annotations

from functools import lru_cache

import cv2
import numpy as np
import numpy.typing as npt
from av.video.frame import VideoFrame

Floats = npt.NDArray[np.float32]

# Transfer characteristics of ITU-T H.273, table 3.
PQ, HLG = 16, 18
WHITE_NITS = 203.0
HLG_PEAK_NITS = 1000.0
# From the primaries of BT.2020 to those of BT.709 (ITU-R BT.2087-0).
TO_709 = np.array(
    [[1.6605, -0.5876, -0.0728], [-0.1246, 1.1329, -0.0083], [-0.0182, -0.1006, 1.1187]], np.float32
)
LEVELS = 65536
SHOULDER = 0.8  # above that share of white, brightness is pressed together instead of cut off


def is_hdr(frame: VideoFrame) -> bool:
    """Whether a frame's transfer curve is one of high dynamic range."""
    return int(frame.color_trc or 0) in (PQ, HLG)


def ordinary(frame: VideoFrame) -> npt.NDArray[np.uint8]:
    """The frame as an ordinary RGB picture (h, w, 3)."""
    if not is_hdr(frame):
        return np.asarray(frame.to_ndarray(format="rgb24"), np.uint8)
    signal = frame.to_ndarray(format="rgb48le")
    light = _to_light(int(frame.color_trc))[signal]
    light = cv2.transform(light, TO_709)
    return _to_signal()[np.clip(light * (LEVELS - 1) / 4, 0, LEVELS - 1).astype(np.uint16)]


@lru_cache(maxsize=2)
def _to_light(curve: int) -> Floats:
    """Table from a 16-bit signal to light, 1 for reference white."""
    signal = np.linspace(0, 1, LEVELS)
    return ((_pq_nits(signal) if curve == PQ else _hlg_nits(signal)) / WHITE_NITS).astype(np.float32)


def _pq_nits(signal: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    m1, m2, c1, c2, c3 = 2610 / 16384, 2523 / 32, 3424 / 4096, 2413 / 128, 2392 / 128
    root = signal ** (1 / m2)
    nits: npt.NDArray[np.float64] = 10000 * (np.maximum(root - c1, 0) / (c2 - c3 * root)) ** (1 / m1)
    return nits


def _hlg_nits(signal: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    a, b, c = 0.17883277, 0.28466892, 0.55991073
    scene = np.where(signal <= 0.5, signal**2 / 3, (np.exp((signal - c) / a) + b) / 12)
    nits: npt.NDArray[np.float64] = HLG_PEAK_NITS * scene**1.2  # the system gamma of a 1000 nit display
    return nits


@lru_cache(maxsize=1)
def _to_signal() -> npt.NDArray[np.uint8]:
    """Table from light, up to four times white, to an 8-bit BT.1886 signal with a soft shoulder."""
    light = np.linspace(0, 4, LEVELS)
    over = np.maximum(light - SHOULDER, 0) / (1 - SHOULDER)
    pressed = np.where(light <= SHOULDER, light, SHOULDER + (1 - SHOULDER) * over / (1 + over))
    signal: npt.NDArray[np.uint8] = np.round(255 * pressed ** (1 / 2.4)).astype(np.uint8)
    return signal
