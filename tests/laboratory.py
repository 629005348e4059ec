"""Files of a laboratory that never saw our code: the made-up golfer's marks, by py-c3d and trc-data-reader.

Its axes are its own: Z runs to the target, Y up, and X so that the three are right-handed; its markers are
named by left and right, a knee by a marker on either side of it.
"""

from __future__ import annotations

import io
import tempfile
from collections.abc import Mapping
from pathlib import Path

import c3d
import numpy as np
from trc import TRCData

from tests.swings import truth
from tropometer.swing.arrays import Array

KNEE_M = 0.05  # from its middle to either side
LOOSE = ("grip", "club_head", "ball", "neck", "head")


def markers_of(name: str) -> dict[str, Array]:
    """Markers (frames, 3) of a demo clip, metres in the laboratory's axes, by its labels."""
    known = truth(name)
    front = 1.0 if known["hand"] == "right" else -1.0
    sides = dict(zip(("lead", "trail"), ("L", "R") if known["hand"] == "right" else ("R", "L"), strict=True))
    found: dict[str, Array] = {}
    for mark, places in known["tbu_m"].items():
        t, b, u = np.moveaxis(np.array(places, float), -1, 0)
        # X is the vector product of Y and Z: of U and T, which for a right-hander is away from the ball.
        place = np.stack([front * -b + 0.4, u, t - 1.1], axis=-1)
        side, _, part = mark.partition("_")
        if side in sides and "foot" not in part and "edge" not in part:
            label = f"{sides[side]}_{part}"
            if part == "knee":
                aside = np.array([KNEE_M, 0.0, 0.0])
                found |= {f"{label}_in": place - aside, f"{label}_out": place + aside}
            else:
                found[label] = place
        elif mark in LOOSE:
            found[mark] = place
    return found


def meant(labels: Mapping[str, Array], hand: str) -> dict[str, str]:
    """What each label stands for, as a person would say it."""
    lead = "L" if hand == "right" else "R"
    said = {}
    for label in labels:
        side, _, part = label.partition("_")
        named = part.removesuffix("_in").removesuffix("_out")
        said[label] = label if label in LOOSE else f"{'lead' if side == lead else 'trail'}_{named}"
    return said


def c3d_file(markers: Mapping[str, Array], rate_hz: float, gap: tuple[str, int] | None = None) -> bytes:
    """A C3D in millimetres by py-c3d; a marker is unseen on one frame, if that is asked for."""
    writer = c3d.Writer(point_rate=rate_hz, point_units="mm")
    writer.set_point_labels(list(markers))
    count = len(next(iter(markers.values())))
    frames = []
    for number in range(count):
        points = np.zeros((len(markers), 5), np.float32)
        for row, (label, places) in enumerate(markers.items()):
            points[row, :3] = places[number] * 1000
            if gap == (label, number):
                points[row] = [0, 0, 0, -1, 0]
        frames.append((points, np.empty((0, 0))))
    writer.add_frames(frames)
    into = io.BytesIO()
    writer.write(into)
    return into.getvalue()


def trc_file(markers: Mapping[str, Array], rate_hz: float) -> bytes:
    """A TRC table in metres by trc-data-reader."""
    count = len(next(iter(markers.values())))
    data = TRCData()
    data.update(PathFileType=4, DataFormat="(X/Y/Z)", FileName="lab.trc", Units="m", Markers=list(markers))
    data.update(dict.fromkeys(("DataRate", "CameraRate", "OrigDataRate"), rate_hz), NumMarkers=len(markers))
    data.update(NumFrames=count, OrigNumFrames=count, OrigDataStartFrame=1)
    data["Frame#"] = list(range(1, count + 1))
    for number in range(count):
        data[number + 1] = (number / rate_hz, [list(places[number]) for places in markers.values()])
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "lab.trc"
        data.save(str(path), add_trailing_tab=True)
        return path.read_bytes()
