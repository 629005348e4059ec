"""How either shoe lies on its edges."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from tropometer.swing.gauges.gauge import Gauge
from tropometer.swing.gauges.register import gauge
from tropometer.swing.gauges.sheet import Sheet


@gauge("frontal")
def shoe_rolls(sheet: Sheet) -> Iterator[Gauge]:
    """From the inner to the outer edge of the sole."""
    for side in ("lead", "trail"):
        edges = (f"{side}_foot_inner", f"{side}_foot_outer")
        shapes = sheet.bones(edges, f"foot_roll_{side}", partial(sheet.turns, from_level=True))
        yield Gauge(id=f"{side}_foot_roll", label=f"{side.capitalize()} shoe roll", shapes=shapes)
