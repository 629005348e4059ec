"""Markers as a TRC table: the text format of tracked markers that OpenSim documents."""

from __future__ import annotations

import numpy as np

from tropometer.swing.formats.in_space import Markers

DIGITS = 3  # of a millimetre


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
