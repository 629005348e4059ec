"""The neck, from its base to the middle of the head."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("sagittal")
def neck_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how far the head drops from the line of the spine, at address."""
    shapes = sheet.bones(("neck", "head"), "neck_incline")
    yield Gauge(id="neck_line", label="Neck", shapes=tuple(each for each in shapes if each.at == "address"))
