"""The gap between the knees at impact."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point


@gauge("frontal")
def knee_gap(sheet: Sheet) -> Iterator[Gauge]:
    """From the trail knee to the lead one."""
    knees = sheet.pixels("impact", "trail_knee", "lead_knee")
    if knees is not None:
        shape = sheet.shape("impact", tuple(map(point, knees)), "span", "knee_gap")
        yield Gauge(id="knee_gap", label="Knee gap", shapes=(shape,))
