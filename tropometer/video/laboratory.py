"""Opens a movement laboratory's C3D file (c3d.org): the markers as they stand in it."""

from __future__ import annotations

import struct
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from tropometer.video.opening import NotAClip

MOST_MARKERS, MOST_FRAMES = 500, 30_000
BLOCK_BYTES = 512
BIG_ENDIAN = 86  # the kind of processor that wrote the file: of the first four bytes of its parameters
UNSAID_UNIT = "mm"  # what C3D files mean that do not say it


@dataclass(frozen=True)
class C3D:
    """Markers' labels, rate and unit as the file says them, and places (frames, markers, 3), NaN unseen."""

    labels: list[str]
    rate_hz: float
    unit: str
    places: npt.NDArray[np.float64]


def open_c3d(source: Path) -> C3D:
    """The markers of a file; NotAClip says what is wrong with it."""
    markers, samples, frames, data_from = _header(source)
    if markers > MOST_MARKERS or frames > MOST_FRAMES:
        raise NotAClip(
            f"This C3D has {markers} markers on {frames} frames; "
            f"{MOST_MARKERS} on {MOST_FRAMES} at most are read."
        )
    import ezc3d  # it takes a while to load

    try:
        file: Any = ezc3d.c3d(str(source))
        point = file["parameters"]["POINT"]
        labels = [str(label).strip() for label in point["LABELS"]["value"]]
        units = point["UNITS"]["value"] if "UNITS" in point else []
        unit = str(units[0]) if units else UNSAID_UNIT
        rate_hz = float(point["RATE"]["value"][0])
        number_bytes = 4 if float(point["SCALE"]["value"][0]) < 0 else 2
        points = np.asarray(file["data"]["points"], float)
        unseen = np.asarray(file["data"]["meta_points"]["residuals"], float)[0] < 0
    except (KeyError, IndexError, ValueError, RuntimeError, OSError, MemoryError) as trouble:
        raise NotAClip(f"This C3D is damaged: {str(trouble)[:120]}") from None
    # What is missing at its end would otherwise be read as markers that lie at nought.
    if source.stat().st_size < data_from + frames * (4 * markers + samples) * number_bytes:
        raise NotAClip("This C3D ends in the middle of its data.")
    labels = labels[: points.shape[1]]
    if len(labels) < points.shape[1] or len(set(labels)) < len(labels) or not all(labels):
        raise NotAClip("In this C3D a marker has no name, or two have one.")
    places = np.moveaxis(points[:3], (0, 1, 2), (2, 1, 0)).copy()
    places[unseen.T] = np.nan
    return C3D(labels, rate_hz, unit, places)


def _header(source: Path) -> tuple[int, int, int, int]:
    """Markers, other samples a frame, frames, and the byte from which the data come."""
    with source.open("rb") as file:
        head = file.read(BLOCK_BYTES)
        file.seek((max(head[0], 1) - 1) * BLOCK_BYTES if head else 0)
        about = file.read(4)
    if len(head) < BLOCK_BYTES or len(about) < 4:
        raise NotAClip("This C3D ends in its header.")
    order = ">" if about[3] == BIG_ENDIAN else "<"
    markers, samples, first, last = struct.unpack(f"{order}4H", head[2:10])
    (block,) = struct.unpack(f"{order}H", head[16:18])
    return markers, samples, last - first + 1, (block - 1) * BLOCK_BYTES
