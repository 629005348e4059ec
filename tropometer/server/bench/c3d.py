"""Markers as a C3D file (c3d.org): what movement laboratories exchange."""

from __future__ import annotations

from typing import Any

import numpy as np

from tropometer.server.rooms import scratch
from tropometer.swing.formats.in_space import Markers

UNSEEN = -1.0  # the residual of a marker that is not there


def c3d_of(markers: Markers) -> bytes:
    """The whole file; Z is up, millimetres."""
    import ezc3d  # it takes a while to load, and few ask for it

    places = np.moveaxis(markers.z_up, 0, -1).swapaxes(0, 1)  # (3, markers, frames)
    seen = np.isfinite(places).all(axis=0)
    file: Any = ezc3d.c3d()
    file["parameters"]["POINT"]["RATE"]["value"] = [markers.rate_hz]
    file["parameters"]["POINT"]["LABELS"]["value"] = list(markers.names)
    file["parameters"]["POINT"]["UNITS"]["value"] = ["mm"]
    file["header"]["points"]["frame_rate"] = markers.rate_hz
    points = np.ones((4, *seen.shape))
    points[:3] = np.where(seen, places, 0.0)
    file["data"]["points"] = points
    file["data"]["meta_points"]["residuals"] = np.where(seen, 0.0, UNSEEN)[None]
    with scratch() as folder:
        target = folder / "marks.c3d"
        file.write(str(target))
        return target.read_bytes()
