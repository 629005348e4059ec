"""The line from toe to toe at address."""

from __future__ import annotations

from collections.abc import Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, beyond, turns_on_floor


@gauge("sagittal")
def toe_line(sheet: Sheet) -> Iterator[Gauge]:
    """It shows whether the stance is open or closed."""
    toes = sheet.pixels("address", "trail_toe", "lead_toe")
    if toes is not None:
        trail, lead = sheet.place("trail_toe", "address"), sheet.place("lead_toe", "address")
        turn = None
        if trail is not None and lead is not None:
            turn = turns_on_floor(trail, lead, from_level=True)
        shape = sheet.shape("address", beyond(toes), "level", "toe_line", turn)
        yield Gauge(id="toe_line", label="Toe line", shapes=(shape,))
