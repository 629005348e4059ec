"""Markers as a TRC table: the text format of tracked markers that OpenSim documents."""

from __future__ import annotations

import numpy as np

from tropometer.swing.formats.in_space import Markers
from tropometer.swing.formats.laboratory import MOST_FRAMES, Recorded, metres
from tropometer.swing.formats.record_error import RecordError

DIGITS = 3  # of a millimetre
HEAD_LINES = 5  # the file's own, its fields, their values, the markers, their axes


def trc_of(markers: Markers, file_name: str) -> str:
    """The whole file; Y is up, a marker that is not seen is left empty."""
    frames, count = markers.places.shape[:2]
    rate = f"{markers.rate_hz:.6g}"
    heads = "DataRate CameraRate NumFrames NumMarkers Units OrigDataRate OrigDataStartFrame OrigNumFrames"
    values = (rate, rate, str(frames), str(count), "mm", rate, "1", str(frames))
    axes = "\t".join(f"{axis}{number}" for number in range(1, count + 1) for axis in "XYZ")
    lines = [
        f"PathFileType\t4\t(X/Y/Z)\t{file_name}",
        "\t".join(heads.split()),
        "\t".join(values),
        "Frame#\tTime\t" + "\t\t\t".join(markers.names) + "\t\t",
        f"\t\t{axes}",
        "",
    ]
    for number, row in enumerate(markers.y_up):
        cells = (f"{value:.{DIGITS}f}" if np.isfinite(value) else "" for value in row.ravel())
        lines.append("\t".join((str(number + 1), f"{number / markers.rate_hz:.6f}", *cells)))
    return "\n".join(lines) + "\n"


def recorded_in_trc(text: str) -> Recorded:
    """The markers of a file; RecordError names the line that makes no sense."""
    lines = text.splitlines()
    if len(lines) <= HEAD_LINES or not lines[0].startswith("PathFileType"):
        raise RecordError("line 1", "this is no TRC table: it does not begin with PathFileType.")
    about = dict(zip(lines[1].split(), lines[2].split(), strict=False))
    if missing := [name for name in ("DataRate", "Units") if name not in about]:
        raise RecordError("line 2", f"{missing[0]} is missing.")
    labels = tuple(name.strip() for name in lines[3].split("\t")[2:] if name.strip())
    if not labels or len(set(labels)) < len(labels):
        raise RecordError("line 4", "no markers are named." if not labels else "two markers have one name.")
    rows = [
        _row(line, number, len(labels))
        for number, line in enumerate(lines[HEAD_LINES:], HEAD_LINES + 1)
        if line.strip()
    ]
    if len(rows) > MOST_FRAMES:
        raise RecordError("frames", f"there are {len(rows)}; {MOST_FRAMES} at most are read.")
    places = np.array(rows, float).reshape(len(rows), len(labels), 3) * metres(about["Units"])
    return Recorded(labels=labels, rate_hz=_number(about["DataRate"], 3), places=places)


def _row(line: str, number: int, markers: int) -> list[float]:
    """The places of one line; a cell that is empty, or left off at its end, is a marker not seen."""
    cells = line.split("\t")[2:]
    if any(cell.strip() for cell in cells[3 * markers :]):
        raise RecordError(
            f"line {number}", f"it has more than the {3 * markers} places of {markers} markers."
        )
    told = [_number(cell, number) if cell.strip() else np.nan for cell in cells[: 3 * markers]]
    return told + [np.nan] * (3 * markers - len(told))


def _number(cell: str, line: int) -> float:
    try:
        value = float(cell)
    except ValueError:
        raise RecordError(f"line {line}", f"“{cell.strip()[:20]}” is no number.") from None
    return value if np.isfinite(value) else float("nan")
