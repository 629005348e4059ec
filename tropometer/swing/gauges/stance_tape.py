"""The tape from heel to heel at address."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet, point
from tropometer.swing.gauges.target import Reach, along


@gauge("frontal")
def stance_tape(sheet: Sheet) -> Iterator[Gauge]:
    """It shows how wide the stance is."""
    heels = sheet.pixels("address", "trail_heel", "lead_heel")
    if heels is not None:
        ends = tuple(map(point, heels))
        shape = sheet.shape("address", ends, "span", "stance_width", _wider(sheet), "stance_ratio")
        yield Gauge(id="stance_tape", label="Stance tape", shapes=(shape,))


def _wider(sheet: Sheet) -> Callable[[float], Reach | None] | None:
    """How the lead heel goes along the line as the stance becomes wider, in breadths of the shoulders."""
    trail, lead = sheet.place("trail_heel", "address"), sheet.place("lead_heel", "address")
    if trail is None or lead is None:
        return None
    wide = float(lead[0] - trail[0])
    return lambda ratio: along(lead, 0, wide / ratio)
