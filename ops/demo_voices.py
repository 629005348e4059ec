"""`python -m ops.demo_voices`: speak the demo's walks anew with espeak-ng, into demo/voices."""

from __future__ import annotations

import json
import subprocess
import tempfile
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

from tropometer.server.demo.spoken import SPOKEN
from tropometer.video.voice import RATE, read_voice

VOICES = Path(__file__).parents[1] / "demo" / "voices"
PAUSE_S = 0.7
BLOCK = 960
SPEAKER = ("espeak-ng", "-v", "en-gb", "-s", "150", "-p", "58")


def main() -> None:
    """Write NAME.webm and NAME.json: when each line begins and ends, ms."""
    VOICES.mkdir(exist_ok=True)
    for name, lines in SPOKEN.items():
        parts, times, at = [], [], 0
        for line in lines:
            said = np.concatenate([_said(line.words), np.zeros(round(PAUSE_S * RATE), np.float32)])
            times.append([round(at / RATE * 1000), round((at + len(said)) / RATE * 1000)])
            parts.append(said)
            at += len(said)
        _write(np.concatenate(parts), VOICES / f"{name}.webm")
        (VOICES / f"{name}.json").write_text(json.dumps(times) + "\n")


def _said(words: str) -> np.ndarray[Any, Any]:
    with tempfile.NamedTemporaryFile(suffix=".wav") as file:
        subprocess.run([*SPEAKER, "-w", file.name, words], check=True)
        return np.concatenate(list(read_voice(Path(file.name))))


def _write(samples: np.ndarray[Any, Any], target: Path) -> None:
    with av.open(str(target), "w", format="webm") as out:
        stream: Any = out.add_stream("libopus", rate=RATE, layout="mono", bit_rate=24_000)
        for first in range(0, len(samples), BLOCK):
            frame = av.AudioFrame.from_ndarray(
                samples[None, first : first + BLOCK], format="flt", layout="mono"
            )
            frame.sample_rate, frame.pts, frame.time_base = RATE, first, Fraction(1, RATE)
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))


if __name__ == "__main__":
    main()
