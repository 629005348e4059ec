"""The line through the knees."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal")
def kneecap_level(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how much higher one is."""
    yield Gauge(
        id="kneecap_level", label="Kneecap level", shapes=sheet.levels("knee", "knee_height_difference")
    )
