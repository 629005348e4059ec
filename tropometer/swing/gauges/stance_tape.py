"""The tape from heel to heel at address."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point


@gauge("frontal")
def stance_tape(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how wide the stance is."""
    heels = sheet.pixels("address", "trail_heel", "lead_heel")
    if heels is not None:
        shape = sheet.shape("address", tuple(map(point, heels)), "span", "stance_width")
        yield Gauge(id="stance_tape", label="Stance tape", shapes=(shape,))
