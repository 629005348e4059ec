"""The lead leg as a post."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet

LEG = ("lead_hip", "lead_knee", "lead_ankle")


@gauge("frontal")
def lead_leg(sheet: Sheet) -> Iterator[Gauge]:
    """It shows the lean."""
    yield Gauge(id="lead_leg", label="Lead leg", shapes=sheet.bones(LEG, "lead_leg_lean"))
