"""What the cameras that are not there play: drawn tries of both sides as pictures, one after the other.

`python -m tropometer.standins.camera var/tries`; web/standins/camera.js plays them.
"""

from __future__ import annotations

import argparse
import gzip
import json
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import av
import cv2

CLIPS = Path(__file__).parents[2] / "demo" / "clips"
TRIES = ("tobin_first", "tobin_month", "tobin_home")
SIDES = {"face_on": "face", "down_the_line": "line"}
FPS = 30
HIGH_PX = 540
QUALITY = 88  # of JPEG, 100 is best


def write_tries(folder: Path, names: Sequence[str] = TRIES, high_px: int = HIGH_PX) -> None:
    """Write each try's sides as pictures in JPEG, FPS a second, and what is where in tries.json.

    A side says its file, where each picture ends in it, in bytes, and in which one the ball is struck.
    """
    folder.mkdir(parents=True, exist_ok=True)
    tries = [
        {view: _write_side(folder, f"{name}_{side}", high_px) for view, side in SIDES.items()}
        for name in names
    ]
    (folder / "tries.json").write_text(json.dumps(tries))


def _write_side(folder: Path, name: str, high_px: int) -> dict[str, Any]:
    truth = json.loads(gzip.decompress((CLIPS / f"{name}.truth.json.gz").read_bytes()))
    every = round(truth["capture_fps"] / FPS)
    struck = truth["checkpoints"]["impact"]
    ends = []
    with av.open(str(CLIPS / f"{name}.mp4")) as clip, (folder / f"{name}.mjpeg").open("wb") as out:
        shown = clip.streams.video[0]
        size = (round(shown.width * high_px / shown.height), high_px)
        for number, frame in enumerate(clip.decode(shown)):
            if number % every != struck % every:
                continue
            picture = frame.reformat(*size, "bgr24").to_ndarray()
            out.write(cv2.imencode(".jpg", picture, [cv2.IMWRITE_JPEG_QUALITY, QUALITY])[1].tobytes())
            ends.append(out.tell())
    return {"file": f"{name}.mjpeg", "ends": ends, "struck": struck // every}


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("folder", type=Path)
    write_tries(parser.parse_args().folder)
